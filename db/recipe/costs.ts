/** What every recipe costs per unit as written, against the shelf as it stands. */
import type { UnitCost } from "#core/measure/money";
import { costRecipe, type RecipeCost } from "#core/recipe/cost";
import type { Settings } from "#core/settings";
import type { Lot } from "#core/stock/lots";
import type { Day } from "#core/when";
import type { Db } from "../client.ts";
import { againCosts, lotsOfMaterials } from "../ledger.ts";
import { costInput, readRecipes, type WrittenRecipe } from "./read.ts";

export interface CostedRecipe extends WrittenRecipe {
  cost: RecipeCost;
}

/** Lots on hand and newest costs: what any costing needs to know of the shelf. */
export interface ShelfCosts {
  lots: Lot[];
  again: Map<number, UnitCost>;
}

/** The shelf for these materials; for all when none are named. */
export async function readShelfCosts(db: Db, materials?: readonly number[]): Promise<ShelfCosts> {
  const [lots, again] = await Promise.all([lotsOfMaterials(db, materials), againCosts(db, materials)]);
  return { lots, again };
}

/** Costs written recipes at the batch size they are written for. */
export const costWritten = (written: readonly WrittenRecipe[], shelf: ShelfCosts, settings: Settings, today: Day): CostedRecipe[] =>
  written.map((w) => ({ ...w, cost: costRecipe(costInput(w, settings), shelf.lots, shelf.again, today) }));

/** Materials that recipes take, packaging included. */
export const materialsOf = (written: readonly WrittenRecipe[]): number[] => [
  ...new Set(written.flatMap((w) => [...w.lines.map((l) => l.materialId), ...w.packaging.map((p) => p.materialId)])),
];

/** Reads and costs recipes; all when no ids are given. */
export async function costRecipes(db: Db, settings: Settings, today: Day, ids?: readonly number[]): Promise<CostedRecipe[]> {
  const written = await readRecipes(db, ids);
  return costWritten(written, await readShelfCosts(db, ids && materialsOf(written)), settings, today);
}
