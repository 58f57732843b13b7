/**
 * What of a list is goods: the row of headings is looked for, rows above it are a title, and sums, postage, tax and remarks are left
 * out. Each row that is left out is named.
 */
import { headingsIn, type Row } from "./columns.ts";
import { headerOf, isNumberish } from "./table.ts";

export const LEFT_OUT = {
  title: "above the headings",
  heading: "the headings again",
  total: "a sum",
  charge: "no goods: enter it on the receipt as postage, tax or discount",
  remark: "nothing but a remark",
  blank: "names nothing, and was to be left out",
} as const;
export interface LeftOut {
  at: number;
  text: string;
  why: keyof typeof LEFT_OUT;
}

export interface Body {
  header: string[];
  rows: Row[];
  left: LeftOut[];
}

/** The row of headings is among the first rows, below the sender's name and address at most. */
const SOUGHT_IN = 20;
const TOTAL = /^(?:grand |sub-?|net |gross |order |invoice )?(?:total|sum|balance|amount due|to pay)\b/i;
const CHARGE =
  /^(?:shipping|postage|p ?& ?p|delivery|carriage|freight|handling|packing costs?$|vat|sales tax|tax|gst|discount|rebate|voucher|coupon|rounding|fee)\b/i;

const filled = (r: Row): string[] => r.cells.filter((c) => c !== "");
export const textOfRow = (r: Row): string => filled(r).join(" · ").slice(0, 80);

/**
 * Whether a row is a sum or a charge, by the first word of its name or of the row.
 * @param name the cell in its column of materials
 * @example chargeOrTotal({ at: 9, cells: ["", "Total", "40"] }, "") // "total"
 */
export const chargeOrTotal = (r: Row, name: string): "total" | "charge" | null => {
  const first = r.cells.find((c) => c !== "" && !isNumberish(c)) ?? "";
  const is = (kind: RegExp): boolean => kind.test(name) || kind.test(first);
  return is(TOTAL) ? "total" : is(CHARGE) ? "charge" : null;
};

/** Where the headings are: of the first rows the one that has most of them, two at least. No heading is a number. @returns −1 where none has two */
export function headingsAt(all: readonly Row[], count: (cells: readonly string[]) => number): number {
  const scores = all.slice(0, SOUGHT_IN).map((r) => (r.cells.some((c) => c !== "" && isNumberish(c)) ? 0 : count(r.cells)));
  const best = Math.max(0, ...scores);
  // One word alone may be a title or a name; two are headings.
  return best >= 2 ? scores.indexOf(best) : -1;
}

/** The rows beneath the headings, without those again; what is above them is a title. @param at −1 for rows without headings */
export function beneath(all: readonly Row[], at: number): Body {
  const header = at < 0 ? [] : all[at]!.cells;
  const left: LeftOut[] = all.slice(0, Math.max(at, 0)).map((r) => ({ at: r.at, text: textOfRow(r), why: "title" as const }));
  const again = (r: Row): boolean => at >= 0 && r.cells.join("\n") === header.join("\n");
  const rows = all.slice(at + 1).filter((r) => {
    if (again(r)) left.push({ at: r.at, text: textOfRow(r), why: "heading" });
    return !again(r);
  });
  return { header: headerOf(all, header), rows, left };
}

/**
 * @returns the goods with the names of their columns; rows without a name over them are all goods
 * @example bodyOf([{ at: 1, cells: ["My list", ""] }, { at: 3, cells: ["Item", "Price"] }, { at: 4, cells: ["Shea", "12"] }]).rows.length // 1
 */
export function bodyOf(all: readonly Row[]): Body {
  const at = headingsAt(all, headingsIn);
  // Without headings that are known, a first row without a number names the columns.
  const plain = all.length > 1 && !all[0]!.cells.some(isNumberish) && filled(all[0]!).length > 1 ? 0 : -1;
  return beneath(all, at < 0 ? plain : at);
}
