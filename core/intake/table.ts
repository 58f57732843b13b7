/**
 * Reading a table somebody else's program wrote: separators, quotes and a byte-order mark are Papa Parse's business; what the
 * columns mean is ours.
 */
import Papa from "papaparse";
import { writeNumber } from "../measure/write.ts";
import { done, refuse, type Outcome } from "../outcome.ts";

export interface Table {
  /** Column names; "Column 3" where the file has none. */
  header: string[];
  rows: string[][];
}

/** More lines than any receipt box holds; beyond it a file is something else. */
export const MOST_ROWS = 20_000;

/** Wider than any list of goods. */
const MOST_COLUMNS = 200;
const count = (n: number): string => writeNumber(n, 0, 0);

const NUMBERISH = /^[\p{Sc}\s]*[-+]?[\d.,' ]*\d[\d.,' ]*[\p{Sc}%\s]*$/u;

/**
 * Reads text as a table.
 * @returns problems `empty`, `notText`, `tooLong`, `oneColumn`, `tooWide`
 * @example readTable("name;price\nShea;12,50") // { header: ["name", "price"], rows: [["Shea", "12,50"]] }
 */
export function readTable(text: string): Outcome<Table> {
  const clean = text.replace(/^\ufeff/, "");
  if (clean.trim() === "") return refuse("empty", "There is nothing in it.");
  // A picture or a workbook read as text is full of characters no table has.
  const head = clean.slice(0, 4000);

  if (/[\u0000-\u0008\u000e-\u001f\ufffd]/.test(head) || head.startsWith("%PDF") || head.startsWith("{\\rtf"))
    return refuse("notText", "This isn't a table as text. In your spreadsheet, save it as CSV and choose that file.");
  // Counted before it is taken apart: twice as many line breaks as lines are wanted is a file of something else.
  const { data } = Papa.parse<string[]>(clean, { skipEmptyLines: "greedy", preview: 2 * MOST_ROWS });
  if (data.length > MOST_ROWS + 1) {
    const many = data.length === 2 * MOST_ROWS ? `over ${count(data.length - 1)}` : count(data.length - 1);
    return refuse("tooLong", `It has ${many} lines; up to ${count(MOST_ROWS)} at a time can be read. Split it.`);
  }
  const width = data.reduce((most, r) => Math.max(most, r.length), 0);
  if (width < 2) return refuse("oneColumn", "It has only one column. A receipt needs at least a material, a pack and a price.");
  if (width > MOST_COLUMNS)
    return refuse("tooWide", `It has ${count(width)} columns; a receipt has a dozen. Save only the part with the goods.`);
  const rows = data.map((r) => r.map((c) => c.trim()));
  const first = rows[0]!;
  const named = rows.length > 1 && !first.some((c) => c !== "" && NUMBERISH.test(c));
  const header = Array.from({ length: width }, (_, i) => (named && first[i]) || `Column ${i + 1}`);
  return done({ header, rows: named ? rows.slice(1) : rows });
}

/** Signs a spreadsheet takes for the beginning of a formula, full-width ones too, and characters it skips before one. */
const RUNS = /^[\s\p{Cf}\p{Cc}]*[=+\-@\uff1d\uff0b\uff0d\uff20\u2212|]|^[\t\r\n]/u;
const A_NUMBER = /^[-+]?\d+(?:[.,]\d+)?$/;

/** A cell that a spreadsheet would run is kept as text (OWASP, "CSV Injection"); a plain number stays one. */
const asText = (cell: string): string => (RUNS.test(cell) && !A_NUMBER.test(cell) ? `'${cell}` : cell);

/**
 * Writes a table as CSV with a byte-order mark, so that spreadsheets read its letters right.
 * @example writeTable(["a"], [["b, c"]]) // '\ufeffa\r\n"b, c"\r\n'
 */
export const writeTable = (header: readonly string[], rows: readonly (readonly string[])[]): string =>
  `\ufeff${Papa.unparse(
    [header, ...rows].map((r) => r.map(asText)),
    { newline: "\r\n" },
  )}\r\n`;
