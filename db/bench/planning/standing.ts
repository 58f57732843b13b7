/** Whether a batch is on the bench: set out, and neither poured nor cleared off. Asked and held in one way, with its weigh sheet. */
import type { Mg } from "#core/measure/exact";
import { Refused } from "#core/refused";
import { and, eq, inArray, isNull } from "drizzle-orm";
import type { Tx } from "../../client.ts";
import { batch, batchTake, lot } from "../../schema.ts";

export const onTheBench = and(isNull(batch.pouredActId), isNull(batch.clearedActId));

/** The batch, held, while it is on the bench. @throws Refused once it is poured or cleared */
export async function lockBatchOnBench(tx: Tx, batchId: number): Promise<typeof batch.$inferSelect> {
  const [row] = await tx
    .select()
    .from(batch)
    .where(and(eq(batch.id, batchId), onTheBench))
    .for("no key update");
  if (!row) throw Refused.one("", "This batch isn't on the bench any more.");
  return row;
}

export interface TakeIn {
  position: number;
  materialId: number;
  lotId: number;
  planned: Mg;
  weighed: Mg | null;
}

/**
 * A batch on the bench, held for this act, with the lines of its weigh sheet as they may be weighed.
 * @param had what the window had of the sheet: a line that was added elsewhere since, it can't send; without it every line is asked for
 * @throws Refused once it is poured or cleared; for lines left out; beside a lot of another material
 */
export async function onBench<T extends TakeIn>(
  tx: Tx,
  batchId: number,
  takes: readonly T[],
  had?: readonly Pick<TakeIn, "position" | "lotId">[],
) {
  const open = await lockBatchOnBench(tx, batchId);
  const stored = await tx.select().from(batchTake).where(eq(batchTake.batchId, batchId));
  const line = (t: { position: number; materialId: number }): string => `${t.position} ${t.materialId}`;
  const names = new Map(stored.map((t) => [line(t), t]));
  const sent = new Set(takes.map(line));
  const unknown = (t: (typeof stored)[number]): boolean => had?.some((h) => h.position === t.position && h.lotId === t.lotId) === false;
  if (stored.some((t) => !sent.has(line(t)) && !unknown(t)) || [...sent].some((k) => !names.has(k)))
    throw Refused.one("", "These aren't the lines this batch was set out with. Reload the page and weigh on from there.");
  const lots = new Map(
    (
      await tx
        .select({ id: lot.id, of: lot.materialId })
        .from(lot)
        .where(
          inArray(
            lot.id,
            takes.map((t) => t.lotId),
          ),
        )
    ).map((l) => [l.id, l.of]),
  );
  const wrong = takes.findIndex((t) => lots.get(t.lotId) !== t.materialId);
  if (wrong >= 0) throw Refused.one(`takes.${wrong}.lot`, "That lot is of another material. Choose a lot of what the line says.");
  return { batch: open, lines: takes.map((t) => ({ ...t, batchId, name: names.get(line(t))!.name, sizeId: names.get(line(t))!.sizeId })) };
}
