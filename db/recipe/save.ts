/** Saving a recipe as one act: its next version, where what is made is another, and the sizes it is made in. */
import type { Mg } from "#core/measure/exact";
import { areAnswers, type Answers } from "#core/recipe/judge/judge";
import type { FillBy } from "#core/recipe/sizes";
import { isObject } from "#core/objects";
import { Refused } from "#core/refused";
import { and, eq, inArray, ne, sql } from "drizzle-orm";
import { isDeepStrictEqual } from "node:util";
import { boolean, mixed, object } from "yup";
import { defineAct } from "../act/define.ts";
import { undoId, undoText } from "../act/left.ts";
import { requireUnchanged } from "../act/seen.ts";
import type { Tx } from "../client.ts";
import { product, productPackaging, recipe, recipeLine, recipeVersion } from "../schema.ts";
import { readWhole, type WrittenRecipe, type WrittenSize } from "./read.ts";
import { versionFields } from "./reweigh.ts";
import { everUsed, leftSizes, sizeRows, restoreSizes } from "./sizesBack.ts";
import { setCurrentVersion, writeVersion, type VersionIn } from "./versions.ts";

export interface SizeIn {
  /** An existing size of this recipe, or null for a new one. */
  id: number | null;
  label: string;
  fillBy: FillBy;
  fillText: string;
  fill: Mg;
  fillMl: number | null;
  containerId: number | null;
  unitMinutesHundredths: number;
  retired: boolean;
  packaging: readonly { materialId: number; pieces: number }[];
}

export interface RecipeIn extends VersionIn {
  id?: number;
  code: string;
  /** Why it changed, if the maker says. */
  note: string;
  sizes: readonly SizeIn[];
}

/** @throws Refused for a name or code that is taken */
export async function nobodyElseIs(tx: Tx, input: RecipeIn): Promise<void> {
  const others = input.id === undefined ? undefined : ne(recipe.id, input.id);
  const [sameName] = await tx
    .select({ id: recipe.id })
    .from(recipe)
    .where(and(sql`lower(${recipe.name}) = lower(${input.name})`, others));
  if (sameName) throw Refused.one("name", `There is already a recipe called ${input.name}.`);
  const [sameCode] = await tx
    .select({ name: recipe.name })
    .from(recipe)
    .where(and(eq(recipe.code, input.code), others));
  if (sameCode) throw Refused.one("code", `${sameCode.name} has the letters ${input.code} already.`);
}

const alike = (
  a: Pick<SizeIn, "fillBy" | "fillText" | "containerId" | "fill">,
  b: Pick<SizeIn, "fillBy" | "fillText" | "containerId" | "fill">,
) => a.fillBy === b.fillBy && a.containerId === b.containerId && (a.fillBy === "weight" ? a.fill === b.fill : a.fillText === b.fillText);

async function writeSize(tx: Tx, recipeId: number, position: number, size: SizeIn, id: number | null): Promise<number> {
  const { packaging, id: _asked, ...rest } = size;
  const [row] =
    id === null
      ? await tx
          .insert(product)
          .values({ ...rest, recipeId, position })
          .returning({ id: product.id })
      : await tx
          .update(product)
          .set({ ...rest, position })
          .where(eq(product.id, id))
          .returning({ id: product.id });
  await tx.delete(productPackaging).where(eq(productPackaging.productId, row!.id));
  if (packaging.length > 0) await tx.insert(productPackaging).values(packaging.map((p) => ({ ...p, productId: row!.id })));
  return row!.id;
}

/**
 * Writes the sizes of a recipe. A size that something was made, priced or ordered of has its fill for ever: filled otherwise it is
 * another size, and the old one is put away. One that was put away and is written again is taken out.
 */
export async function writeSizes(tx: Tx, recipeId: number, before: readonly WrittenSize[], sizes: readonly SizeIn[]): Promise<void> {
  const used = await everUsed(
    tx,
    before.map((s) => s.id),
  );
  const kept = new Set<number>();
  for (const [position, size] of [...sizes.entries()].sort(([, a], [, b]) => Number(a.retired) - Number(b.retired))) {
    if (size.id !== null && kept.has(size.id)) continue;
    const own = before.find((b) => b.id === size.id);
    const away = before.find((b) => b.retired && b.id !== size.id && alike(b, size) && !kept.has(b.id));
    const same = own && alike(own, size) ? own : (away ?? (own && !used.has(own.id) ? own : undefined));
    kept.add(await writeSize(tx, recipeId, position, size, same?.id ?? null));
  }
  const gone = before.filter((b) => !kept.has(b.id));
  const away = gone.filter((b) => used.has(b.id)).map((b) => b.id);
  const unused = gone.filter((b) => !used.has(b.id)).map((b) => b.id);
  if (away.length > 0) await tx.update(product).set({ retired: true }).where(inArray(product.id, away));
  if (unused.length > 0) {
    await tx.delete(productPackaging).where(inArray(productPackaging.productId, unused));
    await tx.delete(product).where(inArray(product.id, unused));
  }
}

