/** Melting down and pouring again: what it costs, what is in it, what is traced through it, and the ways back. */
import { amiss } from "#core/batch/finishing/check";
import { mg } from "#core/measure/exact";
import { eq } from "drizzle-orm";
import { expect, it } from "vitest";
import { reverseAct } from "../../acts/reverse.ts";
import { ledgerFaults } from "../../ledger/faults.ts";
import { traceLot } from "../../lots/trace.ts";
import { lot, material } from "../../schema.ts";
import { correctReceipt } from "../../shelf/receipts/correct.ts";
import { holdLot } from "../../shelf/counting/count.ts";
import { saveMaterial } from "../../shelf/keepMaterial.ts";
import { euro } from "#test/db/fresh";
import { asCorrection, buy, DAY, db, eachTestHasAWorkshop, idIn, ids, lotsOf, put, refused, token } from "#test/db/workshop";
import { checkBatch } from "./check.ts";
import { fixPot } from "../weighing/match.ts";
import { recipeOfBase } from "../planning/base.ts";
import { meltDown } from "./meltDown.ts";
import { lessonsOf } from "./nextTime.ts";
import { splitPart } from "../parts/parts.ts";
import { pour } from "./pour.ts";
import { readBatch } from "../read.ts";
import { setOut } from "../planning/setOut.ts";

eachTestHasAWorkshop();

const doing = () => ({ day: DAY, token: token() });
const says = async (work: Promise<unknown>) => (await refused(work))[0];
const sheetOf = async (batchId: number) => (await readBatch(db, batchId))!;
async function pouredAsPlanned(batchId: number, units: number[]) {
  const { takes, sizes } = await sheetOf(batchId);
  const filled = sizes.map((s, i) => ({ productId: s.productId, units: units[i]! }));
  const weighed = takes.map((t) => ({ ...t, weighed: t.planned }));
  return pour(db, { batchId, takes: weighed, sizes: filled, leftover: mg(0), minutes: 40, note: "" }, doing());
}
/** A poured batch and its finished lots, by size. */
async function made(units = 4) {
  const batchId = idIn(await put(units, { token: token() }));
  const { actId } = await pouredAsPlanned(batchId, [units]);
  return { batchId, actId, lotId: (await sheetOf(batchId)).sizes[0]!.lotId! };
}
const lotRow = async (id: number) => (await db.select().from(lot).where(eq(lot.id, id)))[0]!;
const newestBase = async () => {
  const rows = await db
    .select({ lot, material })
    .from(lot)
    .innerJoin(material, eq(material.id, lot.materialId))
    .where(eq(material.kind, "base"))
    .orderBy(lot.id);
  return rows.at(-1)!;
};
/** All of a base set out again, as it is. */
const again = async (baseLot: number, amount: number, more = 0) =>
  idIn(
    await setOut(
      db,
      {
        recipeId: ids.recipe,
        batchMg: mg(amount + more),
        sizes: [{ productId: ids.product, units: Math.floor((amount + more) / 50_000) }],
        melted: [{ lotId: baseLot, amount: mg(amount) }],
      },
      doing(),
    ),
  );

