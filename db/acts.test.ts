/** The acts that move stock, on a real PostgreSQL: what they keep true in any order, at once, twice, and taken back. */
import { mg, type Mg } from "#core/measure/exact";
import { Refused } from "#core/refused";
import { eq, sql } from "drizzle-orm";
import fc from "fast-check";
import { afterEach, beforeEach, describe, expect, it } from "vitest";
import { undoAct, whatWasDone, type Done } from "./act.ts";
import { pour } from "./bench/pour.ts";
import { listBatches, readBatch } from "./bench/read.ts";
import { clearBatch, saveWeighed, setOut } from "./bench/setOut.ts";
import { takeOut } from "./cabinet/cabinet.ts";
import type { OpenDb } from "./client.ts";
import { packGiftOrder, saveGiftOrder } from "./gifts/gifts.ts";
import { findLot, traceLot } from "./lots/trace.ts";
import { closeMarketDay, listMarketDays } from "./markets/markets.ts";
import { readRecipes } from "./recipe/read.ts";
import { saveRecipe, type RecipeIn } from "./recipe/save.ts";
import { act, lot, movement } from "./schema.ts";
import { correctCount, holdLot } from "./shelf/count.ts";
import { readMaterial, saveMaterial } from "./shelf/materials.ts";
import { receive } from "./shelf/receive.ts";
import { euro, expectLedgerTrue, freshDb } from "./test/fresh.ts";

const DAY = "2026-05-04";
let db: OpenDb;
let drop: () => Promise<void>;
let ids: { oil: number; wax: number; tin: number; box: number; recipe: number; product: number };

const idIn = (d: Done): number => Number(d.path.split("/").at(-1));
const token = () => crypto.randomUUID();
const balm = (over: Partial<RecipeIn> = {}): RecipeIn => ({
  name: "Test balm", code: "TB", type: "balm", makes: null, total: mg(100_000), lossBp: 0, keepsMonths: 12, batchMinutes: 30, unitMinutesHundredths: 200, method: "", fill: mg(50_000),
  lines: [{ materialId: ids.oil, entered: "80 g", form: "liquid", weight: mg(80_000) }, { materialId: ids.wax, entered: "20 g", form: "pellets", weight: mg(20_000) }],
  packaging: [{ materialId: ids.tin, pieces: 1 }], ...over,
});
const buy = (materialId: number, qty: number, price: number, bestBefore: string | null = null) =>
  receive(db, { supplier: "Mill", day: DAY, postage: euro(1.01), lines: [{ materialId, supplierLot: "S1", packs: 1, packSize: "1 kg", qty, price: euro(price), bestBefore }] }, { token: token() });
const lotsOf = async (materialId: number) => (await readMaterial(db, materialId))!.lots;
const onHand = async (materialId: number) => (await lotsOf(materialId)).reduce((a, l) => a + l.onHand, 0);
const finished = () => db.select().from(lot).where(eq(lot.productId, ids.product)).orderBy(lot.id);

/** Sets out and pours so many units, weighing just what is planned. */
async function make(units: number): Promise<Done> {
  const batchId = idIn(await setOut(db, { recipeId: ids.recipe, batchMg: mg(units * 50_000), units }, { day: DAY, token: token() }));
  const sheet = await readBatch(db, batchId);
  const takes = sheet!.takes.map(({ position, materialId, lotId, planned }) => ({ position, materialId, lotId, planned, weighed: planned as Mg }));
  return pour(db, { batchId, takes, units, leftover: mg(0), minutes: 60, note: "" }, { day: DAY, token: token() });
}
const refused = async (work: Promise<unknown>): Promise<{ field: string; say: string }[]> => {
  try {
    await work;
  } catch (e) {
    if (e instanceof Refused) return [...e.problems];
    throw e;
  }
  throw new Error("It was not refused.");
};

