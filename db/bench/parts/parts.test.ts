/** One base poured in parts: what each takes of the base and of the shelf, what it costs, what is traced into it, and the ways back. */
import { mg } from "#core/measure/exact";
import { eq } from "drizzle-orm";
import { beforeEach, expect, it } from "vitest";
import { reverseAct } from "../../acts/reverse.ts";
import { ledgerFaults } from "../../ledger/faults.ts";
import { descendantLinks } from "../../lots/trace.ts";
import { costRecipes } from "../../recipe/costs.ts";
import { saveRecipe } from "../../recipe/save.ts";
import { batch, batchSize, lot, movement, product } from "../../schema.ts";
import { readSettings } from "../../settings/settings.ts";
import { correctReceipt } from "../../shelf/receipts/correct.ts";
import { saveMaterial } from "../../shelf/keepMaterial.ts";
import { euro } from "#test/db/fresh";
import { asCorrection, balm, buy, DAY, db, eachTestHasAWorkshop, idIn, ids, lotsOf, put, refused, token } from "#test/db/workshop";
import { clearBatch } from "../planning/clear.ts";
import { ladleOut } from "./ladle.ts";
import { matchBatch } from "../weighing/match.ts";
import { rejoinPart, splitPart, variantsOf, type PartIn } from "./parts.ts";
import { pour } from "../finishing/pour.ts";
import { setOut } from "../planning/setOut.ts";
import { lastSetOut, readBatch } from "../read.ts";
import { batchResult } from "../finishing/result.ts";
import { saveWeighed, weighOne } from "../weighing/weigh.ts";

eachTestHasAWorkshop();

let clay: number;
beforeEach(async () => {
  clay = idIn(await saveMaterial(db, { name: "Rose clay", kind: "powder", densities: {} }, { day: DAY }));
  await buy(clay, 20_000, 4, "2027-01-31");
});

const sheetOf = async (batchId: number) => (await readBatch(db, batchId))!;
const says = async (work: Promise<unknown>) => (await refused(work))[0];
/** Four of eight with a fiftieth of clay. */
async function parted(over: Partial<PartIn> = {}) {
  const batchId = idIn(await put(8, { token: token() }));
  const [size] = (await sheetOf(batchId)).sizes;
  await splitPart(
    db,
    { batchId, sizeId: size!.id, name: "rose", units: 4, additions: [{ material: "Rose clay", measure: { ppm: 20_000 } }], ...over },
    DAY,
  );
  return batchId;
}
async function poured(batchId: number, units = [4, 4]) {
  const { takes, sizes } = await sheetOf(batchId);
  return pour(
    db,
    {
      batchId,
      takes: takes.map((t) => ({ ...t, weighed: t.planned })),
      sizes: sizes.map((s, i) => ({ productId: s.productId, units: units[i]! })),
      leftover: mg(0),
      minutes: 40,
      note: "",
    },
    { day: DAY, token: token() },
  );
}

it("a part takes its units from the size, and what is stirred in from the shelf, promised like all else", async () => {
  const batchId = await parted();
  const { sizes, takes } = await sheetOf(batchId);
  expect(sizes.map((s) => [s.label, s.planned, s.partOf])).toEqual([
    ["50 g", 4, null],
    ["50 g, rose", 4, sizes[0]!.id],
  ]);
  const own = takes.filter((t) => t.sizeId !== null);
  expect(own.map((t) => [t.material, t.planned, t.sizeId])).toEqual([["Rose clay", 4000, sizes[1]!.id]]);
  // 16 g of 20 g are left, and a second batch may have no more.
  expect(await says(parted({ additions: [{ material: "Rose clay", measure: { ppm: 100_000 } }] }))).toMatchObject({
    say: "The shelf is short of 4 g of Rose clay. Nothing was saved: make fewer of it, or stir in less.",
  });
  // What is on the bench, or is cleared off it, was no last time.
  expect(await lastSetOut(db, ids.recipe)).toEqual([{ productId: ids.product, units: 5 }]);
  await poured(batchId);
  await clearBatch(db, { batchId: idIn(await put(3, { token: token() })) }, { day: DAY });
  await put(2, { token: token() });
  expect(await lastSetOut(db, ids.recipe)).toEqual([{ productId: ids.product, units: 8 }]);
});

