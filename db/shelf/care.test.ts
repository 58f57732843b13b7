/** Small things with the same care: impossible days, lines entered twice, lots on hold, counts noted while others are posted. */
import { describe, expect, it } from "vitest";
import { reverseAct } from "../acts/reverse.ts";
import { closeMarketDay, type MarketIn } from "../markets/markets.ts";
import { readBook } from "../acts/book.ts";
import { buy, DAY, db, eachTestHasAWorkshop, finished, idIn, ids, jarOf, lotsOf, refused, token } from "#test/db/workshop";
import { euro, expectLedgerTrue } from "#test/db/fresh";
import { fillJar } from "../jars/fill.ts";
import { mg, micros } from "#core/measure/exact";
import { correctReceipt } from "./receipts/correct.ts";
import { holdLot } from "./counting/count.ts";
import { lotsOfMaterials } from "../ledger/lots.ts";
import { saveMaterial } from "./keepMaterial.ts";
import { arrive, receive } from "./receipts/receive.ts";
import { readReceipt } from "./receipts/receipts.ts";
import { sayScentMost } from "./scentMost.ts";
import { noteCount, postStocktake, walkShelf } from "./counting/stocktake.ts";

eachTestHasAWorkshop();
const now = () => ({ day: DAY, token: token() });

describe("a receipt", () => {
  it("can't be corrected with one of its lines twice", async () => {
    const id = idIn(await buy(ids.oil, 1_000_000, 10));
    const line = {
      materialId: ids.oil,
      supplierLot: "",
      packs: 1,
      packSize: "1 kg",
      qty: mg(1_000_000),
      price: euro(12),
      bestBefore: null,
      id: (await readReceipt(db, id))!.lines[0]!.line.id,
    };
    const sheet = { id, supplier: "Mill", day: DAY, postage: micros(0), lines: [line, line] };
    expect(await refused(correctReceipt(db, sheet, now()))).toMatchObject([{ field: "lines.1.material" }]);
    await expectLedgerTrue(db);
  });
  it("takes no packs that were past their day when they came", async () => {
    const half = {
      materialId: ids.oil,
      supplierLot: "",
      packs: 2,
      arrived: 1,
      packSize: "1 kg",
      qty: mg(2_000_000),
      price: euro(20),
      bestBefore: null,
    };
    const id = idIn(await receive(db, { supplier: "Mill", day: DAY, postage: micros(0), lines: [half] }, now()));
    const waiting = (await readReceipt(db, id))!.lines.find((l) => l.line.lotId === null)!.line.id;
    const came = { lineId: waiting, packs: 1, supplierLot: "" };
    expect(await refused(arrive(db, { ...came, bestBefore: "2026-05-03" }, now()))).toMatchObject([{ field: "bestBefore" }]);
    await arrive(db, { ...came, bestBefore: "2026-05-05" }, now());
  });
});

it("nothing is made of a lot on a day before it came", async () => {
  const herb = idIn(await saveMaterial(db, { name: "Herb", kind: "herb", densities: {} }, { day: DAY }));
  await buy(herb, 100_000, 5);
  const [oil] = await lotsOf(ids.oil);
  const [leaf] = await lotsOf(herb);
  const parts = [
    { role: "carrier" as const, materialId: ids.oil, lotId: oil!.id, cut: null, qty: mg(100_000) },
    { role: "herb" as const, materialId: herb, lotId: leaf!.id, cut: "whole" as const, qty: mg(10_000) },
  ];
  const [said] = await refused(fillJar(db, jarOf(parts, { day: "2026-05-03" }), now()));
  expect(said!.say).toContain("before that day there was none of it");
  await fillJar(db, jarOf(parts), now());
});

it("what a scent's paper allows is written down, struck out and taken back, and reaches whoever weighs it", async () => {
  const scent = idIn(await saveMaterial(db, { name: "Clove", kind: "essentialOil", densities: { liquid: 1050 } }, now()));
  await buy(scent, 20_000, 9);
  const [bottle] = await lotsOf(scent);
  const most = async () => (await lotsOfMaterials(db, [scent]))[0]!.scentMostPpm;
  const first = await sayScentMost(db, { lotId: bottle!.id, ppm: 4_000 }, now());
  expect((await readBook(db, {}))[0]!.summary).toBe(`${bottle!.number} may be 0.4 % of a product`);
  expect(await refused(sayScentMost(db, { lotId: bottle!.id, ppm: 4_000 }, now()))).toMatchObject([{ field: "most" }]);
  const none = await sayScentMost(db, { lotId: bottle!.id, ppm: 0 }, now());
  expect(await most()).toBe(0);
  expect((await refused(reverseAct(db, first.actId, now())))[0]!.say).toContain("since");
  await reverseAct(db, none.actId, now());
  expect(await most()).toBe(4_000);
  await sayScentMost(db, { lotId: bottle!.id, ppm: null }, now());
  expect(await most()).toBeNull();
  const [oil] = await lotsOf(ids.oil);
  expect((await refused(sayScentMost(db, { lotId: oil!.id, ppm: 1 }, now())))[0]!.say).toContain("essential oil");
  expect(await refused(sayScentMost(db, { lotId: 99_999, ppm: 1 }, now()))).toHaveLength(1);
});

it("a lot on hold that was sold at a stall wants a word, which stands in the book", async () => {
  const made = (await finished())[0]!;
  await holdLot(db, { lotId: made.id, reason: "Grainy" }, now());
  const day: MarketIn = {
    name: "Fair",
    day: DAY,
    stallFee: micros(0),
    travel: micros(0),
    byCard: micros(0),
    cardFeeBp: 0,
    minutes: 0,
    note: "",
    lines: [{ lotId: made.id, taken: 2, sold: 2, given: 0, damaged: 0, price: euro(9) }],
  };
  const [said] = await refused(closeMarketDay(db, day, now()));
  expect(said).toMatchObject({ field: "note", say: `${made.number} is on hold (Grainy). Say here why some of it went all the same.` });
  const { actId } = await closeMarketDay(db, { ...day, note: "Sold as seconds" }, now());
  expect((await readBook(db, {}))[0]!.summary).toContain(`${made.number} though on hold`);
  await reverseAct(db, actId, now());
  await expectLedgerTrue(db);
});

it("a count noted while another window posts is posted with the rest, or waits for the next time", async () => {
  for (let i = 0; i < 30; i++) await buy(ids.oil, 1_000_000, 9);
  for (let round = 0; round < 6; round++) {
    const lots = await walkShelf(db);
    for (const l of lots) await noteCount(db, l.id, l.onHand - 1, "");
    const late = lots.slice(0, 12);
    await Promise.all([
      postStocktake(db, {}, now()).catch(() => undefined),
      ...late.map((l) => noteCount(db, l.id, l.onHand - 2, "again")),
    ]);
    const after = new Map((await walkShelf(db)).map((l) => [l.id, l]));
    for (const l of late) {
      const at = after.get(l.id)!;
      // Posted as the newer note says, or the newer note waits to be posted.
      expect(at.counted === l.onHand - 2 || at.onHand === l.onHand - 2, `${l.number}, round ${round}`).toBe(true);
    }
    await postStocktake(db, {}, now()).catch(() => undefined);
    for (const l of await walkShelf(db)) await noteCount(db, l.id, null, "");
  }
  await expectLedgerTrue(db);
});
