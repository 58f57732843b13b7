/** Saving a recipe, its lines, its size and packaging as one act. */
import type { Mg } from "#core/measure/exact";
import type { Form } from "#core/measure/mass";
import type { RecipeType } from "#core/recipe/types";
import { Refused } from "#core/refused";
import { and, eq, ne, sql } from "drizzle-orm";
import { perform, type Doing, type Done } from "../act.ts";
import type { Db, Tx } from "../client.ts";
import { batch, product, productPackaging, recipe, recipeLine } from "../schema.ts";

export interface RecipeIn {
  name: string;
  code: string;
  type: RecipeType;
  makes: Mg | null;
  total: Mg;
  lossBp: number;
  keepsMonths: number;
  batchMinutes: number;
  unitMinutesHundredths: number;
  method: string;
  fill: Mg;
  lines: readonly { materialId: number; entered: string; form: Form; weight: Mg }[];
  packaging: readonly { materialId: number; pieces: number }[];
}

/** A size that something was made in stays as it is; a new fill weight then becomes a new size. */
async function sizeFor(tx: Tx, recipeId: number, fill: Mg): Promise<number> {
  const [same] = await tx
    .select()
    .from(product)
    .where(and(eq(product.recipeId, recipeId), eq(product.fill, fill)));
  const [now] = await tx
    .select()
    .from(product)
    .where(and(eq(product.recipeId, recipeId), eq(product.current, true)));
  if (!same && now) {
    const [made] = await tx.select({ id: batch.id }).from(batch).where(eq(batch.productId, now.id)).limit(1);
    if (!made) {
      await tx.update(product).set({ fill }).where(eq(product.id, now.id));
      return now.id;
    }
  }
  await tx.update(product).set({ current: false }).where(eq(product.recipeId, recipeId));
  if (same) {
    await tx.update(product).set({ current: true }).where(eq(product.id, same.id));
    return same.id;
  }
  const [fresh] = await tx.insert(product).values({ recipeId, fill }).returning({ id: product.id });
  return fresh!.id;
}

/** Writes a new recipe, or over an old one when `id` is given. @throws Refused for a name or code that is taken */
export function saveRecipe(db: Db, input: RecipeIn, doing: Doing, id?: number): Promise<Done> {
  return perform(db, "saveRecipe", doing, async (tx) => {
    const { lines, packaging, fill, ...head } = input;
    const others = id === undefined ? undefined : ne(recipe.id, id);
    const [sameName] = await tx
      .select({ id: recipe.id })
      .from(recipe)
      .where(and(sql`lower(${recipe.name}) = lower(${head.name})`, others));
    if (sameName) throw Refused.one("name", `There is already a recipe called ${head.name}.`);
    const [sameCode] = await tx
      .select({ name: recipe.name })
      .from(recipe)
      .where(and(eq(recipe.code, head.code), others));
    if (sameCode) throw Refused.one("code", `${sameCode.name} has the letters ${head.code} already.`);

    const [row] =
      id === undefined
        ? await tx.insert(recipe).values(head).returning({ id: recipe.id })
        : await tx.update(recipe).set(head).where(eq(recipe.id, id)).returning({ id: recipe.id });
    if (!row) throw Refused.one("", "That recipe isn't here any more.");
    await tx.delete(recipeLine).where(eq(recipeLine.recipeId, row.id));
    await tx.insert(recipeLine).values(lines.map((l, position) => ({ ...l, position, recipeId: row.id })));
    const productId = await sizeFor(tx, row.id, fill);
    await tx.delete(productPackaging).where(eq(productPackaging.productId, productId));
    if (packaging.length > 0) await tx.insert(productPackaging).values(packaging.map((p) => ({ ...p, productId })));
    return { path: `/recipes/${row.id}`, summary: `Saved ${head.name}` };
  });
}