it("is a base at what the units cost, best before as they were and made of what they were; poured again it has their history and their cost", async () => {
  const was = await made();
  const before = await lotRow(was.lotId);
  await meltDown(db, { lotId: was.lotId, units: 3, weight: mg(148_000), note: "too soft" }, doing());
  const left = await lotRow(was.lotId);
  const base = await newestBase();
  expect(left.onHand).toBe(1);
  expect(base.lot).toMatchObject({ onHand: 148_000, value: before.value - left.value, bestBefore: before.bestBefore });
  expect(base.material.makeup.map((m) => [m.name, Number(m.share.toFixed(3))])).toEqual([
    ["Oil", 0.8],
    ["Wax", 0.2],
  ]);
  // It is reserved like all else, and what corrects it gets a separate line.
  const batchId = await again(base.lot.id, 148_000);
  expect(await says(again(base.lot.id, 50_000))).toMatchObject({
    field: "melted.0.amount",
    say: "None of it is free for this batch. Nothing was set out.",
  });
  const others = [{ materialId: ids.wax, amount: mg(6000) }];
  const mend = { batchId, had: 1, lines: [], others, said: "Cold spoon: a little soft", verdict: "soft" } as const;
  await fixPot(db, mend, DAY);
  expect(await says(fixPot(db, mend, DAY))).toMatchObject({ say: "Something was added to the sheet meanwhile. Look again." });
  const sheet = await sheetOf(batchId);
  expect(sheet.batch.plannedMg).toBe(154_000);
  expect(sheet.takes.map((t) => [t.material, t.planned])).toEqual([
    ["Test balm, melted down", 148_000],
    ["Wax", 6000],
  ]);
  await pouredAsPlanned(batchId, [3]);
  const poured = await sheetOf(batchId);
  // What the base was worth, the wax, and three tins.
  const [wax, tin] = [(await lotsOf(ids.wax))[0]!, (await lotsOf(ids.tin))[0]!];
  const spent = base.lot.value + (wax.value / wax.onHand) * 6000 + (tin.value / tin.onHand) * 3;
  expect(Math.abs((await lotRow(poured.sizes[0]!.lotId!)).value - spent)).toBeLessThan(3);
  // Its proportions were its own: it teaches the recipe nothing.
  expect(await lessonsOf(db, poured)).toMatchObject({ changes: [], melted: true });
  const traced = await traceLot(db, poured.sizes[0]!.lotId!);
  expect(traced.back.map((s) => s.lot.name).sort()).toEqual(expect.arrayContaining(["Oil", "Wax", "Test balm", "Test balm, melted down"]));
  expect(traced.inLot.find((r) => r.from === was.lotId && r.to === base.lot.id)?.qty).toBe(3);
  expect(await ledgerFaults(db)).toEqual([]);
});

it("what its oil cost is put right through the base into what was poured of it", async () => {
  const was = await made();
  await meltDown(db, { lotId: was.lotId, units: 4, weight: mg(200_000), note: "grainy" }, doing());
  const { lot: base } = await newestBase();
  const batchId = await again(base.id, 200_000);
  await pouredAsPlanned(batchId, [4]);
  const into = (await sheetOf(batchId)).sizes[0]!.lotId!;
  const before = await lotRow(into);
  const id = (await lotsOf(ids.oil))[0]!.purchaseId!;
  const receipt = await asCorrection(id);
  await correctReceipt(db, { id, ...receipt, lines: [{ ...receipt.lines[0]!, price: euro(100) }] }, doing());
  const after = await lotRow(into);
  expect(after.value).toBeGreaterThan(before.value);
  expect(await ledgerFaults(db)).toEqual([]);
});

it("a check's hold is what it is melted down for; any other stays, and no more comes out than was filled", async () => {
  const was = await made();
  const melt = (over = {}) => meltDown(db, { lotId: was.lotId, units: 1, weight: mg(50_000), note: "soft", ...over }, doing());
  expect(await says(melt({ weight: mg(52_000) }))).toMatchObject({ field: "weight" });
  expect(await says(melt({ units: 5, weight: mg(1000) }))).toMatchObject({ field: "units" });
  expect(await says(melt({ weight: mg(0) }))).toMatchObject({ field: "weight" });
  const found = { face: "grainy", scent: "right", closes: "right", labelled: 4, firm: "soft" } as const;
  expect(amiss(found, 4)).toEqual(["grainy", "a little soft"]);
  await checkBatch(db, { batchId: was.batchId, ...found, verdict: "hold", note: "" }, doing());
  await melt();
  expect((await newestBase()).lot.holdReason).toBeNull();
  // What a check holds is no hand's to lift.
  expect(await says(holdLot(db, { lotId: was.lotId, reason: null }, doing()))).toMatchObject({ field: "reason" });
  await holdLot(db, { lotId: was.lotId, reason: "somebody had a rash" }, doing());
  expect((await says(melt()))?.say).toContain("somebody had a rash");
  expect((await lotRow(was.lotId)).onHand).toBe(3);
});

