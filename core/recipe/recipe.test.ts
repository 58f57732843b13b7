/** Recipes to grams, scaling, yield and cost. Ratios and keeping rules are common practice, no source. */
import fc from "fast-check";
import Fraction from "fraction.js";
import { describe, expect, it } from "vitest";
import { bestBefore } from "../batch/bestBefore.ts";
import { finishedCost, pourResult, stockValues, type PourIn } from "../batch/result.ts";
import { mg, micros, type Mg } from "../measure/exact.ts";
import type { MassFacts } from "../measure/mass.ts";
import { parseAmount } from "../measure/parse.ts";
import type { Lot } from "../stock/lots.ts";
import { costMix, costRecipe, forMinutes, perUnitOf } from "./cost.ts";
import { weighRecipe, type LineIn } from "./lines.ts";
import { batchFor, fillMix, fillPlan, ofSteps, onScale, scaleTo, showSteps, totalForLine } from "./scale.ts";
import { shelfOf } from "../stock/shelf.ts";

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
  it("weighed, per cent and parts resolve in any mix, exactly, as long as they leave each other room", () => {
    // Wax 20 g, oil 80 g, scent 1 %: the whole is rounded, and the per cent line takes what is left of it.
    const weighed = (n: number): LineIn => ({ amount: { n: new Fraction(n), unit: "g" }, facts: oil });
    const share = (n: number, unit: "percent" | "part"): LineIn => ({ amount: { n: new Fraction(n), unit }, facts: oil });
    const scent = weighRecipe([weighed(20), weighed(80), share(1, "percent")], null);
    expect([scent.problem, scent.total]).toEqual([null, 101_010]);
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: 1, max: 900_000 }), { minLength: 1, maxLength: 5 }),
        fc.array(fc.integer({ min: 1, max: 1900 }), { maxLength: 4 }),
        fc.array(fc.integer({ min: 1, max: 40 }), { maxLength: 4 }),
        (fixed, hundredths, parts) => {
          fc.pre(hundredths.reduce((a, n) => a + n, 0) < 9000);
          const lines = [
            ...fixed.map((n) => weighed(n / 1000)),
            ...hundredths.map((n) => share(n / 100, "percent")),
            ...parts.map((n) => share(n, "part")),
          ];
          const sum = fixed.reduce((a, n) => a + n, 0);
          const makes = parts.length > 0 ? mg(sum * 11 + 1000) : null;
          const r = weighRecipe(lines, makes);
          expect(r.problem).toBeNull();
          const weights = r.lines.map((l) => (l.ok ? l.weight : NaN));
          expect(weights.reduce((a, w) => a + w, 0)).toBe(r.total);
          fixed.forEach((n, i) => expect(weights[i]).toBe(n));
          hundredths.forEach((n, i) => expect(Math.abs(weights[fixed.length + i]! - (r.total * n) / 10_000)).toBeLessThanOrEqual(1));
        },
      ),
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
          const batch = batchFor([{ units, fill: mg(fill) }], loss);
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
    expect(onScale(mg(weight), { unit: "g", step })).toMatchObject({ weight: shown, outOfReach: out }),
  );
  it("in ounces a reading is whole steps, and what stands under the readings is what they add up to", () => {
    // 1 oz is 28.349 523 125 g: NIST Special Publication 811, Appendix B.8.
    expect(onScale(mg(28_350), { unit: "oz", step: 100 })).toMatchObject({ steps: 10, weight: 28_350 });
    expect(showSteps(47, { unit: "oz", step: 50 })).toBe("2.35 oz");
    fc.assert(
      fc.property(recipe, fc.constantFrom(1000, 500, 100, 50, 10, 5), fc.constantFrom("g" as const, "oz" as const), (ws, step, unit) => {
        const scale = { unit, step };
        const steps = ws.map((w) => onScale(w, scale).steps);
        const together = steps.reduce((a, n) => a + n, 0);
        expect(Math.abs(ofSteps(together, scale) - steps.reduce((a, n) => a + ofSteps(n, scale), 0))).toBeLessThanOrEqual(ws.length);
        ws.forEach((w, i) => expect(Math.abs(ofSteps(steps[i]!, scale) - w)).toBeLessThanOrEqual(ofSteps(1, scale) / 2 + 1));
      }),
    );
  });
  it("a mix takes what is wanted first, then as much of each open size as there is left for", () => {
    const size = fc.record({ fill: fc.integer({ min: 500, max: 200_000 }).map(mg), units: fc.option(fc.integer({ min: 0, max: 40 })) });
    fc.assert(
      fc.property(
        fc.integer({ min: 1000, max: 20_000_000 }),
        fc.integer({ min: 0, max: 2000 }),
        fc.array(size, { maxLength: 4 }),
        (b, loss, sizes) => {
          const plan = fillMix(mg(b), loss, sizes);
          expect(plan.potLoss + plan.units.reduce((a, n, i) => a + n * sizes[i]!.fill, 0) + plan.leftover).toBe(b);
          sizes.forEach((s, i) => {
            if (s.units !== null) expect(plan.units[i]).toBe(s.units);
            else if (plan.leftover >= 0) expect(plan.leftover).toBeLessThan(s.fill);
          });
        },
      ),
    );
    expect(
      fillMix(mg(1_000_000), 0, [
        { fill: mg(60_000), units: null },
        { fill: mg(10_000), units: null },
      ]),
    ).toMatchObject({ units: [16, 4], leftover: 0 });
  });
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
  const work = { hourly: micros(12_000_000), overheadHourly: micros(3_000_000), batchMinutes: 30 };
  const unitMinutes = 3;
  // Worked by hand: 1000 g of oil at 10.00, 2 % loss, 98 g fills make 10 tins at 0.50; 60 minutes.
  it("worked example", () => {
    const cost = costRecipe(
      { lines: [{ of: 1, weight: mg(1_000_000) }], packaging: [{ of: 2, pieces: 1 }], fill: mg(98_000), lossBp: 200, work, unitMinutes },
      shelfOf([lot(1, 1, 1_000_000, 10_000_000), lot(2, 2, 50, 25_000_000)], "2026-02-01"),
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
        { lines: [{ of: 1, weight: mg(grams * 1000) }], packaging: [], fill: mg(50_000), lossBp: 0, work, unitMinutes },
        shelfOf([], "2026-02-01", new Map([[1, { value: micros(9_000_000), per: 1_000_000 }]])),
      ).perUnit.again!;
    expect(at(100).work).toBeGreaterThan(at(1000).work);
    expect(at(100).ingredients).toBe(at(1000).ingredients);
  });
  it("has no unit cost when nothing is filled", () => {
    expect(
      costRecipe(
        { lines: [{ of: 1, weight: mg(10) }], packaging: [], fill: mg(50_000), lossBp: 0, work, unitMinutes },
        shelfOf([], "2026-02-01"),
      ).perUnit,
    ).toEqual({ lot: null, average: null, again: null });
  });
  it("two sizes from one pot: the pot is shared by weight, packaging and filling are each size's own", () => {
    const sizes = [
      { fill: mg(60_000), units: 10, unitMinutes: 1, packaging: [{ of: 2, pieces: 1 }] },
      { fill: mg(20_000), units: 15, unitMinutes: 2, packaging: [] },
    ];
    const { sizes: out } = costMix(
      { lines: [{ of: 1, weight: mg(1_000_000) }], sizes, work: { ...work, batchMinutes: 60 } },
      shelfOf([lot(1, 1, 1_000_000, 10_000_000), lot(2, 2, 50, 25_000_000)], "2026-02-01"),
    );
    // By hand: 600 g and 300 g of a kilo at 10.00, the last 100 g lost two to one; 40 + 10 and 20 + 30 minutes at 15.00 an hour.
    expect(out.map((s) => s.minutes)).toEqual([50, 50]);
    expect(out[0]!.perUnit.lot).toMatchObject({
      ingredients: 600_000,
      packaging: 500_000,
      loss: 66_667,
      work: 1_000_000,
      overhead: 250_000,
    });
    expect(out[1]!.perUnit.lot).toMatchObject({ ingredients: 200_000, packaging: 0, loss: 22_222, work: 666_667, overhead: 166_667 });
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
    sizes: [{ packaging: micros(5_000_000), units: 16, fill: mg(60_000), minutes: 60 }],
    leftover: mg(25_000),
    rates: { hourly: micros(16_000_000), overheadHourly: micros(0) },
  };
  it("worked example: 16 tins of 60 g and 25 g left out of a kilo", () => {
    expect(pourResult(poured)).toEqual({
      lost: 15_000,
      lostShare: 0.015,
      yield: 0.96,
      perUnit: [
        {
          ingredients: 600_000,
          packaging: 312_500,
          work: 1_000_000,
          overhead: 0,
          loss: 25_000,
          materials: 937_500,
          total: 1_937_500,
        },
      ],
    });
  });
  it("takes tins filled a little light, but not more than can be", () => {
    const of = (units: number, leftover: number) =>
      pourResult({ ...poured, sizes: [{ ...poured.sizes[0]!, units }], leftover: mg(leftover) });
    expect(of(16, 50_000)?.lost).toBe(0);
    expect(of(17, 50_000)).toBeNull();
    expect(of(0, 25_000)).toBeNull();
    expect(of(1, 1_000_000)).toBeNull();
    expect(pourResult({ ...poured, sizes: [] })).toBeNull();
  });
  it("several sizes share all that went into the pot, to the micro", () => {
    const size = fc.record({
      units: fc.integer({ min: 1, max: 90 }),
      fill: fc.integer({ min: 1, max: 9e6 }).map(mg),
      packaging: fc.nat(1e9).map(micros),
    });
    fc.assert(
      fc.property(fc.nat(1e9), fc.array(size, { minLength: 1, maxLength: 5 }), (ingredients, sizes) => {
        const values = stockValues(micros(ingredients), sizes);
        expect(values.reduce((a, v) => a + v, 0)).toBe(ingredients + sizes.reduce((a, s) => a + s.packaging, 0));
        values.forEach((v, i) => expect(v).toBeGreaterThanOrEqual(sizes[i]!.packaging));
      }),
    );
  });
  it("one unit of a finished lot: materials as the ledger has them, and its share of the work", () => {
    const work = { units: 16, minutesHundredths: 6000, hourly: micros(16_000_000), overheadHourly: micros(4_000_000) };
    expect(finishedCost({ onHand: 4, value: micros(3_750_000) }, work)).toEqual({ materials: 937_500, full: 937_500 + 1_250_000 });
    expect(finishedCost({ onHand: 4, value: micros(3_750_000) }, { ...work, minutesHundredths: null })).toEqual({
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
