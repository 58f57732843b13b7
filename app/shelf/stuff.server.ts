/** What sheets work with: the materials they name, their lots and what they cost again; never the whole shelf. */
import { groupBy } from "#core/collect";
import { readShelfCosts } from "#db/recipe/costs";
import { lastPacks } from "#db/shelf/buying";
import { materialsNamed } from "#db/shelf/materials";
import { db } from "../db.server.ts";
import type { Stuff } from "../names/named.ts";

/** @param ids those the sheet names as it is opened @param names those typed since, in whatever case */
export async function stuffOf(ids: readonly number[], names: readonly string[] = []): Promise<Stuff[]> {
  const materials = await materialsNamed(db(), ids, names);
  const found = materials.map((m) => m.id);
  const [{ lots, again }, packs] = await Promise.all([readShelfCosts(db(), found), lastPacks(db(), found)]);
  const lotsOf = groupBy(lots, (l) => l.of);
  return materials.map(({ id, name, kind, densities, dropsPerMl, pieceMg, brimMl, usableMl, innerMm, fillMm, emptyMg, retired }) => ({
    ...{ id, name, kind, densities, dropsPerMl, pieceMg, brimMl, usableMl, innerMm, fillMm, emptyMg, retired },
    lots: lotsOf.get(id) ?? [],
    again: again.get(id) ?? null,
    pack: packs.get(id) ?? null,
  }));
}
