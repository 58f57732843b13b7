/** Recipes as written, and everything needed to cost them. */
import type { CostIn, WorkRates } from "#core/recipe/cost";
import { and, asc, eq, inArray, sql } from "drizzle-orm";
import type { Reads } from "../client.ts";
import { prepared } from "../prepared.ts";
import { product, productPackaging, recipe, recipeLine } from "../schema.ts";

export type RecipeRow = typeof recipe.$inferSelect;
export type ProductRow = typeof product.$inferSelect;

export type WrittenLine = Pick<typeof recipeLine.$inferSelect, "id" | "materialId" | "entered" | "form" | "weight">;
export type WrittenPack = Pick<typeof productPackaging.$inferSelect, "materialId" | "pieces">;

export interface WrittenRecipe {
  recipe: RecipeRow;
  product: ProductRow;
  lines: WrittenLine[];
  packaging: WrittenPack[];
}

/** Written recipes with their current size, lines and packaging, in one query; all when no ids are given. */
export async function readRecipes(db: Reads, ids?: readonly number[]): Promise<WrittenRecipe[]> {
  if (ids?.length === 0) return [];
  const written = (some?: readonly number[]) =>
    db
      .select({
        recipe,
        product,
        lines: sql<
          WrittenLine[]
        >`(select coalesce(json_agg(json_build_object('id', l.id, 'materialId', l.material_id, 'entered', l.entered, 'form', l.form, 'weight', l.weight) order by l.position), '[]') from ${recipeLine} l where l.recipe_id = ${recipe.id})`,
        packaging: sql<
          WrittenPack[]
        >`(select coalesce(json_agg(json_build_object('materialId', k.material_id, 'pieces', k.pieces) order by k.id), '[]') from ${productPackaging} k where k.product_id = ${product.id})`,
      })
      .from(recipe)
      .innerJoin(product, and(eq(product.recipeId, recipe.id), eq(product.current, true)))
      .where(some && inArray(recipe.id, [...some]))
      .orderBy(asc(recipe.name));
  return ids ? written(ids) : prepared(db, "recipes", () => written()).execute();
}

/** A written recipe as the costing core takes it. @param weights batch weights per line; as written when absent */
export const costInput = (w: WrittenRecipe, rates: WorkRates, weights = w.lines.map((l) => l.weight)): CostIn => ({
  lines: w.lines.map((l, i) => ({ of: l.materialId, weight: weights[i]! })),
  packaging: w.packaging.map((p) => ({ of: p.materialId, pieces: p.pieces })),
  fill: w.product.fill,
  lossBp: w.recipe.lossBp,
  work: {
    hourly: rates.hourly,
    overheadHourly: rates.overheadHourly,
    batchMinutes: w.recipe.batchMinutes,
    unitMinutes: w.recipe.unitMinutesHundredths / 100,
  },
});

/** Every size there is of every recipe, for naming lots and items. */
export const listProducts = (db: Reads) =>
  prepared(db, "products", () =>
    db
      .select({
        id: product.id,
        recipeId: recipe.id,
        name: recipe.name,
        code: recipe.code,
        type: recipe.type,
        fill: product.fill,
        current: product.current,
        ownPrice: product.ownPrice,
      })
      .from(product)
      .innerJoin(recipe, eq(recipe.id, product.recipeId))
      .orderBy(asc(recipe.name), asc(product.fill)),
  ).execute();

/** Recipes that take a material, as an ingredient or as packaging of their current size. */
export async function recipesWith(db: Reads, materialId: number): Promise<number[]> {
  const rows = await db.execute<{ id: number }>(sql`
    select recipe_id as id from recipe_line where material_id = ${materialId}
    union select p.recipe_id from product_packaging k join product p on p.id = k.product_id and p.current where k.material_id = ${materialId}`);
  return rows.rows.map((r) => r.id);
}
