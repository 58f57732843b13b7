/** Recalling lots: everything they are in is held at once, everybody who has some can be told, and all of it can be taken back. */
import { accountAmong } from "#core/lot/reach";
import { mg } from "#core/measure/exact";
import { eq } from "drizzle-orm";
import { describe, expect, it } from "vitest";
import type { Done } from "../act/define.ts";
import { reverseAct } from "../acts/reverse.ts";
import { takeOut } from "../cabinet/cabinet.ts";
import { saveContact } from "../contacts/contacts.ts";
import { saveGiftOrder } from "../gifts/gifts.ts";
import { packGiftOrder } from "../gifts/pack.ts";
import { fillJar } from "../jars/fill.ts";
import { strainJar } from "../jars/strain.ts";
import { closeMarketDay, saveMarketDay } from "../markets/markets.ts";
import { lot, material } from "../schema.ts";
import { correctCount, holdLot } from "../shelf/counting/count.ts";
import { saveMaterial } from "../shelf/keepMaterial.ts";
import { fairOf } from "#test/db/market";
import { euro } from "#test/db/fresh";
import { buy, DAY, db, eachTestHasAWorkshop, finished, idIn, ids, jarOf, lotsOf, make, put, refused } from "#test/db/workshop";
import { workItems } from "../today/today.ts";
import { alsoMeant, finishedOf } from "./reach.ts";
import { beginRecall, closeRecall, tellRecall } from "./recall.ts";
import { listRecalls, readRecall } from "./recalls.ts";

eachTestHasAWorkshop();

const doing = { day: DAY };
const notice = { reason: "The supplier says it is rancid", toDo: "Please bring it back.", rehearsal: false };
const UNSAID = { toldOn: null, back: 0, note: "" };
const oilLot = async () => (await lotsOf(ids.oil))[0]!.id;
const begin = async (over: Partial<typeof notice> = {}) => beginRecall(db, { lotIds: [await oilLot()], ...notice, ...over }, doing);
const read = async (done: Done) => (await readRecall(db, idIn(done)))!;
const held = async () =>
  (await db.select({ id: lot.id, why: lot.holdReason }).from(lot).orderBy(lot.id)).flatMap((l) => (l.why === null ? [] : [l.id]));
const dayAt = (lotId: number, sold: number, given = 0, name = "Fair") =>
  fairOf({ name, lines: [{ lotId, taken: sold + given, sold, given, damaged: 0, price: euro(8) }] });
async function ordered(customer: string, units: number): Promise<number> {
  const items = [{ productId: ids.product, units, price: euro(9) }];
  const order = { customer, due: DAY, extra: euro(0), discountBp: 0, wrapMinutes: 0, note: "", items, wrapping: [] };
  const id = idIn(await saveGiftOrder(db, order, doing));
  await packGiftOrder(db, { id, only: [] }, doing);
  return id;
}

/** Of twenty-five: seven at a stall, four in two orders of one customer, a tester, two damaged, one missing; ten here. */
async function spread(): Promise<number[]> {
  await make(20);
  const [five, twenty] = await finished();
  await ordered("Neighbour", 3);
  await ordered(" neighbour ", 1);
  await closeMarketDay(db, dayAt(twenty!.id, 5, 1), doing);
  await closeMarketDay(db, dayAt(twenty!.id, 1, 0, "fair"), doing);
  await takeOut(db, { lotId: twenty!.id, units: 1, reason: "tester", note: "the choir" }, doing);
  await takeOut(db, { lotId: twenty!.id, units: 2, reason: "damaged", note: "" }, doing);
  const [now] = await db.select().from(lot).where(eq(lot.id, twenty!.id));
  await correctCount(db, { lotId: now!.id, counted: now!.onHand - 1, expected: now!.onHand, reason: "not on the shelf" }, doing);
  return [five!.id, twenty!.id];
}

