/** Jars through the database: filling, tending, straining, a second infusion, a blend, a jar that spoils, and the way back from each. */
import { mg, sum } from "#core/measure/exact";
import { addDays, addMonths } from "#core/when";
import { eq } from "drizzle-orm";
import { beforeEach, describe, expect, it } from "vitest";
import { reverseAct } from "../acts/reverse.ts";
import { replacementCosts } from "../ledger/lots.ts";
import { traceLot } from "../lots/trace.ts";
import { costRecipes } from "../recipe/costs.ts";
import { saveRecipe } from "../recipe/save.ts";
import { lot, material } from "../schema.ts";
import { readSettings } from "../settings/settings.ts";
import { saveMaterial } from "../shelf/keepMaterial.ts";
import { expectLedgerTrue } from "#test/db/fresh";
import { balm, buy, DAY, db, eachTestHasAWorkshop, idIn, ids, jarOf, lotsOf, refused } from "#test/db/workshop";
import { workItems } from "../today/today.ts";
import { fillJar, heat, heatedJars, tend, topUp, type FillIn } from "./fill.ts";
import { pastStrainings, readJar, steepingJars, valueOfJar } from "./read.ts";
import { blend, spoilJar, strainJar, type StrainJarIn } from "./strain.ts";

eachTestHasAWorkshop();

const doing = { day: DAY };
let herb: number;
const lotOf = async (id: number) => (await lotsOf(id)).filter((l) => l.onHand > 0)[0]!;

const plan = async (over: Partial<FillIn> = {}, herbGrams = 50, oilGrams = 600): Promise<FillIn> =>
  jarOf(
    [
      { role: "herb", materialId: herb, lotId: (await lotOf(herb)).id, cut: "whole", qty: mg(herbGrams * 1000) },
      { role: "carrier", materialId: ids.oil, lotId: (await lotOf(ids.oil)).id, cut: null, qty: mg(oilGrams * 1000) },
    ],
    { name: "Calendula in oil", vessel: "Litre jar", vesselMl: 1000, fillMl: 700, looseMl: 500, expected: mg(500_000), ...over },
  );
const fill = async (over: Partial<FillIn> = {}): Promise<number> => idIn(await fillJar(db, await plan(over), {}));
const straining = (jarId: number, over: Partial<StrainJarIn> = {}): StrainJarIn => ({
  jarId,
  back: mg(500_000),
  secondBack: null,
  sediment: mg(2_000),
  herbOut: null,
  pressed: false,
  bottles: [mg(250_000), mg(240_000)],
  ...over,
});
const named = async (name: string) => (await db.select().from(material).where(eq(material.name, name)))[0];

beforeEach(async () => {
  herb = idIn(
    await saveMaterial(
      db,
      {
        name: "Calendula",
        kind: "herb",
        inci: "Calendula Officinalis Flower",
        densities: { dried: 60 },
        allergen: "Daisy family",
        cautions: ["photosensitising"],
        vegan: "yes",
      },
      doing,
    ),
  );
  await buy(herb, 200_000, 9);
});