it("planned as the batch is set out it is the same as parted off after, and all that is short is said at once", async () => {
  const after = await parted();
  const [, { productId }] = (await sheetOf(after)).sizes as [unknown, { productId: number }];
  const planned = async (batchId: number) => {
    const { sizes, takes } = await sheetOf(batchId);
    return {
      sizes: sizes.map((s) => [s.position, s.label, s.productId, s.planned, s.fill, sizes.findIndex((x) => x.id === s.partOf)]),
      takes: takes.map((t) => [t.position, t.materialId, t.material, t.planned, sizes.findIndex((s) => s.id === t.sizeId)]),
    };
  };
  const setOutWith = (units: number, parts: { productId: number; units: number }[]) =>
    setOut(
      db,
      { recipeId: ids.recipe, batchMg: mg(units * 50_000), sizes: [{ productId: ids.product, units }], parts },
      { day: DAY, token: token() },
    );
  expect(await planned(idIn(await setOutWith(8, [{ productId, units: 4 }])))).toEqual(await planned(after));
  // All of it may be parted off; and none, which is no part.
  expect((await planned(idIn(await setOutWith(2, [{ productId, units: 2 }])))).sizes.map((s) => s[3])).toEqual([0, 2]);
  expect((await planned(idIn(await setOutWith(1, [{ productId, units: 0 }])))).sizes).toHaveLength(1);
  expect(await refused(setOutWith(4, [{ productId, units: 5 }]))).toEqual([
    { field: "parts.0.units", say: "Only 4 of 50 g are filled in all." },
  ]);
  expect(await refused(setOutWith(4, [{ productId: ids.product, units: 1 }]))).toMatchObject([{ field: "parts.0.units" }]);
  const twice = [1, 1].map((units) => ({ productId, units }));
  expect(await refused(setOutWith(4, twice))).toEqual([{ field: "parts.1.units", say: "That is there already." }]);
  const [short] = await refused(setOutWith(60, [{ productId, units: 60 }]));
  expect(short!.say).toMatch(/short of .*Oil, .*Wax, 50 g of Rose clay and .*pcs of Tin/);
});

it("poured it is two lots: one base shared by weight, the clay in one of them alone, to the last micro, whatever is put right later", async () => {
  const batchId = await parted();
  await poured(batchId);
  const { sizes, batch: b } = await sheetOf(batchId);
  const [plain, rose] = sizes.map((s) => s.lot!);
  // 8 × 50 g of base at 400 g less 4 g of clay, by what is base in each.
  const [clayLot] = await lotsOf(clay);
  expect(clayLot!.onHand).toBe(16_000);
  const links = await descendantLinks(db, [clayLot!.id]);
  expect(links.map((l) => l.to)).toEqual([rose!.id]);
  expect([plain!.bestBefore! > rose!.bestBefore!, rose!.bestBefore]).toEqual([true, "2027-01-31"]);
  const result = (await batchResult(db, b))!;
  expect(result.lost).toBe(4000);
  const [one, other] = result.perUnit;
  expect(other!.ingredients).toBeGreaterThan(one!.ingredients * 0.98);
  expect(other!.packaging).toBe(one!.packaging);
  expect(await ledgerFaults(db)).toEqual([]);
});

