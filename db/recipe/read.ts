/** Recipes as they are written now, with their sizes, and everything needed to cost them. */
import { mg, mulDiv, sum, type Mg } from "#core/measure/exact";
import type { CostIn, WorkRates } from "#core/recipe/cost";
import { and, asc, eq, getTableColumns, isNull, or, sql, type Placeholder } from "drizzle-orm";
import { isEffective } from "../ledger/effective.ts";
import type { Reads } from "../client.ts";
import { sqlText, sqlBoolean, jsonRows, rowsIn, rowsOf, type RowOf, sqlTextOrNull } from "../columnsOf.ts";
import { anyNamed, anyOf, normalizeNames } from "../pieces.ts";
import { runPrepared } from "../prepared.ts";
import { product, productAddition, productPackaging, recipe, recipeLine, recipeVersion, material } from "../schema.ts";

export type ProductRow = typeof product.$inferSelect;
const { id, materialId, entered, form, weight, name } = recipeLine;
const lineShape = { id, materialId, entered, form, weight, name };
const packShape = { materialId: productPackaging.materialId, pieces: productPackaging.pieces };
export type WrittenLine = RowOf<typeof lineShape>;
export type WrittenPack = RowOf<typeof packShape>;
const additionShape = { materialId: productAddition.materialId, ppm: productAddition.ppm };
export type WrittenSize = ProductRow & {
  packaging: WrittenPack[];
  /** What is stirred into a variant, of all that is filled; nothing of what is poured as it is. */
  additions: RowOf<typeof additionShape>[];
};

const { id: _version, recipeId: _recipe, name: _then, actId: _act, ...ofVersion } = getTableColumns(recipeVersion);
/** A recipe by the version it is made by now. */
const head = { ...ofVersion, id: recipe.id, versionId: recipeVersion.id, name: recipe.name, code: recipe.code, retired: recipe.retired };
export type RecipeHead = Omit<typeof recipeVersion.$inferSelect, "actId" | "recipeId"> & {
  versionId: number;
  code: string;
  retired: boolean;
};

export interface WrittenRecipe {
  recipe: RecipeHead;
  /** The sizes it is made in; those put away are left out. */
  sizes: WrittenSize[];
  /** What some of it was poured as with something stirred in; those put away are left out. */
  variants: WrittenSize[];
  lines: WrittenLine[];
}

const linesOf = jsonRows(
  sql`(select coalesce(json_agg(json_build_object('id', l.id, 'materialId', l.material_id, 'entered', l.entered, 'form', l.form, 'weight', l.weight, 'name', l.name) order by l.position), '[]') from ${recipeLine} l where l.version_id = ${recipeVersion.id})`,
  lineShape,
);
const sizesOf = (which: "made" | "all" | "variants") =>
  jsonRows(
    sql`(select coalesce(json_agg(json_build_object(
    'id', p.id, 'recipeId', p.recipe_id, 'position', p.position, 'label', p.label, 'fillBy', p.fill_by, 'fillText', p.fill_text, 'fill', p.fill,
    'variant', p.variant, 'fillMl', p.fill_ml, 'containerId', p.container_id, 'unitMinutesHundredths', p.unit_minutes_hundredths, 'ownPrice', p.own_price, 'retired', p.retired,
    'packaging', (select coalesce(json_agg(json_build_object('materialId', k.material_id, 'pieces', k.pieces) order by k.id), '[]') from ${productPackaging} k where k.product_id = p.id),
    'additions', (select coalesce(json_agg(json_build_object('materialId', d.material_id, 'ppm', d.ppm) order by d.id), '[]') from ${productAddition} d where d.product_id = p.id)
  ) order by p.retired, p.position, p.id), '[]') from ${product} p where p.recipe_id = ${recipe.id}
    and ${which === "variants" ? sql`p.variant <> ''` : sql`p.variant = ''`} ${which === "all" ? sql`` : sql`and not p.retired`})`,
    { ...getTableColumns(product), packaging: rowsIn(packShape), additions: rowsIn(additionShape) },
  );

const written = (db: Reads, which: "made" | "all", some?: Placeholder) =>
  db
    .select({ recipe: head, lines: linesOf, sizes: sizesOf(which), variants: sizesOf("variants") })
    .from(recipe)
    .innerJoin(recipeVersion, eq(recipeVersion.id, recipe.versionId))
    .where(some ? anyOf(recipe.id, some) : eq(recipe.retired, false))
    .orderBy(asc(recipe.name));

/** Written recipes with the sizes they are made in, in one query; all that aren't put away when no ids are given. */
export async function readRecipes(db: Reads, ids?: readonly number[]): Promise<WrittenRecipe[]> {
  if (ids?.length === 0) return [];
  return ids
    ? runPrepared(db, "recipes_of", { ids }, (at) => written(db, "made", at.ids))
    : runPrepared(db, "recipes", {}, () => written(db, "made"));
}

/** Recipes that can be made, with what tells them apart: the weight they are written for, and the sizes they are made in. */
export const recipeChoices = (db: Reads) =>
  runPrepared(db, "recipe_choices", {}, () =>
    db
      .select({
        id: recipe.id,
        name: recipe.name,
        total: recipeVersion.total,
        sizes: sqlText(sql`string_agg(${product.label}, ', ' order by ${product.position}, ${product.id})`),
      })
      .from(recipe)
      .innerJoin(recipeVersion, eq(recipeVersion.id, recipe.versionId))
      .innerJoin(product, and(eq(product.recipeId, recipe.id), eq(product.retired, false), eq(product.variant, "")))
      .where(eq(recipe.retired, false))
      .groupBy(recipe.id, recipeVersion.id)
      .orderBy(asc(recipe.name)),
  );

