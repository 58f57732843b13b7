/** What reads a cost, a use or a count reads what put it right since: nothing goes by a first figure that turned out otherwise. */
import { micros } from "#core/measure/exact";
import { addDays } from "#core/when";
import { eq } from "drizzle-orm";
import { describe, expect, it } from "vitest";
import { reverseAct } from "../acts/reverse.ts";
import { fillJar } from "../jars/fill.ts";
import { strainJar } from "../jars/strain.ts";
import { act, lot, material } from "../schema.ts";
import { monthlyUse, offersOf } from "../shelf/buying.ts";
import { correctReceipt } from "../shelf/receipts/correct.ts";
import { correctCount } from "../shelf/counting/count.ts";
import { saveMaterial } from "../shelf/keepMaterial.ts";
import { moveOut } from "../shelf/lots.ts";
import { openingStock, sayCost } from "../shelf/counting/opening.ts";
import { arrive, receive } from "../shelf/receipts/receive.ts";
import { readReceipt } from "../shelf/receipts/receipts.ts";
import { noteCount, postStocktake } from "../shelf/counting/stocktake.ts";
import { mg } from "#core/measure/exact";
import { euro, expectLedgerTrue } from "#test/db/fresh";
import {
  asCorrection,
  buy,
  DAY,
  db,
  eachTestHasAWorkshop,
  idIn,
  ids,
  jarOf,
  lotsOf,
  make,
  onHand,
  refused,
  threePacks,
} from "#test/db/workshop";
import { replacementCosts } from "./lots.ts";

eachTestHasAWorkshop();
const doing = { day: DAY };
const again = async (of: number) => (await replacementCosts(db, [of])).get(of);
const newMaterial = async (name: string, kind: "oil" | "herb") => idIn(await saveMaterial(db, { name, kind, densities: {} }, doing));

describe("what having a material again costs", () => {
  it("follows the cost of opening stock that was said later", async () => {
    const oil = await newMaterial("Old oil", "oil");
    const opening = {
      materialId: oil,
      qty: 1000,
      cost: micros(0),
      costKnown: "paid" as const,
      supplierLot: "",
      bought: null,
      bestBefore: null,
    };
    await openingStock(db, { add: [], lines: [opening] }, doing);
    // At nothing, as given: that says nothing of the next one.
    expect(await again(oil)).toBeUndefined();
    const [only] = await lotsOf(oil);
    const said = await sayCost(db, { lotId: only!.id, cost: euro(4), costKnown: "paid" }, doing);
    expect(await again(oil)).toEqual({ value: euro(4), per: 1000 });
    await reverseAct(db, said.actId, doing);
    expect(await again(oil)).toBeUndefined();
  });

  it("follows a corrected receipt into what was made of it, and passes a free sample over", async () => {
    const herb = await newMaterial("Herb", "herb");
    const receipt = idIn(await buy(herb, 100_000, 4));
    const [leaf] = await lotsOf(herb);
    const [oil] = await lotsOf(ids.oil);
    const jar = await fillJar(
      db,
      jarOf([
        { role: "herb", materialId: herb, lotId: leaf!.id, cut: "whole", qty: mg(100_000) },
        { role: "carrier", materialId: ids.oil, lotId: oil!.id, cut: null, qty: mg(100_000) },
      ]),
      doing,
    );
    const out = { back: mg(80_000), secondBack: null, sediment: mg(0), herbOut: null, pressed: false, bottles: [mg(80_000)] };
    await strainJar(db, { jarId: idIn(jar), ...out }, doing);
    const [infused] = await db.select().from(material).where(eq(material.kind, "infusedOil"));
    const before = (await again(infused!.id))!;
    const sheet = await asCorrection(receipt);
    await correctReceipt(
      db,
      { ...sheet, id: receipt, lines: sheet.lines.map((l) => ({ ...l, price: euro(l.price / 1_000_000 + 10) })) },
      doing,
    );
    expect(await again(infused!.id)).toEqual({ value: before.value + euro(10), per: 80_000 });
    expect((await lotsOf(infused!.id))[0]!.value).toBe(before.value + euro(10));

    const paid = await again(ids.oil);
    const offers = (await offersOf(db, [ids.oil])).length;
    await receive(db, { supplier: "Fair", day: DAY, postage: micros(0), lines: [threePacks({ price: micros(0) })] }, doing);
    expect(await again(ids.oil)).toEqual(paid);
    expect(await offersOf(db, [ids.oil])).toHaveLength(offers);
    await expectLedgerTrue(db);
  });
});