/** Every test has a workshop of its own: 2 kg of oil, 500 g of wax, 40 tins, 10 boxes, and five finished balms. */
beforeEach(async () => {
  ({ db, drop } = await freshDb());
  const add = async (name: string, kind: "oil" | "wax" | "container" | "box") => idIn(await saveMaterial(db, { name, kind, densities: {} }, { day: DAY }));
  ids = { oil: await add("Oil", "oil"), wax: await add("Wax", "wax"), tin: await add("Tin", "container"), box: await add("Box", "box"), recipe: 0, product: 0 };
  ids.recipe = idIn(await saveRecipe(db, balm(), { day: DAY }));
  ids.product = (await readRecipes(db, [ids.recipe]))[0]!.product.id;
  await buy(ids.oil, 2_000_000, 20);
  await buy(ids.wax, 500_000, 9);
  await buy(ids.tin, 40, 20);
  await buy(ids.box, 10, 5);
  await make(5);
});
afterEach(() => drop());

describe("in any order", () => {
  it("keeps on hand the sum of the ledger, value conserved, nothing below zero, and every refusal without a trace", async () => {
    const done: number[] = [];
    const n = fc.integer({ min: 1, max: 12 });
    const step = fc.oneof(
      fc.record({ do: fc.constant("buy" as const), what: fc.constantFrom("oil" as const, "wax" as const, "tin" as const), n }),
      fc.record({ do: fc.constantFrom("make" as const, "takeOut" as const, "market" as const, "gift" as const, "undo" as const), what: fc.constant("oil" as const), n }),
      fc.record({ do: fc.constant("count" as const), what: fc.constantFrom("oil" as const, "wax" as const), n }),
    );
    const run = async (s: { do: string; what: "oil" | "wax" | "tin"; n: number }): Promise<Done | null> => {
      const [stock] = (await finished()).filter((l) => l.onHand > 0);
      switch (s.do) {
        case "buy":
          return buy(ids[s.what], s.what === "tin" ? s.n : s.n * 37_001, s.n * 1.37);
        case "make":
          return make(s.n);
        case "takeOut":
          return stock ? takeOut(db, { lotId: stock.id, units: s.n, reason: "tester", note: "" }, { day: DAY }) : null;
        case "market":
          return stock ? closeMarketDay(db, { name: "Fair", day: DAY, stallFee: euro(5), travel: euro(0), byCard: euro(0), cardFeeBp: 0, minutes: 60, note: "", lines: [{ lotId: stock.id, taken: s.n, sold: s.n, given: 0, damaged: 0, price: euro(8) }] }, { day: DAY }) : null;
        case "gift":
          return packGiftOrder(db, idIn(await saveGiftOrder(db, { customer: "Choir", due: DAY, extra: euro(0), discountBp: 0, wrapMinutes: 0, note: "", items: [{ productId: ids.product, units: s.n, price: euro(9) }], wrapping: [] }, { day: DAY })), new Map(), { day: DAY });
        case "undo":
          return done.length ? undoAct(db, done[s.n % done.length]!, { day: DAY }) : null;
        default: {
          const [l] = (await lotsOf(ids[s.what])).filter((x) => x.onHand > 0);
          return l ? correctCount(db, { lotId: l.id, expected: l.onHand, counted: Math.max(0, l.onHand + (s.n - 6) * 1013), reason: "weighed again" }, { day: DAY }) : null;
        }
      }
    };
    await fc.assert(
      fc.asyncProperty(fc.array(step, { minLength: 5, maxLength: 14 }), async (steps) => {
        for (const s of steps) {
          const [{ n: before }] = (await db.execute<{ n: string }>(sql`select count(*) n from movement`)).rows as [{ n: string }];
          try {
            const d = await run(s);
            if (d) done.push(d.actId);
          } catch (e) {
            if (!(e instanceof Refused)) throw e;
            const [{ n: after }] = (await db.execute<{ n: string }>(sql`select count(*) n from movement`)).rows as [{ n: string }];
            expect(after).toBe(before);
          }
        }
        await expectLedgerTrue(db);
      }),
      // One run that does everything, then whatever chance brings.
      { numRuns: 12, examples: [[[{ do: "make", what: "oil", n: 8 }, { do: "takeOut", what: "oil", n: 1 }, { do: "market", what: "oil", n: 2 }, { do: "gift", what: "oil", n: 1 }, { do: "count", what: "oil", n: 3 }, { do: "undo", what: "oil", n: 3 }, { do: "buy", what: "wax", n: 2 }]]] },
    );
    const kinds = (await db.select({ kind: act.kind }).from(act)).map((a) => a.kind);
    for (const k of ["receive", "pour", "takeOut", "closeMarket", "packOrder", "undo", "count"]) expect(kinds).toContain(k);
  });
});

