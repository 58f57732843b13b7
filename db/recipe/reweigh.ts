/** Keeping recipes true to their materials: when facts change, what is written in cups or drops weighs something else. */
import { factsIn } from "#core/material/facts";
import type { Mg } from "#core/measure/exact";
import { parseAmount } from "#core/measure/parse";
import { weighRecipe } from "#core/recipe/lines";
import { batchDensity, readFill } from "#core/recipe/sizes";
import { Refused } from "#core/refused";
import type { Day } from "#core/when";
import { eq, inArray, or } from "drizzle-orm";
import type { Tx } from "../client.ts";
import { material, product, recipe, recipeLine } from "../schema.ts";
import { readRecipes, type WrittenLine, type WrittenRecipe } from "./read.ts";
import { writeVersion } from "./versions.ts";

/** Materials by their number. */
type Facts = ReadonlyMap<number, typeof material.$inferSelect>;
const factsOf = async (tx: Tx, ids: readonly number[]): Promise<Facts> =>
  new Map(
    (ids.length
      ? await tx
          .select()
          .from(material)
          .where(inArray(material.id, [...ids]))
      : []
    ).map((m) => [m.id, m]),
  );

/**
 * Weighs every recipe with this material again, inside the act that changed it: one that comes out otherwise has a new version, and its
 * sizes filled by volume another weight.
 * @returns the recipes that did
 * @throws Refused naming a recipe that could no longer be weighed
 */
export async function reweighRecipes(tx: Tx, materialId: number, by: { actId: number; day: Day }): Promise<number[]> {
  const users = await tx
    .selectDistinct({ id: recipe.id })
    .from(recipe)
    .innerJoin(recipeLine, eq(recipeLine.versionId, recipe.versionId))
    .leftJoin(product, eq(product.recipeId, recipe.id))
    .where(or(eq(recipeLine.materialId, materialId), eq(product.containerId, materialId)));
  const written = await readRecipes(
    tx,
    users.map((u) => u.id),
  );
  const ids = written.flatMap((w) => [...w.lines.map((l) => l.materialId), ...w.sizes.flatMap((s) => s.containerId ?? [])]);
  const facts = await factsOf(tx, ids);
  const changed: number[] = [];
  for (const w of written) {
    const again = await weighAgain(tx, w, facts, { ...by, note: `${facts.get(materialId)?.name ?? "A material"} weighs otherwise` });
    const refilled = await fillAgain(tx, w, facts);
    if (again || refilled) changed.push(w.recipe.id);
  }
  return changed;
}

/** What saved lines weigh by their materials' facts. */
function weighKept(lines: readonly Pick<WrittenLine, "materialId" | "entered" | "form">[], makes: Mg | null, facts: Facts) {
  return weighRecipe(
    lines.map((l) => {
      const amount = parseAmount(l.entered, "g");
      if (!amount.ok) throw new Error(`a recipe's line was kept but can't be read: ${l.entered}`);
      return { amount: amount.value, facts: factsIn(facts.get(l.materialId)!, l.form) };
    }),
    makes,
  );
}

async function weighAgain(tx: Tx, w: WrittenRecipe, facts: Facts, by: { actId: number; day: Day; note: string }): Promise<boolean> {
  const weighed = weighKept(w.lines, w.recipe.makes, facts);
  // A line that can't be weighed is the cause; what the recipe as a whole then lacks is only what follows from it.
  const own = weighed.lines.flatMap((l) => (l.ok || l.problem.code === weighed.problem?.code ? [] : [l.problem]));
  const problem = own[0] ?? weighed.problem;
  if (problem) throw Refused.one("", `${w.recipe.name} couldn't be weighed any more: ${problem.say}`);
  const weights = weighed.lines.map((l, i) => (l.ok ? l.weight : w.lines[i]!.weight));
  if (weighed.total === w.recipe.total && weights.every((n, i) => n === w.lines[i]!.weight)) return false;
  w.lines.forEach((l, i) => (l.weight = weights[i]!));
  await writeVersion(tx, w.recipe.id, { ...versionFields(w), answers: w.recipe.answers, total: weighed.total }, by);
  return true;
}

/** What is made, as a version says it, of a recipe as it is written. */
export const versionFields = ({ recipe: r, lines }: WrittenRecipe) => ({
  name: r.name,
  type: r.type,
  makes: r.makes,
  total: r.total,
  lossBp: r.lossBp,
  keepsMonths: r.keepsMonths,
  batchMinutes: r.batchMinutes,
  overrunBp: r.overrunBp,
  method: r.method,
  usedOn: r.usedOn,
  forWhom: r.forWhom,
  lines: lines.map(({ materialId, entered, form, weight }) => ({ materialId, entered, form, weight })),
});

/**
 * Writes a recipe's next version with other lines, loss or minutes, and fills its sizes by them.
 * @returns its number
 * @throws Refused where it can't be weighed so
 */
export async function rewrite(
  tx: Tx,
  w: WrittenRecipe,
  to: Partial<Pick<WrittenRecipe["recipe"], "makes" | "lossBp" | "batchMinutes">> & { lines: readonly Omit<WrittenLine, "id">[] },
  by: { actId: number; day: Day; note: string },
): Promise<number> {
  const { lines, ...head } = to;
  const facts = await factsOf(tx, [...lines.map((l) => l.materialId), ...w.sizes.flatMap((s) => s.containerId ?? [])]);
  const r = { ...w.recipe, ...head };
  const weighed = weighKept(lines, r.makes, facts);
  const problem = weighed.problem ?? weighed.lines.flatMap((l) => (l.ok ? [] : [l.problem]))[0];
  if (problem) throw Refused.one("", problem.say);
  const again = { ...w, recipe: r, lines: lines.map((l, i) => ({ ...l, id: 0, weight: (weighed.lines[i] as { weight: Mg }).weight })) };
  const n = await writeVersion(tx, r.id, { ...versionFields(again), answers: r.answers, total: weighed.total }, by);
  await fillAgain(tx, again, facts);
  return n;
}

async function fillAgain(tx: Tx, w: WrittenRecipe, facts: Facts): Promise<boolean> {
  const density = batchDensity(
    w.lines.map(({ name, weight, materialId }) => {
      const { kind, densities } = facts.get(materialId)!;
      return { name, kind, densities, weight };
    }),
    w.recipe.overrunBp,
  );
  let changed = false;
  for (const s of w.sizes) {
    if (s.fillBy === "weight") continue;
    const fill = readFill(s.fillText, density, s.containerId === null ? null : (facts.get(s.containerId) ?? null));
    if (!fill.ok) throw Refused.one("", `${w.recipe.name}, ${s.label}, couldn't be filled any more: ${fill.problem.say}`);
    if (fill.value.weight === s.fill) continue;
    await tx.update(product).set({ fill: fill.value.weight, fillMl: fill.value.ml }).where(eq(product.id, s.id));
    changed = true;
  }
  return changed;
}