it("what is ladled out is what a part is charged by, and what is stirred in follows it; struck out, all is as it was", async () => {
  const batchId = await parted();
  const { sizes, takes: planned } = await sheetOf(batchId);
  const rose = sizes[1]!;
  const ladle = (weighed: number | null, was: number | null, sizeId = rose.id) =>
    ladleOut(db, { batchId, sizeId, weighed: weighed === null ? null : mg(weighed), was: was === null ? null : mg(was) });
  const clayOf = async () => (await sheetOf(batchId)).takes.find((t) => t.sizeId !== null)!.planned;
  await ladle(147_000, null);
  // 147 g of base are 98 in a hundred of 150 g.
  expect(await clayOf()).toBe(3000);
  expect(await says(ladle(160_000, null))).toMatchObject({ say: expect.stringContaining("weighed elsewhere: 147 g") as string });
  expect(await says(ladle(0, 147_000))).toMatchObject({ say: expect.stringContaining("nothing in it") as string });
  expect(await says(ladle(500_000, 147_000))).toMatchObject({ say: expect.stringContaining("are in the pot") as string });
  expect(await says(ladle(1000, null, sizes[0]!.id))).toMatchObject({ say: "That part isn't here any more." });
  await ladle(null, 147_000);
  expect((await sheetOf(batchId)).takes).toEqual(planned);
  await ladle(147_000, null);
  const done = await poured(batchId);
  const { sizes: made, batch: b, takes } = await sheetOf(batchId);
  const moved = await db.select().from(movement).where(eq(movement.actId, done.actId));
  const spent = (of: (m: (typeof moved)[number]) => boolean): number =>
    -moved.filter((m) => m.qty < 0 && of(m)).reduce((a, m) => a + m.value, 0);
  const pot = takes.filter((t) => t.sizeId === null).reduce((a, t) => a + t.weighed!, 0);
  const base = spent((m) => m.intoLotId === null);
  const own = (i: number): number => spent((m) => m.intoLotId === made[i]!.lot!.id);
  expect(made[1]!.lot!.value).toBeCloseTo((base * 147_000) / pot + own(1), -1);
  expect(made[0]!.lot!.value).toBeCloseTo((base * (pot - 147_000)) / pot + own(0), -1);
  const result = (await batchResult(db, b))!;
  expect(result.perUnit.map((u) => u.materials * 4)).toEqual(made.map((s) => expect.closeTo(s.lot!.value, -1) as number));
  // Put right later, it is the same share of it.
  const oilBought = (await lotsOf(ids.oil))[0]!.purchaseId!;
  const receipt = await asCorrection(oilBought);
  await correctReceipt(db, { id: oilBought, ...receipt, lines: receipt.lines.map((l) => ({ ...l, price: euro(90) })) }, { day: DAY });
  const after = (await sheetOf(batchId)).sizes.map((s) => s.lot!.value);
  const [plainMore, roseMore] = [0, 1].map((i) => after[i]! - made[i]!.lot!.value) as [number, number];
  expect(roseMore / (plainMore + roseMore)).toBeCloseTo(147_000 / pot, 4);
  expect(await ledgerFaults(db)).toEqual([]);
});

it("a receipt put right moves the base of both and the clay of one; the pouring taken back and done again finds its lots and its product", async () => {
  const batchId = await parted();
  const done = await poured(batchId);
  const before = (await sheetOf(batchId)).sizes.map((s) => s.lot!);
  const { purchaseId } = (await lotsOf(clay))[0]!;
  const receipt = await asCorrection(purchaseId!);
  await correctReceipt(db, { id: purchaseId!, ...receipt, lines: [{ ...receipt.lines[0]!, price: euro(8) }] }, { day: DAY });
  const after = (await sheetOf(batchId)).sizes.map((s) => s.lot!);
  expect(after[0]!.value).toBe(before[0]!.value);
  expect(after[1]!.value - before[1]!.value).toBe(800_000);
  expect(await ledgerFaults(db)).toEqual([]);
  await reverseAct(db, done.actId, { day: DAY });
  expect((await lotsOf(clay))[0]!.onHand).toBe(20_000);
  await poured(batchId, [3, 4]);
  const again = (await sheetOf(batchId)).sizes.map((s) => s.lot!);
  expect(again.map((l) => [l.number, l.onHand])).toEqual([
    [before[0]!.number, 3],
    [before[1]!.number, 4],
  ]);
  expect(await ledgerFaults(db)).toEqual([]);
});

it("is taken back into the base while nothing of it is weighed, and its product with it; a part that wasn't filled has no weight in it", async () => {
  const batchId = await parted();
  const { sizes, takes } = await sheetOf(batchId);
  const line = takes.find((t) => t.sizeId !== null)!;
  const at = { batchId, position: line.position, lotId: line.lotId };
  await weighOne(db, { ...at, weighed: mg(4100), was: null, by: "scale" });
  expect(await says(rejoinPart(db, batchId, sizes[1]!.id))).toMatchObject({
    say: expect.stringContaining("Rose clay is in it already") as string,
  });
  expect(await says(poured(batchId, [8, 0]))).toMatchObject({
    field: "takes.2.weighed",
    say: expect.stringContaining("of which none is filled") as string,
  });
  expect(await says(matchBatch(db, { ...at, weighed: mg(5000), by: "scale" }, DAY))).toMatchObject({
    say: expect.stringContaining("a part of the pot") as string,
  });
  await weighOne(db, { ...at, weighed: null, was: mg(4100), by: "hand" });
  await rejoinPart(db, batchId, sizes[1]!.id);
  const now = await sheetOf(batchId);
  expect(now.sizes.map((s) => s.planned)).toEqual([8]);
  expect(now.takes).toHaveLength(takes.length - 1);
  expect((await db.select().from(product)).map((p) => p.variant)).toEqual([""]);
});

