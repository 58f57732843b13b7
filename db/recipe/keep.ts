/** Putting recipes and their sizes away, taking them out again, and deleting what was never used. */
import { Refused } from "#core/refused";
import { counted, wordList } from "#core/words";
import { and, eq, inArray, sql } from "drizzle-orm";
import { array, object } from "yup";
import { defineAct } from "../act/define.ts";
import { leftRow } from "../act/left.ts";
import { defineRetire } from "../act/retire.ts";
import { requireNoLaterActs } from "../ledger/effective.ts";
import { sqlNumber } from "../columnsOf.ts";
import type { Tx } from "../client.ts";
import {
  batch,
  batchSize,
  giftItem,
  lot,
  pastSale,
  price,
  product,
  productAddition,
  productPackaging,
  recipe,
  recipeLine,
  recipeVersion,
  firmnessTest,
} from "../schema.ts";
import { WRITES_VERSION } from "./versions.ts";

const aboutRecipe = (id: number) => ({ kind: "recipe" as const, id, changes: true });
const aboutProduct = (id: number) => ({ kind: "product" as const, id });

async function heldRecipe(tx: Tx, id: number): Promise<typeof recipe.$inferSelect> {
  const [row] = await tx.select().from(recipe).where(eq(recipe.id, id)).for("no key update");
  if (!row) throw Refused.one("", "That recipe isn't here any more.");
  return row;
}

/** A recipe put away is set out, priced and ordered no more; what there is of it is still sold and counted. */
export const retireRecipe = defineRetire({
  kind: "retireRecipe",
  subject: "recipe",
  at: "/recipes/",
  deletes: "deleteRecipe",
  held: async (tx, id) => {
    const { name, retired } = await heldRecipe(tx, id);
    return { called: name, retired, about: [aboutRecipe(id)] };
  },
  set: (tx, id, retired) => tx.update(recipe).set({ retired }).where(eq(recipe.id, id)),
  back: (name) => `Took ${name} out again`,
});

async function heldProduct(tx: Tx, id: number) {
  const [row] = await tx
    .select({ product, recipe: recipe.name })
    .from(product)
    .innerJoin(recipe, eq(recipe.id, product.recipeId))
    .where(eq(product.id, id))
    .for("no key update");
  if (!row) throw Refused.one("", "That product isn't here any more.");
  return { ...row, called: `${row.recipe}, ${row.product.label}` };
}

/** The same for one size of a recipe. */
export const retireProduct = defineRetire({
  kind: "retireProduct",
  subject: "product",
  at: "/prices/",
  deletes: "deleteProduct",
  held: async (tx, id) => {
    const { called, product: size } = await heldProduct(tx, id);
    return { called, retired: size.retired, about: [aboutProduct(id), aboutRecipe(size.recipeId)] };
  },
  set: (tx, id, retired) => tx.update(product).set({ retired }).where(eq(product.id, id)),
  back: (name) => `Took ${name} out again`,
  // Its recipe's sheet has its sizes on it.
  before: async (tx, id, undoes) => {
    const { product: size } = await heldProduct(tx, id);
    await requireNoLaterActs(
      tx,
      { kind: "recipe", id: size.recipeId },
      undoes,
      [...WRITES_VERSION, "deleteRecipe"],
      "Its recipe has been saved since.",
    );
  },
});

/** What was made, priced or ordered of sizes, in words. */
async function usesOf(tx: Tx, products: readonly number[], recipeId?: number): Promise<string[]> {
  const n = sqlNumber(sql`count(*)`);
  const uses: string[] = [];
  const say = (found: number, one: string, many?: string): void => {
    if (found > 0) uses.push(counted(found, one, many));
  };
  if (products.length > 0) {
    const of = [...products];
    say((await tx.select({ n }).from(lot).where(inArray(lot.productId, of)))[0]!.n, "finished lot");
    say((await tx.select({ n }).from(giftItem).where(inArray(giftItem.productId, of)))[0]!.n, "order");
    say((await tx.select({ n }).from(price).where(inArray(price.productId, of)))[0]!.n, "price");
    say(
      (await tx.select({ n }).from(pastSale).where(inArray(pastSale.productId, of)))[0]!.n,
      "sale of an earlier market day",
      "sales of earlier market days",
    );
    if (recipeId === undefined) say((await tx.select({ n }).from(batchSize).where(inArray(batchSize.productId, of)))[0]!.n, "batch");
  }
  if (recipeId !== undefined) {
    const rows = tx.select({ n }).from(batch).innerJoin(recipeVersion, eq(recipeVersion.id, batch.versionId));
    say((await rows.where(eq(recipeVersion.recipeId, recipeId)))[0]!.n, "batch");
    const felt = tx.select({ n }).from(firmnessTest).innerJoin(recipeVersion, eq(recipeVersion.id, firmnessTest.versionId));
    say((await felt.where(eq(recipeVersion.recipeId, recipeId)))[0]!.n, "note of its firmness", "notes of its firmness");
  }
  return uses;
}

const stays = (name: string, uses: readonly string[]): Refused =>
  Refused.one("", `${name} can't be deleted: it is in ${wordList(uses)}. Put it away instead, and its history stays.`);

