/** Market days and gift orders as they are read back: what left, what it cost, and taking it back. */
import { dayResult } from "#core/market/day";
import { addDays } from "#core/when";
import { eq } from "drizzle-orm";
import { describe, expect, it } from "vitest";
import { reverseAct } from "../acts/reverse.ts";
import { listCabinet, takeOut } from "../cabinet/cabinet.ts";
import { listGiftOrders, saveGiftOrder, type GiftIn } from "../gifts/gifts.ts";
import { packedLots, packGiftOrder } from "../gifts/pack.ts";
import { openOrders } from "../gifts/begin.ts";
import { reachOf } from "../lots/reach.ts";
import { costRecipes } from "../recipe/costs.ts";
import { lot } from "../schema.ts";
import { readSettings } from "../settings/settings.ts";
import { euro, expectLedgerTrue } from "#test/db/fresh";
import { DAY, db, eachTestHasAWorkshop, finished, idIn, ids, lotsOf, make, onHand, refused } from "#test/db/workshop";
import { closeMarketDay, listMarketDays, marketSums, saveMarketDay, type MarketIn } from "./markets.ts";

eachTestHasAWorkshop();

const market = (over: Partial<MarketIn> = {}): MarketIn => ({
  name: "Fair",
  day: DAY,
  stallFee: euro(20),
  travel: euro(4),
  byCard: euro(8),
  cardFeeBp: 175,
  minutes: 300,
  note: "Rain",
  lines: [],
  ...over,
});
const order = (over: Partial<GiftIn> = {}): GiftIn => ({
  customer: "Choir",
  due: addDays(DAY, 7),
  extra: euro(3),
  discountBp: 500,
  wrapMinutes: 20,
  note: "",
  items: [{ productId: ids.product, units: 2, price: euro(9) }],
  wrapping: [{ materialId: ids.box, pieces: 2 }],
  ...over,
});
const ready = async () => (await openOrders(db, DAY)).filter((o) => o.standing === "ready").map((o) => o.orderId);
const here = async (): Promise<number[]> => (await finished()).map((l) => l.onHand);

