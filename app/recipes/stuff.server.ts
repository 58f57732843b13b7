/** What a recipe's sheet works with: the materials it names, their lots and what they cost again; never the whole shelf. */
import type { MaterialChoice } from "#core/recipe/written";
import { readShelfCosts } from "#db/recipe/costs";
import { materialsNamed, type MaterialRow } from "#db/shelf/materials";
import { db } from "../db.server.ts";
import type { Stuff } from "./useStuff.ts";

/** What the sheet needs to know of a material. */
export const choiceOf = (m: MaterialRow): MaterialChoice => {
  const { id, name, kind, densities, dropsPerMl, pieceMg, brimMl, usableMl, innerMm, fillMm } = m;
  return { id, name, kind, densities, dropsPerMl, pieceMg, brimMl, usableMl, innerMm, fillMm };
};

/** @param ids those the recipe takes as it is written @param names those typed since, in whatever case */
export async function stuffOf(ids: readonly number[], names: readonly string[] = []): Promise<Stuff> {
  const materials = await materialsNamed(db(), ids, names);
  const { lots, again } = await readShelfCosts(
    db(),
    materials.map((m) => m.id),
  );
  return { materials: materials.map(choiceOf), lots, again: [...again] };
}
