/** Setting out, weighing, pouring and taking back; recipes and the sizes they were made in. */
import { mg } from "#core/measure/exact";
import { scaleTo } from "#core/recipe/scale";
import { eq, sql } from "drizzle-orm";
import { describe, expect, it } from "vitest";
import { whatWasDone } from "../acts/book.ts";
import { reverseAct } from "../acts/reverse.ts";
import { pour } from "./finishing/pour.ts";
import { listBatches, readBatch } from "./read.ts";
import { clearBatch } from "./planning/clear.ts";
import { setOut } from "./planning/setOut.ts";
import { saveWeighed } from "./weighing/weigh.ts";
import { takeOut } from "../cabinet/cabinet.ts";
import { readRecipes, readWhole } from "../recipe/read.ts";
import { saveRecipe } from "../recipe/save.ts";
import { act } from "../schema.ts";
import { saveMaterial } from "../shelf/keepMaterial.ts";
import { expectLedgerTrue } from "#test/db/fresh";
import {
  eachTestHasAWorkshop,
  balm,
  buy,
  DAY,
  db,
  finished,
  idIn,
  ids,
  lotsOf,
  refused,
  token,
  put,
  filled,
  size,
} from "#test/db/workshop";

eachTestHasAWorkshop();

describe("the bench", () => {
  it("a batch larger than the shelf says exactly what is missing, and stores nothing", async () => {
    const units = 60;
    const before = (await listBatches(db)).length;
    const [p] = await refused(put(units));
    // 5 units of 50 g were made: 1800 g of oil, 450 g of wax and 35 tins are left; 60 take 2400 g, 600 g and 60.
    expect(p).toEqual({ field: "size", say: "The shelf is short of 600 g of Oil, 150 g of Wax and 25 pcs of Tin. Nothing was set out." });
    expect((await listBatches(db)).length).toBe(before);
  });
  it("is set out by any version that stands, in the sizes there are now; one that was taken back is refused", async () => {
    const [was] = await readRecipes(db, [ids.recipe]);
    const twice = balm({
      ...{ id: ids.recipe, lossBp: 100, sizes: [{ ...size(50), id: ids.product }] },
      lines: balm().lines.map((l, i) => (i === 0 ? { ...l, weight: mg(l.weight * 2) } : l)),
    });
    const saved = await saveRecipe(db, twice, { day: DAY });
    const by = (version?: number) =>
      setOut(db, { recipeId: ids.recipe, version, batchMg: mg(200_000), sizes: [{ productId: ids.product, units: 4 }] }, { day: DAY });
    const plans = [];
    for (const version of [1, 2, undefined]) {
      const sheet = (await readBatch(db, idIn(await by(version))))!;
      plans.push([sheet.recipe.n, sheet.recipe.lossBp, sheet.takes.map((t) => t.planned)]);
    }
    const share = (weights: readonly number[]) => scaleTo(weights.map(mg), mg(200_000));
    const first = was!.lines.map((l) => l.weight);
    const second = share(twice.lines.map((l) => l.weight));
    expect(plans).toEqual([
      [1, was!.recipe.lossBp, share(first)],
      [2, 100, second],
      [2, 100, second],
    ]);
    await reverseAct(db, saved.actId, { day: DAY });
    expect(await refused(by(2))).toMatchObject([{ field: "version", say: expect.stringContaining("was taken back") as string }]);
    expect((await readBatch(db, idIn(await by())))!.recipe.n).toBe(1);
  });
  it("splits over lots, pours into a numbered lot with the shortest best-before, and can be taken back and poured again under the same number", async () => {
    const short = "2026-09-01";
    await buy(ids.oil, 90_000, 3, short);
    const batchId = idIn(await put(4, { token: token() }));
    const sheet = (await readBatch(db, batchId))!;
    const oils = sheet.takes.filter((t) => t.materialId === ids.oil);
    expect(oils.map((t) => t.planned)).toEqual([90_000, 70_000]);
    const takes = sheet.takes.map(({ position, materialId, lotId, planned }) => ({
      position,
      materialId,
      lotId,
      planned,
      weighed: planned,
    }));
    await saveWeighed(
      db,
      batchId,
      takes.map((t, i) => ({ ...t, weighed: i === 0 ? t.planned : null })),
    );
    expect((await readBatch(db, batchId))!.takes.filter((t) => t.weighed !== null)).toHaveLength(1);

    expect(
      await refused(pour(db, { batchId, takes, sizes: filled(9), leftover: mg(0), minutes: 1, note: "" }, { day: DAY })),
    ).toMatchObject([{ field: "sizes.0.units" }]);
    expect(
      await refused(
        pour(
          db,
          {
            batchId,
            takes: takes.map((t, i) => (i === 0 ? { ...t, weighed: mg(90_001) } : t)),
            sizes: filled(4),
            leftover: mg(0),
            minutes: 1,
            note: "",
          },
          { day: DAY },
        ),
      ),
    ).toMatchObject([{ field: "takes.0.weighed" }]);

    const done = await pour(db, { batchId, takes, sizes: filled(4), leftover: mg(0), minutes: 50, note: "" }, { day: DAY });
    expect(await whatWasDone(db, done.actId)).toMatchObject({ undoable: true });
    const made = (await finished()).at(-1)!;
    expect(made).toMatchObject({ bestBefore: short, onHand: 4, number: expect.stringMatching(/^TB260504-\d+$/) as string });
    expect(
      await refused(pour(db, { batchId, takes, sizes: filled(4), leftover: mg(0), minutes: 50, note: "" }, { day: DAY })),
    ).toHaveLength(1);
    await takeOut(db, { lotId: made.id, units: 1, reason: "tester", note: "" }, { day: DAY });
    const [why] = await refused(reverseAct(db, done.actId, { day: DAY }));
    expect(why!.say).toContain(made.number);

    const [own] = await db
      .select()
      .from(act)
      .where(eq(act.kind, "takeOut"))
      .orderBy(sql`id desc`)
      .limit(1);
    await reverseAct(db, own!.id, { day: DAY });
    await reverseAct(db, done.actId, { day: DAY });
    expect((await finished()).at(-1)!.onHand).toBe(0);
    expect(await whatWasDone(db, done.actId)).toMatchObject({ undoable: false });
    await expect(reverseAct(db, done.actId, { day: DAY })).rejects.toThrow("already");
    await pour(db, { batchId, takes, sizes: filled(4), leftover: mg(0), minutes: 50, note: "" }, { day: DAY });
    expect((await finished()).at(-1)).toMatchObject({ number: made.number, onHand: 4 });
    await expectLedgerTrue(db);
  });
  it("won't take a lot of another material, and a cleared batch stays cleared", async () => {
    const batchId = idIn(await put(1));
    const sheet = (await readBatch(db, batchId))!;
    const [box] = await lotsOf(ids.box);
    expect(await refused(saveWeighed(db, batchId, [{ ...sheet.takes[0]!, lotId: box!.id }, ...sheet.takes.slice(1)]))).toMatchObject([
      { field: "takes.0.lot" },
    ]);
    const cleared = await clearBatch(db, { batchId: batchId }, { day: DAY });
    await refused(saveWeighed(db, batchId, sheet.takes));
    await reverseAct(db, cleared.actId, { day: DAY });
    await saveWeighed(db, batchId, sheet.takes);
    await clearBatch(db, { batchId: batchId }, { day: DAY });
  });
});

