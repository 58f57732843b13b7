/** A batch that failed: burnt, split, or water in the pot. What was weighed is gone with what it cost, and why is written down. */
import { micros, sum, type Micros } from "#core/measure/exact";
import { money } from "#core/measure/money";
import { grams } from "#core/measure/write";
import { Refused } from "#core/refused";
import { eq, sql } from "drizzle-orm";
import { defineAct } from "../../act/define.ts";
import type { Reads } from "../../client.ts";
import { draw, lockLots, movementsOf } from "../../ledger/lots.ts";
import { runPrepared } from "../../prepared.ts";
import { batch, batchTake, movement, recipeVersion } from "../../schema.ts";
import { readSettings } from "../../settings/settings.ts";
import { lockBatchOnBench } from "../planning/standing.ts";

/** Writes off what was weighed of a batch, and clears it off the bench. @throws Refused when nothing was weighed, or a lot hasn't got that much */
export const spoilBatch = defineAct({
  kind: "spoilBatch",
  run: async (tx, { batchId, why }: { batchId: number; why: string }, { actId }) => {
    const open = await lockBatchOnBench(tx, batchId);
    const takes = (await tx.select().from(batchTake).where(eq(batchTake.batchId, batchId)).orderBy(batchTake.id)).flatMap((t) =>
      t.weighed === null || t.weighed === 0 ? [] : [{ ...t, weighed: t.weighed }],
    );
    if (takes.length === 0) throw Refused.one("why", "Nothing of it was weighed: clear it off the bench instead, and nothing is used.");
    const locked = await lockLots(
      tx,
      takes.map((t) => t.lotId),
    );
    // What is in the pot is gone, whether or not its lot may still be used for anything.
    const draws = takes.map((t) => draw(locked, t.lotId, t.weighed, "why", grams, { actId, reason: "wasted", batchId, note: why }));
    await tx.insert(movement).values(draws);
    await tx.update(batch).set({ clearedActId: actId, spoiledActId: actId, spoiledWhy: why }).where(eq(batch.id, batchId));
    const [version] = await tx.select({ name: recipeVersion.name }).from(recipeVersion).where(eq(recipeVersion.id, open.versionId));
    const { currency } = await readSettings(tx);
    const cost = micros(-draws.reduce((a, d) => a + d.value, 0));
    return {
      path: `/bench/${batchId}`,
      summary: `Wrote off ${version!.name}: ${grams(sum(takes.map((t) => t.weighed)))}, ${money(cost, currency)}`,
      about: [
        { kind: "batch", id: batchId, changes: true },
        { kind: "recipe", id: open.recipeId },
        ...takes.map((t) => ({ kind: "material" as const, id: t.materialId })),
      ],
      leaves: null,
    };
  },
  leaves: null,
  back: async (tx, _left, { undoes }) => {
    await tx.update(batch).set({ clearedActId: null, spoiledActId: null, spoiledWhy: "" }).where(eq(batch.spoiledActId, undoes));
  },
});

/** What a batch that failed cost by now, corrections of what was paid included; nothing for any other. */
export async function spoiledCost(db: Reads, { spoiledActId }: Pick<typeof batch.$inferSelect, "spoiledActId">): Promise<Micros> {
  if (spoiledActId === null) return micros(0);
  const [row] = await runPrepared(db, "spoiled_cost", { spoiledActId }, (at) =>
    db
      .select({ value: sql`-coalesce(sum(${movement.value}), 0)`.mapWith(movement.value) })
      .from(movement)
      .where(movementsOf(at.spoiledActId)),
  );
  return row!.value;
}
