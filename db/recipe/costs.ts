/** What every recipe costs per unit as written, against the shelf as it stands. */
import { costRecipe, type RecipeCost } from "#core/recipe/cost";
import type { Settings } from "#core/settings";
import type { Day } from "#core/when";
import type { Reads } from "../client.ts";
import { againCosts, lotsOfMaterials } from "../ledger.ts";
import { costInput, readRecipes, type WrittenRecipe } from "./read.ts";

export interface CostedRecipe extends WrittenRecipe {
  cost: RecipeCost;
}

/** Costs recipes at the batch size they are written for; all when no ids are given. */
export async function costRecipes(db: Reads, settings: Settings, today: Day, ids?: readonly number[]): Promise<CostedRecipe[]> {
  const written = await readRecipes(db, ids);
  const materials = [...new Set(written.flatMap((w) => [...w.lines.map((l) => l.materialId), ...w.packaging.map((p) => p.materialId)]))];
  const lots = await lotsOfMaterials(db, materials);
  const again = await againCosts(db, materials);
  return written.map((w) => ({ ...w, cost: costRecipe(costInput(w, settings), lots, again, today) }));
}