describe("recipes and materials", () => {
  it("weigh again when a material's facts change, and refuse facts a recipe can't be weighed by", async () => {
    await saveMaterial(db, { name: "Oil", kind: "oil", densities: { liquid: 900 }, id: ids.oil }, { day: DAY });
    const inCups = balm({
      name: "Cup balm",
      code: "CB",
      total: mg(320_000),
      lines: [
        { materialId: ids.oil, entered: "100 mL", form: "liquid", weight: mg(90_000) },
        { materialId: ids.wax, entered: "10 %", form: "pellets", weight: mg(10_000) },
      ],
    });
    const id = idIn(await saveRecipe(db, inCups, { day: DAY }));
    const weights = async () => (await readRecipes(db, [id]))[0]!.lines.map((l) => l.weight);
    await saveMaterial(db, { name: "Oil", kind: "oil", densities: { liquid: 945 }, id: ids.oil }, { day: DAY });
    expect(await weights()).toEqual([94_500, 10_500]);
    expect((await readRecipes(db, [id]))[0]!.recipe.total).toBe(105_000);
    const [problem] = await refused(saveMaterial(db, { name: "Oil", kind: "oil", densities: {}, id: ids.oil }, { day: DAY }));
    expect(problem!.say).toMatch(/^Cup balm couldn't be weighed any more: Oil has no density for liquid/);
    expect(await weights()).toEqual([94_500, 10_500]);
    expect((await readRecipes(db, [ids.recipe]))[0]!.lines.map((l) => l.weight)).toEqual([80_000, 20_000]);
  });
  it("refuses a name or letters that are taken, and keeps a size something was made in", async () => {
    expect(await refused(saveRecipe(db, balm(), { day: DAY }))).toMatchObject([{ field: "name" }]);
    expect(await refused(saveRecipe(db, balm({ name: "Other" }), { day: DAY }))).toMatchObject([{ field: "code" }]);
    expect(await refused(saveMaterial(db, { name: "oil", kind: "oil" }, { day: DAY }))).toMatchObject([{ field: "name" }]);
    const sizes = async () => (await readRecipes(db, [ids.recipe]))[0]!.sizes;
    const own = { id: ids.recipe };
    await saveRecipe(db, balm({ ...own, sizes: [size(25, { id: ids.product })] }), { day: DAY });
    const [now] = await sizes();
    expect(await sizes()).toMatchObject([{ fill: 25_000, retired: false }]);
    expect(now!.id).not.toBe(ids.product);
    await saveRecipe(db, balm({ ...own, sizes: [size(24, { id: now!.id })] }), { day: DAY });
    expect(await sizes()).toMatchObject([{ id: now!.id, fill: 24_000 }]);
    await saveRecipe(db, balm({ ...own, sizes: [size(50)] }), { day: DAY });
    expect((await sizes()).map((s) => s.id)).toEqual([ids.product]);
    // What nothing was made of is gone; what something was made of is only put away.
    expect((await readWhole(db, ids.recipe))!.sizes.map((s) => s.id)).toEqual([ids.product]);
  });
});

it("far fewer filled than the pot holds is asked about: what was left, or a word why, and it goes", async () => {
  const batchId = idIn(await put(4, { token: token() }));
  const takes = (await readBatch(db, batchId))!.takes.map((t) => ({ ...t, weighed: t.planned }));
  const nine = (over: { leftover?: number; note?: string }) =>
    pour(
      db,
      { batchId, takes, sizes: filled(2), minutes: 9, note: over.note ?? "", leftover: mg(over.leftover ?? 0) },
      { day: DAY, token: token() },
    );
  expect((await refused(nine({})))[0]).toMatchObject({ field: "leftover" });
  expect((await refused(nine({ leftover: 50_000 })))[0]).toMatchObject({ field: "leftover" });
  const poured = await nine({ leftover: 90_000 });
  await reverseAct(db, poured.actId, { day: DAY });
  await nine({ note: "the jug fell" });
});
