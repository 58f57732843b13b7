/** What a calendar is told of each record: while it is planned, once it is done, and once it is called off. */
import { CALENDAR_KIND_IDS, type CalendarKind } from "#core/calendar/entries";
import { mg } from "#core/measure/exact";
import { addDays } from "#core/when";
import { describe, expect, it } from "vitest";
import { reverseAct } from "../acts/reverse.ts";
import { eventsOf, noteEvent, settleEvent } from "../bench/weighing/events.ts";
import { takeOut } from "../cabinet/cabinet.ts";
import { today } from "../clock.ts";
import { saveGiftOrder } from "../gifts/gifts.ts";
import { packGiftOrder } from "../gifts/pack.ts";
import { fillJar, heat } from "../jars/fill.ts";
import { spoilJar, strainJar } from "../jars/strain.ts";
import { closeMarketDay, saveMarketDay } from "../markets/markets.ts";
import { saveMaterial } from "../shelf/keepMaterial.ts";
import { fairOf } from "#test/db/market";
import { euro } from "#test/db/fresh";
import { buy, DAY, db, eachTestHasAWorkshop, finished, idIn, ids, jarOf, lotsOf, make, put, refused } from "#test/db/workshop";
import { datedOf, nameOfBooks } from "./calendar.ts";

eachTestHasAWorkshop();

/** Everything of a kind, as "about name day state count". */
const said = async (kind: CalendarKind, today = DAY): Promise<string[]> =>
  (await datedOf(db, today, [kind])).map((d) => `${d.about} ${d.name} ${d.day} ${d.state} ${d.changes}`);

const order = (over: object = {}) => ({
  ...{ customer: "Choir", due: "2026-05-20", extra: euro(0), discountBp: 0, wrapMinutes: 0, note: "", wrapping: [] },
  items: [{ productId: ids.product, units: 2, price: euro(9) }],
  ...over,
});

