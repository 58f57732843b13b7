/** A price list: a row for each product, a column for each channel it is sold on. */
import type { Micros } from "../measure/exact.ts";
import { CHANNEL_IDS, CHANNELS, type ChannelId } from "../pricing/pricingMethods.ts";
import { cellsOf, type Reading } from "./cells.ts";
import type { ListRead, ListRow, ListSpec } from "./list.ts";
import { productIn, unknownNames, type ProductFinder } from "./products.ts";

export type PriceField = "product" | "size" | ChannelId;

export const PRICES: ListSpec<PriceField> = {
  fields: { product: "Product", size: "Size", ...CHANNELS },
  words: {
    wholesale: ["wholesale", "trade", "reseller", "shops"],
    online: ["online", "web", "internet"],
    gift: ["gift", "order"],
    market: ["market", "stall", "fair", "retail", "price"],
    size: ["size", "fill", "container", "weight", "net", "tin"],
    product: ["product", "item", "article", "name", "recipe", "what"],
  },
  first: "product",
  needed: ["product"],
  group: "product",
  carried: ["product"],
  figures: CHANNEL_IDS,
  days: {},
};

export interface PricesLine {
  row: number;
  productId: number;
  prices: Partial<Record<ChannelId, Micros>>;
}

/**
 * Every row as new prices of a product: those that are another than the one it has.
 * @param now the prices of today, by product
 * @example readPrices([], noProducts, new Map(), reading).fresh // []
 */
export function readPrices(
  rows: readonly ListRow<PriceField>[],
  products: ProductFinder,
  now: ReadonlyMap<number, Partial<Record<ChannelId, Micros>>>,
  reading: Reading,
): ListRead<PricesLine> {
  const out: ListRead<PricesLine> = { fresh: [], there: [], problems: [], unknown: [], remarks: [] };
  const unknown = unknownNames();
  const seen = new Map<number, number>();
  for (const row of rows) {
    const cells = cellsOf(row, reading, PRICES.fields);
    const { name, productId } = productIn(cells, products, unknown);
    const given = CHANNEL_IDS.flatMap((c) => {
      const price = cells.money(c);
      if (price === 0) cells.fail(`The price on ${CHANNELS[c].toLowerCase()} is nothing.`);
      return price === null ? [] : [[c, price] as const];
    });
    if (given.length === 0 && cells.problems.length === 0) cells.fail(`“${name}” has no price.`);
    const twice = productId === null ? undefined : seen.get(productId);
    if (twice !== undefined) cells.fail(`“${name}” is in row ${twice} already.`);
    out.problems.push(...cells.problems);
    if (cells.problems.length > 0 || productId === null) continue;
    seen.set(productId, row.at);
    const other = given.filter(([c, price]) => now.get(productId)?.[c] !== price);
    if (other.length === 0) out.there.push({ row: row.at, name });
    else out.fresh.push({ row: row.at, productId, prices: Object.fromEntries(other) });
  }
  return { ...out, unknown: unknown.all() };
}
