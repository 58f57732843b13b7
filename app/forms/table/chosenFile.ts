/** A chosen file as the text of its tables: one where it is text, one for each filled sheet where it is a spreadsheet's own file. */
import { done, refuse, type Outcome } from "#core/outcome";
import { MOST_BYTES, textOf, TOO_LARGE } from "./decode.ts";
import type { Answered, SheetText } from "./workbookWorker.ts";

/** Longer than any such file takes to be read. */
const LONGEST_MS = 60_000;
const begins = (bytes: Uint8Array, ...with_: number[]): boolean => with_.every((b, i) => bytes[i] === b);

const sheetsOf = (bytes: Uint8Array<ArrayBuffer>): Promise<SheetText[] | null> =>
  new Promise((resolve) => {
    const worker = new Worker(new URL("./workbookWorker.ts", import.meta.url), { type: "module" });
    const end = (sheets: SheetText[] | null): void => {
      clearTimeout(late);
      worker.terminate();
      resolve(sheets);
    };
    const late = setTimeout(() => end(null), LONGEST_MS);
    worker.onmessage = ({ data }: MessageEvent<Answered>) => end(data.ok ? data.sheets : null);
    worker.onerror = () => end(null);
    worker.postMessage(bytes.buffer, [bytes.buffer]);
  });

/**
 * Reads a chosen file.
 * @returns its tables, each with the name of its sheet, which is empty where it is text; problems `tooLarge`, `notText`, `oldWorkbook`, `notRead`, `empty`
 */
export async function tablesOf(file: Blob): Promise<Outcome<SheetText[]>> {
  if (file.size > MOST_BYTES) return TOO_LARGE;
  const bytes = new Uint8Array(await file.arrayBuffer());
  if (begins(bytes, 0xd0, 0xcf, 0x11, 0xe0))
    return refuse("oldWorkbook", "That is a spreadsheet of the older kind (.xls). Save it as .xlsx or as CSV and choose that file.");
  if (!begins(bytes, 0x50, 0x4b)) {
    const text = textOf(bytes);
    return text.ok ? done([{ name: "", text: text.value }]) : text;
  }
  const sheets = await sheetsOf(bytes);
  if (sheets === null)
    return refuse("notRead", "That file can't be read as a spreadsheet. Save it as .xlsx or as CSV and choose that file.");
  const filled = sheets.filter((s) => s.text.replace(/["\s]/g, "") !== "");
  return filled.length > 0 ? done(filled) : refuse("empty", "There is nothing in it.");
}