describe("filling", () => {
  it("takes herb and oil from their lots at what they cost, and stands on the wall with its own number", async () => {
    const [h, o] = [await lotOf(herb), await lotOf(ids.oil)];
    const id = await fill();
    expect((await lotOf(herb)).onHand).toBe(h.onHand - 50_000);
    expect((await lotOf(ids.oil)).onHand).toBe(o.onHand - 600_000);
    const j = (await readJar(db, id))!;
    expect(j).toMatchObject({ oil: 600_000, herb: 50_000 });
    expect(j.value).toBe(h.value - (await lotOf(herb)).value + o.value - (await lotOf(ids.oil)).value);
    expect((await steepingJars(db)).map((x) => x.jar.number)).toEqual(["J26124-1"]);
    expect((await readJar(db, await fill()))!.jar.number).toBe("J26124-2");
  });
  it("more than a lot has is said beside that part, and nothing has moved", async () => {
    const before = (await lotOf(herb)).onHand;
    expect(await refused(fillJar(db, await plan({}, 50, 9000), {}))).toMatchObject([{ field: "parts.1.qty" }]);
    expect((await lotOf(herb)).onHand).toBe(before);
    expect(await steepingJars(db)).toEqual([]);
  });
  it("a lot that isn't dry needs a reason for the shelf, and none for gentle heat", async () => {
    await db.update(lot).set({ dryness: "damp" }).where(eq(lot.materialId, herb));
    const [p] = await refused(fillJar(db, await plan(), {}));
    expect(p).toMatchObject({ field: "why" });
    expect(p!.say).toContain("isn't dry");
    await fill({ method: "cooker" });
    const j = (await readJar(db, await fill({ why: "Half a jar with a cloth top" })))!;
    expect(j.jar.why).toBe("Half a jar with a cloth top");
  });
  it("raw garlic goes into no jar, whatever the reason", async () => {
    await saveMaterial(db, { name: "Calendula", kind: "herb", densities: {}, cautions: ["foodPlant"], id: herb }, doing);
    await db.update(lot).set({ dryness: "fresh" }).where(eq(lot.materialId, herb));
    expect((await refused(fillJar(db, await plan({ why: "always did", method: "bath" }), {})))[0]!.say).toContain("botulism");
  });
  it("taken back, herb and oil are where they were and the jar is gone", async () => {
    const before = [await lotOf(herb), await lotOf(ids.oil)];
    const done = await fillJar(db, await plan(), {});
    await reverseAct(db, done.actId, doing);
    expect([await lotOf(herb), await lotOf(ids.oil)]).toEqual(before);
    expect(await readJar(db, idIn(done))).toBeNull();
    await expectLedgerTrue(db);
  });
});

describe("tending", () => {
  it("shakes several at once, notes temperatures and words, tops up at cost, and the way back from a top-up", async () => {
    const [a, b] = [await fill(), await fill()];
    await tend(db, { jarIds: [a, b, a], kind: "shaken" }, doing);
    await tend(db, { jarIds: [a], kind: "temperature", celsius: 41.5 }, doing);
    const value = await valueOfJar(db, a);
    const top = await topUp(db, { jarId: a, lotId: (await lotOf(ids.oil)).id, qty: mg(40_000) }, doing);
    const j = (await readJar(db, a))!;
    expect(j.oil).toBe(640_000);
    expect(j.value).toBeGreaterThan(value);
    expect(j.events.map((e) => [e.kind, e.celsius, e.note])).toEqual([
      ["toppedUp", null, "40 g of Oil"],
      ["temperature", 41.5, ""],
      ["shaken", null, ""],
    ]);
    await reverseAct(db, top.actId, doing);
    expect(await readJar(db, a)).toMatchObject({ oil: 600_000, value });
  });
  it("what was put into a jar comes back only while it stands, the last first", async () => {
    const filled = await fillJar(db, await plan(), {});
    const id = idIn(filled);
    const top = await topUp(db, { jarId: id, lotId: (await lotOf(ids.oil)).id, qty: mg(40_000) }, doing);
    expect((await refused(reverseAct(db, filled.actId, doing)))[0]!.say).toContain("has been topped up");
    const strained = await strainJar(db, straining(id), doing);
    for (const act of [filled, top]) expect((await refused(reverseAct(db, act.actId, doing)))[0]!.say).toContain("strained");
    await reverseAct(db, strained.actId, doing);
    const spoilt = await spoilJar(db, { jarId: id, why: "mould" }, doing);
    expect((await refused(reverseAct(db, top.actId, doing)))[0]!.say).toContain("written off since");
    await reverseAct(db, spoilt.actId, doing);
    await reverseAct(db, top.actId, doing);
    await reverseAct(db, filled.actId, doing);
    expect(await steepingJars(db)).toEqual([]);
    await expectLedgerTrue(db);
  });
  it("heat runs on a timer until it is turned off or the jar is strained", async () => {
    const id = await fill({ method: "cooker" });
    await heat(db, { jarId: id, minutes: 720 }, doing);
    expect(await heatedJars(db)).toMatchObject([{ id, heatMinutes: 720 }]);
    await heat(db, { jarId: id, minutes: null }, doing);
    expect(await heatedJars(db)).toEqual([]);
    await heat(db, { jarId: id, minutes: 60 }, doing);
    await strainJar(db, straining(id), doing);
    expect(await heatedJars(db)).toEqual([]);
    expect((await refused(heat(db, { jarId: id, minutes: 60 }, doing)))[0]!.say).toContain("isn't steeping");
  });
  it("is on Today when it wants shaking, when it is ready, and when it has stood too long", async () => {
    const id = await fill();
    const at = async (n: number) => (await workItems(db, addDays(DAY, n))).filter((w) => w.station === "jars").map((w) => w.kind);
    expect(await at(0)).toEqual([]);
    expect(await at(1)).toEqual(["shake"]);
    await tend(db, { jarIds: [id], kind: "shaken" }, { day: addDays(DAY, 20) });
    expect(await at(22)).toEqual([]);
    expect(await at(23)).toEqual(["shake"]);
    expect(await at(42)).toEqual(["ready"]);
    expect(await at(85)).toEqual(["late"]);
  });
});