describe("the ledger itself", () => {
  it.each([
    ["changing a movement", sql`update movement set qty = 1`], ["deleting one", sql`delete from movement`], ["moving stock beside it", sql`update lot set on_hand = on_hand + 1`], ["changing value beside it", sql`update lot set value = 0 where value > 0`],
    ["a lot that starts full", sql`insert into lot (number, material_id, arrived, on_hand) values ('X1', 1, '2026-01-01', 5)`], ["a lot of two things", sql`insert into lot (number, material_id, product_id, arrived) values ('X2', 1, 1, '2026-01-01')`],
  ])("refuses %s", async (_, statement) => {
    await expect(db.execute(statement)).rejects.toThrow();
    await expectLedgerTrue(db);
  });
});

describe("two windows at once", () => {
  it("only one gets the last of a lot; the others are told and nothing of theirs moves", async () => {
    const l = (await finished()).at(-1)!;
    const results = await Promise.allSettled(Array.from({ length: 6 }, () => takeOut(db, { lotId: l.id, units: 3, reason: "own", note: "" }, { day: DAY, token: token() })));
    expect(results.filter((r) => r.status === "fulfilled")).toHaveLength(1);
    for (const r of results) if (r.status === "rejected") expect(r.reason).toBeInstanceOf(Refused);
    expect((await finished()).at(-1)!.onHand).toBe(2);
    await expectLedgerTrue(db);
  });
  it("a form posted twice, even at the same moment, counts once and leads to the same place", async () => {
    const same = { supplier: "Mill", day: DAY, postage: euro(0), lines: [{ materialId: ids.box, supplierLot: "", packs: 1, packSize: "10", qty: 10, price: euro(5), bestBefore: null }] };
    const t = token();
    const posts = await Promise.all([receive(db, same, { token: t }), receive(db, same, { token: t }), receive(db, same, { token: t })]);
    expect(new Set(posts.map((p) => p.actId)).size).toBe(1);
    expect(await onHand(ids.box)).toBe(20);
  });
  it("numbers lots apart when several purchases arrive together", async () => {
    await Promise.all(Array.from({ length: 5 }, () => buy(ids.wax, 1000, 1)));
    const numbers = (await db.select({ n: lot.number }).from(lot)).map((r) => r.n);
    expect(new Set(numbers).size).toBe(numbers.length);
  });
  it("a count says what it was and what it is", async () => {
    const [l] = await lotsOf(ids.box);
    const done = await correctCount(db, { lotId: l!.id, expected: 10, counted: 7, reason: "crushed" }, { day: DAY });
    expect((await whatWasDone(db, done.actId))!.summary).toBe(`Counted ${l!.number}: 7 pcs, was 10 pcs`);
    expect(await lotsOf(ids.box)).toMatchObject([{ onHand: 7, value: 4_207_000 }]);
  });
  it("a count made on a stale figure is refused", async () => {
    const [l] = (await lotsOf(ids.box)).filter((x) => x.onHand > 0);
    expect(await refused(correctCount(db, { lotId: l!.id, expected: l!.onHand + 1, counted: 3, reason: "x" }, { day: DAY }))).toMatchObject([{ field: "counted" }]);
  });
});

