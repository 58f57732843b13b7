/** Versions of recipes: writing one, and which of them a recipe is made by. */
import type { ActKind } from "#core/act/kinds";
import type { Mg } from "#core/measure/exact";
import type { Form } from "#core/measure/mass";
import type { Answers } from "#core/recipe/judge/judge";
import type { RecipeType } from "#core/recipe/types";
import type { ForWhom, UsedOn } from "#core/scent/limits";
import type { Day } from "#core/when";
import { and, desc, eq, inArray, isNull, or, sql } from "drizzle-orm";
import { sqlNumber } from "../columnsOf.ts";
import { isEffective } from "../ledger/effective.ts";
import type { Tx } from "../client.ts";
import { material, recipe, recipeLine, recipeVersion } from "../schema.ts";

/** The acts that write a version by hand or after a batch; what came before one of them isn't taken back under it. */
export const WRITES_VERSION = ["saveRecipe", "learnBatch"] as const satisfies ActKind[];

/** What is made, as one version of a recipe says it. */
export interface VersionIn {
  name: string;
  type: RecipeType;
  makes: Mg | null;
  total: Mg;
  lossBp: number;
  keepsMonths: number;
  batchMinutes: number;
  overrunBp: number;
  method: string;
  usedOn: UsedOn | "";
  forWhom: ForWhom;
  answers: Answers;
  lines: readonly { materialId: number; entered: string; form: Form; weight: Mg }[];
}

/** Writes the next version of a recipe and makes it the one the recipe is made by. @returns its number */
export async function writeVersion(
  tx: Tx,
  recipeId: number,
  { lines, ...head }: VersionIn,
  by: { actId: number; day: Day; note: string },
): Promise<number> {
  const [last] = await tx
    .select({ n: sqlNumber(sql`coalesce(max(${recipeVersion.n}), 0)`) })
    .from(recipeVersion)
    .where(eq(recipeVersion.recipeId, recipeId));
  const n = last!.n + 1;
  const [made] = await tx
    .insert(recipeVersion)
    .values({ ...head, ...by, recipeId, n })
    .returning({ id: recipeVersion.id });
  const names = new Map(
    (
      await tx
        .select({ id: material.id, name: material.name })
        .from(material)
        .where(
          inArray(
            material.id,
            lines.map((l) => l.materialId),
          ),
        )
    ).map((m) => [m.id, m.name]),
  );
  await tx
    .insert(recipeLine)
    .values(lines.map((l, position) => ({ ...l, position, versionId: made!.id, name: names.get(l.materialId) ?? "" })));
  await tx.update(recipe).set({ versionId: made!.id, name: head.name }).where(eq(recipe.id, recipeId));
  return n;
}

/** The newest version of a recipe that was not taken back becomes the one it is made by. */
export async function setCurrentVersion(tx: Tx, recipeId: number): Promise<void> {
  const [newest] = await tx
    .select({ id: recipeVersion.id, name: recipeVersion.name })
    .from(recipeVersion)
    .where(and(eq(recipeVersion.recipeId, recipeId), or(isNull(recipeVersion.actId), isEffective(recipeVersion.actId))))
    .orderBy(desc(recipeVersion.n))
    .limit(1);
  if (newest) await tx.update(recipe).set({ versionId: newest.id, name: newest.name }).where(eq(recipe.id, recipeId));
}

/** The same for every recipe an act that is taken back had written a version of. */
export async function settleVersionsOf(tx: Tx, actId: number): Promise<void> {
  const written = await tx.select({ recipeId: recipeVersion.recipeId }).from(recipeVersion).where(eq(recipeVersion.actId, actId));
  for (const { recipeId } of written) await setCurrentVersion(tx, recipeId);
}