it("is taken back while the base stands, and not once it went on; the pouring it came of not under it", async () => {
  const was = await made();
  const melted = await meltDown(db, { lotId: was.lotId, units: 4, weight: mg(200_000), note: "hard" }, doing());
  const { lot: base } = await newestBase();
  expect((await says(reverseAct(db, was.actId, doing())))?.say).toContain("has been used or counted since");
  const batchId = await again(base.id, 200_000);
  const poured = await pouredAsPlanned(batchId, [4]);
  expect(await says(reverseAct(db, melted.actId, doing()))).toBeDefined();
  await reverseAct(db, poured.actId, doing());
  await reverseAct(db, melted.actId, doing());
  expect([(await lotRow(was.lotId)).onHand, (await lotRow(base.id)).onHand]).toEqual([4, 0]);
  await reverseAct(db, was.actId, doing());
  expect(await ledgerFaults(db)).toEqual([]);
});

it("a part is a base of its own, with what was stirred into it alone", async () => {
  const clay = idIn(await saveMaterial(db, { name: "Rose clay", kind: "powder", densities: {}, allergen: "clay" }, { day: DAY }));
  await buy(clay, 20_000, 4, "2027-01-31");
  const batchId = idIn(await put(8, { token: token() }));
  const [size] = (await sheetOf(batchId)).sizes;
  const additions = [{ material: "Rose clay", measure: { ppm: 20_000 } }];
  await splitPart(db, { batchId, sizeId: size!.id, name: "rose", units: 4, additions }, DAY);
  await pouredAsPlanned(batchId, [4, 4]);
  const { sizes } = await sheetOf(batchId);
  for (const s of sizes) await meltDown(db, { lotId: s.lotId!, units: 4, weight: mg(200_000), note: "soft" }, doing());
  const bases = await db.select().from(material).where(eq(material.kind, "base")).orderBy(material.id);
  expect(bases.map((b) => [b.name, b.allergen, Number((b.makeup.find((m) => m.name === "Rose clay")?.share ?? 0).toFixed(3))])).toEqual([
    ["Test balm, melted down", "", 0],
    ["Test balm, rose, melted down", "clay", 0.02],
  ]);
});

it("what was left in the jug is kept as a base at nothing, of what the pot was; its history is the pot's, and it goes with the pouring", async () => {
  const batchId = idIn(await put(4, { token: token() }));
  const { takes, sizes } = await sheetOf(batchId);
  const weighed = takes.map((t) => ({ ...t, weighed: t.planned }));
  const filled = [{ productId: sizes[0]!.productId, units: 3 }];
  const input = { batchId, takes: weighed, sizes: filled, leftover: mg(48_000), keepsLeftover: true, minutes: 40, note: "" };
  const done = await pour(db, input, doing());
  const { lot: base, material: of } = await newestBase();
  expect([base.onHand, base.value, of.name]).toEqual([48_000, 0, "Test balm, melted down"]);
  expect(of.makeup.map((m) => Number(m.share.toFixed(3)))).toEqual([0.8, 0.2]);
  const traced = await traceLot(db, base.id);
  expect(traced.back.map((s) => s.lot.name).sort()).toEqual(["Oil", "Wax"]);
  expect(traced.inLot.map((r) => r.qty).sort((a, b) => a - b)).toEqual([9600, 38_400]);
  expect(await recipeOfBase(db, base.id)).toMatchObject({ id: ids.recipe });
  const next = await again(base.id, 48_000, 2000);
  await reverseAct(db, done.actId, doing());
  expect((await lotRow(base.id)).onHand).toBe(0);
  expect((await says(pouredAsPlanned(next, [1])))?.say).toContain("48 g less than this takes");
  expect(await ledgerFaults(db)).toEqual([]);
});
