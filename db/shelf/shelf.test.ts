/** Receiving, counting, holding: what a lot costs and how that follows it. */
import { micros } from "#core/measure/exact";
import { STARTING_SETTINGS } from "#core/settings/settings";
import { costNeeds } from "#core/stock/costingMethods";
import { stockOnHand } from "#core/stock/shelf";
import { describe, expect, it } from "vitest";
import { reverseAct } from "../acts/reverse.ts";
import { replacementCosts, lotsOfMaterials } from "../ledger/lots.ts";
import { findLot, lotsLike } from "../lots/trace.ts";
import { readSettings, saveSettings } from "../settings/settings.ts";
import { euro } from "#test/db/fresh";
import { buy, DAY, db, eachTestHasAWorkshop, finished, ids, lotsOf, make, onHand, refused } from "#test/db/workshop";
import { correctCount, holdLot } from "./counting/count.ts";
import { saveMaterial } from "./keepMaterial.ts";
import { listMaterials, materialMovements, readMaterial } from "./materials.ts";
import { receive } from "./receipts/receive.ts";

eachTestHasAWorkshop();

const line = (materialId: number, qty: number, price: number) => ({
  materialId,
  supplierLot: "",
  packs: 1,
  packSize: "1 kg",
  qty,
  price: euro(price),
  bestBefore: null,
});

describe("receiving", () => {
  it("gives every line its share of the postage, to the last cent, as the lot's cost", async () => {
    await receive(
      db,
      { supplier: "Mill", day: DAY, postage: euro(5), lines: [line(ids.oil, 1000, 10), line(ids.wax, 1000, 20), line(ids.tin, 3, 0)] },
      { day: DAY },
    );
    const cost = async (id: number) => (await lotsOf(id)).at(-1)!.value;
    expect([await cost(ids.oil), await cost(ids.wax), await cost(ids.tin)]).toEqual([11_670_000, 23_330_000, 0]);
  });
  it("numbers lots by the workshop's scheme, one after the other, and across days anew", async () => {
    await saveSettings(db, { ...STARTING_SETTINGS, receiptScheme: "{P}-{YY}{MM}{DD}.{NN}" }, { day: DAY });
    await receive(
      db,
      { supplier: "Mill", day: DAY, postage: euro(0), lines: [line(ids.oil, 5, 1), line(ids.wax, 5, 1), line(ids.oil, 5, 1)] },
      { day: DAY },
    );
    await receive(db, { supplier: "Mill", day: "2026-05-05", postage: euro(0), lines: [line(ids.oil, 5, 1)] }, { day: DAY });
    const numbers = async (id: number) => (await lotsOf(id)).map((l) => l.number).filter((n) => n.includes("."));
    expect((await numbers(ids.oil)).sort()).toEqual(["LI-260504.01", "LI-260504.02", "LI-260505.01"]);
    expect(await numbers(ids.wax)).toEqual(["WA-260504.01"]);
  });
  it("a material that has gone meanwhile is named by its line, and nothing of the receipt stays", async () => {
    const before = await onHand(ids.oil);
    const lines = [line(ids.oil, 1000, 10), line(99_999, 1000, 10)];
    expect(await refused(receive(db, { supplier: "Mill", day: DAY, postage: euro(5), lines }, {}))).toMatchObject([
      { field: "lines.1.material" },
    ]);
    expect(await onHand(ids.oil)).toBe(before);
  });
  it("changes what it costs to buy again, and taking it back changes that back", async () => {
    const again = async () => (await replacementCosts(db, [ids.oil])).get(ids.oil)!;
    expect(await again()).toEqual({ value: 21_010_000, per: 2_000_000 });
    const dear = await buy(ids.oil, 1_000_000, 48.99);
    expect(await again()).toEqual({ value: 50_000_000, per: 1_000_000 });
    expect((await replacementCosts(db)).get(ids.oil)).toEqual({ value: 50_000_000, per: 1_000_000 });
    const [need] = costNeeds(
      [{ of: ids.oil, amount: 100_000 }],
      stockOnHand(await lotsOfMaterials(db, [ids.oil]), DAY, await replacementCosts(db)),
    );
    // 1.8 kg are left of 2 kg that cost 21.01; the new kilo cost 50.00.
    expect(need!.cost).toEqual({ lot: 1_050_500, average: 2_461_036, again: 5_000_000 });
    await reverseAct(db, dear.actId, { day: DAY });
    expect(await again()).toEqual({ value: 21_010_000, per: 2_000_000 });
    expect((await lotsOfMaterials(db, [ids.oil])).length).toBe(1);
  });
  it("can't be taken back once some of it was used", async () => {
    const [oil] = await lotsOf(ids.oil);
    const received = (await materialMovements(db, ids.oil)).at(-1)!;
    expect(received).toMatchObject({ reason: "received", number: oil!.number, qty: 2_000_000 });
    const acts = await materialMovements(db, ids.wax);
    expect(acts.map((m) => m.reason)).toEqual(["used", "received"]);
    const [problem] = await refused(reverseAct(db, 5 + 1, { day: DAY }));
    expect(problem!.say).toMatch(/has been used or counted since/);
  });
});