describe("the bench", () => {
  it("a batch larger than the shelf says exactly what is missing, and stores nothing", async () => {
    const units = 60;
    const before = (await listBatches(db)).length;
    const [p] = await refused(setOut(db, { recipeId: ids.recipe, batchMg: mg(units * 50_000), units }, { day: DAY }));
    // 5 units of 50 g were made: 1800 g of oil, 450 g of wax and 35 tins are left; 60 take 2400 g, 600 g and 60.
    expect(p).toEqual({ field: "size", say: "The shelf is short of 600 g of Oil, 150 g of Wax and 25 pcs of Tin. Nothing was set out." });
    expect((await listBatches(db)).length).toBe(before);
  });
  it("splits over lots, pours into a numbered lot with the shortest best-before, and can be taken back and poured again under the same number", async () => {
    const short = "2026-09-01";
    await buy(ids.oil, 90_000, 3, short);
    const batchId = idIn(await setOut(db, { recipeId: ids.recipe, batchMg: mg(200_000), units: 4 }, { day: DAY, token: token() }));
    const sheet = (await readBatch(db, batchId))!;
    const oils = sheet.takes.filter((t) => t.materialId === ids.oil);
    expect(oils.map((t) => t.planned)).toEqual([90_000, 70_000]);
    const takes = sheet.takes.map(({ position, materialId, lotId, planned }) => ({ position, materialId, lotId, planned, weighed: planned }));
    await saveWeighed(db, batchId, takes.map((t, i) => ({ ...t, weighed: i === 0 ? t.planned : null })));
    expect((await readBatch(db, batchId))!.takes.filter((t) => t.weighed !== null)).toHaveLength(1);

    expect(await refused(pour(db, { batchId, takes, units: 9, leftover: mg(0), minutes: 1, note: "" }, { day: DAY }))).toMatchObject([{ field: "units" }]);
    expect(await refused(pour(db, { batchId, takes: takes.map((t, i) => (i === 0 ? { ...t, weighed: mg(90_001) } : t)), units: 4, leftover: mg(0), minutes: 1, note: "" }, { day: DAY }))).toMatchObject([{ field: "takes.0.weighed" }]);

    const done = await pour(db, { batchId, takes, units: 4, leftover: mg(0), minutes: 50, note: "" }, { day: DAY });
    expect(await whatWasDone(db, done.actId)).toMatchObject({ undoable: true });
    const made = (await finished()).at(-1)!;
    expect(made).toMatchObject({ bestBefore: short, onHand: 4, number: expect.stringMatching(/^TB260504-\d+$/) });
    expect(await refused(pour(db, { batchId, takes, units: 4, leftover: mg(0), minutes: 50, note: "" }, { day: DAY }))).toHaveLength(1);
    await takeOut(db, { lotId: made.id, units: 1, reason: "tester", note: "" }, { day: DAY });
    const [why] = await refused(undoAct(db, done.actId, { day: DAY }));
    expect(why!.say).toContain(made.number);

    const [own] = await db.select().from(act).where(eq(act.kind, "takeOut")).orderBy(sql`id desc`).limit(1);
    await undoAct(db, own!.id, { day: DAY });
    await undoAct(db, done.actId, { day: DAY });
    expect((await finished()).at(-1)!.onHand).toBe(0);
    expect(await whatWasDone(db, done.actId)).toMatchObject({ undoable: false });
    await expect(undoAct(db, done.actId, { day: DAY })).rejects.toThrow("already");
    await pour(db, { batchId, takes, units: 4, leftover: mg(0), minutes: 50, note: "" }, { day: DAY });
    expect((await finished()).at(-1)).toMatchObject({ number: made.number, onHand: 4 });
    await expectLedgerTrue(db);
  });
  it("won't take a lot of another material, and a cleared batch stays cleared", async () => {
    const batchId = idIn(await setOut(db, { recipeId: ids.recipe, batchMg: mg(50_000), units: 1 }, { day: DAY }));
    const sheet = (await readBatch(db, batchId))!;
    const [box] = await lotsOf(ids.box);
    expect(await refused(saveWeighed(db, batchId, [{ ...sheet.takes[0]!, lotId: box!.id }]))).toMatchObject([{ field: "takes.0.lot" }]);
    const cleared = await clearBatch(db, batchId, { day: DAY });
    await refused(saveWeighed(db, batchId, sheet.takes));
    await undoAct(db, cleared.actId, { day: DAY });
    await saveWeighed(db, batchId, sheet.takes);
    await clearBatch(db, batchId, { day: DAY });
  });
});

