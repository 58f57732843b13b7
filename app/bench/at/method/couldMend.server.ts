/** What the recipe is made of and isn't in the pot: of one that was melted in again, what could still put it right. */
import type { PotLine } from "#core/batch/weighing/weighingFixes";
import { setsBy } from "#core/firmness/solids";
import { carries } from "#core/material/kinds";
import { mg } from "#core/measure/exact";
import { scentShare } from "#core/scent/dilution";
import { materialsOfVersion, type BatchSheet } from "#db/bench/read";
import { materialsNamed, type MaterialRow } from "#db/shelf/materials";
import { db } from "../../../server/workshop.server.ts";

export type CouldMend = PotLine & { materialId: number };

/** @param materials of what is in the pot @returns none where nothing was melted in: there all of the recipe is on the sheet */
export async function couldMend({ batch, takes }: BatchSheet, materials: ReadonlyMap<number, MaterialRow>): Promise<CouldMend[]> {
  if (!takes.some((t) => materials.get(t.materialId)?.kind === "base")) return [];
  const missing = (await materialsOfVersion(db(), batch.versionId)).filter((id) => !materials.has(id));
  if (missing.length === 0) return [];
  return (await materialsNamed(db(), missing, [])).map((m, i) => ({
    materialId: m.id,
    name: m.name,
    position: takes.length + i,
    ...{ planned: mg(0), weighed: null, onHand: 0, perMg: null },
    sets: setsBy(m),
    scent: scentShare(m),
    carries: carries(m),
  }));
}
