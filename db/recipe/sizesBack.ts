/** The sizes of a recipe put back as they were, for the acts that write them; and which of them were ever used. */
import { Refused } from "#core/refused";
import { and, eq, getTableColumns, inArray } from "drizzle-orm";
import { array } from "yup";
import { leftRow } from "../act/left.ts";
import { requireNoLaterActs } from "../ledger/effective.ts";
import type { Tx } from "../client.ts";
import { batchSize, giftItem, lot, pastSale, price, product, productPackaging } from "../schema.ts";
import { WRITES_VERSION } from "./versions.ts";

/** Whether anything was ever made, priced, sold or ordered of these sizes; the ids of those. */
export async function everUsed(tx: Tx, ids: readonly number[]): Promise<Set<number>> {
  if (ids.length === 0) return new Set();
  const used = new Set<number>();
  for (const [table, column] of [
    [batchSize, batchSize.productId],
    [giftItem, giftItem.productId],
    [price, price.productId],
    // There before the books began, or sold then.
    [lot, lot.productId],
    [pastSale, pastSale.productId],
  ] as const)
    for (const r of await tx
      .selectDistinct({ id: column })
      .from(table)
      .where(inArray(column, [...ids])))
      if (r.id !== null) used.add(r.id);
  return used;
}

interface SizeRows {
  sizes: (typeof product.$inferSelect)[];
  packaging: (typeof productPackaging.$inferSelect)[];
}

const ofBase = (recipeId: number) => and(eq(product.recipeId, recipeId), eq(product.variant, ""));

/** The sizes of a recipe as they are, for an act that may change them; its variants it never does. */
export const sizeRows = async (tx: Tx, recipeId: number): Promise<SizeRows> => ({
  sizes: await tx.select().from(product).where(ofBase(recipeId)),
  packaging: await tx
    .select(getTableColumns(productPackaging))
    .from(productPackaging)
    .innerJoin(product, eq(product.id, productPackaging.productId))
    .where(ofBase(recipeId)),
});

/** How they are read again from what an act left. */
export const leftSizes = {
  sizes: array().of(leftRow(product)).required(),
  packaging: array().of(leftRow(productPackaging)).required(),
};

/**
 * The sizes of a recipe as they were before the act that is taken back.
 * @throws Refused when the recipe was written since, or something was made, priced or ordered of a size that was not there
 */
export async function restoreSizes(tx: Tx, recipeId: number, was: SizeRows, undoes: number): Promise<void> {
  await requireNoLaterActs(
    tx,
    { kind: "recipe", id: recipeId },
    undoes,
    [...WRITES_VERSION, "deleteRecipe", "retireProduct", "deleteProduct", "noteFirmness"],
    "The recipe has been saved or deleted since, a size of it put away, or its firmness noted.",
  );
  const now = await sizeRows(tx, recipeId);
  const before = new Set(was.sizes.map((s) => s.id));
  const fresh = now.sizes.filter((s) => !before.has(s.id));
  const used = await everUsed(
    tx,
    fresh.map((s) => s.id),
  );
  const [kept] = fresh.filter((s) => used.has(s.id));
  if (kept)
    throw Refused.one("", `Something has been set out, priced or ordered of the size ${kept.label} since. Take that back first.`, [
      { to: `/prices/${kept.id}`, name: kept.label },
    ]);
  const all = [...now.sizes, ...was.sizes].map((s) => s.id);
  if (all.length > 0) await tx.delete(productPackaging).where(inArray(productPackaging.productId, all));
  if (fresh.length > 0)
    await tx.delete(product).where(
      inArray(
        product.id,
        fresh.map((s) => s.id),
      ),
    );
  const there = new Set(now.sizes.map((s) => s.id));
  for (const s of was.sizes) {
    const { id, ...rest } = s;
    if (there.has(id)) await tx.update(product).set(rest).where(eq(product.id, id));
    else await tx.insert(product).overridingSystemValue().values(s);
  }
  if (was.packaging.length > 0) await tx.insert(productPackaging).overridingSystemValue().values(was.packaging);
}
