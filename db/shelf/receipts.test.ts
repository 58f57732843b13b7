/** Receipts after the fact: partial deliveries, corrections that follow what was used, and the acts on a shelf that change no receipt. */
import { mg, micros, minus } from "#core/measure/exact";
import { reorderPoint, toBuy, usedPerDay } from "#core/stock/reorder";
import { STARTING_SETTINGS } from "#core/settings";
import { addDays } from "#core/when";
import { eq, sql } from "drizzle-orm";
import { describe, expect, it } from "vitest";
import { dropScan, keepScan, readAttachment } from "../attachments.ts";
import { whatWasDone } from "../act/book.ts";
import { takeBack } from "../act/takeBack.ts";
import { batch, lot } from "../schema.ts";
import { batchResult } from "../bench/pour.ts";
import { whatWaits } from "../today.ts";
import { euro, expectLedgerTrue } from "../test/fresh.ts";
import { buy, DAY, db, eachTestHasAWorkshop, finished, idIn, ids, lotsOf, make, onHand, refused } from "../test/workshop.ts";
import { monthlyUse, noteOffer, offersOf, priceHistory, whatToBuy } from "./buying.ts";
import { correctCount } from "./count.ts";
import { finishHarvest, listHarvests, pick, weighHarvest } from "./harvests.ts";
import { moveOut, openLot } from "./lots.ts";
import { addFromLibrary, deleteMaterial, retireMaterial, saveMaterial } from "./keepMaterial.ts";
import { materialMovements, readMaterial } from "./materials.ts";
import { onShelf, shelfBoards } from "./overview.ts";
import { arrive, receive, receiveMany, type ReceiptLineIn } from "./receive.ts";
import { correctReceipt, type CorrectIn } from "./correct.ts";
import { listReceipts, readReceipt, stillToCome } from "./receipts.ts";
import { noteCount, postStocktake, walkShelf } from "./stocktake.ts";

eachTestHasAWorkshop();

const doing = { day: DAY };
const line = (over: Partial<ReceiptLineIn> = {}): ReceiptLineIn => ({
  materialId: ids.oil,
  supplierLot: "",
  packs: 3,
  packSize: "1 kg",
  qty: 3_000_000,
  price: euro(30),
  bestBefore: null,
  ...over,
});
/** A receipt as it stands, to be corrected. */
const asCorrection = async (id: number): Promise<CorrectIn & { lines: (CorrectIn["lines"][number] & { price: number })[] }> => {
  const found = (await readReceipt(db, id))!;
  return {
    ...found.receipt,
    lines: found.lines.map(({ line: l, lot: of }) => ({ ...l, supplierLot: of?.supplierLot ?? "", bestBefore: of?.bestBefore ?? null })),
  };
};
const newest = async (id: number) => (await lotsOf(id)).reduce((a, b) => (b.id > a.id ? b : a));
const [receiptOf, idsOf] = [idIn, (rows: { id: number }[]) => rows.map((r) => r.id)];

describe("partial deliveries", () => {
  it("what has come is a lot at its share; the rest waits, comes in parts, and the whole costs what was paid", async () => {
    const id = receiptOf(await receive(db, { supplier: "Press", day: DAY, postage: euro(1), lines: [line({ arrived: 1 })] }, doing));
    expect(await newest(ids.oil)).toMatchObject({ onHand: 1_000_000, value: euro(10.33) });
    expect((await stillToCome(db)).get(ids.oil)).toBe(2_000_000);
    const waiting = (await readReceipt(db, id))!.lines.find((l) => l.line.lotId === null)!.line;
    expect(await refused(arrive(db, { lineId: waiting.id, packs: 3, supplierLot: "", bestBefore: null }, doing))).toMatchObject([
      { field: "packs" },
    ]);
    await arrive(db, { lineId: waiting.id, packs: 1, supplierLot: "B2", bestBefore: "2027-01-01" }, { day: addDays(DAY, 5) });
    expect(await newest(ids.oil)).toMatchObject({ supplierLot: "B2", arrived: addDays(DAY, 5) });
    const rest = (await readReceipt(db, id))!.lines.find((l) => l.line.lotId === null)!.line;
    const last = await arrive(db, { lineId: rest.id, packs: 1, supplierLot: "", bestBefore: null }, doing);
    expect((await readReceipt(db, id))!.lines.reduce((a, l) => a + l.line.landed, 0)).toBe(euro(31));
    expect(await stillToCome(db)).toEqual(new Map());
    await takeBack(db, last.actId, doing);
    expect((await stillToCome(db)).get(ids.oil)).toBe(1_000_000);
    await expectLedgerTrue(db);
  });
  it("a receipt taken back waits for nothing", async () => {
    const done = await receive(db, { supplier: "Press", day: DAY, postage: euro(0), lines: [line({ arrived: 0 })] }, {});
    await takeBack(db, done.actId, doing);
    expect(await stillToCome(db)).toEqual(new Map());
    expect(await readReceipt(db, receiptOf(done))).toBeNull();
    expect(idsOf(await listReceipts(db))).not.toContain(receiptOf(done));
  });
});

