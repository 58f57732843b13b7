/** Correcting a count, and putting a lot on hold. */
import { HOLDS_LOTS } from "#core/act/kinds";
import { kind as kindOf } from "#core/material/kinds";
import { type Base } from "#core/measure/exact";
import { showStock } from "#core/measure/write";
import { Refused } from "#core/refused";
import { eq } from "drizzle-orm";
import { object, string } from "yup";
import { defineAct } from "../act/define.ts";
import { leftId } from "../act/left.ts";
import { nothingLater } from "../act/standing.ts";
import { draw, foundValue, lockLots, unitCostOfLot } from "../ledger/lots.ts";
import { lot, material, movement } from "../schema.ts";

export interface CountIn {
  lotId: number;
  counted: Base;
  reason: string;
  /** What the person saw when they counted; when the lot has moved since, the count is refused. */
  expected: Base;
}

/** Sets a lot's on hand to what was counted, as a movement with its reason. @throws Refused when it moved meanwhile, or nothing changes */
export const correctCount = defineAct({
  kind: "count",
  run: async (tx, input: CountIn, { actId }) => {
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
    const base = { actId, reason: "counted" as const, countedTo: input.counted, note: input.reason };
    const move =
      change < 0
        ? draw(lots, input.lotId, -change, "counted", show, base)
        : { ...base, lotId: input.lotId, qty: change, value: foundValue(change, await unitCostOfLot(tx, input.lotId)) };
    await tx.insert(movement).values(move);
    return {
      path: row?.materialId ? `/shelf/${row.materialId}` : `/lots/${encodeURIComponent(at.number)}`,
      summary: `Counted ${at.number}: ${show(input.counted)}, was ${show(was)}`,
      about: row?.materialId
        ? [{ kind: "material" as const, id: row.materialId }]
        : [
            { kind: "product" as const, id: at.of },
            { kind: "lot" as const, id: input.lotId, changes: true },
          ],
      leaves: null,
    };
  },
  leaves: null,
  back: async () => {},
});

/** Puts a lot on hold with a reason, or frees it (null). A lot on hold is used for nothing until it is free again. */
export const holdLot = defineAct({
  kind: "hold",
  run: async (tx, input: { lotId: number; reason: string | null }) => {
    const [before] = await tx.select().from(lot).where(eq(lot.id, input.lotId)).for("no key update");
    if (!before) throw Refused.one("", "That lot isn't here any more.");
    if (before.holdReason === input.reason)
      throw Refused.one("reason", input.reason === null ? "That lot isn't on hold." : "It is on hold for that already.");
    await tx.update(lot).set({ holdReason: input.reason }).where(eq(lot.id, before.id));
    return {
      path: `/lots/${encodeURIComponent(before.number)}`,
      summary: input.reason === null ? `${before.number} is off hold` : `Put ${before.number} on hold: ${input.reason}`,
      about: [
        { kind: "lot" as const, id: before.id, changes: true },
        ...(before.materialId === null ? [] : [{ kind: "material" as const, id: before.materialId }]),
      ],
      leaves: { lotId: before.id, was: before.holdReason },
    };
  },
  leaves: object({ lotId: leftId(), was: string().nullable().defined() }),
  back: async (tx, { lotId, was }, { undoes }) => {
    await nothingLater(tx, { kind: "lot", id: lotId }, undoes, HOLDS_LOTS, "It was held or released again since.");
    await tx.update(lot).set({ holdReason: was }).where(eq(lot.id, lotId));
  },
});
