/**
 * A list as a maker keeps it, whatever it is of: which row has the headings, which column is which, which rows are sums or name those beneath
 * them, and how its numbers and dates are written. What a row means is read beside (`prices.ts`, `orders.ts` and the others).
 */
import { parseNumber } from "../measure/parse.ts";
import { done } from "../outcome.ts";
import type { Day } from "../when.ts";
import { askDates, askNumbers } from "../intake/asked.ts";
import { beneath, chargeOrTotal, headingsAt, textOfRow, type LeftOut } from "../intake/body.ts";
import type { Row } from "../intake/columns.ts";
import { ambiguousCell, dateOrder, looseMoney, numberStyle, settled, type DateOrder, type NumberStyle } from "../intake/loose.ts";
import { isNumberish } from "../intake/table.ts";

export interface ListSpec<F extends string> {
  /** What each field is called, in the order they are shown. */
  fields: Readonly<Record<F, string>>;
  /** Words that begin a word of each field's heading, or with "=" before them are all of it, the surest first. The field that is named first here chooses its column first. */
  words: Readonly<Record<F, readonly string[]>>;
  /** What the first column of a list without headings is. */
  first: F;
  /** What a list can't be read without. */
  needed: readonly F[];
  /** What a row with one word alone names for the rows beneath it. */
  group: F | null;
  /** Columns in which one cell is meant for those beneath it too, the wider one first. */
  carried: readonly F[];
  figures: readonly F[];
  /** Columns of days, and whether those can lie ahead. */
  days: Readonly<Partial<Record<F, "past" | "any">>>;
}

/** Column number per field, or null where there is none. */
export type Columns<F extends string> = Record<F, number | null>;

export interface ListTable<F extends string> {
  /** "Column 2" where a column has no name. */
  header: string[];
  rows: Row[];
  columns: Columns<F>;
  left: LeftOut[];
}

