/** What a jar is filled with: the herbs and oils its plan names, with their lots and what strainings of them teach. */
import { groupBy } from "#core/collect";
import type { JarLot, JarMaterial } from "#core/infusion/plan";
import type { Straining } from "#core/infusion/absorption";
import { lookThrough } from "#core/material/lookThrough";
import { CARRIER_KINDS } from "#core/material/kinds";
import type { Reads } from "../client.ts";
import { materialsNamed } from "../shelf/materials.ts";
import { lotsForJars, pastStrainings } from "./read.ts";

/** A herb or an oil a jar can be filled with, and what the workshop's strainings of it teach. */
export interface JarStuff extends JarMaterial {
  lots: JarLot[];
  past: Straining[];
}

/** @param ids those the plan names as it is opened @param names those typed since, in whatever case */
export async function jarStuffOf(db: Reads, ids: readonly number[], names: readonly string[] = []): Promise<JarStuff[]> {
  const materials = (await materialsNamed(db, ids, names)).filter(
    (m) => !m.retired && (m.kind === "herb" || CARRIER_KINDS.includes(m.kind)),
  );
  const found = materials.map((m) => m.id);
  const [lots, past] = await Promise.all([lotsForJars(db, found), pastStrainings(db, found)]);
  const lotsOf = groupBy(lots, (l) => l.of);
  const pastOf = groupBy(past, (s) => s.materialId);
  return materials.map(lookThrough).map(({ id, name, kind, densities, dropsPerMl, pieceMg, cautions, keepsSealed, oilKept }) => ({
    ...{ id, name, kind, densities, dropsPerMl, pieceMg, cautions, keepsSealed, oilKept },
    lots: lotsOf.get(id) ?? [],
    past: pastOf.get(id) ?? [],
  }));
}
