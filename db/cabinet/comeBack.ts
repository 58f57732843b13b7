/** Units that come back from somebody: on the shelf again, or thrown away; either way the lot's page knows of it. */
import { FATES, unitsOut, type Fate } from "#core/cabinet/out";
import { micros } from "#core/measure/exact";
import { Refused } from "#core/refused";
import { counted } from "#core/words";
import { defineAct } from "../act/define.ts";
import { draw, surplusValue, lockLots, unitCostOfLot } from "../ledger/lots.ts";
import { outAt, outOf } from "../ledger/out.ts";
import { movement } from "../schema.ts";

export interface ComeBackIn {
  lotId: number;
  units: number;
  fate: Fate;
  /** The order or the market day it had gone out by; neither where it was handed out. */
  from: { orderId: number | null; dayId: number | null };
  /** Who brought it, and why. */
  note: string;
}

/** Takes units of a finished lot back. @throws Refused on `units` for more than are out */
export const comeBack = defineAct({
  kind: "comeBack",
  run: async (tx, { lotId, units, fate, from, note }: ComeBackIn, { actId }) => {
    const lots = await lockLots(tx, [lotId]);
    const found = lots.get(lotId);
    if (!found || found.kind !== null) throw Refused.one("units", "That lot isn't here any more.");
    const out = unitsOut(await outOf(tx, [lotId]));
    if (units > out)
      throw Refused.one("units", out > 0 ? `Only ${counted(out, "unit")} of it ${out === 1 ? "is" : "are"} out.` : "None of it is out.");
    const there = (await outAt(tx, lotId)).find((o) => o.orderId === from.orderId && o.dayId === from.dayId)?.units ?? 0;
    if (units > there)
      throw Refused.one(
        "from",
        there > 0 ? `Only ${counted(there, "unit")} of it ${there === 1 ? "is" : "are"} there.` : "None of it is out there.",
      );
    const value = surplusValue(units, await unitCostOfLot(tx, lotId));
    await tx
      .insert(movement)
      .values({ actId, lotId, qty: units, value, reason: "cameBack", note, backFromOrderId: from.orderId, backFromDayId: from.dayId });
    found.onHand += units;
    found.value = micros(found.value + value);
    if (fate === "thrown")
      await tx.insert(movement).values(draw(lots, lotId, units, "units", (n) => counted(n, "unit"), { actId, reason: "damaged", note }));
    return {
      path: `/lots/${encodeURIComponent(found.number)}`,
      summary: `${counted(units, "unit")} of ${found.number} came back; what came back ${FATES[fate]}`,
      about: [
        { kind: "product", id: found.of },
        { kind: "lot", id: lotId, changes: true },
      ],
      leaves: null,
    };
  },
  leaves: null,
  back: async () => {},
});
