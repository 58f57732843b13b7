/** What batches on the bench have reserved: the lots on their weigh sheets, and the packaging of what they are to fill. */
import type { Reservations } from "#core/stock/reservations";
import { and, eq, gt, sql } from "drizzle-orm";
import type { Reads, Tx } from "../../client.ts";
import { runPrepared } from "../../prepared.ts";
import { batch, batchSize, batchTake, productPackaging, recipeVersion } from "../../schema.ts";
import { onTheBench } from "./standing.ts";

/** Weigh lines of open batches, with whose they are. */
const lines = (db: Reads) =>
  runPrepared(db, "spoken_lines", {}, () =>
    db
      .select({
        batchId: batch.id,
        recipe: recipeVersion.name,
        of: batchTake.materialId,
        lotId: batchTake.lotId,
        planned: batchTake.planned,
        weighed: batchTake.weighed,
      })
      .from(batchTake)
      .innerJoin(batch, eq(batch.id, batchTake.batchId))
      .innerJoin(recipeVersion, eq(recipeVersion.id, batch.versionId))
      .where(onTheBench),
  );

const packs = (db: Reads) =>
  runPrepared(db, "spoken_packs", {}, () =>
    db
      .select({
        batchId: batch.id,
        recipe: recipeVersion.name,
        of: productPackaging.materialId,
        pieces: productPackaging.pieces,
        planned: batchSize.planned,
      })
      .from(batchSize)
      .innerJoin(batch, eq(batch.id, batchSize.batchId))
      .innerJoin(recipeVersion, eq(recipeVersion.id, batch.versionId))
      .innerJoin(productPackaging, eq(productPackaging.productId, batchSize.productId))
      .where(and(onTheBench, gt(batchSize.planned, 0))),
  );

/** A batch that has reserved some of a material. */
export interface ReservationHolder {
  batchId: number;
  recipe: string;
  of: number;
  amount: number;
}

/** Locked by each act that reserves: of two that ask for the last at once the second waits, and finds it gone. */
export const lockReservations = (tx: Tx) => tx.execute(sql`select pg_advisory_xact_lock(hashtext('promises of the bench'))`);

/** What is reserved, and for which batch. @param but a batch whose own doesn't count */
export async function readReservations(db: Reads, but?: number): Promise<Reservations & { holders: ReservationHolder[] }> {
  // One after the other: an act asks on its own connection.
  const taken = (await lines(db)).filter((l) => l.batchId !== but);
  const packed = (await packs(db)).filter((p) => p.batchId !== but);
  // What is weighed is in the pot, whatever was planned.
  const takes = taken.map((t) => ({ ...t, amount: Math.max(t.planned, t.weighed ?? 0) }));
  const needs = packed.map((p) => ({ ...p, amount: p.pieces * p.planned }));
  return {
    takes: takes.map(({ lotId, amount }) => ({ lotId, amount })),
    needs: needs.map(({ of, amount }) => ({ of, amount })),
    holders: [...takes, ...needs].map(({ batchId, recipe, of, amount }) => ({ batchId, recipe, of, amount })),
  };
}