describe("recipes and materials", () => {
  it("refuses a name or letters that are taken, and keeps a size something was made in", async () => {
    expect(await refused(saveRecipe(db, balm(), { day: DAY }))).toMatchObject([{ field: "name" }]);
    expect(await refused(saveRecipe(db, balm({ name: "Other" }), { day: DAY }))).toMatchObject([{ field: "code" }]);
    expect(await refused(saveMaterial(db, { name: "oil", kind: "oil" }, { day: DAY }))).toMatchObject([{ field: "name" }]);
    await saveRecipe(db, balm({ fill: mg(25_000) }), { day: DAY }, ids.recipe);
    const [now] = await readRecipes(db, [ids.recipe]);
    expect(now!.product).toMatchObject({ fill: 25_000, current: true });
    expect(now!.product.id).not.toBe(ids.product);
    await saveRecipe(db, balm({ fill: mg(24_000) }), { day: DAY }, ids.recipe);
    expect((await readRecipes(db, [ids.recipe]))[0]!.product).toMatchObject({ id: now!.product.id, fill: 24_000 });
    await saveRecipe(db, balm(), { day: DAY }, ids.recipe);
    expect((await readRecipes(db, [ids.recipe]))[0]!.product.id).toBe(ids.product);
  });
});

describe("selling and tracing", () => {
  it("a market line that wants more than the lot has names the field; nothing is kept of the day", async () => {
    const l = (await finished()).findLast((x) => x.onHand > 0)!;
    const days = (await listMarketDays(db)).length;
    const line = { lotId: l.id, taken: 99, sold: l.onHand, given: 1, damaged: 0, price: euro(8) };
    expect(await refused(closeMarketDay(db, { name: "Fair", day: DAY, stallFee: euro(5), travel: euro(0), byCard: euro(0), cardFeeBp: 0, minutes: 60, note: "", lines: [line] }, { day: DAY }))).toMatchObject([{ field: "lines.0.given" }]);
    expect((await listMarketDays(db)).length).toBe(days);
  });
  it("a lot on hold is not packed by itself; freed, it is; and a packed tin leads back to every lot in it", async () => {
    const here = (await finished()).filter((x) => x.onHand > 0);
    const items = [{ productId: ids.product, units: 1, price: euro(9) }];
    const order = { customer: "Neighbour", due: DAY, extra: euro(0), discountBp: 0, wrapMinutes: 0, note: "", items, wrapping: [{ materialId: ids.box, pieces: 1 }] };
    const id = idIn(await saveGiftOrder(db, order, { day: DAY }));
    for (const l of here) await holdLot(db, l.id, "smells odd");
    expect((await refused(packGiftOrder(db, id, new Map(), { day: DAY })))[0]!.say).toContain("1 × Test balm");
    for (const l of here) await holdLot(db, l.id, null);
    await packGiftOrder(db, id, new Map([[ids.product, here.at(-1)!.id]]), { day: DAY });
    await expect(saveGiftOrder(db, order, { day: DAY }, id)).rejects.toThrow("packed");

    const tin = (await findLot(db, here.at(-1)!.number.toLowerCase()))!;
    const traced = await traceLot(db, tin.id);
    expect(new Set(traced.back.map((s) => s.lot.name))).toEqual(new Set(["Oil", "Wax", "Tin"]));
    expect(traced.history.some((h) => h.customer === "Neighbour" && h.reason === "ordered")).toBe(true);
    const oilLot = traced.back.find((s) => s.lot.name === "Oil")!.lot;
    expect((await traceLot(db, oilLot.id)).history.some((h) => h.customer === "Neighbour")).toBe(true);
  });
  it("a taken-back pour is no longer part of any trace", async () => {
    const done = await make(1);
    const made = (await finished()).at(-1)!;
    expect((await traceLot(db, made.id)).back.length).toBeGreaterThan(0);
    await undoAct(db, done.actId, { day: DAY });
    expect((await traceLot(db, made.id)).back).toEqual([]);
    expect(await db.select().from(movement).where(eq(movement.actId, done.actId))).not.toHaveLength(0);
  });
});
