/** Finished goods that were there before the books began: a row for each lot in the cabinet. */
import type { Micros } from "../measure/exact.ts";
import { addMonths, sayFullDay, type Day } from "../when.ts";
import { cellsOf, type Reading } from "./cells.ts";
import type { ListRead, ListRow, ListSpec } from "./list.ts";
import { productIn, unknownNames, type ProductFinder } from "./products.ts";

export type FinishedField = "product" | "size" | "units" | "made" | "bestBefore" | "lot" | "cost";

export const FINISHED: ListSpec<FinishedField> = {
  fields: {
    product: "Product",
    size: "Size",
    units: "Units",
    made: "Made on",
    bestBefore: "Best before",
    lot: "Lot on it",
    cost: "Cost of one",
  },
  words: {
    bestBefore: ["best before", "best by", "bbe", "bbd", "expir", "use by", "good until", "keeps until"],
    made: ["made", "poured", "produced", "batch date", "date"],
    lot: ["lot", "batch", "charge"],
    cost: ["cost of one", "unit cost", "cost each", "cost"],
    units: ["units", "on hand", "in stock", "stock", "qty", "quantity", "count", "pieces", "how many", "left", "amount"],
    size: ["size", "fill", "container", "weight", "net", "tin"],
    product: ["product", "item", "article", "name", "recipe", "what", "goods"],
  },
  first: "product",
  needed: ["product", "units"],
  group: "product",
  carried: ["product"],
  figures: ["units", "cost"],
  days: { made: "past", bestBefore: "any" },
};

export interface FinishedLine {
  row: number;
  productId: number;
  units: number;
  /** Of one; null where nobody knows. */
  cost: Micros | null;
  /** What is written on the tin. */
  lotOnIt: string;
  made: Day | null;
  bestBefore: Day | null;
  /** Its day follows from when it was made and how long its recipe keeps: nothing is printed on it, or nobody noted it. */
  worked: boolean;
}

/** More of one lot than a kitchen fills. */
const MOST_UNITS = 10_000;

/** What tells a lot that was put in already. @example sameLot({ productId: 1, lotOnIt: "L7", made: null, bestBefore: null }) // "1|l7||" */
export const sameLot = ({
  productId,
  lotOnIt,
  made,
  bestBefore,
}: Pick<FinishedLine, "productId" | "lotOnIt" | "made" | "bestBefore">): string =>
  [productId, lotOnIt.toLowerCase(), made ?? "", bestBefore ?? ""].join("|");

/**
 * Every row as a lot to put into the cabinet.
 * @param keeps months by product
 * @param there lots that were put in so already, as `sameLot` tells them
 * @example readFinished([], noProducts, new Map(), new Set(), reading).fresh // []
 */
export function readFinished(
  rows: readonly ListRow<FinishedField>[],
  products: ProductFinder,
  keeps: ReadonlyMap<number, number>,
  there: ReadonlySet<string>,
  reading: Reading,
): ListRead<FinishedLine> {
  const out: ListRead<FinishedLine> = { fresh: [], there: [], problems: [], unknown: [], remarks: [] };
  const unknown = unknownNames();
  for (const row of rows) {
    const cells = cellsOf(row, reading, FINISHED.fields);
    const { name, productId } = productIn(cells, products, unknown);
    const units = cells.whole("units", MOST_UNITS);
    if (units === 0 || (units === null && row.text("units") === "")) cells.fail(`It doesn't say how many there are of “${name}”.`);
    const said = {
      lotOnIt: cells.text("lot", 60),
      made: cells.day("made", "past"),
      bestBefore: cells.day("bestBefore", "any"),
      cost: cells.money("cost"),
    };
    if (said.made && said.bestBefore && said.bestBefore < said.made) cells.fail("It is best before a day sooner than it was made on.");
    out.problems.push(...cells.problems);
    if (cells.problems.length > 0 || productId === null || units === null) continue;
    if (there.has(sameLot({ productId, ...said }))) {
      out.there.push({ row: row.at, name });
      continue;
    }
    const months = keeps.get(productId);
    const worked = said.bestBefore === null && said.made !== null && months !== undefined;
    const lot: FinishedLine = {
      ...{ row: row.at, productId, units, ...said },
      ...{ worked, bestBefore: worked ? addMonths(said.made!, months) : said.bestBefore },
    };
    out.fresh.push(lot);
    if (lot.bestBefore !== null && lot.bestBefore < reading.today)
      out.remarks.push({
        row: row.at,
        say: `“${name}” is past its day, ${sayFullDay(lot.bestBefore)}: it goes in and stays off the stall.`,
      });
  }
  return { ...out, unknown: unknown.all() };
}
