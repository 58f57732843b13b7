/** Recipes to grams, scaling, yield and cost. Ratios and keeping rules are common practice, no source. */
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { bestBefore } from "../batch/bestBefore.ts";
import { finishedCost, pourResult, type PourIn } from "../batch/result.ts";
import { mg, micros, type Mg } from "../measure/exact.ts";
import type { MassFacts } from "../measure/mass.ts";
import { parseAmount } from "../measure/parse.ts";
import type { Lot } from "../stock/lots.ts";
import { costRecipe, forMinutes, perUnitOf } from "./cost.ts";
import { weighRecipe, type LineIn } from "./lines.ts";
import { batchFor, fillPlan, onScale, scaleTo, totalForLine } from "./scale.ts";

const oil: MassFacts = { name: "Oil", form: "liquid", densities: { liquid: 920 } };
const wax: MassFacts = { name: "Wax", form: "pellets", densities: { pellets: 480, block: 960 } };
const line = (text: string, facts: MassFacts = oil): LineIn => {
  const a = parseAmount(text, "g");
  if (!a.ok) throw new Error(a.problem.say);
  return { amount: a.value, facts };
};
const weights = (lines: LineIn[], makes: Mg | null = null): (number | string)[] =>
  weighRecipe(lines, makes).lines.map((l) => (l.ok ? l.weight : l.problem.code));

describe("weighing a recipe", () => {
  it.each<[string, LineIn[], Mg | null, (number | string)[]]>([
    ["weights alone", [line("14 g", wax), line("100 g")], null, [14_000, 100_000]],
    ["per cent beside weights make up the rest", [line("90 g"), line("10 %", wax)], null, [90_000, 10_000]],
    ["per cent alone of a given whole", [line("25 %", wax), line("75 %")], mg(400_000), [100_000, 300_000]],
    ["8 : 8 : 6.5 by parts", [line("8 parts"), line("8 parts"), line("6.5 parts", wax)], mg(450_000), [160_000, 160_000, 130_000]],
    ["2 : 1 : 1 by parts", [line("2 parts"), line("1 part"), line("1 part")], mg(100_001), [50_001, 25_000, 25_000]],
    [
      "parts share what weights and per cent leave",
      [line("100 g"), line("10 %"), line("1 part"), line("3 parts")],
      mg(1_000_000),
      [100_000, 100_000, 200_000, 600_000],
    ],
    ["one bad line leaves the others", [line("2 pcs"), line("50 g")], null, ["wrongKind", 50_000]],
    ["parts of nothing said", [line("1 part"), line("1 part")], null, ["partsNeedWhole", "partsNeedWhole"]],
    ["more than everything", [line("60 %"), line("50 %")], mg(100_000), ["over100", "over100"]],
    ["less than everything", [line("60 %"), line("30 %")], mg(100_000), ["over100", "over100"]],
    ["weights that fill the whole", [line("100 g"), line("1 part")], mg(100_000), [100_000, "overWhole"]],
  ])("%s", (_, lines, makes, expected) => expect(weights(lines, makes)).toEqual(expected));

  it("a pellet recipe is not a block recipe: the same half cup is half the wax", () => {
    const share = (form: "pellets" | "block") => {
      const [w] = weighRecipe([line("1/2 cup", { ...wax, form }), line("2 cups")], null).lines;
      return w!.ok ? w!.share : 0;
    };
    expect(share("pellets")).toBeCloseTo(0.115, 3);
    expect(share("block")).toBeCloseTo(0.207, 3);
  });

  it("adds up to the whole to the milligram, and shares to one", () => {
    const anyLine = fc.oneof(
      fc.integer({ min: 1, max: 500 }).map((n) => line(`${n} g`)),
      fc.integer({ min: 1, max: 20 }).map((n) => line(`${n} parts`)),
      fc.integer({ min: 1, max: 9 }).map((n) => line(`${n} %`)),
      fc.integer({ min: 1, max: 9 }).map((n) => line(`${n} tbsp`)),
    );
    fc.assert(
      fc.property(fc.array(anyLine, { minLength: 1, maxLength: 8 }), fc.integer({ min: 5_000_000, max: 9_000_000 }), (lines, makes) => {
        const r = weighRecipe(lines, mg(makes));
        fc.pre(r.problem === null);
        expect(r.lines.reduce((a, l) => a + (l.ok ? l.weight : 0), 0)).toBe(r.total);
        expect(r.lines.reduce((a, l) => a + (l.ok ? l.share : 0), 0)).toBeCloseTo(1, 9);
        if (lines.some((l) => l.amount.unit === "part")) expect(r.total).toBe(makes);
      }),
    );
  });
  it("wants at least one line", () => expect(weighRecipe([], null).problem?.code).toBe("noLines"));
});

