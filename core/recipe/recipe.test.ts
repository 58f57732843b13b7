/** Recipes to grams, scaling and yield. Ratios are common practice, no source. */
import fc from "fast-check";
import Fraction from "fraction.js";
import { describe, expect, it } from "vitest";
import { mg, type Mg } from "../measure/exact.ts";
import type { MassFacts } from "../measure/mass.ts";
import { parseAmount } from "../measure/parse.ts";
import { weighRecipe, type LineIn } from "./lines.ts";
import { batchFor, fillMix, fillPlan, ofSteps, onScale, scaleTo, showSteps, totalForLine } from "./scale.ts";

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