/** Whether a heading has a word, or begins one of its words so; "=no" is the whole of it. */
function says(heading: string, word: string): boolean {
  const plainly = heading
    .toLowerCase()
    .replace(/[^\p{L}\d%'-]+/gu, " ")
    .trim();
  return word.startsWith("=") ? plainly === word.slice(1) : ` ${plainly}`.includes(` ${word}`);
}

/** @example fieldsOf(PEOPLE).includes("name") // true */
export const fieldsOf = <F extends string>(spec: Pick<ListSpec<F>, "fields">): F[] => Object.keys(spec.fields) as F[];

function columnsOf<F extends string>(cells: readonly string[], spec: ListSpec<F>): Columns<F> {
  const taken = new Set<number>();
  const columns = Object.fromEntries(fieldsOf(spec).map((f) => [f, null])) as Columns<F>;
  for (const f of Object.keys(spec.words) as F[]) {
    // The surest word first, wherever its column is.
    const at = spec.words[f].map((w) => cells.findIndex((c, i) => !taken.has(i) && says(c, w))).find((i) => i >= 0) ?? null;
    if (at !== null) taken.add(at);
    columns[f] = at;
  }
  return columns;
}

/**
 * The headings of a list, and what its columns are by them. What is above them is a title; sums and headings written again are left out.
 * @example listTable([{ at: 1, cells: ["Product", "Units"] }, { at: 2, cells: ["Balm", "4"] }, { at: 3, cells: ["Total", "4"] }], FINISHED).rows.length // 1
 */
export function listTable<F extends string>(all: readonly Row[], spec: ListSpec<F>): ListTable<F> {
  const found = headingsAt(all, (cells) => Object.values(columnsOf(cells, spec)).filter((c) => c !== null).length);
  const only = all[0]?.cells.find((c) => c !== "") ?? "";
  const at = found < 0 && new RegExp(`^${spec.fields[spec.first]}s?$`, "i").test(only) ? 0 : found;
  const { header, rows, left } = beneath(all, at);
  const columns: Columns<F> = at < 0 ? { ...columnsOf([], spec), [spec.first]: 0 } : columnsOf(all[at]!.cells, spec);
  // A name may begin like a sum, where there is nothing to add up.
  const isSum = (r: Row): boolean => spec.figures.length > 0 && chargeOrTotal(r, "") === "total";
  const sums = rows.filter(isSum).map((r) => ({ at: r.at, text: textOfRow(r), why: "total" as const }));
  return { header, rows: rows.filter((r) => !isSum(r)), columns, left: [...left, ...sums] };
}

/** A row with the values it has, of the cell above where that is meant for it too. */
export interface ListRow<F extends string> {
  /** Its number in the file. */
  at: number;
  /** All of it, for naming it. */
  whole: string;
  text: (f: F) => string;
  /** What it has from above. */
  above: readonly F[];
}

/**
 * The rows that are something by themselves, each with what it has from the cells above.
 * @example listRows([{ at: 2, cells: ["Balm", "4", ""] }, { at: 3, cells: ["", "5", "H9"] }], { product: 0, units: 1, lot: 2 }, FINISHED).rows[1].text("product") // "Balm"
 */
export function listRows<F extends string>(
  rows: readonly Row[],
  columns: Columns<F>,
  spec: ListSpec<F>,
): { rows: ListRow<F>[]; left: LeftOut[] } {
  const above: Partial<Record<F, string>> = {};
  const left: LeftOut[] = [];
  const found = rows.flatMap((r): ListRow<F>[] => {
    const cell = (f: F): string => (columns[f] === null ? "" : (r.cells[columns[f]] ?? "").replace(/\s+/g, " ").trim());
    const filled = r.cells.flatMap((c, i) => (c === "" ? [] : [i]));
    if (filled.length === 1 && spec.group !== null) {
      const text = r.cells[filled[0]!]!;
      // A word or one number in the column of days is no day: it is there for want of another place.
      const fits = (f: F): boolean => spec.days[f] === undefined || /\d\D+\d/.test(text);
      const named = columns[spec.group] === null && !isNumberish(text) ? spec.group : null;
      const of = spec.carried.find((f) => columns[f] === filled[0] && fits(f)) ?? named;
      if (of === null) left.push({ at: r.at, text: textOfRow(r), why: isNumberish(text) ? "total" : "remark" });
      else {
        above[of] = text;
        // What was narrower belonged to the one before.
        for (const f of spec.carried.slice(spec.carried.indexOf(of) + 1)) above[f] = "";
      }
      return [];
    }
    // Below another market its day is another one, though nobody wrote it again.
    const other = spec.carried.findIndex((f) => cell(f) !== "" && cell(f) !== above[f]);
    const took = spec.carried.filter((f, i) => cell(f) === "" && (above[f] ?? "") !== "" && (other < 0 || i < other));
    const values = new Map(spec.carried.map((f) => [f, took.includes(f) ? above[f]! : cell(f)]));
    for (const f of spec.carried) above[f] = values.get(f)!;
    return [{ at: r.at, whole: textOfRow(r), text: (f) => values.get(f) ?? cell(f), above: took }];
  });
  return { rows: found, left };
}

export interface Written {
  numbers: NumberStyle;
  dates: DateOrder;
}

/** What was chosen; null where nothing was. */
export interface WrittenSaid {
  numbers: NumberStyle | null;
  dates: DateOrder | null;
}

/**
 * How a list writes numbers and dates, by all of its cells; and what has to be said first, in words, empty where nothing has.
 * @param today nothing has been sold after it
 * @example writtenIn([], FINISHED, { numbers: null, dates: null }, "2026-12-01").asked.dates // ""
 */
export function writtenIn<F extends string>(
  rows: readonly ListRow<F>[],
  spec: ListSpec<F>,
  said: WrittenSaid,
  today: Day,
): { written: Written; asked: { numbers: string; dates: string } } {
  const column = (f: F): string[] => rows.map((r) => r.text(f));
  const figures = spec.figures.flatMap(column);
  const numbers = numberStyle(figures);
  const unclear =
    numbers === null
      ? ambiguousCell(figures, (t, s) => {
          const number = parseNumber(settled(t, s, true), "asked");
          if (number.ok) return number;
          const money = looseMoney(t, s);
          return money.ok ? done(money.value.n) : money;
        })
      : null;
  const dates = dateOrder(
    (Object.entries(spec.days) as [F, "past" | "any"][]).map(([f, when]) => ({
      texts: column(f),
      ...(when === "past" ? { latest: today } : {}),
    })),
  );
  return {
    written: { numbers: said.numbers ?? numbers ?? "point", dates: said.dates ?? ("order" in dates ? dates.order : "ymd") },
    asked: {
      numbers: said.numbers || unclear === null ? "" : askNumbers(unclear),
      dates: said.dates || "order" in dates ? "" : askDates(dates),
    },
  };
}

/** A row that can't be read, and why. */
export interface RowProblem {
  row: number;
  say: string;
}

/** What a list becomes: what is new, what the books have already, what can't be read, and names nobody knows. */
export interface ListRead<L> {
  fresh: L[];
  there: { row: number; name: string }[];
  problems: RowProblem[];
  unknown: { name: string; rows: number }[];
  /** What was taken otherwise than it is written, in words. */
  remarks: RowProblem[];
}
