/** Reads a spreadsheet's own file (.xlsx) in a separate worker, so that the page goes on answering. It is fetched when the first one is chosen. */
import type { WorkbookCell } from "#core/intake/workbook";
import { textOfSheet } from "#core/intake/workbook";
import read from "read-excel-file/web-worker";

/** A sheet of it, as the text of a table. */
export interface SheetText {
  name: string;
  text: string;
}
export type Answered = { ok: true; sheets: SheetText[] } | { ok: false };

self.onmessage = ({ data }: MessageEvent<ArrayBuffer>): void => {
  read(data, { parseNumber: (number) => ({ number }) }).then(
    (sheets) =>
      self.postMessage({
        ok: true,
        sheets: sheets.map(({ sheet, data: rows }) => ({ name: sheet, text: textOfSheet(rows as unknown as WorkbookCell[][]) })),
      } satisfies Answered),
    () => self.postMessage({ ok: false } satisfies Answered),
  );
};