describe("scaling and yield", () => {
  const recipe = fc.array(fc.integer({ min: 1, max: 2_000_000 }), { minLength: 1, maxLength: 8 }).map((ws) => ws.map(mg));
  it("keeps the total exact and every line within a milligram of its share", () => {
    fc.assert(
      fc.property(recipe, fc.integer({ min: 1000, max: 50_000_000 }), (ws, total) => {
        const scaled = scaleTo(ws, mg(total));
        const sum = ws.reduce((a, b) => a + b, 0);
        expect(scaled.reduce((a, b) => a + b, 0)).toBe(total);
        scaled.forEach((s, i) => expect(Math.abs(s - (ws[i]! * total) / sum)).toBeLessThanOrEqual(1));
      }),
    );
  });
  it("uses up one lot exactly", () => {
    const ws = [mg(4000), mg(1000)];
    expect(scaleTo(ws, totalForLine(mg(5000), ws[1]!, mg(1500)))).toEqual([6000, 1500]);
  });
  it("sizes the smallest batch that fills so many units", () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 500 }),
        fc.integer({ min: 1000, max: 300_000 }),
        fc.integer({ min: 0, max: 2000 }),
        (units, fill, loss) => {
          const batch = batchFor(units, mg(fill), loss);
          expect(fillPlan(batch, mg(fill), loss).units).toBe(units);
          expect(fillPlan(mg(batch - 2), mg(fill), loss).units).toBeLessThan(units);
          const plan = fillPlan(batch, mg(fill), loss);
          expect(plan.units * fill + plan.potLoss + plan.leftover).toBe(batch);
        },
      ),
    );
  });
  it.each([
    [3250, 100, 3300, false],
    [6500, 1000, 7000, false],
    [40, 100, 0, true],
    [50, 100, 100, false],
    [0, 100, 0, false],
  ])("a scale that reads to %i … %i", (weight, step, shown, out) =>
    expect(onScale(mg(weight), mg(step))).toMatchObject({ weight: shown, outOfReach: out }),
  );
});