describe("a market day", () => {
  it("is kept as a plan without moving anything, and changed as often as wanted", async () => {
    const [lot] = await finished();
    const line = { lotId: lot!.id, taken: 4, sold: 0, given: 0, damaged: 0, price: euro(8) };
    const id = idIn(await saveMarketDay(db, market({ lines: [line] }), { day: DAY }));
    await saveMarketDay(db, { ...market({ name: "Great fair", lines: [{ ...line, taken: 3 }] }), id: id }, { day: DAY });
    const [day] = await listMarketDays(db, [id]);
    // The list's sums are those of the day's lines.
    const [summed] = await marketSums(db);
    const { takings, unitsSold, stockCost } = dayResult({ ...day!, hours: 0 });
    expect(summed).toMatchObject({ id, takings, unitsSold, stockCost, taken: day!.lines.reduce((a, l) => a + l.taken, 0) });
    expect(day).toMatchObject({
      name: "Great fair",
      note: "Rain",
      closedActId: null,
      lines: [{ lotId: lot!.id, number: lot!.number, name: "Test balm", taken: 3, gone: 0 }],
    });
    expect(await here()).toEqual([5]);
  });
  it("closed: sold, given and damaged units leave at what their materials cost; what is left stays", async () => {
    const [lot] = await finished();
    const each = lot!.value / 5;
    const id = idIn(
      await closeMarketDay(db, market({ lines: [{ lotId: lot!.id, taken: 5, sold: 2, given: 1, damaged: 1, price: euro(8) }] }), {
        day: DAY,
      }),
    );
    const [day] = await listMarketDays(db, [id]);
    expect(await here()).toEqual([1]);
    expect(Math.abs(day!.lines[0]!.gone - 4 * each)).toBeLessThanOrEqual(4);
    await expectLedgerTrue(db);
  });
  it("closed can't be changed or closed again; taken back, all units are home and it is open", async () => {
    const [lot] = await finished();
    const sheet = market({ lines: [{ lotId: lot!.id, taken: 5, sold: 5, given: 0, damaged: 0, price: euro(8) }] });
    const closed = await closeMarketDay(db, sheet, { day: DAY });
    const id = idIn(closed);
    expect(await here()).toEqual([0]);
    expect((await refused(saveMarketDay(db, { ...sheet, id: id }, { day: DAY })))[0]!.say).toMatch(/is closed/);
    expect((await refused(closeMarketDay(db, { ...sheet, id: id }, { day: DAY })))[0]!.say).toMatch(/is closed/);
    await reverseAct(db, closed.actId, { day: DAY });
    expect(await here()).toEqual([5]);
    expect((await listMarketDays(db, [id]))[0]!.closedActId).toBeNull();
    await closeMarketDay(db, { ...sheet, id: id }, { day: DAY });
    expect(await here()).toEqual([0]);
    await expectLedgerTrue(db);
  });
  it("with nothing counted isn't closed, and a day that is gone says so", async () => {
    const [lot] = await finished();
    const idle = market({ lines: [{ lotId: lot!.id, taken: 5, sold: 0, given: 0, damaged: 0, price: euro(8) }] });
    expect((await refused(closeMarketDay(db, idle, { day: DAY })))[0]!.say).toMatch(/Count the stall first/);
    expect(await listMarketDays(db)).toEqual([]);
    expect(await refused(saveMarketDay(db, { ...idle, id: 99_999 }, { day: DAY }))).toHaveLength(1);
  });
  it("names every line that wants more than its lot has", async () => {
    await make(3);
    const [a, b] = await finished();
    const line = (lotId: number, sold: number) => ({ lotId, taken: 99, sold, given: 0, damaged: 0, price: euro(8) });
    const problems = await refused(closeMarketDay(db, market({ lines: [line(a!.id, 6), line(b!.id, 4)] }), { day: DAY }));
    expect(problems.map((p) => p.field)).toEqual(["lines.0.sold", "lines.1.sold"]);
    expect(problems[0]!.say).toBe(`Lot ${a!.number} has 5 units, 1 unit less than this takes. Nothing was moved.`);
    expect(await here()).toEqual([5, 3]);
  });
});