describe("correcting a receipt", () => {
  it("a price that was wrong follows the used part into the batch and its finished lot, and stays with the rest on the shelf", async () => {
    // The workshop's first oil: 2 kg for 21.01, of which 200 g went into five balms.
    const [oil] = await lotsOf(ids.oil);
    const [balms] = await finished();
    const [b] = await db.select().from(batch);
    const cost = (await batchResult(db, b!))!;
    const c = await asCorrection(oil!.purchaseId!);
    const done = await correctReceipt(db, { id: oil!.purchaseId!, ...c, lines: [{ ...c.lines[0]!, price: euro(40) }] }, doing);
    expect(await newest(ids.oil)).toMatchObject({ onHand: oil!.onHand, value: oil!.value + euro(18), landed: euro(41.01) });
    expect((await finished())[0]!.value).toBe(balms!.value + euro(2));
    const after = (await batchResult(db, b!))!;
    expect(after.perUnit[0]!.ingredients - cost.perUnit[0]!.ingredients).toBe(euro(0.4));
    const moves = await materialMovements(db, ids.oil);
    expect(
      moves
        .filter((m) => m.reason === "restated" || m.reason === "corrected")
        .map((m) => m.value)
        .sort((x, y) => x - y),
    ).toEqual([minus(euro(2)), euro(20)]);
    await expectLedgerTrue(db);
    await takeBack(db, done.actId, doing);
    expect(await newest(ids.oil)).toMatchObject({ value: oil!.value, landed: oil!.landed });
    expect((await finished())[0]!.value).toBe(balms!.value);
    await expectLedgerTrue(db);
  });
  it("more or less than was written comes on hand, but never less than was used", async () => {
    const [oil] = await lotsOf(ids.oil);
    const c = await asCorrection(oil!.purchaseId!);
    const l = c.lines[0]!;
    await correctReceipt(db, { id: oil!.purchaseId!, ...c, lines: [{ ...l, qty: 1_000_000, packSize: "500 g" }] }, doing);
    expect(await onHand(ids.oil)).toBe(800_000);
    expect(await refused(correctReceipt(db, { id: oil!.purchaseId!, ...c, lines: [{ ...l, qty: 199_999 }] }, doing))).toMatchObject([
      { field: "lines.0.packSize" },
    ]);
    expect(await onHand(ids.oil)).toBe(800_000);
    await expectLedgerTrue(db);
  });
  it("a used lot can't come later than its use, be another material, or be taken off", async () => {
    const [oil] = await lotsOf(ids.oil);
    const c = await asCorrection(oil!.purchaseId!);
    const on = async (over: Partial<CorrectIn>) => (await refused(correctReceipt(db, { id: oil!.purchaseId!, ...c, ...over }, doing)))[0]!;
    expect(await on({ day: addDays(DAY, 1) })).toMatchObject({ field: "day" });
    expect(await on({ lines: [{ ...c.lines[0]!, materialId: ids.wax }] })).toMatchObject({ field: "lines.0.material" });
    expect(await on({ lines: [{ ...c.lines[0]!, id: null }] })).toMatchObject({ field: "lines" });
  });
  it("an unused line is taken off, another added, and both come back when it is taken back", async () => {
    const id = receiptOf(
      await receive(
        db,
        { supplier: "Press", day: DAY, postage: euro(2), lines: [line(), line({ materialId: ids.wax, price: euro(10) })] },
        doing,
      ),
    );
    const before = [await onHand(ids.oil), await onHand(ids.wax)];
    const c = await asCorrection(id);
    const done = await correctReceipt(
      db,
      {
        id,
        ...c,
        supplier: "Pressed",
        lines: [c.lines[0]!, { ...line({ materialId: ids.tin, packs: 1, packSize: "10", qty: 10, price: euro(10) }), id: null }],
      },
      doing,
    );
    expect(await onHand(ids.wax)).toBe(before[1]! - 3_000_000);
    expect((await readReceipt(db, id))!.lines.map((l) => l.material)).toEqual(["Oil", "Tin"]);
    await takeBack(db, done.actId, doing);
    expect([await onHand(ids.oil), await onHand(ids.wax)]).toEqual(before);
    const back = (await readReceipt(db, id))!;
    expect([back.receipt.supplier, back.lines.map((l) => l.material).sort()]).toEqual(["Press", ["Oil", "Wax"]]);
    await expectLedgerTrue(db);
  });
});