it("use that is taken back in a later month had never been, in the month it was used in", async () => {
  const later = addDays(DAY, 40);
  const use = async () => (await monthlyUse(db, later, [ids.oil])).get(ids.oil)!.filter((m) => m.used !== 0);
  const before = await use();
  const poured = await make(3);
  expect(await use()).toEqual([{ materialId: ids.oil, month: "2026-05-01", used: before[0]!.used + 120_000 }]);
  await reverseAct(db, poured.actId, { day: later });
  expect(await use()).toEqual(before);
  await expectLedgerTrue(db);
});

it("packs that arrived wait again at their own price, beside others of the same kind at another", async () => {
  const line = threePacks({ packs: 2, qty: 2_000_000, arrived: 0 });
  const lines = [
    { ...line, price: euro(40) },
    { ...line, price: euro(80) },
  ];
  const id = idIn(await receive(db, { supplier: "Press", day: DAY, postage: micros(0), lines }, doing));
  const waiting = async () =>
    (await readReceipt(db, id))!.lines.flatMap(({ line: l, lot: of }) => (of ? [] : [[l.packs, l.qty, l.price, l.landed]]));
  const all = await waiting();
  const ofDear = (await readReceipt(db, id))!.lines.map((l) => l.line).find((l) => l.price === euro(80))!;
  const one = await arrive(db, { lineId: ofDear.id, packs: 1, supplierLot: "", bestBefore: null }, doing);
  await reverseAct(db, one.actId, doing);
  expect(await waiting()).toEqual(all);
  const both = (await readReceipt(db, id))!.lines.map((l) => l.line);
  const came = [];
  for (const l of both) came.push(await arrive(db, { lineId: l.id, packs: 2, supplierLot: "", bestBefore: null }, doing));
  for (const c of came) await reverseAct(db, c.actId, doing);
  expect(await waiting()).toEqual(all);
  // In two goes, taken back in the order they came: the rest of the first isn't waiting then, and nothing is joined to another's.
  const first = await arrive(db, { lineId: ofDear.id, packs: 1, supplierLot: "", bestBefore: null }, doing);
  const rest = (await readReceipt(db, id))!.lines
    .map((l) => l.line)
    .find((l) => l.lotId === null && l.price === euro(40) && l.packs === 1)!;
  const second = await arrive(db, { lineId: rest.id, packs: 1, supplierLot: "", bestBefore: null }, doing);
  for (const c of [first, second]) await reverseAct(db, c.actId, doing);
  expect((await waiting()).map(([packs, , price]) => [packs, price]).sort()).toEqual([
    [1, euro(40)],
    [1, euro(40)],
    [2, euro(40)],
  ]);
  await expectLedgerTrue(db);
});

describe("what was counted last is what is there", () => {
  const count = (lotId: number, expected: number, counted: number) => correctCount(db, { lotId, expected, counted, reason: "" }, doing);

  it("when the older of two counts is taken back, or what was used before it, by a count or a stock-take", async () => {
    const [oil] = await lotsOf(ids.oil);
    const start = oil!.onHand;
    const first = await count(oil!.id, start, 1_500_000);
    const used = await moveOut(db, { lotId: oil!.id, amount: 50_000, reason: "own", note: "" }, doing);
    await noteCount(db, oil!.id, 1_400_000, "");
    const second = await postStocktake(db, {}, doing);
    await reverseAct(db, first.actId, doing);
    expect(await onHand(ids.oil)).toBe(1_400_000);
    await reverseAct(db, used.actId, doing);
    expect(await onHand(ids.oil)).toBe(1_400_000);
    await expectLedgerTrue(db);
    // With the last count gone too, nothing is left of any of it.
    await reverseAct(db, second.actId, doing);
    expect(await onHand(ids.oil)).toBe(start);
    expect((await lotsOf(ids.oil))[0]!.value).toBe(oil!.value);
    await expectLedgerTrue(db);
  });

  it("and what was found in a lot that never came can't stay", async () => {
    const came = await buy(ids.wax, 1000, 5);
    const fresh = (await lotsOf(ids.wax)).find((l) => l.onHand === 1000)!;
    await count(fresh.id, 1000, 900);
    expect((await refused(reverseAct(db, came.actId, doing)))[0]!.say).toContain("used or counted since");
    const [row] = await db.select({ onHand: lot.onHand }).from(lot).where(eq(lot.id, fresh.id));
    expect(row!.onHand).toBe(900);
    expect(await db.$count(act, eq(act.kind, "undo"))).toBe(0);
  });
});
