/** A recipe's next version after a batch: written once, from what was seen, in every size; and taken back. */
import { mg } from "#core/measure/exact";
import { eq } from "drizzle-orm";
import { expect, it } from "vitest";
import { reverseAct } from "../../acts/reverse.ts";
import { readRecipes } from "../../recipe/read.ts";
import { saveRecipe } from "../../recipe/save.ts";
import { saveMaterial } from "../../shelf/keepMaterial.ts";
import { act, recipeVersion } from "../../schema.ts";
import { balm, DAY, db, eachTestHasAWorkshop, filled, idIn, ids, put, refused, size, token } from "#test/db/workshop";
import { learnBatch, lessonsOf } from "./nextTime.ts";
import { planOf } from "../planning/plan.ts";
import { pour } from "./pour.ts";
import { batchResult } from "./result.ts";
import { readBatch } from "../read.ts";

eachTestHasAWorkshop();

/** Pours a batch of six planned with a quarter more wax than it wants, half of it lost: with the one of the workshop before, a quarter. */
async function poured(): Promise<number> {
  const batchId = idIn(await put(6, { token: token() }));
  const { takes } = (await readBatch(db, batchId))!;
  const weighed = takes.map(({ position, materialId, lotId, planned }) => ({
    ...{ position, materialId, lotId, planned },
    weighed: materialId === ids.wax ? mg(planned * 1.25) : planned,
  }));
  await pour(db, { batchId, takes: weighed, sizes: filled(6), leftover: mg(0), minutes: 90, note: "" }, { day: DAY, token: token() });
  return batchId;
}
const taught = async (batchId: number) => lessonsOf(db, (await readBatch(db, batchId))!);
const keysOf = async (batchId: number) => (await taught(batchId))!.changes.map((c) => c.key);
const written = async () => (await readRecipes(db, [ids.recipe]))[0]!;
const versions = () => db.select().from(recipeVersion).where(eq(recipeVersion.recipeId, ids.recipe));

it("writes the next version as what was ticked says, once; taken back, the recipe is as before, and so are its sizes", async () => {
  const batchId = await poured();
  const before = await written();
  const wax = before.lines.find((l) => l.materialId === ids.wax)!;
  const { changes } = (await taught(batchId))!;
  expect(changes.map((c) => c.of)).toEqual([{ line: ids.wax }, "loss", "minutes"]);
  const keys = changes.filter((c) => c.of !== "minutes").map((c) => c.key);
  const doing = { day: DAY, token: token() };
  const [done, again] = await Promise.all([learnBatch(db, { batchId, keys }, doing), learnBatch(db, { batchId, keys }, doing)]);
  expect(again).toEqual(done);
  const now = await written();
  expect(now.recipe).toMatchObject({ n: 2, lossBp: changes.find((c) => c.of === "loss")!.now, batchMinutes: before.recipe.batchMinutes });
  expect(now.lines.map((l) => [l.materialId, l.weight])).toEqual(
    before.lines.map((l) => [l.materialId, l.materialId === ids.wax ? wax.weight * 1.25 : l.weight]),
  );
  expect(now.recipe.total).toBe(before.recipe.total + wax.weight * 0.25);
  expect(now.recipe.note).toMatch(/^After lot .*Wax: .* instead of .*; Loss/);
  // Made by version 1 it stays, and teaches version 2 nothing.
  expect((await readBatch(db, batchId))!.recipe.n).toBe(1);
  expect(await taught(batchId)).toBeNull();
  expect((await refused(learnBatch(db, { batchId, keys }, { day: DAY })))[0]!.say).toMatch(/another version by now/);
  await reverseAct(db, done.actId, { day: DAY });
  expect(await written()).toEqual(before);
  expect(await keysOf(batchId)).toEqual(changes.map((c) => c.key));
});

