/** Clearing a batch off the bench before it is poured, and putting it back. */
import { Refused } from "#core/refused";
import { unreserved } from "#core/stock/reservations";
import type { Day } from "#core/when";
import { wordList } from "#core/words";
import { and, eq } from "drizzle-orm";
import { defineAct } from "../../act/define.ts";
import { requireNoLaterActs } from "../../ledger/effective.ts";
import type { Tx } from "../../client.ts";
import { lotsOfMaterials } from "../../ledger/lots.ts";
import { batch, batchTake } from "../../schema.ts";
import { lockReservations, readReservations } from "./reservations.ts";
import { onTheBench } from "./standing.ts";

/** @throws Refused when what this batch had reserved is now reserved for another */
async function stillFree(tx: Tx, batchId: number, day: Day): Promise<void> {
  await lockReservations(tx);
  const takes = await tx.select().from(batchTake).where(eq(batchTake.batchId, batchId));
  const reserved = await readReservations(tx, batchId);
  const lots = await lotsOfMaterials(
    tx,
    takes.map((t) => t.materialId),
  );
  const free = new Map(unreserved(lots, reserved, day).map((l) => [l.id, l.onHand]));
  const gone = takes.filter((t) => t.planned > (free.get(t.lotId) ?? 0));
  // What is used up or thrown away since is found when it is weighed; what is reserved for others is refused now.
  const others = new Map(reserved.holders.filter((p) => gone.some((t) => t.materialId === p.of)).map((p) => [p.batchId, p.recipe]));
  if (others.size > 0)
    throw Refused.one(
      "",
      `${wordList([...new Set(gone.map((t) => t.name))])} of it ${gone.length === 1 ? "is" : "are"} reserved for ${wordList([...others.values()])} by now. Clear that off first, or set this out again.`,
      [...others].map(([id, name]) => ({ to: `/bench/${id}`, name })),
    );
}

/** Clears a batch off the bench without pouring it; can be taken back. */
export const clearBatch = defineAct({
  kind: "clearBatch",
  run: async (tx, { batchId }: { batchId: number }, { actId }) => {
    const [row] = await tx
      .update(batch)
      .set({ clearedActId: actId })
      .where(and(eq(batch.id, batchId), onTheBench))
      .returning({ id: batch.id });
    if (!row) throw Refused.one("", "This batch isn't on the bench any more.");
    return {
      path: "/bench",
      summary: "Cleared a batch off the bench; nothing was used",
      about: [{ kind: "batch", id: batchId, changes: true }],
      leaves: null,
    };
  },
  leaves: null,
  back: async (tx, _left, { undoes, day }) => {
    const [row] = await tx.update(batch).set({ clearedActId: null }).where(eq(batch.clearedActId, undoes)).returning({ id: batch.id });
    if (!row) return undefined;
    await requireNoLaterActs(tx, { kind: "batch", id: row.id }, undoes, ["pour"], "It has been poured since.");
    await stillFree(tx, row.id, day);
    return `/bench/${row.id}`;
  },
});