describe("taking a correction back", () => {
  it("is refused once more of the receipt arrived or it was corrected again, and done in order it restores each", async () => {
    const id = receiptOf(await receive(db, { supplier: "Press", day: DAY, postage: euro(0), lines: [line({ arrived: 1 })] }, doing));
    const priced = async (price: number) => {
      const c = await asCorrection(id);
      return correctReceipt(db, { id: id, ...c, lines: c.lines.map((l, i) => (i === 0 ? { ...l, price: euro(price) } : l)) }, doing);
    };
    const first = await priced(20);
    const second = await priced(30);
    expect((await refused(takeBack(db, first.actId, doing)))[0]!.say).toContain("corrected again, since");
    await takeBack(db, second.actId, doing);
    const waiting = (await readReceipt(db, id))!.lines.find((l) => l.line.lotId === null)!.line;
    const came = await arrive(db, { lineId: waiting.id, packs: 1, supplierLot: "", bestBefore: null }, doing);
    expect((await refused(takeBack(db, first.actId, doing)))[0]!.say).toContain("arrived, or it was corrected again, since");
    await takeBack(db, came.actId, doing);
    await takeBack(db, first.actId, doing);
    expect((await readReceipt(db, id))!.lines[0]!.line.price).toBe(euro(10));
    await expectLedgerTrue(db);
  });
  it("gives a used lot's cost back once, whichever is taken back first: the use or the correction", async () => {
    const [oil] = await lotsOf(ids.oil);
    for (const order of [0, 1]) {
      const used = await make(1);
      const c = await asCorrection(oil!.purchaseId!);
      const corrected = await correctReceipt(db, { id: oil!.purchaseId!, ...c, lines: [{ ...c.lines[0]!, price: euro(50) }] }, doing);
      for (const act of order === 0 ? [used, corrected] : [corrected, used]) await takeBack(db, act.actId, doing);
      expect(await newest(ids.oil)).toMatchObject({ onHand: oil!.onHand, value: oil!.value });
      await expectLedgerTrue(db);
    }
  });
});