describe("a gift order", () => {
  it("lists the ones to pack first, soonest due in front, then the packed ones, newest first", async () => {
    const names = ["later", "sooner", "packed early", "packed late"];
    const dues = [20, 2, 1, 9];
    for (const [i, customer] of names.entries()) {
      const id = idIn(
        await saveGiftOrder(
          db,
          order({ customer, due: addDays(DAY, dues[i]!), items: [{ productId: ids.product, units: 1, price: euro(9) }], wrapping: [] }),
          { day: DAY },
        ),
      );
      if (customer.startsWith("packed")) await packGiftOrder(db, { id, only: [] }, { day: DAY });
    }
    expect((await listGiftOrders(db)).map((o) => o.customer)).toEqual(["sooner", "later", "packed late", "packed early"]);
  });
  it("packs units and wrapping in one act, says out of which lots, and can be taken back", async () => {
    await make(3);
    const id = idIn(await saveGiftOrder(db, order({ items: [{ productId: ids.product, units: 7, price: euro(9) }] }), { day: DAY }));
    const packed = await packGiftOrder(db, { id, only: [] }, { day: DAY });
    const lots = await packedLots(db, id);
    expect(lots.filter((l) => l.productId !== null).map((l) => l.qty)).toEqual([5, 2]);
    expect(lots.filter((l) => l.materialId !== null).map((l) => l.qty)).toEqual([2]);
    expect(await here()).toEqual([0, 1]);
    expect(await onHand(ids.box)).toBe(8);
    await reverseAct(db, packed.actId, { day: DAY });
    expect([await here(), await onHand(ids.box), await packedLots(db, id)]).toEqual([[5, 3], 10, []]);
    await expectLedgerTrue(db);
  });
  it("says everything that is missing, units and wrapping alike, and moves nothing", async () => {
    const id = idIn(
      await saveGiftOrder(
        db,
        order({ items: [{ productId: ids.product, units: 9, price: euro(9) }], wrapping: [{ materialId: ids.box, pieces: 12 }] }),
        { day: DAY },
      ),
    );
    expect(await refused(packGiftOrder(db, { id, only: [] }, { day: DAY }))).toEqual([
      { field: "pack", say: "There is too little to pack it: 4 × Test balm, 50 g and 2 × Box missing. Nothing was moved." },
    ]);
    expect([await here(), await onHand(ids.box)]).toEqual([[5], 10]);
  });
  it("takes the lot that was chosen by hand, and only that", async () => {
    await make(3);
    const [first, second] = await finished();
    const id = idIn(await saveGiftOrder(db, order(), { day: DAY }));
    await packGiftOrder(db, { id, only: [{ line: 0, lotId: second!.id }] }, { day: DAY });
    expect(await here()).toEqual([5, 1]);
    const more = idIn(await saveGiftOrder(db, order(), { day: DAY }));
    expect((await refused(packGiftOrder(db, { id: more, only: [{ line: 0, lotId: second!.id }] }, { day: DAY })))[0]!.say).toContain(
      "1 × Test balm",
    );
    await packGiftOrder(db, { id: more, only: [{ line: 0, lotId: first!.id }] }, { day: DAY });
    expect(await here()).toEqual([3, 1]);
  });
  it("one product on two lines, each with a lot of its own, goes out of both; a lot of something else, or promised to others, is refused", async () => {
    await make(3);
    const [first, second] = await finished();
    const two = order({ items: [3, 2].map((units) => ({ productId: ids.product, units, price: euro(9) })) });
    const id = idIn(await saveGiftOrder(db, two, { day: DAY }));
    const oil = (await lotsOf(ids.oil))[0]!;
    const pack = (lots: number[]) => packGiftOrder(db, { id, only: lots.map((lotId, line) => ({ line, lotId })) }, { day: DAY });
    expect(await refused(pack([oil.id]))).toMatchObject([{ field: "items.0.lot" }]);
    await pack([first!.id, second!.id]);
    expect((await packedLots(db, id)).filter((l) => l.productId !== null).map((l) => [l.lotId, l.qty])).toEqual([
      [first!.id, 3],
      [second!.id, 2],
    ]);
    // A recall of either reaches who has it.
    for (const l of [first!, second!]) expect((await reachOf(db, [l.id])).people.map((p) => p.name)).toEqual(["Choir"]);
    expect(await here()).toEqual([2, 1]);
  });
  it("an order due later is packed out of what is good by then, and what it is promised of that no other line may choose", async () => {
    await make(3);
    const [first, second] = await finished();
    const due = addDays(DAY, 60);
    await db
      .update(lot)
      .set({ bestBefore: addDays(DAY, 30) })
      .where(eq(lot.id, first!.id));
    const later = idIn(
      await saveGiftOrder(db, order({ due, items: [{ productId: ids.product, units: 3, price: euro(9) }] }), { day: DAY }),
    );
    expect(await ready()).toEqual([later]);
    const now = idIn(await saveGiftOrder(db, order({ items: [{ productId: ids.product, units: 2, price: euro(9) }] }), { day: DAY }));
    expect(await refused(packGiftOrder(db, { id: now, only: [{ line: 0, lotId: second!.id }] }, { day: DAY }))).toEqual([
      { field: "items.0.lot", say: "Only 0 of it can go with this order: 3 reserved for Choir. Choose another lot, or use first." },
    ]);
    await packGiftOrder(db, { id: now, only: [] }, { day: DAY });
    expect(await here()).toEqual([3, 3]);
    await packGiftOrder(db, { id: later, only: [] }, { day: DAY });
    expect(await here()).toEqual([3, 0]);
    const more = idIn(await saveGiftOrder(db, order({ due, items: [{ productId: ids.product, units: 1, price: euro(9) }] }), { day: DAY }));
    expect(await ready()).toEqual([]);
    expect((await refused(packGiftOrder(db, { id: more, only: [] }, { day: DAY })))[0]!.say).toContain("3 past their day by");
    const line = { lotId: first!.id, taken: 1, sold: 0, given: 0, damaged: 0, price: euro(9) };
    expect((await refused(saveMarketDay(db, market({ day: due, lines: [line] }), { day: DAY })))[0]).toMatchObject({
      field: "lines.0.taken",
    });
    await saveMarketDay(db, market({ lines: [line] }), { day: DAY });
  });
  it("packs the sheet as it stands in the same act: refused, nothing of it is kept; posted twice, it counts once", async () => {
    const id = idIn(await saveGiftOrder(db, order(), { day: DAY }));
    const more = order({ customer: "Great choir", items: [{ productId: ids.product, units: 99, price: euro(9) }] });
    await refused(packGiftOrder(db, { id, only: [], sheet: more }, { day: DAY }));
    expect((await listGiftOrders(db, [id]))[0]).toMatchObject({ customer: "Choir", items: [{ units: 2 }] });
    const sheet = order({ items: [{ productId: ids.product, units: 3, price: euro(9) }] });
    const doing = { day: DAY, token: crypto.randomUUID() };
    const first = await packGiftOrder(db, { id, only: [], sheet }, doing);
    expect(await packGiftOrder(db, { id, only: [], sheet }, doing)).toEqual(first);
    expect(await here()).toEqual([2]);
    expect((await listGiftOrders(db, [id]))[0]).toMatchObject({ packedActId: first.actId, items: [{ units: 3 }] });
    await expectLedgerTrue(db);
  });
  it("two windows packing one order: one packs it, the other is told", async () => {
    const id = idIn(await saveGiftOrder(db, order(), { day: DAY }));
    const both = await Promise.allSettled([
      packGiftOrder(db, { id, only: [] }, { day: DAY }),
      packGiftOrder(db, { id, only: [] }, { day: DAY }),
    ]);
    expect(both.map((b) => b.status).sort()).toEqual(["fulfilled", "rejected"]);
    expect(await here()).toEqual([3]);
  });
});