describe("the calendar", () => {
  it("of an order: changed, packed, unpacked, and taken back, under one name and counted up each time", async () => {
    await make(5);
    const saved = await saveGiftOrder(db, order(), { day: DAY });
    const id = idIn(saved);
    expect(await said("order")).toEqual(["order Choir 2026-05-20 stands 1"]);
    const [first] = await datedOf(db, DAY, ["order"]);
    expect(first).toMatchObject({ key: `order-${id}`, goods: "2 × Test balm, 50 g", id, number: null, from: null });
    const moved = await saveGiftOrder(db, { ...order({ due: "2026-05-22" }), id }, { day: DAY });
    expect(await said("order")).toEqual(["order Choir 2026-05-22 stands 2"]);
    const packed = await packGiftOrder(db, { id, only: [] }, { day: DAY });
    expect(await said("order")).toEqual(["order Choir 2026-05-22 done 3"]);
    await reverseAct(db, packed.actId, { day: DAY });
    await reverseAct(db, moved.actId, { day: DAY });
    expect(await said("order")).toEqual(["order Choir 2026-05-20 stands 5"]);
    // What the ledger has named stays in the books, and says why.
    expect((await refused(reverseAct(db, saved.actId, { day: DAY })))[0]!.say).toBe(
      "The order has been packed before, so the books name it for good. Change it by hand.",
    );
    const other = await saveGiftOrder(db, order({ customer: "School" }), { day: DAY });
    const [, second] = await datedOf(db, DAY, ["order"]);
    await reverseAct(db, other.actId, { day: "2026-05-06" });
    expect(await said("order")).toEqual(["order School 2026-05-06 off 2", "order Choir 2026-05-20 stands 5"]);
    const [gone] = await datedOf(db, DAY, ["order"]);
    expect(gone!.key).toBe(second!.key);
    expect(gone!.changed.getTime()).toBeGreaterThan(second!.changed.getTime());
    expect(await said("order", addDays("2026-05-06", 90))).toHaveLength(2);
    expect(await said("order", addDays("2026-05-06", 91))).toHaveLength(1);
  });

  it("of a market day: planned, closed, and taken back; a year of them", async () => {
    await make(5);
    const [made] = await finished();
    const lines = [{ lotId: made!.id, taken: 3, sold: 1, given: 0, damaged: 0, price: euro(8) }];
    const day = fairOf({ day: "2026-05-09", lines });
    const saved = await saveMarketDay(db, day, { day: DAY });
    expect(await datedOf(db, DAY, ["market"])).toMatchObject([{ name: "Fair", amount: 3, weighed: false, state: "stands", changes: 1 }]);
    const closed = await closeMarketDay(db, { ...day, id: idIn(saved) }, { day: "2026-05-09" });
    expect(await said("market")).toEqual(["market Fair 2026-05-09 done 2"]);
    expect(await said("market", addDays("2026-05-09", 365))).toHaveLength(1);
    expect(await said("market", addDays("2026-05-09", 366))).toEqual([]);
    await reverseAct(db, closed.actId, { day: DAY });
    expect((await refused(reverseAct(db, saved.actId, { day: DAY })))[0]!.say).toContain("has been closed before");
    const other = await saveMarketDay(db, { ...day, name: "Wharf", lines: [] }, { day: DAY });
    await reverseAct(db, other.actId, { day: DAY });
    expect(await said("market")).toEqual([`market Wharf ${DAY} off 2`, "market Fair 2026-05-09 stands 3"]);
  });

  it("of a jar: its best day and its last, no longer so once it was strained before them; and its heat", async () => {
    const [oil] = await lotsOf(ids.oil);
    const herb = idIn(await saveMaterial(db, { name: "Rose", kind: "herb", densities: {} }, { day: DAY }));
    await buy(herb, 100_000, 5);
    const [rose] = await lotsOf(herb);
    const fill = async (name: string) =>
      idIn(
        await fillJar(
          db,
          jarOf(
            [
              { role: "herb", materialId: herb, lotId: rose!.id, qty: mg(10_000), cut: "whole" },
              { role: "carrier", materialId: ids.oil, lotId: oil!.id, qty: mg(100_000), cut: null },
            ],
            {
              name,
              ready: { earliest: "2026-05-10", best: "2026-05-20", latest: "2026-06-01" },
            },
          ),
          { day: DAY },
        ),
      );
    const jarId = await fill("A");
    expect(await said("jar")).toEqual(["best A 2026-05-20 stands 1", "latest A 2026-06-01 stands 1"]);
    await heat(db, { jarId, minutes: 90 }, { day: DAY });
    const [warm] = await datedOf(db, DAY, ["timer"]);
    expect(warm).toMatchObject({ about: "heat", name: "A", minutes: 90, state: "stands" });
    expect(Math.abs(warm!.from!.getTime() - Date.now())).toBeLessThan(60_000);
    await heat(db, { jarId, minutes: null }, { day: DAY });
    expect(await said("timer")).toEqual([]);
    const strained = await strainJar(
      db,
      { jarId, back: mg(90_000), secondBack: null, sediment: mg(0), herbOut: null, pressed: false, bottles: [mg(90_000)] },
      { day: "2026-05-25" },
    );
    expect((await said("jar")).map((s) => s.replace(/ \d+$/, ""))).toEqual(["best A 2026-05-20 done", "latest A 2026-06-01 off"]);
    await reverseAct(db, strained.actId, { day: "2026-05-25" });
    await spoilJar(db, { jarId, why: "mould" }, { day: "2026-05-12" });
    expect((await said("jar")).map((s) => s.replace(/ \d+$/, ""))).toEqual(["best A 2026-05-20 off", "latest A 2026-06-01 off"]);
  });

  it("of a lot: while something is left, and no longer so once it was used up before its day", async () => {
    await buy(ids.wax, 400, 5, "2026-09-01");
    const named = (await datedOf(db, DAY, ["lot"])).filter((d) => d.name === "Wax" && d.day === "2026-09-01");
    expect(named).toMatchObject([{ amount: 400, state: "stands", changes: 1 }]);
    await make(5);
    const [made] = await finished();
    const of = async (today = DAY) => (await datedOf(db, today, ["lot"])).filter((d) => d.id === made!.id);
    expect(await of()).toMatchObject([
      { name: "Test balm, 50 g", number: made!.number, amount: 5, weighed: false, state: "stands", changes: 1 },
    ]);
    await takeOut(db, { lotId: made!.id, units: 5, reason: "own", note: "" }, { day: DAY });
    expect(await of()).toMatchObject([{ amount: null, state: "off", changes: 2 }]);
    expect(await of(addDays(DAY, 91))).toEqual([]);
  });

  it("of a timer at the bench: it runs, and is no longer so once it is struck out", async () => {
    const batchId = idIn(await put(2));
    await noteEvent(db, { batchId, kind: "timer", minutes: 12.5, note: "cool" });
    const id = (await eventsOf(db, batchId)).find((e) => e.kind === "timer")!.id;
    expect(await datedOf(db, today(), ["timer"])).toMatchObject([
      { key: `timer-${id}`, id: batchId, name: "Test balm, cool", minutes: 12.5, state: "stands", changes: 1 },
    ]);
    await settleEvent(db, batchId, id, "strike");
    expect(await datedOf(db, today(), ["timer"])).toMatchObject([{ state: "off", changes: 2 }]);
  });

  it("has the same name for the same books, none for those without an act, and all kinds together", async () => {
    const name = await nameOfBooks(db);
    await make(2);
    expect(await nameOfBooks(db)).toBe(name);
    expect(name).toMatch(/^[0-9a-z]{8}$/);
    const all = await datedOf(db, DAY, CALENDAR_KIND_IDS);
    const days = all.map((d) => d.day);
    expect(days).toEqual([...days].sort());
  });
});
