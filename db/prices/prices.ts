/** Chosen prices per product and channel. */
import type { Micros } from "#core/measure/exact";
import { CHANNEL_IDS, type ChannelId } from "#core/pricing/pricingMethods";
import type { ChosenPrice } from "#core/pricing/history";
import { Refused } from "#core/refused";
import { counted, wordList } from "#core/words";
import { and, eq, inArray, sql, type SQL } from "drizzle-orm";
import { object } from "yup";
import { defineAct } from "../act/define.ts";
import { undoId, undoMicros } from "../act/left.ts";
import { requireUnchanged } from "../act/seen.ts";
import { notReversed, requireNoLaterActs } from "../ledger/effective.ts";
import type { Reads } from "../client.ts";
import { anyOf, inChunks } from "../pieces.ts";
import { runPrepared } from "../prepared.ts";
import { act, price, product, recipe } from "../schema.ts";
import { bare } from "../schema/ours.ts";

export type ChosenPrices = Map<number, Partial<Record<ChannelId, Micros>>>;

/** The newest chosen price of these products on every channel; of all when none are named. */
export async function chosenPrices(db: Reads, products?: readonly number[]): Promise<ChosenPrices> {
  const newest = (some?: SQL) =>
    db
      .selectDistinctOn([price.productId, price.channel], { productId: price.productId, channel: price.channel, price: price.price })
      .from(price)
      .where(and(notReversed(price.actId), some))
      .orderBy(price.productId, price.channel, sql`${price.id} desc`);
  const rows = await (products
    ? runPrepared(db, "chosen_prices_of", { products }, (at) => newest(anyOf(price.productId, at.products)))
    : runPrepared(db, "chosen_prices", {}, () => newest()));
  const found: ChosenPrices = new Map();
  for (const r of rows) found.set(r.productId, { ...found.get(r.productId), [r.channel]: r.price });
  return found;
}

/** Every price that was chosen for a product and stands, in the order they were chosen, each with the day it counts from. */
export const chosenSoFar = (db: Reads, productId: number): Promise<ChosenPrice[]> =>
  db
    .select({ actId: price.actId, day: act.day, channel: price.channel, price: price.price })
    .from(price)
    .innerJoin(act, eq(act.id, price.actId))
    .where(and(eq(price.productId, productId), notReversed(price.actId)))
    .orderBy(price.id);

export interface PricesIn {
  productId: number;
  own: Micros | null;
  prices: Partial<Record<ChannelId, Micros>>;
}

/** Chooses prices for a product (absent channels stay) and saves its own figure. @throws EditedMeanwhile */
export const choosePrices = defineAct({
  kind: "price",
  run: async (tx, input: PricesIn, { actId, seen }) => {
    const [was] = await tx
      .select({ own: product.ownPrice, name: recipe.name, label: product.label })
      .from(product)
      .innerJoin(recipe, eq(recipe.id, product.recipeId))
      .where(eq(product.id, input.productId))
      .for("no key update", { of: bare(product) });
    if (!was) throw Refused.one("", "That product isn't here any more.");
    await requireUnchanged(tx, { kind: "product", id: input.productId }, seen);
    await tx.update(product).set({ ownPrice: input.own }).where(eq(product.id, input.productId));
    const rows = CHANNEL_IDS.flatMap((channel) => {
      const chosen = input.prices[channel];
      return chosen === undefined ? [] : [{ actId, productId: input.productId, channel, price: chosen }];
    });
    if (rows.length > 0) await tx.insert(price).values(rows);
    return {
      path: `/prices/${input.productId}`,
      summary: `Prices saved for ${was.name}, ${was.label}`,
      about: [{ kind: "product", id: input.productId, changes: true }],
      leaves: { productId: input.productId, own: was.own },
    };
  },
  leaves: object({ productId: undoId(), own: undoMicros().nullable() }),
  // Prices of an act that is taken back count no more; that is asked of the act they were chosen by.
  back: async (tx, { productId, own }, { undoes }) => {
    await requireNoLaterActs(tx, { kind: "product", id: productId }, undoes, ["price"], "Other prices have been saved since.");
    await tx.update(product).set({ ownPrice: own }).where(eq(product.id, productId));
  },
});

export interface ListPricesIn {
  lines: readonly {
    productId: number;
    prices: Partial<Record<ChannelId, Micros>>;
    /** What was asked there when these were offered; unchecked where absent. */
    was?: Partial<Record<ChannelId, Micros>>;
  }[];
  /** Where they were chosen: a list that came in, or the ladder. */
  by?: "list" | "ladder";
}

/**
 * Chooses the prices of a whole list, or none of them; absent channels stay.
 * @throws Refused for a product that has gone, or a price that is another by now
 */
export const choosePricesOfList = defineAct({
  kind: "listPrices",
  run: async (tx, { lines, by = "list" }: ListPricesIn, { actId }) => {
    const ids = [...new Set(lines.map((l) => l.productId))];
    const there =
      ids.length === 0
        ? []
        : await tx
            .select({ id: product.id, name: recipe.name, label: product.label })
            .from(product)
            .innerJoin(recipe, eq(recipe.id, product.recipeId))
            .where(inArray(product.id, ids))
            .for(by === "ladder" ? "no key update" : "key share", { of: bare(product) });
    if (there.length === 0 || there.length < ids.length)
      throw Refused.one("", "One of these products isn't here any more. Look at the list again.");
    const rows = lines.flatMap((l) =>
      CHANNEL_IDS.flatMap((channel) => {
        const chosen = l.prices[channel];
        return chosen === undefined ? [] : [{ actId, productId: l.productId, channel, price: chosen }];
      }),
    );
    const offered = lines.flatMap((l) =>
      CHANNEL_IDS.flatMap((c) => (l.was?.[c] === undefined ? [] : [[l.productId, c, l.was[c]] as const])),
    );
    if (offered.length > 0) {
      const now = await chosenPrices(tx, ids);
      if (offered.some(([id, c, was]) => now.get(id)?.[c] !== was))
        throw Refused.one("", "That price has been changed since. Look at the ladder again.");
    }
    for (const piece of inChunks(rows)) await tx.insert(price).values(piece);
    return {
      path: by === "ladder" ? "/prices/ladder" : "/prices",
      summary:
        by === "ladder"
          ? `Another price chosen for ${wordList(there.map((p) => `${p.name}, ${p.label}`))}`
          : `${counted(rows.length, "price")} of ${counted(ids.length, "product")} chosen from a list`,
      about: ids.map((id) => ({ kind: "product" as const, id, changes: true })),
      leaves: null,
    };
  },
  leaves: null,
  // As with one product's: prices of an act that is taken back count no more. What was chosen since is newer and stays.
  back: () => Promise.resolve("/prices"),
});
