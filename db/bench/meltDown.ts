/**
 * Melting down: finished units that came out too soft, grainy or faint go back into the pot. Out of their tins they are a base on the shelf, worth
 * what they were, best before as they were, with their whole history; what it is made of is known, so that a pot it goes into is known too.
 */
import { WAITS } from "#core/batch/check";
import { FILL_TOLERANCE } from "#core/batch/result";
import { KINDS } from "#core/material/kinds";
import { makeupOf, type Weighed } from "#core/material/makeup";
import { mg, minus, type Mg } from "#core/measure/exact";
import { grams } from "#core/measure/write";
import { Refused } from "#core/refused";
import { counted } from "#core/words";
import { and, asc, eq, gt, inArray, isNotNull, sql } from "drizzle-orm";
import { defineAct } from "../act/define.ts";
import type { Reads, Tx } from "../client.ts";
import { addedToSize } from "../columnsOf.ts";
import { draw, lockLots, useOf } from "../ledger/lots.ts";
import { ask } from "../prepared.ts";
import { batch, batchCheck, batchSize, batchTake, lot, material, movement, product, recipe, recipeVersion } from "../schema.ts";
import { factsOfParts, madeOfNow, materialMade } from "../shelf/madeOf.ts";
import { makeLots } from "../shelf/makeLots.ts";

export interface MeltDownIn {
  lotId: number;
  units: number;
  /** What came out of the tins. */
  weight: Mg;
  /** Why. */
  note: string;
}

/** The size a finished lot is, with what was stirred into it alone. */
async function pouredAs(tx: Tx, lotId: number) {
  const [row] = await tx
    .select({ size: batchSize, added: addedToSize, name: recipeVersion.name, variant: product.variant, best: lot.bestBefore })
    .from(batchSize)
    .innerJoin(lot, eq(lot.id, batchSize.lotId))
    .innerJoin(product, eq(product.id, batchSize.productId))
    .innerJoin(batch, eq(batch.id, batchSize.batchId))
    .innerJoin(recipeVersion, eq(recipeVersion.id, batch.versionId))
    .where(eq(batchSize.lotId, lotId));
  if (!row) throw Refused.one("units", "That lot isn't in the cabinet any more.");
  return row;
}

/** Everything that is in a size: its share of the pot, and what was stirred into it alone; most of all first. */
async function partsOf(tx: Tx, { size, added }: Awaited<ReturnType<typeof pouredAs>>) {
  const takes = await tx
    .select({ weighed: batchTake.weighed, sizeId: batchTake.sizeId, material })
    .from(batchTake)
    .innerJoin(material, eq(material.id, batchTake.materialId))
    .where(and(eq(batchTake.batchId, size.batchId), gt(batchTake.weighed, mg(0))))
    .orderBy(asc(batchTake.id));
  const pot = takes.reduce((a, t) => a + (t.sizeId === null ? t.weighed! : 0), 0);
  const base = Math.max(0, (size.units ?? 0) * size.fill - added);
  return takes
    .flatMap((t) => {
      const weight = t.sizeId === null ? (t.weighed! * base) / pot : t.sizeId === size.id ? t.weighed! : 0;
      return weight > 0 ? [{ ...t.material, weight }] : [];
    })
    .sort((a, b) => b.weight - a.weight);
}

/** What a check has it on hold for is what it is melted down for; any other hold stays. */
async function heldByCheck(tx: Tx, batchId: number, reason: string): Promise<boolean> {
  const [check] = await tx
    .select({ id: batchCheck.id })
    .from(batchCheck)
    .where(and(eq(batchCheck.batchId, batchId), isNotNull(batchCheck.heldAs), eq(batchCheck.heldAs, reason)))
    .limit(1);
  return reason === WAITS || check !== undefined;
}

/**
 * Takes units out of the cabinet and puts what was in them on the shelf as a base, at what they cost.
 * @throws Refused by field: for fewer units than that, for a lot past its day or on hold for anything but its check, for more than they held
 */
export const meltDown = defineAct({
  kind: "meltDown",
  run: async (tx, { lotId, units, weight, note }: MeltDownIn, { actId, day }) => {
    const locked = await lockLots(tx, [lotId]);
    const of = await pouredAs(tx, lotId);
    const held = locked.get(lotId);
    if (held?.holdReason && (await heldByCheck(tx, of.size.batchId, held.holdReason))) locked.set(lotId, { ...held, hold: false });
    const from = useOf(locked, lotId, "melt", day, "units");
    const most = units * of.size.fill * (1 + FILL_TOLERANCE);
    if (weight > most)
      throw Refused.one("weight", `${counted(units, "unit")} of it hold ${grams(units * of.size.fill)}. Check the weight, or the number.`);
    const drawn = draw(locked, lotId, units, "units", (n) => counted(n, "unit"), { actId, reason: "remelted", note });
    const parts = await partsOf(tx, of);
    const facts = { ...factsOfParts(parts), makeup: makeupOf(parts satisfies Weighed[]) };
    const name = [of.name, of.variant, "melted down"].filter(Boolean).join(", ");
    const base = { ...facts, name, kind: "base", densities: KINDS.base.start, kept: "cool" } as const;
    const { id, made } = await materialMade(tx, base, ["base"], "units", "Call that something else first.");
    if (!made) await madeOfNow(tx, id, facts);
    const [row] = await tx.select().from(material).where(eq(material.id, id));
    const [into] = await makeLots(tx, day, [{ material: row!, supplierLot: "", bestBefore: of.best }]);
    await tx
      .insert(movement)
      .values([drawn, { actId, lotId: into!.id, qty: weight, value: minus(drawn.value), reason: "remelted" as const, note }]);
    return {
      path: `/lots/${encodeURIComponent(into!.number)}`,
      summary: `Melted down ${counted(units, "unit")} of ${from.number} into ${grams(weight)} of base, ${into!.number}: ${note}`,
      about: [
        { kind: "product", id: of.size.productId },
        { kind: "lot", id: lotId, changes: true },
        { kind: "material", id },
      ],
      leaves: null,
    };
  },
  leaves: null,
  back: async () => {},
});

/** What stands on the shelf melted down, and the recipe each came of; oldest first. */
export const basesOnShelf = (db: Reads) =>
  ask(db, "bases_on_shelf", {}, () =>
    db
      .select({ lotId: lot.id, number: lot.number, materialId: material.id, name: lot.name })
      .from(lot)
      .innerJoin(material, eq(material.id, lot.materialId))
      .where(and(eq(material.kind, "base"), gt(lot.onHand, 0)))
      .orderBy(asc(lot.id)),
  );

/** The recipe whose product a base was before it was melted down; null for one that was bought. */
export async function recipeOfBase(db: Reads, lotId: number): Promise<{ id: number; name: string } | null> {
  const [row] = await ask(db, "recipe_of_base", { lotId }, (at) =>
    db
      .select({ id: recipe.id, name: recipe.name })
      .from(recipe)
      .where(
        and(
          eq(recipe.retired, false),
          inArray(
            recipe.id,
            sql`(select p.recipe_id from lot_link k join ${lot} l on l.id = k.from_lot join ${product} p on p.id = l.product_id where k.to_lot = ${at.lotId})`,
          ),
        ),
      )
      .limit(1),
  );
  return row ?? null;
}