/** Deletes a size nothing was made, priced or ordered of. @throws Refused naming what was, and for a recipe's only size */
export const deleteProduct = defineAct({
  kind: "deleteProduct",
  run: async (tx, { id }: { id: number }) => {
    const gone = await heldProduct(tx, id);
    const uses = await usesOf(tx, [id]);
    if (uses.length > 0) throw stays(gone.called, uses);
    const sizes = await tx
      .select({ id: product.id })
      .from(product)
      .where(and(eq(product.recipeId, gone.product.recipeId), eq(product.variant, "")));
    if (sizes.length === 1 && sizes[0]!.id === id)
      throw Refused.one("", "It is the only size its recipe has. Write another size first, or delete the recipe.", [
        { to: `/recipes/${gone.product.recipeId}`, name: gone.recipe },
      ]);
    const packaging = await tx.delete(productPackaging).where(eq(productPackaging.productId, id)).returning();
    const additions = await tx.delete(productAddition).where(eq(productAddition.productId, id)).returning();
    await tx.delete(product).where(eq(product.id, id));
    return {
      path: `/recipes/${gone.product.recipeId}`,
      summary: `Deleted ${gone.called}`,
      about: [aboutProduct(id), aboutRecipe(gone.product.recipeId)],
      leaves: { product: gone.product, packaging, additions },
    };
  },
  leaves: object({
    product: leftRow(product),
    packaging: array().of(leftRow(productPackaging)).required(),
    // Acts of before there were any left none.
    additions: array().of(leftRow(productAddition)).default([]),
  }),
  back: async (tx, left, { undoes }) => {
    const id = left.product.recipeId;
    await requireNoLaterActs(
      tx,
      { kind: "recipe", id },
      undoes,
      [...WRITES_VERSION, "deleteRecipe"],
      "Its recipe has been saved or deleted since.",
    );
    await tx.insert(product).overridingSystemValue().values(left.product);
    if (left.packaging.length > 0) await tx.insert(productPackaging).overridingSystemValue().values(left.packaging);
    if (left.additions.length > 0) await tx.insert(productAddition).overridingSystemValue().values(left.additions);
    return `/prices/${left.product.id}`;
  },
});

/** Deletes a recipe nothing was ever made of, with its versions and sizes. @throws Refused naming what was */
export const deleteRecipe = defineAct({
  kind: "deleteRecipe",
  run: async (tx, { id }: { id: number }) => {
    const gone = await heldRecipe(tx, id);
    const sizes = await tx.select().from(product).where(eq(product.recipeId, id));
    const ids = sizes.map((s) => s.id);
    const uses = await usesOf(tx, ids, id);
    if (uses.length > 0) throw stays(gone.name, uses);
    const versions = await tx.select().from(recipeVersion).where(eq(recipeVersion.recipeId, id));
    await tx.update(recipe).set({ versionId: null }).where(eq(recipe.id, id));
    const ofVersions = inArray(
      recipeLine.versionId,
      versions.map((v) => v.id),
    );
    const lines = await tx.delete(recipeLine).where(ofVersions).returning();
    await tx.delete(recipeVersion).where(eq(recipeVersion.recipeId, id));
    const packaging = ids.length > 0 ? await tx.delete(productPackaging).where(inArray(productPackaging.productId, ids)).returning() : [];
    const additions = ids.length > 0 ? await tx.delete(productAddition).where(inArray(productAddition.productId, ids)).returning() : [];
    await tx.delete(product).where(eq(product.recipeId, id));
    await tx.delete(recipe).where(eq(recipe.id, id));
    return {
      path: "/recipes",
      summary: `Deleted ${gone.name}`,
      about: [aboutRecipe(id)],
      leaves: { recipe: gone, versions, lines, sizes, packaging, additions },
    };
  },
  leaves: object({
    recipe: leftRow(recipe),
    versions: array().of(leftRow(recipeVersion)).required(),
    lines: array().of(leftRow(recipeLine)).required(),
    sizes: array().of(leftRow(product)).required(),
    packaging: array().of(leftRow(productPackaging)).required(),
    additions: array().of(leftRow(productAddition)).default([]),
  }),
  back: async (tx, { recipe: { versionId, ...was }, versions, lines, sizes, packaging, additions }) => {
    const [same] = await tx
      .select({ id: recipe.id, name: recipe.name })
      .from(recipe)
      .where(sql`lower(${recipe.name}) = lower(${was.name}) or ${recipe.code} = ${was.code}`);
    if (same)
      throw Refused.one("", `${same.name} has its name or its lot letters by now. Give that one others first.`, [
        { to: `/recipes/${same.id}`, name: same.name },
      ]);
    await tx.insert(recipe).overridingSystemValue().values(was);
    await tx.insert(recipeVersion).overridingSystemValue().values(versions);
    await tx.update(recipe).set({ versionId }).where(eq(recipe.id, was.id));
    if (lines.length > 0) await tx.insert(recipeLine).overridingSystemValue().values(lines);
    if (sizes.length > 0) await tx.insert(product).overridingSystemValue().values(sizes);
    if (packaging.length > 0) await tx.insert(productPackaging).overridingSystemValue().values(packaging);
    if (additions.length > 0) await tx.insert(productAddition).overridingSystemValue().values(additions);
    return `/recipes/${was.id}`;
  },
});
