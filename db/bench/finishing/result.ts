/** What a poured batch came to, worked out from the ledger. */
import { pourResult, type PourResult } from "#core/batch/finishing/result";
import { kind } from "#core/material/kinds";
import { sum, type Micros } from "#core/measure/exact";
import { and, asc, eq, getTableColumns, sql } from "drizzle-orm";
import type { Reads } from "../../client.ts";
import { addedToSize } from "../../columnsOf.ts";
import { movementsOf } from "../../ledger/lots.ts";
import { batch, batchSize, batchTake, lot, material, movement } from "../../schema.ts";

/** Cost and yield of a poured batch, worked out from its movements; what was corrected since is in it. */
export async function batchResult(tx: Reads, b: typeof batch.$inferSelect): Promise<PourResult | null> {
  if (b.pouredActId === null) return null;
  const spent = await tx
    .select({ into: movement.intoLotId, kind: material.kind, value: sql`-sum(${movement.value})`.mapWith(movement.value) })
    .from(movement)
    .innerJoin(lot, eq(lot.id, movement.lotId))
    .innerJoin(material, eq(material.id, lot.materialId))
    .where(movementsOf(b.pouredActId))
    .groupBy(movement.intoLotId, material.kind);
  /** What was spent on one size alone, or on the whole pot: on what is weighed, or on what is counted. */
  const on = (lotId: number | null, measured: "weight" | "count"): Micros =>
    sum(spent.flatMap((s) => (s.into === lotId && kind(s.kind).measured === measured ? [s.value] : [])));
  const [takes] = await tx
    .select({ weighed: sql`coalesce(sum(${batchTake.weighed}), 0)`.mapWith(batchTake.planned) })
    .from(batchTake)
    .where(eq(batchTake.batchId, b.id));
  const sizes = await tx
    .select({ ...getTableColumns(batchSize), added: addedToSize })
    .from(batchSize)
    .where(and(eq(batchSize.batchId, b.id), sql`${batchSize.units} > 0`))
    .orderBy(asc(batchSize.position));
  return pourResult({
    weighed: takes!.weighed,
    ingredients: on(null, "weight"),
    sizes: sizes.map((s) => ({
      units: s.units!,
      fill: s.fill,
      packaging: on(s.lotId, "count"),
      added: s.added,
      ladled: s.ladled,
      addedCost: on(s.lotId, "weight"),
      minutes: (s.minutesHundredths ?? 0) / 100,
    })),
    leftover: b.leftover!,
    rates: { hourly: b.hourly!, overheadHourly: b.overheadHourly! },
  });
}
