/**
 * Restating: a lot's cost or amount turns out to be another, and the difference follows what was made of it, into batches, jars and
 * blends. Nothing of the ledger is changed; each difference is a movement of its own that says which one it puts right.
 */
import { allocate, micros, type Base, type Micros } from "#core/measure/exact";
import { Refused } from "#core/refused";
import { restate } from "#core/stock/restate";
import { and, eq, gt, inArray, sql } from "drizzle-orm";
import type { Tx } from "../client.ts";
import { lockLots } from "../ledger.ts";
import { act, batch, jar, movement } from "../schema.ts";

const standing = sql`not exists (select 1 from ${act} u where u.undoes = ${movement.actId})`;

/** Draws from a lot that stand, with the value each has after earlier restatements. */
async function drawsOf(tx: Tx, lotId: number) {
  const rows = await tx
    .select()
    .from(movement)
    .where(and(eq(movement.lotId, lotId), sql`${movement.qty} < 0 and ${movement.reason} not in ('undone', 'corrected')`, standing))
    .orderBy(movement.id);
  if (rows.length === 0) return [];
  const fixes = await tx
    .select({ of: movement.restates, value: sql`sum(${movement.value})`.mapWith(Number) })
    .from(movement)
    .where(
      and(
        eq(movement.lotId, lotId),
        inArray(
          movement.restates,
          rows.map((r) => r.id),
        ),
      ),
    )
    .groupBy(movement.restates);
  const fixed = new Map(fixes.map((f) => [f.of, f.value]));
  return rows.map((r) => ({ ...r, drawn: { qty: -r.qty as Base, value: micros(-(r.value + (fixed.get(r.id) ?? 0)) || 0) } }));
}

/** The lots a draw went into, each with the movement that brought it there and its share of the difference. */
async function wentInto(
  tx: Tx,
  draw: typeof movement.$inferSelect,
  delta: Micros,
): Promise<{ lotId: number; made: number; delta: Micros }[]> {
  const madeBy = async (actId: number | null, reason: "filled" | "strained" | "blended") =>
    actId === null
      ? []
      : tx
          .select({ lotId: movement.lotId, id: movement.id, qty: movement.qty })
          .from(movement)
          .where(and(eq(movement.actId, actId), eq(movement.reason, reason), gt(movement.qty, 0)))
          .orderBy(movement.id);
  let made: Awaited<ReturnType<typeof madeBy>> = [];
  if (draw.reason === "used" && draw.batchId !== null) {
    const [b] = await tx.select({ by: batch.pouredActId }).from(batch).where(eq(batch.id, draw.batchId));
    made = await madeBy(b?.by ?? null, "filled");
  } else if (draw.reason === "infused" && draw.jarId !== null) {
    const [j] = await tx.select({ by: jar.strainedActId }).from(jar).where(eq(jar.id, draw.jarId));
    made = await madeBy(j?.by ?? null, "strained");
  } else if (draw.reason === "blended") made = await madeBy(draw.actId, "blended");
  if (made.length === 0) return [];
  const shares = allocate(
    delta,
    made.map((m) => m.qty),
  );
  return made.map((m, i) => ({ lotId: m.lotId, made: m.id, delta: micros(shares[i]!) }));
}

export interface Restatement {
  lotId: number;
  /** More or less of it than the books said, and what it cost more or less. */
  qty: Base;
  value: Micros;
  /** The movement that brought it in. */
  made: number;
}

/**
 * Posts a difference to a lot and lets it follow what was drawn.
 * @param field where to say that more was used than there would be
 * @throws Refused when less would have come in than was used
 */
export async function restateLot(tx: Tx, actId: number, r: Restatement, field: string): Promise<void> {
  if (r.qty === 0 && r.value === 0) return;
  const at = (await lockLots(tx, [r.lotId])).get(r.lotId)!;
  const left = at.onHand + r.qty;
  if (left < 0) throw Refused.one(field, `More of lot ${at.number} has been used or counted out than that. Nothing was changed.`);
  const draws = await drawsOf(tx, r.lotId);
  const total = micros(at.value + draws.reduce((a, d) => a + d.drawn.value, 0) + r.value);
  const parts = restate(
    total,
    { qty: left, value: micros(at.value + r.value) },
    draws.map((d) => d.drawn),
  );
  if (left === 0 && draws.length === 0 && total !== 0) throw Refused.one(field, `Lot ${at.number} can't cost something and hold nothing.`);
  const rows = [
    {
      actId,
      lotId: r.lotId,
      qty: r.qty,
      value: r.value,
      reason: r.qty === 0 ? ("restated" as const) : ("corrected" as const),
      restates: r.made,
    },
    ...draws.flatMap((d, i) =>
      parts.draws[i] === 0
        ? []
        : [
            {
              actId,
              lotId: r.lotId,
              qty: 0,
              value: micros(-parts.draws[i]!),
              reason: "restated" as const,
              restates: d.id,
              batchId: d.batchId,
              marketDayId: d.marketDayId,
              giftOrderId: d.giftOrderId,
              jarId: d.jarId,
            },
          ],
    ),
  ];
  // What comes in first, so that the lot never goes below zero on the way.
  await tx.insert(movement).values(rows.sort((a, b) => b.value - a.value || b.qty - a.qty));
  for (const [i, d] of draws.entries())
    if (parts.draws[i] !== 0)
      for (const next of await wentInto(tx, d, parts.draws[i]!))
        await restateLot(tx, actId, { lotId: next.lotId, qty: 0, value: next.delta, made: next.made }, field);
}
