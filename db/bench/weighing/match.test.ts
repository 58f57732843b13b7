/** Off target at the bench: the rest made to match, and the next lot where one ran out. */
import { mg, type Mg } from "#core/measure/exact";
import { expect, it } from "vitest";
import { buy, DAY, db, eachTestHasAWorkshop, filled, idIn, ids, lotsOf, put, refused } from "#test/db/workshop";
import { ledgerFaults } from "../../ledger/faults.ts";
import { saveMaterial } from "../../shelf/keepMaterial.ts";
import { matchBatch, fixPot, nextLot, standInFor } from "./match.ts";
import { firmnessLearned } from "../../recipe/firmness.ts";
import { eventsOf, noteEvent, settleEvent } from "./events.ts";
import { pour } from "../finishing/pour.ts";
import { readBatch } from "../read.ts";
import { weighOne } from "./weigh.ts";

eachTestHasAWorkshop();

const sheetOf = async (batchId: number) => (await readBatch(db, batchId))!;
const planned = async (batchId: number) => (await sheetOf(batchId)).takes.map((t) => [t.position, t.planned, t.weighed]);

/** More of one line, as it is corrected at the bench. */
const addMore = async ({ batchId, ...line }: { batchId: number; position: number; lotId: number; amount: Mg }) => {
  const had = (await sheetOf(batchId)).takes.length;
  return fixPot(db, { batchId, had, lines: [line], others: [], said: "", verdict: null }, DAY);
};

it("too much wax: everything else grows by the same share, and the batch with it; all of it can still be poured", async () => {
  const batchId = idIn(await put(4));
  const [oil, wax] = (await sheetOf(batchId)).takes;
  await weighOne(db, { batchId, position: oil!.position, lotId: oil!.lotId, weighed: oil!.planned, was: null, by: "scale" });
  await matchBatch(db, { batchId, position: wax!.position, lotId: wax!.lotId, weighed: mg((wax!.planned * 11) / 10), by: "scale" }, DAY);
  expect(await planned(batchId)).toEqual([
    [oil!.position, oil!.planned, oil!.planned],
    // What has to be added to what is in the pot is a separate line.
    [oil!.position, oil!.planned / 10, null],
    [wax!.position, (wax!.planned * 11) / 10, (wax!.planned * 11) / 10],
  ]);
  const { batch, takes } = await sheetOf(batchId);
  expect(batch.plannedMg).toBe(220_000);
  await pour(
    db,
    { batchId, takes: takes.map((t) => ({ ...t, weighed: t.planned })), sizes: filled(4), leftover: mg(0), minutes: 9, note: "" },
    { day: DAY },
  );
  expect(await ledgerFaults(db)).toEqual([]);
});

it("what is short of the rest is named, and nothing kept; from the next lot it comes, as far as that isn't this batch's already", async () => {
  const batchId = idIn(await put(30));
  const [oil, wax] = (await sheetOf(batchId)).takes;
  const at = { batchId, position: wax!.position, lotId: wax!.lotId, by: "hand" as const };
  expect(await refused(matchBatch(db, { ...at, weighed: mg(wax!.planned * 2) }, DAY))).toMatchObject([
    { say: expect.stringMatching(/^The shelf is short of .* of Oil\. Nothing was saved/) as string },
  ]);
  expect((await sheetOf(batchId)).takes.map((t) => t.weighed)).toEqual([null, null]);
  await buy(ids.oil, 3_000_000, 30);
  await matchBatch(db, { ...at, weighed: mg(wax!.planned * 2) }, DAY);
  const rows = (await sheetOf(batchId)).takes.filter((t) => t.position === oil!.position);
  const lots = new Map((await lotsOf(ids.oil)).map((l) => [l.id, l.onHand]));
  expect(rows.reduce((n, t) => n + t.planned, 0)).toBe(oil!.planned * 2);
  for (const t of rows) expect(t.planned).toBeLessThanOrEqual(lots.get(t.lotId)!);
});

it("too little: a smaller batch, as long as nothing else is in the pot already", async () => {
  const batchId = idIn(await put(4));
  const [oil, wax] = (await sheetOf(batchId)).takes;
  const half = { batchId, position: wax!.position, lotId: wax!.lotId, weighed: mg(wax!.planned / 2), by: "scale" as const };
  await weighOne(db, { batchId, position: oil!.position, lotId: oil!.lotId, weighed: oil!.planned, was: null, by: "scale" });
  expect(await refused(matchBatch(db, half, DAY))).toMatchObject([{ say: expect.stringContaining("Oil is in the pot already") as string }]);
  await weighOne(db, { batchId, position: oil!.position, lotId: oil!.lotId, weighed: null, was: oil!.planned, by: "hand" });
  await matchBatch(db, half, DAY);
  expect(await planned(batchId)).toEqual([
    [oil!.position, oil!.planned / 2, null],
    [wax!.position, wax!.planned / 2, wax!.planned / 2],
  ]);
});

