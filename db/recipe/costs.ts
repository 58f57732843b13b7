/** What every size of every recipe costs per unit, with the stock there is now. */
import type { UnitCost } from "#core/measure/money";
import { costRecipe, unitCosts, type RecipeCost } from "#core/recipe/cost";
import type { Settings } from "#core/settings/settings";
import type { Lot } from "#core/stock/lots";
import { stockOnHand, type Shelf } from "#core/stock/shelf";
import type { Day } from "#core/when";
import type { Db } from "../client.ts";
import { cachedUntilWrite } from "../cache.ts";
import { replacementCosts, lotsOfMaterials } from "../ledger/lots.ts";
import { costInput, readRecipes, type WrittenRecipe, type WrittenSize } from "./read.ts";

export interface CostedSize extends WrittenSize {
  cost: RecipeCost;
}

export interface CostedRecipe extends WrittenRecipe {
  sizes: CostedSize[];
}

/** Lots on hand and newest costs: what any costing needs to know of the shelf, as it is sent to a page that works it out itself. */
export interface ShelfCosts {
  lots: Lot[];
  again: Map<number, UnitCost>;
}

/** Lots on hand and newest costs of these materials; of all when none are named. */
export async function readShelfCosts(db: Db, materials?: readonly number[]): Promise<ShelfCosts> {
  const [lots, again] = await Promise.all([lotsOfMaterials(db, materials), replacementCosts(db, materials)]);
  return { lots, again };
}

/** The shelf for these materials, worked out; for all when none are named. */
export async function readShelf(db: Db, today: Day, materials?: readonly number[]): Promise<Shelf> {
  const { lots, again } = await readShelfCosts(db, materials);
  return stockOnHand(lots, today, again);
}

/** The whole shelf as a page reads it, worked out again once anything was written. @param db not a transaction */
const keptShelf = (db: Db, today: Day): Promise<Shelf> => cachedUntilWrite(db, "shelf", today, () => readShelf(db, today));

/** Whatever a recipe is sold as: its sizes, and what some of it was poured as otherwise. */
const soldAs = (w: WrittenRecipe): WrittenSize[] => [...w.sizes, ...w.variants];

/** Costs written recipes at the batch size they are written for, each size as if all of it went into that. */
export const costWritten = (written: readonly WrittenRecipe[], shelf: Shelf, settings: Settings): CostedRecipe[] =>
  written.map((w) => ({
    ...w,
    sizes: soldAs(w).map((s) => ({ ...s, cost: costRecipe(costInput(w, s, settings), shelf) })),
  }));

/** What a unit of every size of recipes costs, where nobody asks out of which lots; of all when no ids are given. */
export async function unitCostsOf(db: Db, settings: Settings, today: Day, ids?: readonly number[]) {
  const written = await readRecipes(db, ids);
  const shelf = await (ids ? readShelf(db, today, materialsOf(written)) : keptShelf(db, today));
  return written.map((w) => ({ ...w, sizes: soldAs(w).map((s) => ({ ...s, cost: unitCosts(costInput(w, s, settings), shelf) })) }));
}

/** Materials that recipes take, packaging included. */
export const materialsOf = (written: readonly WrittenRecipe[]): number[] => [
  ...new Set(written.flatMap((w) => [...w.lines, ...soldAs(w).flatMap((s) => [...s.packaging, ...s.additions])].map((m) => m.materialId))),
];

/** Reads and costs recipes; all when no ids are given. */
export async function costRecipes(db: Db, settings: Settings, today: Day, ids?: readonly number[]): Promise<CostedRecipe[]> {
  const written = await readRecipes(db, ids);
  return costWritten(written, await (ids ? readShelf(db, today, materialsOf(written)) : keptShelf(db, today)), settings);
}