const sameVersion = (
  was: WrittenRecipe,
  { name, type, makes, total, lossBp, keepsMonths, batchMinutes, overrunBp, method, usedOn, forWhom, lines }: RecipeIn,
): boolean =>
  JSON.stringify(versionFields(was)) ===
  JSON.stringify({
    ...{ name, type, makes, total, lossBp, keepsMonths, batchMinutes, overrunBp, method, usedOn, forWhom },
    lines: lines.map(({ materialId, entered, form, weight }) => ({ materialId, entered, form, weight })),
  });

/** Answers to the judgements on a version; nothing of what is made changes with them. */
const answer = (tx: Tx, versionId: number, answers: Answers) =>
  tx.update(recipeVersion).set({ answers }).where(eq(recipeVersion.id, versionId));

const areLeftAnswers = (v: unknown): v is { versionId: number; was: Answers } =>
  isObject(v) && typeof v.versionId === "number" && areAnswers(v.was);

export const newRecipe = async (tx: Tx, { name, code }: Pick<RecipeIn, "name" | "code">): Promise<number> =>
  (await tx.insert(recipe).values({ name, code }).returning({ id: recipe.id }))[0]!.id;

/** A recipe that isn't there any more once its sizes are gone: its versions with it. */
export async function deleteWritten(tx: Tx, recipeId: number): Promise<void> {
  await tx.update(recipe).set({ versionId: null }).where(eq(recipe.id, recipeId));
  const versions = tx.select({ id: recipeVersion.id }).from(recipeVersion).where(eq(recipeVersion.recipeId, recipeId));
  await tx.delete(recipeLine).where(inArray(recipeLine.versionId, versions));
  await tx.delete(recipeVersion).where(eq(recipeVersion.recipeId, recipeId));
  await tx.delete(recipe).where(eq(recipe.id, recipeId));
}

/**
 * Writes a new recipe, or over an old one when `id` is given.
 * @throws Refused for a name or code that is taken; EditedMeanwhile
 */
export const saveRecipe = defineAct({
  kind: "saveRecipe",
  run: async (tx, input: RecipeIn, { actId, day, seen }) => {
    if (input.id !== undefined) {
      const [held] = await tx.select({ id: recipe.id }).from(recipe).where(eq(recipe.id, input.id)).for("no key update");
      if (!held) throw Refused.one("", "That recipe isn't here any more.");
      await requireUnchanged(tx, { kind: "recipe", id: input.id }, seen);
    }
    await nobodyElseIs(tx, input);
    const was = input.id === undefined ? null : await readWhole(tx, input.id);
    const rows = input.id === undefined ? { sizes: [], packaging: [] } : await sizeRows(tx, input.id);
    let recipeId = input.id;
    if (recipeId === undefined) recipeId = await newRecipe(tx, input);
    else await tx.update(recipe).set({ code: input.code }).where(eq(recipe.id, recipeId));
    const { id: _id, code: _code, note, sizes, ...version } = input;
    const n = was && sameVersion(was, input) ? null : await writeVersion(tx, recipeId, version, { actId, day, note });
    const answered = was && n === null && !isDeepStrictEqual(was.recipe.answers, input.answers) ? was.recipe : null;
    if (answered) await answer(tx, answered.versionId, input.answers);
    await writeSizes(tx, recipeId, was?.sizes ?? [], sizes);
    return {
      path: `/recipes/${recipeId}`,
      summary: n === null || n === 1 ? `Saved ${input.name}` : `Saved ${input.name}, version ${n}`,
      about: [{ kind: "recipe", id: recipeId, changes: true }],
      leaves: {
        recipeId,
        created: was === null,
        code: was?.recipe.code ?? "",
        answers: answered && { versionId: answered.versionId, was: answered.answers },
        ...rows,
      },
    };
  },
  leaves: object({
    recipeId: undoId(),
    created: boolean().required(),
    code: undoText(),
    answers: mixed(areLeftAnswers).nullable().default(null),
    ...leftSizes,
  }),
  back: async (tx, left, { undoes }) => {
    await restoreSizes(tx, left.recipeId, left, undoes);
    if (left.created) {
      await deleteWritten(tx, left.recipeId);
      return "/recipes";
    }
    await tx.update(recipe).set({ code: left.code }).where(eq(recipe.id, left.recipeId));
    if (left.answers) await answer(tx, left.answers.versionId, left.answers.was);
    await setCurrentVersion(tx, left.recipeId);
  },
});