it("an empty lot: what went in is kept, the rest comes out of the next; and there has to be one", async () => {
  const batchId = idIn(await put(4));
  const [, wax] = (await sheetOf(batchId)).takes;
  const some = { batchId, position: wax!.position, lotId: wax!.lotId, weighed: mg(10_000), by: "scale" as const };
  expect(await refused(nextLot(db, some, DAY))).toMatchObject([{ say: expect.stringContaining("short of 30 g of Wax") as string }]);
  await buy(ids.wax, 500_000, 9);
  await nextLot(db, some, DAY);
  const rows = (await sheetOf(batchId)).takes.filter((t) => t.position === wax!.position);
  expect(rows.map((t) => [t.planned, t.weighed])).toEqual([
    [10_000, 10_000],
    [30_000, null],
  ]);
  expect(rows[1]!.lotId).not.toBe(wax!.lotId);
  expect(await refused(nextLot(db, some, DAY))).toHaveLength(1);
});

it("more of what is in the pot already is a line of its own, out of what nobody else is promised", async () => {
  const batchId = idIn(await put(4));
  const [, wax] = (await sheetOf(batchId)).takes;
  const at = { batchId, position: wax!.position, lotId: wax!.lotId };
  await weighOne(db, { ...at, weighed: wax!.planned, was: null, by: "scale" });
  await addMore({ ...at, amount: mg(3200) });
  expect((await planned(batchId)).slice(1)).toEqual([
    [wax!.position, wax!.planned, wax!.planned],
    [wax!.position, 3200, null],
  ]);
  expect((await sheetOf(batchId)).batch.plannedMg).toBe(203_200);
  // 450 g of wax are here; this batch has 43.2, another 300.
  await put(30);
  expect(await refused(addMore({ ...at, amount: mg(120_000) }))).toMatchObject([
    { say: expect.stringContaining("short of 13.2 g of Wax") as string },
  ]);
});

it("what a cold spoon says of a pot teaches the model of firmness, as the pot was then; struck out it says nothing", async () => {
  const batchId = idIn(await put(4));
  const { takes } = await sheetOf(batchId);
  const learned = async () => (await firmnessLearned(db)).tests;
  expect(await learned()).toBe(0);
  // Of an empty pot nothing is learned.
  await noteEvent(db, { batchId, kind: "test", verdict: "soft" });
  expect(await learned()).toBe(0);
  for (const t of takes) await weighOne(db, { batchId, position: t.position, lotId: t.lotId, weighed: t.planned, was: null, by: "scale" });
  await noteEvent(db, { batchId, kind: "test", verdict: "muchSoft" });
  expect(await learned()).toBe(1);
  const soft = (await firmnessLearned(db)).constants.wax;
  expect(soft).toBeLessThan(1);
  // More wax after it isn't what the spoon said anything of.
  await addMore({ batchId, position: takes[1]!.position, lotId: takes[1]!.lotId, amount: mg(20_000) });
  const more = (await sheetOf(batchId)).takes.at(-1)!;
  await weighOne(db, { batchId, position: more.position, lotId: more.lotId, nth: 1, weighed: more.planned, was: null, by: "scale" });
  expect((await firmnessLearned(db)).constants.wax).toBe(soft);
  const tested = (await eventsOf(db, batchId)).filter((e) => e.kind === "test");
  for (const e of tested) await settleEvent(db, batchId, e.id, "strike");
  expect(await learned()).toBe(0);
});

it("a material that ran out: what went in is kept, something else stands in for the rest out of its own lots, and it is written down", async () => {
  const other = idIn(await saveMaterial(db, { name: "Berry wax", kind: "wax", densities: {} }, { day: DAY }));
  await buy(other, 30_000, 3);
  const batchId = idIn(await put(4));
  const wax = (await sheetOf(batchId)).takes[1]!;
  const at = { batchId, position: wax.position, lotId: wax.lotId, weighed: mg(8000), by: "scale" as const };
  expect(await refused(standInFor(db, { ...at, materialId: other, amount: mg(40_000) }, DAY))).toMatchObject([
    { say: expect.stringMatching(/^The shelf is short of 10 g of Berry wax\. Nothing was saved/) as string },
  ]);
  await standInFor(db, { ...at, materialId: other, amount: mg(16_000) }, DAY);
  const { takes } = await sheetOf(batchId);
  expect(takes.slice(1).map((t) => [t.material, t.position, t.planned, t.weighed])).toEqual([
    ["Wax", wax.position, 8000, 8000],
    ["Berry wax", wax.position, 16_000, null],
  ]);
  expect((await eventsOf(db, batchId)).map((e) => e.note)).toEqual([
    `16 g of Berry wax in the place of ${(wax.planned - 8000) / 1000} g of Wax`,
  ]);
  await pour(
    db,
    {
      batchId,
      takes: takes.map((t) => ({ ...t, weighed: t.planned })),
      sizes: filled(3),
      leftover: mg(0),
      minutes: 9,
      note: "some was spilt",
    },
    { day: DAY },
  );
  expect((await lotsOf(other))[0]!.onHand).toBe(14_000);
  expect(await ledgerFaults(db)).toEqual([]);
});
