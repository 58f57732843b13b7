/** Bases: what was melted down, or was left in the jug, on the shelf as a separate material that knows what it is made of. */
import { KINDS } from "#core/material/kinds";
import { makeupOf, type Weighed } from "#core/material/makeup";
import { micros, type Mg } from "#core/measure/exact";
import type { Day } from "#core/when";
import { and, asc, eq, inArray, sql } from "drizzle-orm";
import type { Reads, Tx } from "../../client.ts";
import { hasStock } from "../../ledger/lots.ts";
import { runPrepared } from "../../prepared.ts";
import { batch, lot, material, movement, product, recipe } from "../../schema.ts";
import { factsOfParts, madeOfNow, materialMade } from "../../shelf/madeOf.ts";
import { makeLots, materialsOfLines, type MadeLot } from "../../shelf/makeLots.ts";
import type { MaterialRow } from "../../shelf/materials.ts";

export interface BaseIn {
  name: string;
  /** Materials with what of each is in it. */
  parts: readonly (MaterialRow & Pick<Weighed, "weight">)[];
  /** Best before: as what it is made of. */
  best: Day | null;
  /** Beside which to say that its name is something else's. */
  field: string;
}

/** An empty lot of a base, for something to move into. @throws Refused where its name is another kind's */
export async function makeBase(tx: Tx, day: Day, { name, best, field, ...of }: BaseIn): Promise<{ id: number; into: MadeLot }> {
  // Most of all first, as ingredients are named.
  const parts = of.parts.filter((p) => p.weight > 0).sort((a, b) => b.weight - a.weight);
  const facts = { ...factsOfParts(parts), makeup: makeupOf(parts) };
  const base = { ...facts, name, kind: "base", densities: KINDS.base.start, kept: "cool" } as const;
  const { id, made } = await materialMade(tx, base, ["base"], field, "Call that something else first.");
  if (!made) await madeOfNow(tx, id, facts);
  const [row] = await tx.select().from(material).where(eq(material.id, id));
  const [into] = await makeLots(tx, day, [{ material: row!, supplierLot: "", bestBefore: best }]);
  return { id, into: into! };
}

interface LeftIn {
  name: string;
  /** What went into the whole pot. */
  lines: readonly { materialId: number; weighed: Mg }[];
  leftover: Mg;
  best: Day;
}

/** What was left in the jug, in a spare mould: a base at nothing, since its cost is in what was filled. */
export async function keepLeftover(
  tx: Tx,
  { actId, day }: { actId: number; day: Day },
  { name, lines, leftover, best }: LeftIn,
): Promise<MadeLot> {
  const materials = await materialsOfLines(tx, lines);
  const parts = lines.map((l) => ({ ...materials.get(l.materialId)!, weight: l.weighed }));
  const { into } = await makeBase(tx, day, { name: `${name}, melted down`, parts, best, field: "leftover" });
  await tx.insert(movement).values({ actId, lotId: into.id, qty: leftover, value: micros(0), reason: "leftOver" });
  return into;
}

/** Bases that are on the shelf, and the recipe each came of; oldest first. */
export const basesOnShelf = (db: Reads) =>
  runPrepared(db, "bases_on_shelf", {}, () =>
    db
      .select({ lotId: lot.id, number: lot.number, materialId: material.id, name: lot.name })
      .from(lot)
      .innerJoin(material, eq(material.id, lot.materialId))
      .where(and(eq(material.kind, "base"), hasStock))
      .orderBy(asc(lot.id)),
  );

/** The recipe a base is of: whose product was melted down, or whose pot it was left of; null for one that was bought. */
export async function recipeOfBase(db: Reads, lotId: number): Promise<{ id: number; name: string } | null> {
  const [row] = await runPrepared(db, "recipe_of_base", { lotId }, (at) =>
    db
      .select({ id: recipe.id, name: recipe.name })
      .from(recipe)
      .where(
        and(
          eq(recipe.retired, false),
          inArray(
            recipe.id,
            sql`(select p.recipe_id from lot_link k join ${lot} l on l.id = k.from_lot join ${product} p on p.id = l.product_id where k.to_lot = ${at.lotId}
              union select b.recipe_id from ${batch} b join ${movement} m on m.act_id = b.poured_act_id where m.lot_id = ${at.lotId} and m.reason = 'leftOver')`,
          ),
        ),
      )
      .limit(1),
  );
  return row ?? null;
}