describe("files", () => {
  it("receipts out of a file are one act, with the materials that are new", async () => {
    const done = await receiveMany(
      db,
      {
        add: [{ name: "Nettle", kind: "herb" }],
        receipts: [{ supplier: "Press", day: DAY, postage: euro(0), lines: [line({ materialId: -1 }), line()] }],
      },
      doing,
    );
    expect((await onShelf(db, DAY, { find: "nettle" }, 9))[0]).toMatchObject({ onHand: 3_000_000, kind: "herb" });
    await takeBack(db, done.actId, doing);
    expect((await onShelf(db, DAY, { find: "nettle" }, 9))[0]).toMatchObject({ onHand: 0 });
    await expectLedgerTrue(db);
  });
  it("twenty thousand lines go on the shelf in one act", async () => {
    const lines = Array.from({ length: 20_000 }, (_, i) => line({ materialId: i % 2 ? ids.oil : ids.wax, packs: 1, qty: 1000 }));
    await receiveMany(db, { add: [], receipts: [{ supplier: "Press", day: DAY, postage: euro(20), lines }] }, doing);
    const { rows } = await db.execute<{ n: number; numbers: number }>(
      sql`select count(*)::int n, count(distinct number)::int numbers from lot where arrived = ${DAY} and on_hand = 1000`,
    );
    expect(rows[0]).toEqual({ n: 20_000, numbers: 20_000 });
  });
  it("a scan is known by its bytes, not by its name", async () => {
    const id = receiptOf(await receive(db, { supplier: "Press", day: DAY, postage: euro(0), lines: [line()] }, doing));
    const png = Buffer.from("iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==", "base64");
    await keepScan(db, { purchaseId: id, file: { name: "receipt.jpg", bytes: png } }, doing);
    const [scan] = (await readReceipt(db, id))!.scans;
    expect(scan).toMatchObject({ name: "receipt.jpg", mime: "image/png" });
    expect((await readAttachment(db, scan!.id))!.bytes.equals(png)).toBe(true);
    for (const bytes of [Buffer.from("<script>alert(1)</script>"), Buffer.from("MZ\u0090\u0000program"), Buffer.alloc(0)])
      expect(await refused(keepScan(db, { purchaseId: id, file: { name: "receipt.png", bytes } }, doing))).toMatchObject([
        { field: "file" },
      ]);
    await dropScan(db, { purchaseId: id, id: scan!.id }, doing);
    expect((await readReceipt(db, id))!.scans).toEqual([]);
  });
});

