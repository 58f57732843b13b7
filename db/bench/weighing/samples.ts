/** Net weights of filled units, as they are weighed: saved on the batch, and no act until it is poured. */
import type { WeighedBy } from "#core/batch/weighing/events";
import type { Mg } from "#core/measure/exact";
import { Refused } from "#core/refused";
import { and, asc, eq, inArray, sql } from "drizzle-orm";
import type { Db, Reads } from "../../client.ts";
import { runPrepared } from "../../prepared.ts";
import { batchSample, batchSize } from "../../schema.ts";
import { lockBatchOnBench } from "../planning/standing.ts";

export interface SampleIn {
  batchId: number;
  sizeId: number;
  net: Mg;
  by: WeighedBy;
}

/** Keeps the net weight of one. @throws Refused once the batch is poured, and for a size of another */
export async function addSample(db: Db, { batchId, sizeId, net, by }: SampleIn): Promise<void> {
  await db.transaction(async (tx) => {
    await lockBatchOnBench(tx, batchId);
    const [size] = await tx
      .select({ id: batchSize.id })
      .from(batchSize)
      .where(and(eq(batchSize.id, sizeId), eq(batchSize.batchId, batchId)));
    if (!size) throw Refused.one("", "That isn't a size of this batch. Reload the page.");
    if (net <= 0) throw Refused.one("", "There is nothing in it: tare an empty one first, then weigh a filled one.");
    await tx.insert(batchSample).values({ sizeId, net, weighedBy: by });
  });
}

/** Strikes one out that was weighed by mistake. @throws Refused when it isn't this batch's, or that is poured */
export async function strikeSample(db: Db, batchId: number, id: number): Promise<void> {
  await db.transaction(async (tx) => {
    await lockBatchOnBench(tx, batchId);
    const own = tx.select({ id: batchSize.id }).from(batchSize).where(eq(batchSize.batchId, batchId));
    const [row] = await tx
      .update(batchSample)
      .set({ struckAt: sql`coalesce(${batchSample.struckAt}, now())` })
      .where(and(eq(batchSample.id, id), inArray(batchSample.sizeId, own)))
      .returning({ id: batchSample.id });
    if (!row) throw Refused.one("", "That isn't on this batch any more.");
  });
}

/** Net weights of a batch, in the order they were weighed; those struck out too. */
export const samplesOf = (db: Reads, batchId: number) =>
  runPrepared(db, "samples_of_batch", { batchId }, (at) =>
    db
      .select({
        id: batchSample.id,
        sizeId: batchSample.sizeId,
        net: batchSample.net,
        weighedBy: batchSample.weighedBy,
        struckAt: batchSample.struckAt,
      })
      .from(batchSample)
      .innerJoin(batchSize, eq(batchSize.id, batchSample.sizeId))
      .where(eq(batchSize.batchId, at.batchId))
      .orderBy(asc(batchSample.id)),
  );
export type Sample = Awaited<ReturnType<typeof samplesOf>>[number];