describe("straining", () => {
  it("makes a lot of each bottle; all the jar cost falls on them, and they lead back to herb and oil", async () => {
    const id = await fill();
    const value = await valueOfJar(db, id);
    await strainJar(db, straining(id), { day: addDays(DAY, 42) });
    const j = (await readJar(db, id))!;
    expect(j.bottles.map((b) => [b.number, b.qty])).toEqual([
      ["J26124-1A", 250_000],
      ["J26124-1B", 240_000],
    ]);
    expect(sum(j.bottles.map((b) => b.value))).toBe(value);
    const t = await traceLot(db, j.bottles[0]!.id);
    expect(new Set(t.back.map((s) => s.lot.name))).toEqual(new Set(["Calendula", "Oil"]));
    // Each bottle has its share of the herb by what is in it, and together they have all of it.
    const herb = j.parts.find((p) => p.role === "herb")!.lot.id;
    expect(t.contents.find((x) => x.of === herb)?.qty).toBe(Math.round((50_000 * 250) / 490));
    const other = await traceLot(db, j.bottles[1]!.id);
    expect([t, other].reduce((a, x) => a + x.contents.find((c) => c.of === herb)!.qty, 0)).toBe(50_000);
    const made = (await named("Calendula in oil"))!;
    expect(made).toMatchObject({
      kind: "infusedOil",
      allergen: "Daisy family",
      cautions: ["photosensitising"],
      inci: "Calendula Officinalis Flower",
    });
    await expectLedgerTrue(db);
  });
  it("keeps no longer than the oil in it, nor than a year", async () => {
    await strainJar(db, straining(await fill()), { day: addDays(DAY, 42) });
    expect((await lotOf((await named("Calendula in oil"))!.id)).bestBefore).toBe(addMonths(addDays(DAY, 42), 12));
    await db.update(lot).set({ bestBefore: "2026-09-01" }).where(eq(lot.materialId, ids.oil));
    const id = await fill();
    await strainJar(db, straining(id), { day: addDays(DAY, 42) });
    expect((await readJar(db, id))!.bottles[0]!.bestBefore).toBe("2026-09-01");
  });
  it("more oil than went in is refused beside its field, and the jar stands as before", async () => {
    const id = await fill();
    expect(await refused(strainJar(db, straining(id, { back: mg(600_001) }), doing))).toMatchObject([{ field: "back" }]);
    expect(await refused(strainJar(db, straining(id), { day: addDays(DAY, -1) }))).toMatchObject([{ field: "" }]);
    expect((await steepingJars(db)).length).toBe(1);
  });
  it("teaches what the herb keeps", async () => {
    await strainJar(db, straining(await fill(), { pressed: true }), doing);
    expect(await pastStrainings(db, [herb])).toEqual([{ materialId: herb, cut: "whole", herb: 50_000, kept: 100_000, pressed: true }]);
  });
  it("taken back while no bottle was used, not after; strained anew, bottles get new letters", async () => {
    const id = await fill();
    const first = await strainJar(db, straining(id), doing);
    await reverseAct(db, first.actId, doing);
    const again = await strainJar(db, straining(id), doing);
    const [bottle] = (await readJar(db, id))!.bottles;
    expect(bottle!.number).toBe("J26124-1C");
    await blend(
      db,
      {
        name: "Blend",
        takes: [
          { lotId: bottle!.id, qty: mg(1000) },
          { lotId: (await lotOf(ids.oil)).id, qty: mg(1000) },
        ],
        note: "",
      },
      doing,
    );
    expect((await refused(reverseAct(db, again.actId, doing)))[0]!.say).toContain("has been used or counted since");
    await expectLedgerTrue(db);
  });
  it("a second infusion over new herb has two herb lots in its ancestry", async () => {
    await strainJar(db, straining(await fill()), doing);
    await buy(herb, 100_000, 5);
    const [first, second] = (await lotsOf(herb)).sort((a, b) => a.id - b.id);
    const oil = (await named("Calendula in oil"))!;
    const bottle = await lotOf(oil.id);
    const id = await fill({
      name: "Calendula, twice",
      parts: [
        { role: "herb", materialId: herb, lotId: second!.id, cut: "whole", qty: mg(30_000) },
        { role: "carrier", materialId: oil.id, lotId: bottle.id, cut: null, qty: mg(200_000) },
      ],
    });
    await strainJar(db, straining(id, { back: mg(150_000), bottles: [mg(148_000)] }), doing);
    const t = await traceLot(db, (await readJar(db, id))!.bottles[0]!.id);
    expect(
      t.back
        .filter((s) => s.lot.name === "Calendula")
        .map((s) => s.lot.id)
        .sort(),
    ).toEqual([first!.id, second!.id].sort());
    await expectLedgerTrue(db);
  });
  it("is in recipes as any other material, at its own cost", async () => {
    await strainJar(db, straining(await fill()), doing);
    const oil = (await named("Calendula in oil"))!;
    const recipe = idIn(
      await saveRecipe(
        db,
        balm({
          name: "Calendula balm",
          code: "CB",
          lines: [
            { materialId: oil.id, entered: "80 g", form: "liquid", weight: mg(80_000) },
            { materialId: ids.wax, entered: "20 g", form: "pellets", weight: mg(20_000) },
          ],
        }),
        doing,
      ),
    );
    const [costed] = await costRecipes(db, await readSettings(db), DAY, [recipe]);
    const bottle = await lotOf(oil.id);
    expect(costed!.sizes[0]!.cost.lines[0]!.cost.lot).toBe(Math.round((bottle.value * 80_000) / bottle.onHand));
    expect((await replacementCosts(db, [oil.id])).get(oil.id)!.per).toBeGreaterThan(0);
    expect(costed!.sizes[0]!.cost.perUnit.again).not.toBeNull();
  });
});

