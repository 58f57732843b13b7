/**
 * Market days from before the books began: a row for each product sold on a day, or one for the day's takings alone. What is in them was never in
 * these books' stock, so nothing leaves a lot for it.
 */
import { money } from "../measure/money.ts";
import { micros, sum, type Micros } from "../measure/exact.ts";
import { sayFullDay, type Day } from "../when.ts";
import { cellsOf, type Cells, type Reading } from "./cells.ts";
import { groupsOf, heldBack, oneOfAll } from "./groups.ts";
import type { ListRead, ListRow, ListSpec, RowProblem } from "./list.ts";
import { calledIn, unknownNames, type ProductFinder } from "./products.ts";

export type DayField = "market" | "day" | "product" | "size" | "units" | "price" | "takings" | "fee" | "travel" | "hours" | "note";

export const DAYS: ListSpec<DayField> = {
  fields: {
    market: "Market",
    day: "Day",
    product: "Product",
    size: "Size",
    units: "Sold",
    price: "Price of one",
    takings: "Takings",
    fee: "Stall fee",
    travel: "Travel",
    hours: "Hours",
    note: "Note",
  },
  words: {
    fee: ["stall fee", "stall", "fee", "pitch", "table", "rent"],
    travel: ["travel", "fuel", "petrol", "drive", "parking", "mileage"],
    hours: ["hours", "hrs", "time"],
    takings: ["takings", "took", "total", "revenue", "income", "turnover", "sales", "sum", "amount"],
    price: ["price", "each"],
    units: ["sold", "units", "qty", "quantity", "count", "pieces", "how many", "number"],
    day: ["date", "day", "when"],
    size: ["size", "fill", "container", "weight", "tin"],
    note: ["note", "remark", "comment", "weather"],
    market: ["market", "fair", "place", "where", "event", "venue", "location"],
    product: ["product", "item", "article", "goods", "what", "name"],
  },
  first: "market",
  needed: ["market", "day"],
  group: "market",
  carried: ["market", "day"],
  figures: ["units", "price", "takings", "fee", "travel", "hours"],
  days: { day: "past" },
};

export interface PastSale {
  /** Null for what isn't told by product, or is no product any more. */
  productId: number | null;
  /** As the list has it. */
  name: string;
  units: number;
  /** Of all of them. */
  takings: Micros;
}

export interface DayLine {
  row: number;
  market: string;
  day: Day;
  stallFee: Micros;
  travel: Micros;
  minutes: number;
  note: string;
  sales: PastSale[];
}

/** The answer to a name that is no product any more: its takings count all the same. */
export const NO_PRODUCT = "none";
const MOST_UNITS = 10_000;
/** Longer than any market, with the drive. */
const MOST_HOURS = 48;

/** How a day is told that the books have already. @example sameDay("The Green", "2026-05-02") // "the green|2026-05-02" */
export const sameDay = (market: string, day: Day): string => `${market.trim().toLowerCase()}|${day}`;

/**
 * Every market day with what was sold on it.
 * @param there days the books have, as `sameDay` tells them
 * @example readDays([], noProducts, new Set(), reading).fresh // []
 */
export function readDays(
  rows: readonly ListRow<DayField>[],
  products: ProductFinder,
  there: ReadonlySet<string>,
  reading: Reading,
): ListRead<DayLine> {
  const out: ListRead<DayLine> = { fresh: [], there: [], problems: [], unknown: [], remarks: [] };
  const unknown = unknownNames();

  const sale = (row: ListRow<DayField>, cells: Cells<DayField>): PastSale | null => {
    const [product, size] = [cells.text("product", 120), cells.text("size", 60)];
    const name = calledIn(product, size);
    const units = cells.whole("units", MOST_UNITS);
    const [price, took] = [cells.money("price"), cells.money("takings")];
    if (name === "" && units === null && took === null) return null;
    const productId = product === "" ? null : products.find(product, size);
    if (product !== "" && productId === null && products.said(product, size) !== NO_PRODUCT) {
      unknown.add(name);
      return cells.fail(`“${name}” is no product of yours, or more than one.`);
    }
    const worked = price !== null && units !== null ? micros(price * units) : null;
    const takings = took ?? worked;
    if (takings === null)
      return cells.problems.length > 0 ? null : cells.fail(`It says neither what “${name || "it"}” took, nor how many at what price.`);
    if (took !== null && worked !== null && took !== worked)
      out.remarks.push({
        row: row.at,
        say: `It took ${money(took, reading.own)}, not ${units} × ${money(price!, reading.own)}: what it took counts.`,
      });
    if (product !== "" && units === null)
      return cells.problems.length > 0 ? null : cells.fail(`It doesn't say how many of “${name}” were sold.`);
    return { productId, name: name || "Not told by product", units: units ?? 0, takings };
  };

  for (const { rows: own } of groupsOf(rows, (r) => [r.text("market"), r.text("day")].join("\n").toLowerCase())) {
    const problems: RowProblem[] = [];
    const read = own.map((row) => {
      const cells = cellsOf(row, reading, DAYS.fields);
      const of = {
        row: row.at,
        market: cells.text("market", 80) || cells.fail("It doesn't say which market."),
        day: cells.day("day", "past") ?? (row.text("day") === "" ? cells.fail("It doesn't say on which day.") : null),
        sale: sale(row, cells),
        fee: cells.money("fee"),
        travel: cells.money("travel"),
        hours: cells.number("hours", MOST_HOURS),
        note: cells.text("note", 1000),
      };
      problems.push(...cells.problems);
      return of;
    });
    const [fee, travel, hours] = (["fee", "travel", "hours"] as const).map((f) => {
      const one = oneOfAll<number>(
        read.map((r) => ({ row: r.row, value: r[f] })),
        DAYS.fields[f].toLowerCase(),
      );
      if (one.problem) problems.push(one.problem);
      return one.value;
    });
    const sales = read.flatMap((r) => r.sale ?? []);
    const [head] = read;
    if (sales.length === 0 && problems.length === 0)
      problems.push({ row: own[0]!.at, say: "It doesn't say what was sold, or what it took." });
    if (problems.length > 0) {
      const rowsOf = own.map((r) => r.at);
      out.problems.push(...problems, ...heldBack(rowsOf, problems, "day"));
      continue;
    }
    if (!head?.market || !head.day) continue;
    if (there.has(sameDay(head.market, head.day))) {
      out.there.push({ row: head.row, name: `${head.market}, ${sayFullDay(head.day)}` });
      continue;
    }
    out.fresh.push({
      row: head.row,
      market: head.market,
      day: head.day,
      stallFee: micros(fee ?? 0),
      travel: micros(travel ?? 0),
      minutes: Math.round((hours ?? 0) * 60),
      note: [...new Set(read.map((r) => r.note).filter(Boolean))].join("\n"),
      sales,
    });
  }
  return { ...out, unknown: unknown.all() };
}

/** What a day took. @example takingsOf([]) // 0 */
export const takingsOf = (sales: readonly Pick<PastSale, "takings">[]): Micros => sum(sales.map((s) => s.takings));
