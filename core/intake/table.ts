/**
 * Reading a table somebody else's program wrote: separators, quotes and a byte-order mark are Papa Parse's business; what the
 * columns mean is ours.
 */
import Papa from "papaparse";
import { groupBy } from "../collect.ts";
import { writeNumber } from "../numbers.ts";
import { done, refuse, type Outcome } from "../outcome.ts";
import type { Row } from "./columns.ts";

export interface Table {
  /** Column names; "Column 3" where the file has none. */
  header: string[];
  rows: string[][];
}

/** More lines than any receipt box holds; beyond it a file is something else. */
export const MOST_ROWS = 20_000;

/** Wider than any list of goods. */
const MOST_COLUMNS = 200;
/** Blank rows included, so that nothing endless is taken apart. */
const MOST_READ = 2 * MOST_ROWS;
const count = (n: number): string => writeNumber(n, 0, 0);

const NUMBERISH = /^[\p{Sc}\s]*[-+]?[\d.,' ]*\d[\d.,' ]*[\p{Sc}%\s]*$/u;
/** Whether a cell is a number and no name. @example isNumberish("€ 12,50") // true */
export const isNumberish = (cell: string): boolean => NUMBERISH.test(cell);

/** How many rows tell what parts their cells. */
const TELLING = 60;
/**
 * What parts the cells: what parts most rows into the same, large number of them. Titles and notes around a table, which have marks of
 * their own, don't count then.
 */
function delimiterOf(text: string): string {
  const score = (delimiter: string): number => {
    const { data } = Papa.parse<string[]>(text, { delimiter, preview: TELLING, skipEmptyLines: "greedy" });
    const widths = groupBy(data, (r) => r.length);
    return Math.max(0, ...[...widths].map(([width, rows]) => (width - 1) * rows.length));
  };
  return [";", "\t", ",", "|"].map((mark) => ({ mark, of: score(mark) })).reduce((a, b) => (b.of > a.of ? b : a)).mark;
}

/**
 * Reads text as rows of cells, blank rows left out. Each row has its number in the file.
 * @param least so many columns are needed; goods have a name and a figure
 * @returns problems `empty`, `notText`, `tooLong`, `oneColumn`, `tooWide`
 * @example readRows("Shea;12,50\n\nOlive;7") // [{ at: 1, cells: ["Shea", "12,50"] }, { at: 3, cells: ["Olive", "7"] }]
 */
export function readRows(text: string, { least = 2 }: { least?: number } = {}): Outcome<Row[]> {
  const clean = text.replace(/^\ufeff/, "");
  if (clean.trim() === "") return refuse("empty", "There is nothing in it.");
  // A picture or a workbook read as text is full of characters no table has.
  const head = clean.slice(0, 4000);

  if (/[\u0000-\u0008\u000e-\u001f\ufffd]/.test(head) || head.startsWith("%PDF") || head.startsWith("{\\rtf"))
    return refuse("notText", "This isn't a table as text. In your spreadsheet, save it as CSV and choose that file.");
  // Counted before it is taken apart: twice as many line breaks as lines are wanted is a file of something else.
  const { data } = Papa.parse<string[]>(clean, { preview: MOST_READ, delimiter: delimiterOf(clean) });
  const rows = data.flatMap((cells, i) => {
    const trimmed = cells.map((c) => c.trim());
    return trimmed.some((c) => c !== "") ? [{ at: i + 1, cells: trimmed }] : [];
  });
  if (rows.length > MOST_ROWS + 1) {
    const many = data.length === MOST_READ ? `over ${count(rows.length - 1)}` : count(rows.length - 1);
    return refuse("tooLong", `It has ${many} lines; up to ${count(MOST_ROWS)} at a time can be read. Split it.`);
  }
  const width = rows.reduce((most, r) => Math.max(most, r.cells.length), 0);
  if (width < least) return refuse("oneColumn", "It has only one column. A list needs at least a material, a pack and a price.");
  if (width > MOST_COLUMNS)
    return refuse("tooWide", `It has ${count(width)} columns; a receipt has a dozen. Save only the part with the goods.`);
  return done(rows);
}

/** The names of columns; "Column 3" where a table has none. */
export const headerOf = (rows: readonly Row[], names: readonly string[]): string[] =>
  Array.from({ length: rows.reduce((most, r) => Math.max(most, r.cells.length), names.length) }, (_, i) => names[i] || `Column ${i + 1}`);

/**
 * Reads text as a table whose first row names its columns, where that has no number in it.
 * @returns problems of `readRows`
 * @example readTable("name;price\nShea;12,50") // { header: ["name", "price"], rows: [["Shea", "12,50"]] }
 */
export function readTable(text: string): Outcome<Table> {
  const read = readRows(text);
  if (!read.ok) return read;
  const [first, ...rest] = read.value as [Row, ...Row[]];
  const named = rest.length > 0 && !first.cells.some(isNumberish);
  return done({ header: headerOf(read.value, named ? first.cells : []), rows: (named ? rest : read.value).map((r) => r.cells) });
}