describe("cost of one unit", () => {
  const lot = (id: number, of: number, onHand: number, value: number): Lot => ({
    id,
    number: `R${id}`,
    of,
    onHand,
    value: micros(value),
    arrived: "2026-01-01",
    bestBefore: null,
    hold: false,
  });
  const work = { hourly: micros(12_000_000), overheadHourly: micros(3_000_000), batchMinutes: 30, unitMinutes: 3 };
  // Worked by hand: 1000 g of oil at 10.00, 2 % loss, 98 g fills make 10 tins at 0.50; 60 minutes.
  it("worked example", () => {
    const cost = costRecipe(
      { lines: [{ of: 1, weight: mg(1_000_000) }], packaging: [{ of: 2, pieces: 1 }], fill: mg(98_000), lossBp: 200, work },
      [lot(1, 1, 1_000_000, 10_000_000), lot(2, 2, 50, 25_000_000)],
      new Map(),
      "2026-02-01",
    );
    expect(cost.fill).toEqual({ units: 10, potLoss: 20_000, leftover: 0 });
    expect(cost.perUnit.lot).toEqual({
      ingredients: 980_000,
      packaging: 500_000,
      work: 1_200_000,
      overhead: 300_000,
      loss: 20_000,
      materials: 1_500_000,
      total: 3_000_000,
    });
    expect(cost.perUnit.average).toEqual(cost.perUnit.lot);
    expect(cost.perUnit.again).toBeNull();
  });
  it("costs the same materials less each in a larger batch, because the batch minutes are shared", () => {
    const at = (grams: number) =>
      costRecipe(
        { lines: [{ of: 1, weight: mg(grams * 1000) }], packaging: [], fill: mg(50_000), lossBp: 0, work },
        [],
        new Map([[1, { value: micros(9_000_000), per: 1_000_000 }]]),
        "2026-02-01",
      ).perUnit.again!;
    expect(at(100).work).toBeGreaterThan(at(1000).work);
    expect(at(100).ingredients).toBe(at(1000).ingredients);
  });
  it("has no unit cost when nothing is filled", () => {
    expect(
      costRecipe({ lines: [{ of: 1, weight: mg(10) }], packaging: [], fill: mg(50_000), lossBp: 0, work }, [], new Map(), "2026-02-01")
        .perUnit,
    ).toEqual({ lot: null, average: null, again: null });
  });
  it("parts add up to the total", () => {
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: 0, max: 1e9 }), { minLength: 5, maxLength: 5 }),
        fc.integer({ min: 1, max: 500 }),
        ([ingredients, packaging, w, overhead, loss], units) => {
          const u = perUnitOf({ ingredients: ingredients!, packaging: packaging!, work: w!, overhead: overhead!, loss: loss! }, units);
          expect(u.ingredients + u.packaging + u.loss).toBe(u.materials);
          expect(u.materials + u.work + u.overhead).toBe(u.total);
        },
      ),
    );
    expect(forMinutes(90, micros(16_000_000))).toBe(24_000_000);
  });
});

describe("a poured batch", () => {
  const poured: PourIn = {
    weighed: mg(1_000_000),
    ingredients: micros(10_000_000),
    packaging: micros(5_000_000),
    units: 16,
    fill: mg(60_000),
    leftover: mg(25_000),
    minutes: 60,
    rates: { hourly: micros(16_000_000), overheadHourly: micros(0) },
  };
  it("worked example: 16 tins of 60 g and 25 g left out of a kilo", () => {
    expect(pourResult(poured)).toEqual({
      lost: 15_000,
      lostShare: 0.015,
      yield: 0.96,
      perUnit: {
        ingredients: 600_000,
        packaging: 312_500,
        work: 1_000_000,
        overhead: 0,
        loss: 25_000,
        materials: 937_500,
        total: 1_937_500,
      },
    });
  });
  it("takes tins filled a little light, but not more than can be", () => {
    expect(pourResult({ ...poured, units: 16, leftover: mg(50_000) })?.lost).toBe(0);
    expect(pourResult({ ...poured, units: 17, leftover: mg(50_000) })).toBeNull();
    expect(pourResult({ ...poured, units: 0 })).toBeNull();
    expect(pourResult({ ...poured, units: 1, leftover: mg(1_000_000) })).toBeNull();
  });
  it("one unit of a finished lot: materials as the ledger has them, and its share of the work", () => {
    const work = { units: 16, minutes: 60, hourly: micros(16_000_000), overheadHourly: micros(4_000_000) };
    expect(finishedCost({ onHand: 4, value: micros(3_750_000) }, work)).toEqual({ materials: 937_500, full: 937_500 + 1_250_000 });
    expect(finishedCost({ onHand: 4, value: micros(3_750_000) }, { ...work, minutes: null })).toEqual({
      materials: 937_500,
      full: 937_500,
    });
  });
  it("keeps no longer than its shortest-lived lot", () => {
    expect(bestBefore("2026-01-31", 1, [])).toEqual({ day: "2026-02-28", limitedBy: null });
    fc.assert(
      fc.property(fc.array(fc.option(fc.integer({ min: 10, max: 99 }))), (years) => {
        const lots = years.map((y, i) => ({ number: `R${i}`, bestBefore: y === null ? null : `20${y}-06-01` }));
        const best = bestBefore("2026-01-10", 12, lots);
        for (const l of lots) if (l.bestBefore) expect(best.day <= l.bestBefore).toBe(true);
        expect(best.day <= "2027-01-10").toBe(true);
        expect(best.limitedBy === null).toBe(best.day === "2027-01-10");
      }),
    );
  });
});