describe("acts on the shelf", () => {
  it("opening brings best-before forward and back again", async () => {
    await saveMaterial(db, { name: "Oil", kind: "oil", densities: {}, keepsOpened: 6, id: ids.oil }, doing);
    await buy(ids.oil, 1_000_000, 9, "2028-01-01");
    const l = await newest(ids.oil);
    const done = await openLot(db, { lotId: l.id }, doing);
    expect(await newest(ids.oil)).toMatchObject({ opened: DAY, bestBefore: "2026-11-04" });
    expect((await refused(openLot(db, { lotId: l.id }, doing)))[0]!.say).toContain("open already");
    await takeBack(db, done.actId, doing);
    expect(await newest(ids.oil)).toMatchObject({ opened: null, bestBefore: "2028-01-01" });
  });
  it("taking out says why, moves its share of the value, and never more than is there", async () => {
    const l = (await lotsOf(ids.oil))[0]!;
    await moveOut(db, { lotId: l.id, amount: 900_000, reason: "wasted", note: "rancid" }, doing);
    expect((await lotsOf(ids.oil))[0]).toMatchObject({ onHand: 900_000, value: l.value / 2 });
    expect((await materialMovements(db, ids.oil))[0]).toMatchObject({ reason: "wasted", note: "rancid" });
    expect(await refused(moveOut(db, { lotId: l.id, amount: 900_001, reason: "given", note: "" }, doing))).toMatchObject([
      { field: "amount" },
    ]);
  });
  it("a stock-take posts every correction as one act, and takes them all back", async () => {
    const [oil, wax] = [(await lotsOf(ids.oil))[0]!, (await lotsOf(ids.wax))[0]!];
    expect((await refused(postStocktake(db, {}, doing)))[0]!.say).toContain("Nothing has been counted");
    await noteCount(db, oil.id, 1_750_000, "spilt");
    await noteCount(db, wax.id, 1, "");
    await noteCount(db, wax.id, wax.onHand + 5_000, "");
    const [tin] = await lotsOf(ids.tin);
    await noteCount(db, tin!.id, tin!.onHand, "");
    expect((await walkShelf(db)).filter((r) => r.counted !== null)).toHaveLength(3);
    expect(await onHand(ids.oil)).toBe(oil.onHand);
    const done = await postStocktake(db, {}, doing);
    expect([await onHand(ids.oil), await onHand(ids.wax)]).toEqual([1_750_000, wax.onHand + 5_000]);
    expect((await walkShelf(db)).every((r) => r.counted === null)).toBe(true);
    await takeBack(db, done.actId, doing);
    expect([await onHand(ids.oil), await onHand(ids.wax)]).toEqual([oil.onHand, wax.onHand]);
    await expectLedgerTrue(db);
  });
  it("a lot that moved since it was counted holds the stock-take back by name, and nothing is posted", async () => {
    const [oil, wax] = [(await lotsOf(ids.oil))[0]!, (await lotsOf(ids.wax))[0]!];
    await noteCount(db, oil.id, 1, "");
    await noteCount(db, wax.id, 1, "");
    await correctCount(db, { lotId: wax.id, expected: wax.onHand, counted: wax.onHand - 1, reason: "x" }, doing);
    expect(await refused(postStocktake(db, {}, doing))).toMatchObject([{ field: `lot.${wax.id}` }]);
    expect(await onHand(ids.oil)).toBe(oil.onHand);
  });
  it("a harvest is picked, weighed as it dries, and becomes a lot with its year; one that doesn't snap isn't dry", async () => {
    const herb = idIn(await saveMaterial(db, { name: "Mint", kind: "herb", densities: {}, keepsSealed: 24 }, doing));
    const start = async () =>
      idIn(
        await pick(
          db,
          { materialId: herb, picked: DAY, place: "bed", fresh: mg(500_000), method: "air", celsius: null, minutes: 30, note: "" },
          doing,
        ),
      );
    const id = await start();
    expect((await whatWaits(db, DAY)).find((w) => w.kind === "drying")).toMatchObject({ id, name: "Mint", amount: 500_000 });
    await weighHarvest(db, { harvestId: id, day: addDays(DAY, 2), weight: mg(120_000), celsius: null, note: "" }, doing);
    expect(await refused(weighHarvest(db, { harvestId: id, day: DAY, weight: mg(500_001), celsius: null, note: "" }, doing))).toMatchObject(
      [{ field: "weight" }],
    );
    const dry = { harvestId: id, dry: mg(100_000), snaps: true, minutes: 60, valuedBy: "hours" as const, market: null };
    expect(await refused(finishHarvest(db, { ...dry, dry: mg(400_000) }, doing))).toMatchObject([{ field: "dry" }]);
    const done = await finishHarvest(db, dry, { day: addDays(DAY, 3) });
    expect(await newest(herb)).toMatchObject({ onHand: 100_000, value: euro(16), dryness: "dry", grown: 2026, bestBefore: "2028-05-04" });
    await takeBack(db, done.actId, doing);
    expect((await listHarvests(db, { drying: true })).map((h) => h.harvest.id)).toEqual([id]);
    await finishHarvest(db, { ...dry, snaps: false, valuedBy: "nothing" }, { day: addDays(DAY, 3) });
    expect(await newest(herb)).toMatchObject({ value: 0, dryness: "damp" });
    expect(
      (
        await refused(
          pick(
            db,
            { materialId: ids.oil, picked: DAY, place: "", fresh: mg(1), method: "air", celsius: null, minutes: 0, note: "" },
            doing,
          ),
        )
      )[0]!.field,
    ).toBe("material");
  });
  it("what is referred to can't be deleted, and says by what; put away, it is off the shelf and keeps its history", async () => {
    const [p] = await refused(deleteMaterial(db, { id: ids.oil }, doing));
    expect(p!.say).toMatch(/1 lot, 1 recipe line and 1 receipt line.*Put it away/);
    await retireMaterial(db, { id: ids.oil, retired: true }, doing);
    expect((await onShelf(db, DAY, {}, 99)).map((m) => m.name)).not.toContain("Oil");
    expect((await readMaterial(db, ids.oil))!.lots).toHaveLength(1);
    await retireMaterial(db, { id: ids.oil, retired: false }, doing);
    const loose = idIn(await saveMaterial(db, { name: "Unused", kind: "oil", densities: {} }, doing));
    await deleteMaterial(db, { id: loose }, doing);
    expect(await readMaterial(db, loose)).toBeNull();
  });
  it("the library goes on the shelf once", async () => {
    const take = async (...keys: string[]) => (await whatWasDone(db, (await addFromLibrary(db, { keys }, doing)).actId))!.summary;
    expect(await take("jojoba", "olive", "jojoba", "nonsense")).toContain("2 materials");
    expect(await take("jojoba", "castor")).toContain("1 material taken");
    const [j] = await onShelf(db, DAY, { find: "jojoba" }, 9);
    expect((await readMaterial(db, j!.id))!.material).toMatchObject({ libraryKey: "jojoba", keepsSealed: 48, densities: { liquid: 866 } });
  });
});

