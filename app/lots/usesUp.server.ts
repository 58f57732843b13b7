/** The recipes that would use up what is left of a lot: how large a batch each is then, and what that fills. */
import { kind, type KindId } from "#core/material/kinds";
import { mg } from "#core/measure/exact";
import { fillPlan, totalForLine } from "#core/recipe/scale";
import { readRecipes, recipesWith } from "#db/recipe/read";
import { db } from "../server/workshop.server.ts";

export interface UsesUp {
  recipeId: number;
  name: string;
  batch: number;
  /** Units of its first size. */
  units: number;
  label: string;
}

/** Smallest batch first; nothing for what is counted, finished or gone. */
export async function usesUp(lot: { materialId: number | null; kind: KindId | null; onHand: number }): Promise<UsesUp[]> {
  const { materialId, onHand } = lot;
  if (materialId === null || lot.kind === null || kind(lot.kind).measured === "count" || onHand <= 0) return [];
  const written = await readRecipes(db(), await recipesWith(db(), materialId));
  return written
    .flatMap(({ recipe, lines, sizes }): UsesUp[] => {
      const line = lines.reduce((a, l) => (l.materialId === materialId ? a + l.weight : a), 0);
      const [size] = sizes;
      if (line === 0 || !size || recipe.retired) return [];
      const batch = totalForLine(recipe.total, mg(line), mg(onHand));
      const { units } = fillPlan(batch, size.fill, recipe.lossBp);
      return units > 0 ? [{ recipeId: recipe.id, name: recipe.name, batch, units, label: size.label }] : [];
    })
    .sort((a, b) => a.batch - b.batch);
}
