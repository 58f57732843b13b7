/** What sheets work with: the materials they name, with what they have to know of each; never the whole shelf. */
import { groupBy } from "#core/collect";
import { choiceOf } from "#core/recipe/written";
import { againCosts } from "#db/ledger/lots";
import { readShelfCosts } from "#db/recipe/costs";
import { lastPacks } from "#db/shelf/buying";
import { materialsNamed } from "#db/shelf/materials";
import { db } from "../db.server.ts";
import type { Bought, Stuff } from "../names/named.ts";

/** @param ids those the sheet names as it is opened @param names those typed since, in whatever case */
export async function stuffOf(ids: readonly number[], names: readonly string[] = []): Promise<Stuff[]> {
  const materials = await materialsNamed(db(), ids, names);
  const { lots, again } = await readShelfCosts(
    db(),
    materials.map((m) => m.id),
  );
  const lotsOf = groupBy(lots, (l) => l.of);
  return materials.map((m) => ({ ...choiceOf(m), lots: lotsOf.get(m.id) ?? [], again: again.get(m.id) ?? null }));
}

/** The same for a receipt: what they were bought for and in. */
export async function boughtOf(ids: readonly number[], names: readonly string[] = []): Promise<Bought[]> {
  const materials = await materialsNamed(db(), ids, names);
  const found = materials.map((m) => m.id);
  const [again, packs] = await Promise.all([againCosts(db(), found), lastPacks(db(), found)]);
  return materials.map(({ id, name, kind, densities, dropsPerMl, pieceMg, emptyMg, retired }) => ({
    ...{ id, name, kind, densities, dropsPerMl, pieceMg, emptyMg, retired },
    again: again.get(id) ?? null,
    pack: packs.get(id) ?? null,
  }));
}
