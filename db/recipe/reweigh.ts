/** Keeping recipes true to their materials: when facts change, what is written in cups or drops weighs something else. */
import { factsIn } from "#core/material/facts";
import { parseAmount } from "#core/measure/parse";
import { weighRecipe } from "#core/recipe/lines";
import { Refused } from "#core/refused";
import { eq, inArray } from "drizzle-orm";
import type { Tx } from "../client.ts";
import { material, recipe, recipeLine } from "../schema.ts";
import { readRecipes } from "./read.ts";

/**
 * Weighs every recipe with this material again, inside the act that changed it.
 * @throws Refused naming a recipe that could no longer be weighed
 */
export async function reweighRecipes(tx: Tx, materialId: number): Promise<void> {
  const users = await tx.selectDistinct({ id: recipeLine.recipeId }).from(recipeLine).where(eq(recipeLine.materialId, materialId));
  const written = await readRecipes(
    tx,
    users.map((u) => u.id),
  );
  const ids = written.flatMap((w) => w.lines.map((l) => l.materialId));
  const facts = new Map((ids.length ? await tx.select().from(material).where(inArray(material.id, ids)) : []).map((m) => [m.id, m]));
  for (const w of written) {
    const lines = w.lines.map((l) => {
      const amount = parseAmount(l.entered, "g");
      if (!amount.ok) throw new Error(`recipe line ${l.id} was kept but can't be read: ${l.entered}`);
      return { amount: amount.value, facts: factsIn(facts.get(l.materialId)!, l.form) };
    });
    const weighed = weighRecipe(lines, w.recipe.makes);
    // A line that can't be weighed is the cause; what the recipe as a whole then lacks is only what follows from it.
    const own = weighed.lines.flatMap((l) => (l.ok || l.problem.code === weighed.problem?.code ? [] : [l.problem]));
    const problem = own[0] ?? weighed.problem;
    if (problem) throw Refused.one("", `${w.recipe.name} couldn't be weighed any more: ${problem.say}`);
    for (const [i, l] of weighed.lines.entries())
      if (l.ok && l.weight !== w.lines[i]!.weight)
        await tx.update(recipeLine).set({ weight: l.weight }).where(eq(recipeLine.id, w.lines[i]!.id));
    if (weighed.total !== w.recipe.total) await tx.update(recipe).set({ total: weighed.total }).where(eq(recipe.id, w.recipe.id));
  }
}
