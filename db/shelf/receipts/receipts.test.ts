/** Receipts after the fact: partial deliveries, corrections that follow what was used, and the acts on a shelf that change no receipt. */
import { minus } from "#core/measure/exact";
import { addDays } from "#core/when";
import { sql } from "drizzle-orm";
import { describe, expect, it } from "vitest";
import { dropScan, keepScan, readAttachment } from "../../attachments/attachments.ts";
import { reverseAct } from "../../acts/reverse.ts";
import { batch } from "../../schema.ts";
import { batchResult } from "../../bench/finishing/result.ts";
import { euro, expectLedgerTrue } from "#test/db/fresh";
import { PICTURE } from "#test/db/picture";
import {
  asCorrection,
  DAY,
  db,
  eachTestHasAWorkshop,
  finished,
  idIn,
  ids,
  lotsOf,
  make,
  onHand,
  refused,
  threePacks,
} from "#test/db/workshop";
import { materialMovements } from "../materials.ts";
import { onShelf } from "../overview.ts";
import { arrive, receive, receiveMany } from "./receive.ts";
import { correctReceipt, type CorrectIn } from "./correct.ts";
import { listReceipts, readReceipt, stillToCome } from "./receipts.ts";

eachTestHasAWorkshop();

const doing = { day: DAY };
const newest = async (id: number) => (await lotsOf(id)).reduce((a, b) => (b.id > a.id ? b : a));
const [receiptOf, idsOf] = [idIn, (rows: { id: number }[]) => rows.map((r) => r.id)];

describe("partial deliveries", () => {
  it("what has come is a lot at its share; the rest waits, comes in parts, and the whole costs what was paid", async () => {
    const id = receiptOf(await receive(db, { supplier: "Press", day: DAY, postage: euro(1), lines: [threePacks({ arrived: 1 })] }, doing));
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
    await reverseAct(db, last.actId, doing);
    expect((await stillToCome(db)).get(ids.oil)).toBe(1_000_000);
    await expectLedgerTrue(db);
  });
  it("a receipt taken back waits for nothing", async () => {
    const done = await receive(db, { supplier: "Press", day: DAY, postage: euro(0), lines: [threePacks({ arrived: 0 })] }, {});
    await reverseAct(db, done.actId, doing);
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
    await reverseAct(db, done.actId, doing);
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
        { supplier: "Press", day: DAY, postage: euro(2), lines: [threePacks(), threePacks({ materialId: ids.wax, price: euro(10) })] },
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
        lines: [c.lines[0]!, { ...threePacks({ materialId: ids.tin, packs: 1, packSize: "10", qty: 10, price: euro(10) }), id: null }],
      },
      doing,
    );
    expect(await onHand(ids.wax)).toBe(before[1]! - 3_000_000);
    expect((await readReceipt(db, id))!.lines.map((l) => l.material)).toEqual(["Oil", "Tin"]);
    await reverseAct(db, done.actId, doing);
    expect([await onHand(ids.oil), await onHand(ids.wax)]).toEqual(before);
    const back = (await readReceipt(db, id))!;
    expect([back.receipt.supplier, back.lines.map((l) => l.material).sort()]).toEqual(["Press", ["Oil", "Wax"]]);
    await expectLedgerTrue(db);
  });
});

describe("taking a correction back", () => {
  it("is refused once more of the receipt arrived or it was corrected again, and done in order it restores each", async () => {
    const id = receiptOf(await receive(db, { supplier: "Press", day: DAY, postage: euro(0), lines: [threePacks({ arrived: 1 })] }, doing));
    const priced = async (price: number) => {
      const c = await asCorrection(id);
      return correctReceipt(db, { id: id, ...c, lines: c.lines.map((l, i) => (i === 0 ? { ...l, price: euro(price) } : l)) }, doing);
    };
    const first = await priced(20);
    const second = await priced(30);
    expect((await refused(reverseAct(db, first.actId, doing)))[0]!.say).toContain("corrected again, since");
    await reverseAct(db, second.actId, doing);
    const waiting = (await readReceipt(db, id))!.lines.find((l) => l.line.lotId === null)!.line;
    const came = await arrive(db, { lineId: waiting.id, packs: 1, supplierLot: "", bestBefore: null }, doing);
    expect((await refused(reverseAct(db, first.actId, doing)))[0]!.say).toContain("arrived, or it was corrected again, since");
    await reverseAct(db, came.actId, doing);
    await reverseAct(db, first.actId, doing);
    expect((await readReceipt(db, id))!.lines[0]!.line.price).toBe(euro(10));
    await expectLedgerTrue(db);
  });
  it("gives a used lot's cost back once, whichever is taken back first: the use or the correction", async () => {
    const [oil] = await lotsOf(ids.oil);
    for (const order of [0, 1]) {
      const used = await make(1);
      const c = await asCorrection(oil!.purchaseId!);
      const corrected = await correctReceipt(db, { id: oil!.purchaseId!, ...c, lines: [{ ...c.lines[0]!, price: euro(50) }] }, doing);
      for (const act of order === 0 ? [used, corrected] : [corrected, used]) await reverseAct(db, act.actId, doing);
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
        receipts: [{ supplier: "Press", day: DAY, postage: euro(0), lines: [threePacks({ materialId: -1 }), threePacks()] }],
      },
      doing,
    );
    expect((await onShelf(db, DAY, { find: "nettle" }, 9))[0]).toMatchObject({ onHand: 3_000_000, kind: "herb" });
    await reverseAct(db, done.actId, doing);
    expect((await onShelf(db, DAY, { find: "nettle" }, 9))[0]).toMatchObject({ onHand: 0 });
    await expectLedgerTrue(db);
  });
  it("twenty thousand lines go on the shelf in one act", async () => {
    const lines = Array.from({ length: 20_000 }, (_, i) => threePacks({ materialId: i % 2 ? ids.oil : ids.wax, packs: 1, qty: 1000 }));
    await receiveMany(db, { add: [], receipts: [{ supplier: "Press", day: DAY, postage: euro(20), lines }] }, doing);
    const { rows } = await db.execute<{ n: number; numbers: number }>(
      sql`select count(*)::int n, count(distinct number)::int numbers from lot where arrived = ${DAY} and on_hand = 1000`,
    );
    expect(rows[0]).toEqual({ n: 20_000, numbers: 20_000 });
  });
  it("a scan is known by its bytes, not by its name", async () => {
    const id = receiptOf(await receive(db, { supplier: "Press", day: DAY, postage: euro(0), lines: [threePacks()] }, doing));
    await keepScan(db, { purchaseId: id, file: { name: "receipt.jpg", bytes: PICTURE } }, doing);
    const [scan] = (await readReceipt(db, id))!.scans;
    expect(scan).toMatchObject({ name: "receipt.jpg", mime: "image/png" });
    expect((await readAttachment(db, scan!.id))!.bytes.equals(PICTURE)).toBe(true);
    for (const bytes of [Buffer.from("<script>alert(1)</script>"), Buffer.from("MZ\u0090\u0000program"), Buffer.alloc(0)])
      expect(await refused(keepScan(db, { purchaseId: id, file: { name: "receipt.png", bytes } }, doing))).toMatchObject([
        { field: "file" },
      ]);
    await dropScan(db, { purchaseId: id, id: scan!.id }, doing);
    expect((await readReceipt(db, id))!.scans).toEqual([]);
  });
});