describe("the cabinet", () => {
  it("shows each lot with what its batch took in work, and lets units go for a reason", async () => {
    const [lot] = await listCabinet(db);
    expect(lot).toMatchObject({ name: "Test balm", label: "50 g", onHand: 5, units: 5, minutesHundredths: 6000 });
    await takeOut(db, { lotId: lot!.id, units: 2, reason: "own", note: "hands" }, { day: DAY });
    expect((await listCabinet(db))[0]!.onHand).toBe(3);
    expect(await refused(takeOut(db, { lotId: lot!.id, units: 4, reason: "own", note: "" }, { day: DAY }))).toMatchObject([
      { field: "units" },
    ]);
    await takeOut(db, { lotId: lot!.id, units: 3, reason: "damaged", note: "" }, { day: DAY });
    expect(await listCabinet(db)).toEqual([]);
  });
});

describe("costing against the shelf", () => {
  it("a recipe costs what its lots cost, plus work and overhead, over the units it fills", async () => {
    const settings = await readSettings(db);
    const [r] = await costRecipes(db, settings, DAY, [ids.recipe]);
    // 80 g of oil at 21.01 / 2 kg, 20 g of wax at 10.01 / 500 g, 2 tins at 21.01 / 40; 34 minutes.
    expect(r!.sizes[0]!.cost.fill).toEqual({ units: 2, potLoss: 0, leftover: 0 });
    expect(r!.sizes[0]!.cost.perUnit.again).toMatchObject({ ingredients: (840_400 + 400_400) / 2, packaging: 525_250, loss: 0 });
    // 34 minutes at 16.00 are 9.066667, to the micro; half of that each.
    expect(r!.sizes[0]!.cost.perUnit.again!.work).toBe(4_533_334);
    expect(r!.sizes[0]!.cost.perUnit.lot!.total).toBe(r!.sizes[0]!.cost.perUnit.average!.total);
  });
});
