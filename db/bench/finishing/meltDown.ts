/**
 * Melting down: finished units that came out too soft, grainy or faint go back into the pot. Out of their tins they are a base on the shelf, worth
 * what they were, best before as they were, with their whole history; what it is made of is known, so that a pot it goes into is known too.
 */
import { FILL_TOLERANCE } from "#core/batch/finishing/result";
import { mg, minus, type Mg } from "#core/measure/exact";
import { grams } from "#core/measure/write";
import { Refused } from "#core/refused";
import { counted } from "#core/words";
import { and, asc, eq, gt } from "drizzle-orm";
import { defineAct } from "../../act/define.ts";
import type { Tx } from "../../client.ts";
import { addedToSize } from "../../columnsOf.ts";
import { holdsOf } from "../../ledger/holds.ts";
import { draw, lockLots, requireUsable } from "../../ledger/lots.ts";
import { batch, batchSize, batchTake, lot, material, movement, product, recipeVersion } from "../../schema.ts";
import { makeBase } from "../planning/base.ts";

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
  if (!row) throw Refused.one("units", "It was made before the books began: nobody here knows what would be in the base.");
  return row;
}

/** Everything that is in a size: its share of the pot, and what was stirred into it alone. */
async function partsOf(tx: Tx, { size, added }: Awaited<ReturnType<typeof pouredAs>>) {
  const takes = await tx
    .select({ weighed: batchTake.weighed, sizeId: batchTake.sizeId, material })
    .from(batchTake)
    .innerJoin(material, eq(material.id, batchTake.materialId))
    .where(and(eq(batchTake.batchId, size.batchId), gt(batchTake.weighed, mg(0))))
    .orderBy(asc(batchTake.id));
  const pot = takes.reduce((a, t) => a + (t.sizeId === null ? t.weighed! : 0), 0);
  const base = Math.max(0, (size.units ?? 0) * size.fill - added);
  return takes.map((t) => {
    const share = t.sizeId === null ? base / pot : t.sizeId === size.id ? 1 : 0;
    return { ...t.material, weight: t.weighed! * share };
  });
}

/** Whether a check alone has it on hold: that is what it is melted down for; any other hold stays. */
const heldByCheckAlone = async (tx: Tx, lotId: number): Promise<boolean> => (await holdsOf(tx, lotId)).every((h) => h.by === "check");

/**
 * Takes units out of the cabinet and puts what was in them on the shelf as a base, at what they cost.
 * @throws Refused by field: for fewer units than that, for a lot past its day or on hold for anything but its check, for more than they held
 */
export const meltDown = defineAct({
  kind: "meltDown",
  run: async (tx, { lotId, units, weight, note }: MeltDownIn, { actId, day }) => {
    const locked = await lockLots(tx, [lotId]);
    const held = locked.get(lotId);
    if (held?.kind !== null) throw Refused.one("units", "That lot isn't in the cabinet any more.");
    const of = await pouredAs(tx, lotId);
    if (held.holdReason && (await heldByCheckAlone(tx, lotId))) locked.set(lotId, { ...held, hold: false });
    const from = requireUsable(locked, lotId, "melt", day, "units");
    const most = units * of.size.fill * (1 + FILL_TOLERANCE);
    if (weight > most)
      throw Refused.one("weight", `${counted(units, "unit")} of it hold ${grams(units * of.size.fill)}. Check the weight, or the number.`);
    if (weight <= 0)
      throw Refused.one("weight", "Nothing came out of them? Then they are thrown away: take them out of the cabinet as damaged.");
    const drawn = draw(locked, lotId, units, "units", (n) => counted(n, "unit"), { actId, reason: "remelted", note });
    const name = [of.name, of.variant, "melted down"].filter(Boolean).join(", ");
    const { id, into } = await makeBase(tx, day, { name, parts: await partsOf(tx, of), best: of.best, field: "units" });
    await tx
      .insert(movement)
      .values([drawn, { actId, lotId: into.id, qty: weight, value: minus(drawn.value), reason: "remelted" as const, note }]);
    return {
      path: `/lots/${encodeURIComponent(into.number)}`,
      summary: `Melted down ${counted(units, "unit")} of ${from.number} into ${grams(weight)} of base, ${into.number}: ${note}`,
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