describe("counting", () => {
  it("down: the loss takes its share of the value with it; up: what is found comes in at what the lot cost", async () => {
    const [box] = await lotsOf(ids.box);
    expect(box).toMatchObject({ onHand: 10, value: 6_010_000 });
    await correctCount(db, { lotId: box!.id, expected: 10, counted: 4, reason: "crushed" }, { day: DAY });
    expect((await lotsOf(ids.box))[0]).toMatchObject({ onHand: 4, value: 2_404_000 });
    await correctCount(db, { lotId: box!.id, expected: 4, counted: 6, reason: "found behind the jars" }, { day: DAY });
    expect((await lotsOf(ids.box))[0]).toMatchObject({ onHand: 6, value: 3_606_000 });
    await correctCount(db, { lotId: box!.id, expected: 6, counted: 0, reason: "mice" }, { day: DAY });
    expect((await lotsOf(ids.box))[0]).toMatchObject({ onHand: 0, value: 0 });
    expect((await materialMovements(db, ids.box)).map((m) => [m.qty, m.note])).toEqual([
      [-6, "mice"],
      [2, "found behind the jars"],
      [-6, "crushed"],
      [10, ""],
    ]);
  });
  it("refuses what changes nothing, and a lot that isn't there", async () => {
    const [box] = await lotsOf(ids.box);
    expect((await refused(correctCount(db, { lotId: box!.id, expected: 10, counted: 10, reason: "x" }, { day: DAY })))[0]!.say).toMatch(
      /already/,
    );
    expect(await refused(correctCount(db, { lotId: 99_999, expected: 0, counted: 1, reason: "x" }, { day: DAY }))).toHaveLength(1);
  });
  it("counts finished units as well", async () => {
    const [made] = await finished();
    await correctCount(db, { lotId: made!.id, expected: 5, counted: 4, reason: "one leaked" }, { day: DAY });
    expect((await finished())[0]!.onHand).toBe(4);
  });
});

describe("materials", () => {
  it("keep their lots with where they came from and what they cost", async () => {
    const read = (await readMaterial(db, ids.oil))!;
    expect(read.material.name).toBe("Oil");
    expect(read.lots).toMatchObject([
      { supplier: "Mill", supplierLot: "S1", packs: 1, packSize: "1 kg", bought: 2_000_000, landed: 21_010_000, hold: false },
    ]);
    expect(await readMaterial(db, 99_999)).toBeNull();
  });
  it("change their facts but not into another's name", async () => {
    await saveMaterial(db, { name: "Sweet oil", kind: "oil", densities: { liquid: 915 }, id: ids.oil }, { day: DAY });
    expect((await listMaterials(db)).map((m) => m.name)).toEqual(["Box", "Sweet oil", "Tin", "Wax"]);
    expect(await refused(saveMaterial(db, { name: "WAX", kind: "oil", id: ids.oil }, { day: DAY }))).toMatchObject([{ field: "name" }]);
    expect(await refused(saveMaterial(db, { name: "Sweet oil", kind: "container", id: ids.oil }, { day: DAY }))).toMatchObject([
      { field: "kind" },
    ]);
    expect(await refused(saveMaterial(db, { name: "Ghost", kind: "oil", id: 99_999 }, { day: DAY }))).toHaveLength(1);
  });
});

describe("looking lots up", () => {
  it("by number in any case, by part of it, by the supplier's number, by name", async () => {
    const [oil] = await lotsOf(ids.oil);
    expect((await findLot(db, ` ${oil!.number.toLowerCase()} `))?.id).toBe(oil!.id);
    expect(await findLot(db, "R00000-99")).toBeNull();
    expect((await lotsLike(db, oil!.number.slice(2))).map((l) => l.id)).toContain(oil!.id);
    expect((await lotsLike(db, "s1")).length).toBe(4);
    expect((await lotsLike(db, "balm")).map((l) => l.name)).toEqual(["Test balm"]);
    expect(await lotsLike(db, "%")).toEqual([]);
    expect((await lotsLike(db, "")).length).toBe(5);
  });
  it("a held lot is not offered, whatever is asked of it", async () => {
    const [oil] = await lotsOf(ids.oil);
    await holdLot(db, { lotId: oil!.id, reason: "recalled" }, { day: DAY });
    const [need] = costNeeds([{ of: ids.oil, amount: 10 }], stockOnHand(await lotsOfMaterials(db, [ids.oil]), DAY));
    expect(need!.plan).toEqual({ takes: [], short: 10 });
    await expect(make(1)).rejects.toThrow("short of");
    await holdLot(db, { lotId: oil!.id, reason: null }, { day: DAY });
    await make(1);
  });
});

describe("settings", () => {
  it("start from the house's own and are kept whole", async () => {
    expect(await readSettings(db)).toEqual(STARTING_SETTINGS);
    const mine = { ...STARTING_SETTINGS, workshop: "Test room", maker: "Ines", hourly: micros(200_000_000) };
    await saveSettings(db, mine, { day: DAY });
    await saveSettings(db, mine, { day: DAY });
    expect(await readSettings(db)).toEqual(mine);
  });
});