it("a size filled by volume is filled anew with what more wax weighs, and as before once it is taken back", async () => {
  await saveMaterial(db, { id: ids.oil, name: "Oil", kind: "oil", densities: { liquid: 920 } }, { day: DAY });
  await saveMaterial(db, { id: ids.wax, name: "Wax", kind: "wax", densities: { melted: 860 } }, { day: DAY });
  const [own] = (await written()).sizes;
  const jar = size(55, { label: "60 mL", fillBy: "volume", fillText: "60 mL", fillMl: 60, containerId: null, packaging: [] });
  await saveRecipe(db, { ...balm(), id: ids.recipe, sizes: [size(50, { id: own!.id }), jar] }, { day: DAY });
  const batchId = await poured();
  const fills = async () => (await written()).sizes.map((s) => [s.label, s.fill]);
  const before = await fills();
  const [line] = await keysOf(batchId);
  const done = await learnBatch(db, { batchId, keys: [line!] }, { day: DAY });
  const [first, second] = await fills();
  expect(first).toEqual(before[0]);
  expect(second![0]).toBe("60 mL");
  expect(second![1]).not.toBe(before[1]![1]);
  await reverseAct(db, done.actId, { day: DAY });
  expect(await fills()).toEqual(before);
});

it("what was seen is what is written: another batch that says otherwise, another version, nothing ticked or a batch taken back refuses it", async () => {
  const batchId = await poured();
  const keys = await keysOf(batchId);
  const says = async (of: readonly string[], id = batchId) =>
    (await refused(learnBatch(db, { batchId: id, keys: of }, { day: DAY })))[0]!.say;
  expect(await says([])).toBe("Tick what is to be written.");
  expect(await says(["loss=1"])).toMatch(/look again/);
  expect(await says([...keys, "line.1=9"])).toMatch(/look again/);
  const done = await learnBatch(db, { batchId, keys: [keys[0]!] }, { day: DAY });
  const [one] = (await written()).sizes;
  await saveRecipe(db, { ...balm({ lossBp: 900 }), id: ids.recipe, sizes: [size(50, { id: one!.id })] }, { day: DAY });
  expect((await refused(reverseAct(db, done.actId, { day: DAY })))[0]!.say).toMatch(/saved or deleted since/);
  expect(await says(keys)).toMatch(/another version by now/);
  expect(await versions()).toHaveLength(3);
  const [poursAct] = await db.select({ id: act.id }).from(act).where(eq(act.kind, "pour")).orderBy(act.id).offset(1);
  await reverseAct(db, poursAct!.id, { day: DAY });
  expect(await says(keys)).toMatch(/isn't poured any more/);
});

it("the plan costs what its lots cost: as planned it is what it was, and where it went otherwise only that tells them apart", async () => {
  const batchId = idIn(await put(6, { token: token() }));
  const { takes } = (await readBatch(db, batchId))!;
  const { recipe } = (await readBatch(db, batchId))!;
  const as = takes.map(({ position, materialId, lotId, planned }) => ({ position, materialId, lotId, planned, weighed: planned }));
  const before = (await readBatch(db, batchId))!;
  const said = recipe.batchMinutes + (6 * before.sizes[0]!.unitMinutesHundredths) / 100;
  await pour(db, { batchId, takes: as, sizes: filled(6), leftover: mg(0), minutes: said, note: "" }, { day: DAY });
  const sheet = (await readBatch(db, batchId))!;
  const [plan, was] = [await planOf(db, sheet), await batchResult(db, sheet.batch)];
  expect(plan).toMatchObject({ costed: true, minutes: said, productIds: [ids.product] });
  expect(Math.abs(plan!.result!.perUnit[0]!.total - was!.perUnit[0]!.total)).toBeLessThanOrEqual(1);
  // Where nobody said how long it took, neither side has work in it.
  const unsaid = idIn(await put(2, { token: token() }));
  const unsaidTakes = (await readBatch(db, unsaid))!.takes.map((t) => ({ ...t, weighed: t.planned }));
  await pour(db, { batchId: unsaid, takes: unsaidTakes, sizes: filled(2), leftover: mg(0), minutes: 0, note: "" }, { day: DAY });
  const bare = (await readBatch(db, unsaid))!;
  const [planBare, wasBare] = [await planOf(db, bare), await batchResult(db, bare.batch)];
  expect(Math.abs(planBare!.result!.perUnit[0]!.total - wasBare!.perUnit[0]!.total)).toBeLessThanOrEqual(1);
  const off = (await readBatch(db, await poured()))!;
  const [planned, really] = [await planOf(db, off), await batchResult(db, off.batch)];
  expect(Math.abs(planned!.result!.perUnit[0]!.ingredients - plan!.result!.perUnit[0]!.ingredients)).toBeLessThanOrEqual(1);
  expect(really!.perUnit[0]!.total).toBeGreaterThan(planned!.result!.perUnit[0]!.total);
});