describe("blending and spoiling", () => {
  it("a blend costs what went into it, keeps as long as the soonest, and leads back to each", async () => {
    await buy(ids.oil, 500_000, 12, "2026-12-31");
    const [a, b] = (await lotsOf(ids.oil)).filter((l) => l.onHand > 0).sort((x, y) => x.id - y.id);
    await blend(
      db,
      {
        name: "House oil",
        takes: [
          { lotId: a!.id, qty: mg(100_000) },
          { lotId: b!.id, qty: mg(300_000) },
        ],
        note: "",
      },
      doing,
    );
    const made = await lotOf((await named("House oil"))!.id);
    expect(made).toMatchObject({ onHand: 400_000, bestBefore: "2026-12-31" });
    const spent =
      a!.value -
      (await lotsOf(ids.oil)).find((l) => l.id === a!.id)!.value +
      b!.value -
      (await lotsOf(ids.oil)).find((l) => l.id === b!.id)!.value;
    expect(made.value).toBe(spent);
    expect((await traceLot(db, made.id)).back.map((s) => s.lot.id).sort()).toEqual([a!.id, b!.id].sort());
    expect((await traceLot(db, a!.id)).forward.map((s) => s.lot.id)).toContain(made.id);
  });
  it.each([
    ["one lot alone", (a: number) => [a], "two lots at least"],
    ["the same lot twice", (a: number) => [a, a], "two lots at least"],
  ])("%s is no blend", async (_, take, say) => {
    const { id } = await lotOf(ids.oil);
    const problems = await refused(blend(db, { name: "x", takes: take(id).map((lotId) => ({ lotId, qty: mg(1000) })), note: "" }, doing));
    expect(problems[0]!.say).toContain(say);
  });
  it("a spoiled jar is written off with what it cost, and comes back when that was a slip", async () => {
    const id = await fill();
    const done = await spoilJar(db, { jarId: id, why: "mould" }, doing);
    expect(await steepingJars(db)).toEqual([]);
    expect((await refused(strainJar(db, straining(id), doing)))[0]!.say).toContain("isn't steeping");
    await reverseAct(db, done.actId, doing);
    expect((await steepingJars(db)).length).toBe(1);
  });
});