describe("buying", () => {
  it("use is learned from the ledger, net of what was taken back, and the same rule holds in SQL and in core", async () => {
    await saveMaterial(db, { name: "Wax", kind: "wax", densities: {}, reorderBy: "use", id: ids.wax }, doing);
    const later = addDays(DAY, 40);
    const months = (await monthlyUse(db, later, [ids.wax])).get(ids.wax)!;
    expect(months).toEqual([{ materialId: ids.wax, month: "2026-05-01", used: 50_000 }]);
    const again = await make(2);
    expect((await monthlyUse(db, later, [ids.wax])).get(ids.wax)![0]!.used).toBe(70_000);
    await takeBack(db, again.actId, doing);
    expect((await monthlyUse(db, later, [ids.wax])).get(ids.wax)![0]!.used).toBe(50_000);
    // Low at every lead time for which the rule of core says so, and at no other.
    const stock = {
      onHand: await onHand(ids.wax),
      coming: 0,
      reorderBy: "use" as const,
      reorderAt: null,
      perDay: usedPerDay(months, later),
    };
    const seen: boolean[] = [];
    for (const leadDays of [1, 30, 170, 180, 181, 400]) {
      await db.execute(
        sql`insert into settings (id, data) values (1, ${JSON.stringify({ ...STARTING_SETTINGS, leadDays })}) on conflict (id) do update set data = excluded.data`,
      );
      const rule = { leadDays, coverDays: 60 };
      const low = stock.onHand < reorderPoint(stock, rule)!;
      seen.push(low);
      expect(
        (await whatWaits(db, later)).some((w) => w.kind === "low" && w.name === "Wax"),
        `lead ${leadDays}`,
      ).toBe(low);
      expect((await onShelf(db, later, { find: "Wax" }, 1))[0]!.low).toBe(low);
      expect((await shelfBoards(db, later)).find((b) => b.kind === "wax")!.low).toBe(low ? 1 : 0);
      expect((await whatToBuy(db, later, rule)).map((w) => w.amount)).toEqual(low ? [toBuy(stock, rule)] : []);
    }
    expect(new Set(seen).size).toBe(2);
  });
  it("packs still to come hold a reminder back", async () => {
    await saveMaterial(db, { name: "Wax", kind: "wax", densities: {}, reorderBy: "hand", reorderAt: 1_000_000, id: ids.wax }, doing);
    expect((await whatToBuy(db, DAY, STARTING_SETTINGS))[0]).toMatchObject({ name: "Wax", point: 1_000_000 });
    await receive(db, { supplier: "Press", day: DAY, postage: euro(0), lines: [line({ materialId: ids.wax, arrived: 0 })] }, {});
    expect(await whatToBuy(db, DAY, STARTING_SETTINGS)).toEqual([]);
  });
  it("offers are those noted and the newest purchase of each pack; the history has every purchase", async () => {
    await noteOffer(
      db,
      { materialId: ids.oil, supplier: "Cheap", packSize: "5 kg", qty: 5_000_000, price: euro(30), postage: euro(4), seen: DAY },
      doing,
    );
    await buy(ids.oil, 1_000_000, 14);
    const offers = await offersOf(db, [ids.oil]);
    expect(offers.map((o) => [o.supplier, o.id === null, o.qty, o.price, o.postage])).toEqual([
      ["Cheap", false, 5_000_000, euro(30), euro(4)],
      ["Mill", true, 1_000_000, euro(14), euro(1.01)],
    ]);
    expect((await priceHistory(db, ids.oil)).map((r) => r.value)).toEqual([euro(21.01), euro(15.01)]);
    expect(await db.select({ n: lot.id }).from(lot).where(eq(lot.number, "none"))).toEqual([]);
    expect(micros(offers[1]!.price + offers[1]!.postage)).toBe(euro(15.01));
  });
});