it("a sheet that was opened before keeps what is typed on it, and the part stays; it isn't poured without having seen it", async () => {
  const batchId = idIn(await put(8, { token: token() }));
  const { takes: opened, sizes } = await sheetOf(batchId);
  await splitPart(
    db,
    { batchId, sizeId: sizes[0]!.id, name: "rose", units: 4, additions: [{ material: "Rose clay", measure: { ppm: 20_000 } }] },
    DAY,
  );
  const sent = opened.map((t, i) => ({ ...t, weighed: i === 0 ? mg(t.planned + 100) : t.weighed }));
  await saveWeighed(db, batchId, sent, opened);
  const { takes } = await sheetOf(batchId);
  expect(takes.map((t) => [t.material, t.weighed, t.sizeId === null])).toEqual([
    ["Oil", opened[0]!.planned + 100, true],
    ["Wax", null, true],
    ["Rose clay", null, false],
  ]);
  const all = opened.map((t) => ({ ...t, weighed: t.planned }));
  const sheet = { batchId, takes: all, sizes: [{ productId: ids.product, units: 4 }], leftover: mg(0), minutes: 9, note: "", kept: sent };
  expect(await says(pour(db, sheet, { day: DAY }))).toMatchObject({ say: expect.stringContaining("Reload the page") as string });
});

it("asks for no more than is planned, no name twice, and nothing of a batch that is gone", async () => {
  const batchId = await parted();
  const [size] = (await sheetOf(batchId)).sizes;
  const more = (over: Partial<PartIn>) =>
    says(
      splitPart(
        db,
        { batchId, sizeId: size!.id, name: "blue", units: 1, additions: [{ material: "Rose clay", measure: { ppm: 1000 } }], ...over },
        DAY,
      ),
    );
  expect(await more({ units: 5 })).toMatchObject({ field: "units" });
  expect(await more({ name: "Rose" })).toMatchObject({ field: "name" });
  expect(await more({ additions: [1, 2].map(() => ({ material: "Rose clay", measure: { ppm: 1000 } })) })).toMatchObject({
    field: "additions.1.material",
  });
  await poured(batchId);
  expect(await more({})).toMatchObject({ say: "This batch isn't on the bench any more." });
});

it("a variant is sold and costed by itself, poured so again, and left alone by whoever writes the recipe", async () => {
  const batchId = await parted();
  await poured(batchId);
  expect((await variantsOf(db, batchId)).map((v) => [v.name, v.material, v.ppm])).toEqual([["rose", "Rose clay", 20_000]]);
  const [costed] = await costRecipes(db, await readSettings(db), DAY, [ids.recipe]);
  const [plain, rose] = costed!.sizes;
  expect([plain!.label, rose!.label]).toEqual(["50 g", "50 g, rose"]);
  // Four hundredths of a gram's worth: 1 g of clay costs 0.20 and more for postage, a gram of base far less.
  const [dear, cheap] = [rose!.cost.perUnit.lot!.ingredients, plain!.cost.perUnit.lot!.ingredients];
  expect(dear - cheap * 0.98).toBeGreaterThan(200_000);
  const saved = await saveRecipe(db, { ...balm({ id: ids.recipe }), note: "", method: "Melt." }, { day: DAY });
  expect((await db.select().from(product).where(eq(product.variant, "rose")))[0]).toMatchObject({ retired: false, label: "50 g, rose" });
  await reverseAct(db, saved.actId, { day: DAY });
  const second = await parted();
  const [first, other] = await Promise.all([batchId, second].map(async (id) => (await sheetOf(id)).sizes[1]!.productId));
  expect(other).toBe(first);
  expect((await db.select().from(batchSize).where(eq(batchSize.productId, first!))).length).toBe(2);
  expect((await db.select().from(batch)).length).toBe(3);
  expect((await db.select().from(lot).where(eq(lot.productId, first!))).map((l) => l.label)).toEqual(["50 g, rose"]);
});
