/** Selling, packing and tracing. */
import { eq } from "drizzle-orm";
import { describe, expect, it } from "vitest";
import { reverseAct } from "../acts/reverse.ts";
import { saveGiftOrder } from "../gifts/gifts.ts";
import { packGiftOrder } from "../gifts/pack.ts";
import { findLot, traceLot } from "./trace.ts";
import { closeMarketDay, listMarketDays } from "../markets/markets.ts";
import { movement } from "../schema.ts";
import { holdLot } from "../shelf/counting/count.ts";
import { fairOf } from "#test/db/market";
import { euro } from "#test/db/fresh";
import { eachTestHasAWorkshop, DAY, db, finished, idIn, ids, make, refused } from "#test/db/workshop";

eachTestHasAWorkshop();

describe("selling and tracing", () => {
  it("a market line that wants more than the lot has names the field; nothing is kept of the day", async () => {
    const l = (await finished()).findLast((x) => x.onHand > 0)!;
    const days = (await listMarketDays(db)).length;
    const line = { lotId: l.id, taken: 99, sold: l.onHand, given: 1, damaged: 0, price: euro(8) };
    expect(await refused(closeMarketDay(db, fairOf({ lines: [line] }), { day: DAY }))).toMatchObject([{ field: "lines.0.given" }]);
    expect((await listMarketDays(db)).length).toBe(days);
  });
  it("a lot on hold is not packed by itself; freed, it is; and a packed tin leads back to every lot in it", async () => {
    const here = (await finished()).filter((x) => x.onHand > 0);
    const items = [{ productId: ids.product, units: 1, price: euro(9) }];
    const order = {
      customer: "Neighbour",
      due: DAY,
      extra: euro(0),
      discountBp: 0,
      wrapMinutes: 0,
      note: "",
      items,
      wrapping: [{ materialId: ids.box, pieces: 1 }],
    };
    const id = idIn(await saveGiftOrder(db, order, { day: DAY }));
    for (const l of here) await holdLot(db, { lotId: l.id, reason: "smells odd" }, { day: DAY });
    expect((await refused(packGiftOrder(db, { id, only: [] }, { day: DAY })))[0]!.say).toContain("1 × Test balm");
    for (const l of here) await holdLot(db, { lotId: l.id, reason: null }, { day: DAY });
    await packGiftOrder(db, { id, only: [{ line: 0, lotId: here.at(-1)!.id }] }, { day: DAY });
    await expect(saveGiftOrder(db, { ...order, id: id }, { day: DAY })).rejects.toThrow("packed");

    const tin = (await findLot(db, here.at(-1)!.number.toLowerCase()))!;
    const traced = await traceLot(db, tin.id);
    expect(new Set(traced.back.map((s) => s.lot.name))).toEqual(new Set(["Oil", "Wax", "Tin"]));
    expect(traced.history.some((h) => h.customer === "Neighbour" && h.reason === "ordered")).toBe(true);
    const oilLot = traced.back.find((s) => s.lot.name === "Oil")!.lot;
    expect((await traceLot(db, oilLot.id)).history.some((h) => h.customer === "Neighbour")).toBe(true);
  });
  it("a taken-back pour is no longer part of any trace", async () => {
    const done = await make(1);
    const made = (await finished()).at(-1)!;
    expect((await traceLot(db, made.id)).back.length).toBeGreaterThan(0);
    await reverseAct(db, done.actId, { day: DAY });
    expect((await traceLot(db, made.id)).back).toEqual([]);
    expect(await db.select().from(movement).where(eq(movement.actId, done.actId))).not.toHaveLength(0);
  });
});
