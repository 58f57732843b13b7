/** Reads the materials that a sheet names, with their lots and costs; never the whole stock. */
import { groupBy } from "#core/collect";
import type { MaterialFacts } from "#core/material/facts";
import type { UnitCost } from "#core/measure/money";
import { lookThrough } from "#core/material/lookThrough";
import { choiceOf, type MaterialChoice } from "#core/recipe/written";
import type { Lot } from "#core/stock/lots";
import type { Reads } from "../client.ts";
import { replacementCosts } from "../ledger/lots.ts";
import { readShelfCosts } from "../recipe/costs.ts";
import { lastPacks } from "./buying.ts";
import { materialsNamed } from "./materials.ts";

/** A material with its lots on hand and what it costs to buy again. */
export interface SheetMaterial extends MaterialChoice {
  lots: Lot[];
  again: UnitCost | null;
}

/** A material as it is bought: what it cost the last time, and the pack it came in. */
export interface PurchasedMaterial extends MaterialFacts {
  id: number;
  emptyMg: number | null;
  again: UnitCost | null;
  pack: string | null;
  retired: boolean;
}

/** @param ids those the sheet names as it is opened @param names those typed since, in whatever case */
export async function stuffOf(db: Reads, ids: readonly number[], names: readonly string[] = []): Promise<SheetMaterial[]> {
  const materials = await materialsNamed(db, ids, names);
  const { lots, again } = await readShelfCosts(
    db,
    materials.map((m) => m.id),
  );
  const lotsOf = groupBy(lots, (l) => l.of);
  return materials.map((m) => ({ ...choiceOf(lookThrough(m)), lots: lotsOf.get(m.id) ?? [], again: again.get(m.id) ?? null }));
}

/** The same for a receipt: what they were bought for and in. */
export async function boughtOf(db: Reads, ids: readonly number[], names: readonly string[] = []): Promise<PurchasedMaterial[]> {
  const materials = await materialsNamed(db, ids, names);
  const found = materials.map((m) => m.id);
  const [again, packs] = await Promise.all([replacementCosts(db, found), lastPacks(db, found)]);
  return materials.map(({ id, name, kind, densities, dropsPerMl, pieceMg, emptyMg, retired }) => ({
    ...{ id, name, kind, densities, dropsPerMl, pieceMg, emptyMg, retired },
    again: again.get(id) ?? null,
    pack: packs.get(id) ?? null,
  }));
}
