/** What every size of every recipe costs per unit as written, against the shelf as it stands. */
import type { UnitCost } from "#core/measure/money";
import { costRecipe, type RecipeCost } from "#core/recipe/cost";
import type { Settings } from "#core/settings";
import type { Lot } from "#core/stock/lots";
import type { Day } from "#core/when";
import type { Db } from "../client.ts";
import { againCosts, lotsOfMaterials } from "../ledger/lots.ts";
import { costInput, readRecipes, type WrittenRecipe, type WrittenSize } from "./read.ts";

export interface CostedSize extends WrittenSize {
  cost: RecipeCost;
}

export interface CostedRecipe extends WrittenRecipe {
  sizes: CostedSize[];
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

/** Costs written recipes at the batch size they are written for, each size as if all of it went into that. */
export const costWritten = (written: readonly WrittenRecipe[], shelf: ShelfCosts, settings: Settings, today: Day): CostedRecipe[] =>
  written.map((w) => ({
    ...w,
    sizes: w.sizes.map((s) => ({ ...s, cost: costRecipe(costInput(w, s, settings), shelf.lots, shelf.again, today) })),
  }));

/** Materials that recipes take, packaging included. */
export const materialsOf = (written: readonly WrittenRecipe[]): number[] => [
  ...new Set(written.flatMap((w) => [...w.lines, ...w.sizes.flatMap((s) => s.packaging)].map((m) => m.materialId))),
];

/** Reads and costs recipes; all when no ids are given. */
export async function costRecipes(db: Db, settings: Settings, today: Day, ids?: readonly number[]): Promise<CostedRecipe[]> {
  const written = await readRecipes(db, ids);
  return costWritten(written, await readShelfCosts(db, ids && materialsOf(written)), settings, today);
}