describe("a recall", () => {
  it("holds a lot and all it is in, knows where each unit is, and leaves what something else is in alone", async () => {
    const made = await spread();
    const other = (await lotsOf(ids.wax))[0]!.id;
    const done = await begin();
    expect(await held()).toEqual([await oilLot(), ...made]);
    const { reach } = await read(done);
    expect(accountAmong(reach, finishedOf(reach))).toEqual({
      came: 25,
      here: 10,
      on: 0,
      named: 4,
      stall: 7,
      handed: 1,
      ended: 2,
      lost: 1,
    });
    expect(reach.people).toMatchObject([{ name: "Neighbour", units: 4 }]);
    expect(reach.markets).toMatchObject([{ name: "Fair", units: 7 }]);
    expect(reach.others.handed).toMatchObject([{ units: 1, note: "the choir" }]);
    expect(await held()).not.toContain(other);
    expect(await workItems(db, DAY)).toContainEqual(expect.objectContaining({ station: "lots", kind: "recall", id: idIn(done) }));
  });

  it("finds what stands half made with it: a jar, a batch on the bench, a stall; and what is strained from the jar is held too", async () => {
    const herb = idIn(await saveMaterial(db, { name: "Calendula", kind: "herb", densities: {} }, doing));
    await buy(herb, 100_000, 5);
    const parts = [
      { role: "carrier" as const, materialId: ids.oil, lotId: await oilLot(), qty: mg(100_000), cut: null },
      { role: "herb" as const, materialId: herb, lotId: (await lotsOf(herb))[0]!.id, qty: mg(10_000), cut: "whole" as const },
    ];
    const jarId = idIn(await fillJar(db, jarOf(parts, { name: "Calendula oil", expected: mg(80_000) }), doing));
    const batchId = idIn(await put(2));
    const [tin] = await finished();
    await saveMarketDay(db, { ...dayAt(tin!.id, 0), lines: [{ ...dayAt(tin!.id, 0).lines[0]!, taken: 2 }] }, doing);
    const { reach } = await read(await begin());
    expect(reach.jars).toMatchObject([{ id: jarId, lotId: await oilLot() }]);
    expect(reach.batches).toMatchObject([{ id: batchId }]);
    expect(reach.along).toMatchObject([{ name: "Fair", taken: 2 }]);
    const back = { back: mg(80_000), secondBack: null, sediment: mg(0), herbOut: null, pressed: false, bottles: [mg(80_000)] };
    await strainJar(db, { jarId, ...back }, doing);
    const [oil] = await db
      .select()
      .from(lot)
      .innerJoin(material, eq(material.id, lot.materialId))
      .where(eq(material.name, "Calendula oil"));
    expect(oil!.lot.holdReason).toContain("Recall: The supplier says it is rancid");
  });

  it("taken back frees what it held, and nothing that was held before or since for another reason", async () => {
    await make(3);
    const [first, second] = await finished();
    await holdLot(db, { lotId: first!.id, reason: "smells odd" }, doing);
    const done = await begin();
    await reverseAct(db, done.actId, doing);
    expect(await held()).toEqual([first!.id]);
    expect(await readRecall(db, idIn(done))).toBeNull();
    expect(await listRecalls(db)).toEqual([]);
    expect(await workItems(db, DAY)).not.toContainEqual(expect.objectContaining({ kind: "recall" }));

    // A recall that goes on isn't lifted lot by lot: it is named, and holds on.
    const again = await begin();
    expect(await refused(holdLot(db, { lotId: second!.id, reason: null }, doing))).toMatchObject([
      { field: "reason", see: [{ to: `/lots/recalls/${idIn(again)}` }] },
    ]);
    expect(await held()).toContain(second!.id);
    await reverseAct(db, again.actId, doing);
    expect(await held()).toEqual([first!.id]);
  });

  it("each hold is lifted by what put it there: two recalls over one lot, and a hand's hold under both", async () => {
    const [tin] = await finished();
    const [one, two] = [await begin(), await begin({ reason: "The wax is dirty" })];
    const reasons = async () => (await finished())[0]!.holdReason;
    await holdLot(db, { lotId: tin!.id, reason: "smells odd" }, doing);
    expect(await reasons()).toBe("Recall: The supplier says it is rancid; Recall: The wax is dirty; smells odd");
    const free = await closeRecall(db, { recallId: idIn(one), free: true }, doing);
    expect(await reasons()).toBe("Recall: The wax is dirty; smells odd");
    await reverseAct(db, free.actId, doing);
    expect(await reasons()).toContain("Recall: The supplier says it is rancid");
    await closeRecall(db, { recallId: idIn(one), free: true }, doing);
    await closeRecall(db, { recallId: idIn(two), free: false }, doing);
    // What a closed recall left on hold is let go lot by lot; taken back, all of it is on hold again.
    const off = await holdLot(db, { lotId: tin!.id, reason: null }, doing);
    expect(await reasons()).toBeNull();
    await reverseAct(db, off.actId, doing);
    expect((await reasons())!.split("; ").sort()).toEqual(["Recall: The wax is dirty", "smells odd"]);
  });

  it("a hold that came before it is taken back by itself, and the recall's stays", async () => {
    const [tin] = await finished();
    const hold = await holdLot(db, { lotId: tin!.id, reason: "smells odd" }, doing);
    const free = await holdLot(db, { lotId: tin!.id, reason: null }, doing);
    await begin();
    expect(await refused(reverseAct(db, hold.actId, doing))).toHaveLength(1);
    await reverseAct(db, free.actId, doing);
    expect((await finished())[0]!.holdReason).toContain("smells odd");
    await reverseAct(db, hold.actId, doing);
    expect((await finished())[0]!.holdReason).toBe("Recall: The supplier says it is rancid");
  });

  it("people are told one by one, not twice over each other, and give back no more than they had", async () => {
    await spread();
    const done = await begin();
    const recallId = idIn(done);
    const { contactId } = (await read(done)).reach.people[0]!;
    const tell = (over: object) => tellRecall(db, { recallId, contactId, toldOn: DAY, back: 0, note: "", was: UNSAID, ...over }, doing);
    expect(await refused(tell({ back: 5 }))).toMatchObject([{ field: "back", say: "Neighbour had 4 units: more can't have come back." }]);
    const told = await tell({ back: 1 });
    expect(await refused(tell({ note: "by phone" }))).toMatchObject([{ say: expect.stringContaining("meanwhile") as string }]);
    const was = { toldOn: DAY, back: 1, note: "" };
    const more = await tell({ was, back: 4, note: "by phone" });
    expect((await read(done)).told).toEqual([{ contactId, toldOn: DAY, back: 4, note: "by phone" }]);
    expect(await refused(reverseAct(db, told.actId, doing))).toHaveLength(1);
    await reverseAct(db, more.actId, doing);
    await reverseAct(db, told.actId, doing);
    expect((await read(done)).told).toEqual([{ contactId, ...UNSAID }]);
    const id = idIn(await saveContact(db, { kind: "customer", name: "Somebody else", reach: "", note: "" }, doing));
    expect(await refused(tell({ contactId: id }))).toHaveLength(1);
  });

  it("is closed with what it came to; a false alarm frees what it held, and taking that back holds it again", async () => {
    const made = await spread();
    const done = await begin();
    const recallId = idIn(done);
    const closed = await closeRecall(db, { recallId, free: true }, doing);
    expect((await read(done)).recall).toMatchObject({
      came: "25 units: 10 here, 4 in orders, 7 sold or given at a stall, 1 handed out, 2 thrown away or sent back, 1 not to be found. 0 of 2 told.",
      closedAt: expect.any(Date) as Date,
    });
    expect(await held()).toEqual([]);
    expect(await refused(closeRecall(db, { recallId, free: false }, doing))).toHaveLength(1);
    expect(await refused(reverseAct(db, done.actId, doing))).toHaveLength(1);
    await reverseAct(db, closed.actId, doing);
    expect(await held()).toEqual([await oilLot(), ...made]);
    expect((await read(done)).recall).toMatchObject({ came: "", closedAt: null });
  });

  it("a rehearsal finds the same and holds nothing", async () => {
    await spread();
    const rehearsed = await read(await begin({ rehearsal: true }));
    expect(await held()).toEqual([]);
    const real = await read(await begin());
    expect(rehearsed.reach.people).toEqual(real.reach.people);
    expect(rehearsed.reach.lots.map((l) => l.id)).toEqual(real.reach.lots.map((l) => l.id));
  });

  it("names what is likely meant too: more of the supplier's lot, and the other sizes of a pot", async () => {
    await buy(ids.oil, 100_000, 2);
    const [first, second] = await lotsOf(ids.oil);
    expect((await alsoMeant(db, first!.id)).map((l) => l.id)).toEqual([second!.id]);
    expect(await refused(beginRecall(db, { lotIds: [], ...notice }, doing))).toMatchObject([{ field: "lots" }]);
    expect(await refused(beginRecall(db, { lotIds: [first!.id, 9999], ...notice }, doing))).toMatchObject([{ field: "lots" }]);
  });
});