/** Letters that recipes have for their lot numbers, those that were put away too. */
export const lettersTaken = async (db: Reads): Promise<string[]> =>
  (await runPrepared(db, "letters_taken", {}, () => db.selectDistinct({ code: recipe.code }).from(recipe))).map((r) => r.code);

/** Names of all recipes, those that were put away too, in small letters. */
export const recipeNames = async (db: Reads): Promise<Set<string>> =>
  new Set((await db.select({ name: recipe.name }).from(recipe)).map((r) => r.name.toLowerCase()));

/** Recipes that were put away, by name. */
export const recipesAway = (db: Reads) =>
  runPrepared(db, "recipes_away", {}, () =>
    db.select({ id: recipe.id, name: recipe.name }).from(recipe).where(eq(recipe.retired, true)).orderBy(asc(recipe.name)),
  );

/** A recipe as one of its versions said it, with the sizes it is made in now; null where there is none of that number. */
export async function readVersion(db: Reads, id: number, n: number): Promise<WrittenRecipe | null> {
  const [found] = await runPrepared(db, "one_version", { id, n }, (at) =>
    db
      .select({ recipe: head, lines: linesOf, sizes: sizesOf("made"), variants: sizesOf("variants") })
      .from(recipe)
      .innerJoin(recipeVersion, eq(recipeVersion.recipeId, recipe.id))
      .where(and(eq(recipe.id, at.id), eq(recipeVersion.n, at.n), or(isNull(recipeVersion.actId), isEffective(recipeVersion.actId)))),
  );
  return found ?? null;
}

/** A recipe as a batch of it is made: by a version of it, the newest by default; in the sizes it is made in now. */
export const readForBatch = async (db: Reads, id: number, n?: number): Promise<WrittenRecipe | null> =>
  n === undefined ? ((await readRecipes(db, [id]))[0] ?? null) : readVersion(db, id, n);

/** One recipe with the sizes that were put away too, last. */
export async function readWhole(db: Reads, id: number): Promise<WrittenRecipe | null> {
  const [found] = await runPrepared(db, "whole_recipes", { ids: [id] }, (at) => written(db, "all", at.ids));
  return found ?? null;
}

/** What is stirred into a whole pot of a variant. */
const stirredIn = ({ additions }: WrittenSize, base: Mg): CostIn["lines"][number][] => {
  const left = 1_000_000 - additions.reduce((a, d) => a + d.ppm, 0);
  return additions.map((d) => ({ of: d.materialId, weight: mg(mulDiv(base, d.ppm, left)) }));
};

/** A size of a written recipe as the costing core takes it. @param weights batch weights per line; as written when absent */
export const costInput = (w: WrittenRecipe, size: WrittenSize, rates: WorkRates, weights = w.lines.map((l) => l.weight)): CostIn => ({
  lines: [...w.lines.map((l, i) => ({ of: l.materialId, weight: weights[i]! })), ...stirredIn(size, sum(weights))],
  packaging: size.packaging.map((p) => ({ of: p.materialId, pieces: p.pieces })),
  fill: size.fill,
  unitMinutes: size.unitMinutesHundredths / 100,
  lossBp: w.recipe.lossBp,
  work: { hourly: rates.hourly, overheadHourly: rates.overheadHourly, batchMinutes: w.recipe.batchMinutes },
});

const products = (db: Reads) =>
  db
    .select({
      id: product.id,
      recipeId: recipe.id,
      recipe: recipe.name,
      label: product.label,
      fill: product.fill,
      /** No longer made, because it or its whole recipe was put away. */
      retired: sqlBoolean(sql`${product.retired} or ${recipe.retired}`),
      /** Put away itself. */
      away: product.retired,
      ownPrice: product.ownPrice,
      container: sqlTextOrNull(sql`(select c.name from ${material} c where c.id = ${product.containerId})`),
    })
    .from(product)
    .innerJoin(recipe, eq(recipe.id, product.recipeId))
    .orderBy(asc(recipe.name), asc(product.retired), asc(product.position), asc(product.id))
    .$dynamic();

/** Every size there is of every recipe, put away or not, for naming what is sold and ordered. */
export const listProducts = (db: Reads) => runPrepared(db, "products", {}, () => products(db));

/** These sizes, and those of these names in whatever case: "Hand balm, 60 mL tin". */
export const productsNamed = (db: Reads, ids: readonly number[], names: readonly string[]) =>
  runPrepared(db, "products_named", { ids, names: normalizeNames(names) }, (at) =>
    products(db).where(or(anyOf(product.id, at.ids), anyNamed(sql`${recipe.name} || ', ' || ${product.label}`, at.names))),
  );

/** Recipes that take a material as they are written now, as an ingredient or as packaging of a size they are made in. */
export async function recipesWith(db: Reads, materialId: number): Promise<number[]> {
  const rows = await rowsOf(
    db,
    { id: recipe.id },
    sql`
    select r.id from recipe r join recipe_line l on l.version_id = r.version_id where l.material_id = ${materialId}
    union select p.recipe_id from product_packaging k join product p on p.id = k.product_id and not p.retired where k.material_id = ${materialId}
    union select p.recipe_id from product_addition d join product p on p.id = d.product_id and not p.retired where d.material_id = ${materialId}`,
  );
  return rows.map((r) => r.id);
}
