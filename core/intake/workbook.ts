/**
 * The sheets of a spreadsheet's own file as the text of a table, for the same reading as a pasted one: every number so that it has one reading,
 * every day as its date.
 */
import Papa from "papaparse";

/** A number as the file has it. */
export interface WorkbookNumber {
  number: string;
}
export type WorkbookCell = string | boolean | Date | WorkbookNumber | null;

/** A binary fraction's last digits, such as 21.599999999999998, say nothing. */
const DIGITS = 12;
/** With three decimals it could be thousands. @example plainNumber("1.234") // "1.2340" */
export function plainNumber(text: string): string {
  const n = Number(text);
  if (!Number.isFinite(n)) return text;
  const plain = Number(n.toPrecision(DIGITS)).toLocaleString("en", { useGrouping: false, maximumFractionDigits: 10 });
  return /\.\d{3}$/.test(plain) ? `${plain}0` : plain;
}

/** Hours alone are counted from the spreadsheets' own beginning of time. */
const FIRST_YEAR = 1901;

/** @example cellText(new Date("2026-11-14T00:00Z")) // "2026-11-14" */
export function cellText(cell: WorkbookCell): string {
  if (cell === null) return "";
  if (typeof cell === "string") return cell;
  if (typeof cell === "boolean") return cell ? "yes" : "no";
  if (cell instanceof Date) {
    const [day, time] = cell.toISOString().split("T") as [string, string];
    return cell.getUTCFullYear() < FIRST_YEAR ? time.slice(0, 5) : day;
  }
  return plainNumber(cell.number);
}

/**
 * A sheet as text: tabs between cells, all of them in quotes, rows equally long, so that nothing in a cell parts it.
 * @example textOfSheet([["Wax", { number: "21.6" }]]) // "\"Wax\"\t\"21.6\""
 */
export function textOfSheet(rows: readonly (readonly WorkbookCell[])[]): string {
  const width = rows.reduce((most, r) => Math.max(most, r.length), 0);
  return Papa.unparse(
    rows.map((r) => Array.from({ length: width }, (_, i) => cellText(r[i] ?? null))),
    { delimiter: "\t", quotes: true, newline: "\n" },
  );
}
