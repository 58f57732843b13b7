/** Chosen prices per product and channel. */
import type { Micros } from "#core/measure/exact";
import type { ChannelId } from "#core/pricing/schools";
import { Refused } from "#core/refused";
import { eq, sql } from "drizzle-orm";
import { perform, type Doing, type Done } from "../act.ts";
import type { Db, Reads } from "../client.ts";
import { prepared } from "../prepared.ts";
import { price, product } from "../schema.ts";

export type ChosenPrices = Map<number, Partial<Record<ChannelId, Micros>>>;

/** The newest chosen price of every product on every channel. */
export async function chosenPrices(db: Reads): Promise<ChosenPrices> {
  const newest = prepared(db, "chosen_prices", () =>
    db
      .selectDistinctOn([price.productId, price.channel])
      .from(price)
      .orderBy(price.productId, price.channel, sql`${price.id} desc`),
  );
  const rows = await newest.execute();
  const found: ChosenPrices = new Map();
  for (const r of rows) found.set(r.productId, { ...found.get(r.productId), [r.channel]: r.price });
  return found;
}

/** Chooses prices for a product (absent channels stay) and keeps its own figure. */
export function choosePrices(
  db: Db,
  input: { productId: number; own: Micros | null; prices: Partial<Record<ChannelId, Micros>> },
  doing: Doing,
): Promise<Done> {
  return perform(db, "price", doing, async (tx, actId) => {
    const [row] = await tx
      .update(product)
      .set({ ownPrice: input.own })
      .where(eq(product.id, input.productId))
      .returning({ id: product.id });
    if (!row) throw Refused.one("", "That product isn't here any more.");
    const rows = Object.entries(input.prices).map(([channel, p]) => ({
      actId,
      productId: input.productId,
      channel: channel as ChannelId,
      price: p,
    }));
    if (rows.length > 0) await tx.insert(price).values(rows);
    return { path: `/prices/${input.productId}`, summary: "Prices kept" };
  });
}
