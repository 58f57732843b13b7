/** Recipes as written, and everything needed to cost them. */
import type { CostIn, WorkRates } from "#core/recipe/cost";
import { and, asc, eq, inArray } from "drizzle-orm";
import type { Reads } from "../client.ts";
import { product, productPackaging, recipe, recipeLine } from "../schema.ts";

export type RecipeRow = typeof recipe.$inferSelect;
export type ProductRow = typeof product.$inferSelect;

export interface WrittenRecipe {
  recipe: RecipeRow;
  product: ProductRow;
  lines: (typeof recipeLine.$inferSelect)[];
  packaging: { materialId: number; pieces: number }[];
}

/** Written recipes with their current size; all when no ids are given. Four queries however many there are. */
export async function readRecipes(db: Reads, ids?: readonly number[]): Promise<WrittenRecipe[]> {
  if (ids?.length === 0) return [];
  const some = ids ? [...ids] : undefined;
  const heads = await db
    .select({ recipe, product })
    .from(recipe)
    .innerJoin(product, and(eq(product.recipeId, recipe.id), eq(product.current, true)))
    .where(some ? inArray(recipe.id, some) : undefined)
    .orderBy(asc(recipe.name));
  const lines = await db.select().from(recipeLine).where(some ? inArray(recipeLine.recipeId, some) : undefined).orderBy(asc(recipeLine.recipeId), asc(recipeLine.position));
  const packs = await db
    .select({ productId: productPackaging.productId, materialId: productPackaging.materialId, pieces: productPackaging.pieces })
    .from(productPackaging)
    .where(inArray(productPackaging.productId, heads.map((h) => h.product.id)))
    .orderBy(asc(productPackaging.id));
  return heads.map((h) => ({
    ...h,
    lines: lines.filter((l) => l.recipeId === h.recipe.id),
    packaging: packs.filter((p) => p.productId === h.product.id),
  }));
}

/** A written recipe as the costing core takes it. @param weights batch weights per line; as written when absent */
export const costInput = (w: WrittenRecipe, rates: WorkRates, weights = w.lines.map((l) => l.weight)): CostIn => ({
  lines: w.lines.map((l, i) => ({ of: l.materialId, weight: weights[i]! })),
  packaging: w.packaging.map((p) => ({ of: p.materialId, pieces: p.pieces })),
  fill: w.product.fill,
  lossBp: w.recipe.lossBp,
  work: { hourly: rates.hourly, overheadHourly: rates.overheadHourly, batchMinutes: w.recipe.batchMinutes, unitMinutes: w.recipe.unitMinutesHundredths / 100 },
});

/** Every size there is of every recipe, for naming lots and items. */
export const listProducts = (db: Reads) =>
  db
    .select({ id: product.id, recipeId: recipe.id, name: recipe.name, code: recipe.code, type: recipe.type, fill: product.fill, current: product.current, ownPrice: product.ownPrice })
    .from(product)
    .innerJoin(recipe, eq(recipe.id, product.recipeId))
    .orderBy(asc(recipe.name), asc(product.fill));
