/** Correcting a count, and putting a lot on hold. */
import { kind as kindOf } from "#core/material/kinds";
import { type Base } from "#core/measure/exact";
import { showStock } from "#core/measure/write";
import { Refused } from "#core/refused";
import { eq } from "drizzle-orm";
import { perform, type Doing, type Done } from "../act.ts";
import type { Db } from "../client.ts";
import { draw, foundValue, lockLots, unitCostOfLot } from "../ledger.ts";
import { lot, material, movement } from "../schema.ts";

export interface CountIn {
  lotId: number;
  counted: Base;
  reason: string;
  /** What the person saw when they counted; when the lot has moved since, the count is refused. */
  expected: Base;
}

/** Sets a lot's on hand to what was counted, as a movement with its reason. @throws Refused when it moved meanwhile, or nothing changes */
export function correctCount(db: Db, input: CountIn, doing: Doing): Promise<Done> {
  return perform(db, "count", doing, async (tx, actId) => {
    const lots = await lockLots(tx, [input.lotId]);
    const at = lots.get(input.lotId);
    if (!at) throw Refused.one("counted", "That lot isn't here any more.");
    const [row] = await tx
      .select({ materialId: lot.materialId, kind: material.kind, name: material.name })
      .from(lot)
      .leftJoin(material, eq(material.id, lot.materialId))
      .where(eq(lot.id, input.lotId));
    const show = (n: Base): string => showStock(n, row?.kind ? kindOf(row.kind).measured : "count");
    if (at.onHand !== input.expected)
      throw Refused.one("counted", `This lot has just changed to ${show(at.onHand)}. Count again from there.`);
    const was = at.onHand;
    const change = input.counted - was;
    if (change === 0) throw Refused.one("counted", "That is what the shelf says already.");
    const base = { actId, reason: "counted" as const, note: input.reason };
    const move =
      change < 0
        ? draw(lots, input.lotId, -change, "counted", show, base)
        : { ...base, lotId: input.lotId, qty: change, value: foundValue(change, await unitCostOfLot(tx, input.lotId)) };
    await tx.insert(movement).values(move);
    return {
      path: row?.materialId ? `/shelf/${row.materialId}` : "/cabinet",
      summary: `Counted ${at.number}: ${show(input.counted)}, was ${show(was)}`,
    };
  });
}

/** Puts a lot on hold with a reason, or frees it (null). A lot on hold is never taken by itself. */
export async function holdLot(db: Db, lotId: number, reason: string | null): Promise<void> {
  await db.update(lot).set({ holdReason: reason }).where(eq(lot.id, lotId));
}
