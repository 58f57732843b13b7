/** Correcting a count, and putting a lot on hold. */
import { HELD_BY, type HeldBy } from "#core/stock/holds";
import { kind as kindOf } from "#core/material/kinds";
import { type Base } from "#core/measure/exact";
import { showStock } from "#core/measure/write";
import { Refused } from "#core/refused";
import { eq } from "drizzle-orm";
import { array, object, string, type InferType } from "yup";
import { defineAct } from "../../act/define.ts";
import { undoId, undoOneOf } from "../../act/left.ts";
import { requireNoLaterActs } from "../../ledger/effective.ts";
import type { Tx } from "../../client.ts";
import { freeLots, holdLots, holdsOf } from "../../ledger/holds.ts";
import { draw, surplusValue, lockLots, unitCostOfLot } from "../../ledger/lots.ts";
import { lot, material, movement } from "../../schema.ts";

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
        : { ...base, lotId: input.lotId, qty: change, value: surplusValue(change, await unitCostOfLot(tx, input.lotId)) };
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

const held = object({ by: undoOneOf(Object.keys(HELD_BY) as HeldBy[]), source: undoId(), reason: string().defined() });
type Held = InferType<typeof held>;

/** What of a lot's holds can be lifted on its own page. @throws Refused naming what has to be settled elsewhere first */
async function liftable(tx: Tx, lotId: number): Promise<Held[]> {
  const holds = await holdsOf(tx, lotId);
  if (holds.length === 0) throw Refused.one("reason", "That lot isn't on hold.");
  const recalled = holds.filter((h) => h.by === "recall" && h.closed === null);
  if (recalled.length > 0)
    throw Refused.one(
      "reason",
      "A recall holds it that isn't closed. What it holds is free once that is settled, and not before.",
      recalled.map((h) => ({ to: `/lots/recalls/${h.source}`, name: h.reason })),
    );
  const lifts = holds.filter((h) => h.by !== "check");
  if (lifts.length === 0)
    throw Refused.one(
      "reason",
      "It waits for its check, or was held back by it: say at its batch what is found.",
      holds.map((h) => ({ to: `/bench/${h.source}`, name: "The batch" })),
    );
  return lifts.map(({ by, source, reason }) => ({ by, source, reason }));
}

/**
 * Puts a lot on hold with a reason, or lifts (null) what somebody put it on hold for, and what a closed recall left; a check and a recall that goes on
 * are lifted by themselves alone. A lot on hold is used for nothing until it is free of all of them.
 */
export const holdLot = defineAct({
  kind: "hold",
  run: async (tx, input: { lotId: number; reason: string | null }) => {
    const [before] = await tx.select().from(lot).where(eq(lot.id, input.lotId)).for("no key update");
    if (!before) throw Refused.one("", "That lot isn't here any more.");
    const byHand = (await holdsOf(tx, before.id)).find((h) => h.by === "hand");
    if (input.reason !== null && byHand?.reason === input.reason) throw Refused.one("reason", "It is on hold for that already.");
    const gone: Held[] = input.reason === null ? await liftable(tx, before.id) : byHand ? [{ ...HAND, reason: byHand.reason }] : [];
    for (const h of gone) await freeLots(tx, [before.id], h);
    if (input.reason !== null) await holdLots(tx, [before.id], { ...HAND, reason: input.reason });
    const [now] = await tx.select({ why: lot.holdReason }).from(lot).where(eq(lot.id, before.id));
    return {
      path: `/lots/${encodeURIComponent(before.number)}`,
      summary:
        input.reason !== null
          ? `Put ${before.number} on hold: ${input.reason}`
          : `${before.number} is off hold${now!.why === null ? "" : `, but for: ${now!.why}`}`,
      about: [
        { kind: "lot" as const, id: before.id, changes: true },
        ...(before.materialId === null ? [] : [{ kind: "material" as const, id: before.materialId }]),
      ],
      leaves: { lotId: before.id, was: gone.find((h) => h.by === "hand")?.reason ?? null, gone },
    };
  },
  // Acts from before holds left only the lot's one reason.
  leaves: object({ lotId: undoId(), was: string().nullable().defined(), gone: array().of(held).optional() }),
  back: async (tx, { lotId, was, gone }, { undoes }) => {
    await requireNoLaterActs(tx, { kind: "lot", id: lotId }, undoes, ["hold"], "It was held or released again since.");
    await freeLots(tx, [lotId], HAND);
    for (const h of gone ?? (was === null ? [] : [{ ...HAND, reason: was }])) await holdLots(tx, [lotId], h);
  },
});
const HAND = { by: "hand", source: 0 } as const;
