/** Finished units by product, size and lot, and taking some out other than by selling. */
import { REASONS, type TakeOutReason } from "#core/ledger/reasons";
import { Refused } from "#core/refused";
import { counted } from "#core/words";
import { and, asc, eq, isNotNull, sql } from "drizzle-orm";
import { sqlBoolean } from "../columnsOf.ts";
import { defineAct } from "../act/define.ts";
import type { Reads } from "../client.ts";
import { draw, hasStock, lockLots, lotColumns } from "../ledger/lots.ts";
import { runPrepared } from "../prepared.ts";
import { batch, batchSize, lot, movement, product, recipe, recipeVersion } from "../schema.ts";

/** Every finished lot with units left, with what its batch cost in work; called what it was called when it was poured. */
export const listCabinet = (db: Reads) => runPrepared(db, "cabinet", {}, () => cabinet(db));

const cabinet = (db: Reads) =>
  db
    .select({
      ...lotColumns,
      name: lot.name,
      label: lot.label,
      /** No longer made: the size, or its whole recipe, was put away. */
      retired: sqlBoolean(sql`${product.retired} or ${recipe.retired}`),
      type: recipeVersion.type,
      batchId: batch.id,
      units: batchSize.units,
      minutesHundredths: batchSize.minutesHundredths,
      hourly: batch.hourly,
      overheadHourly: batch.overheadHourly,
    })
    .from(lot)
    .innerJoin(product, eq(product.id, lot.productId))
    .innerJoin(recipe, eq(recipe.id, product.recipeId))
    .leftJoin(batchSize, eq(batchSize.lotId, lot.id))
    .leftJoin(batch, eq(batch.id, batchSize.batchId))
    .leftJoin(recipeVersion, eq(recipeVersion.id, batch.versionId))
    // Said, though a lot of a product has one: the index of the cabinet is of those alone.
    .where(and(hasStock, isNotNull(lot.productId)))
    .orderBy(asc(lot.name), asc(product.retired), asc(product.position), asc(product.id), asc(lot.bestBefore));

export type CabinetLot = Awaited<ReturnType<typeof listCabinet>>[number];

export interface TakeOutIn {
  lotId: number;
  units: number;
  reason: TakeOutReason;
  note: string;
}

/** Takes units out of a finished lot for use as tester, gift, own use or as damaged. @throws Refused on `units` when there are fewer */
export const takeOut = defineAct({
  kind: "takeOut",
  run: async (tx, input: TakeOutIn, { actId }) => {
    const lots = await lockLots(tx, [input.lotId]);
    const found = lots.get(input.lotId);
    if (!found || found.kind !== null) throw Refused.one("units", "That lot isn't in the cabinet any more.");
    await tx
      .insert(movement)
      .values(draw(lots, input.lotId, input.units, "units", (n) => counted(n, "unit"), { actId, reason: input.reason, note: input.note }));
    return {
      path: "/cabinet",
      summary: `Took ${input.units} of ${found.number} out: ${REASONS[input.reason].say}`,
      about: [{ kind: "product", id: found.of }],
      leaves: null,
    };
  },
  leaves: null,
  back: async () => {},
});
