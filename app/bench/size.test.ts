/** How large a batch: units, weight, or all of one lot. */
import { mg, micros, type Mg } from "#core/measure/exact";
import { fillPlan } from "#core/recipe/scale";
import type { Lot } from "#core/stock/lots";
import type { WrittenRecipe } from "#db/recipe/read";
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { readSize, type SizeMode } from "./size.ts";

const line = (materialId: number, weight: number) => ({
  id: materialId,
  materialId,
  entered: "",
  form: "liquid" as const,
  weight: mg(weight),
});
const recipe = {
  recipe: { lossBp: 200 },
  product: { fill: mg(50_000) },
  lines: [line(1, 80_000), line(2, 15_000), line(1, 5_000)],
} as unknown as WrittenRecipe;
const lot = (id: number, of: number, onHand: number): Lot => ({
  id,
  number: `R${id}`,
  of,
  onHand,
  value: micros(0),
  arrived: "2026-01-01",
  bestBefore: null,
  hold: false,
});
const LOTS = [lot(7, 1, 850_000), lot(8, 2, 1_500), lot(9, 3, 900_000)];
const size = (mode: SizeMode, text: string, lotId = 0) => readSize(mode, text, lotId, recipe, LOTS);
const code = (r: ReturnType<typeof size>): string => (r.ok ? "ok" : r.problem.code);

describe("so many units", () => {
  it("is the smallest batch that fills them after the loss", () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 5000 }), (units) => {
        const r = size("units", String(units));
        expect(r.ok && r.value.units).toBe(units);
        expect(r.ok && fillPlan(r.value.batch, mg(50_000), 200).units).toBe(units);
      }),
    );
  });
  it.each([
    ["", "empty"],
    ["0", "whole"],
    ["2.5", "whole"],
    ["-1", "negative"],
    ["many", "notNumber"],
    ["5001", "absurd"],
  ])("refuses %j as %s", (text, problem) => expect(code(size("units", text))).toBe(problem));
});

describe("so much by weight", () => {
  it.each([
    ["1 kg", 1_000_000, 19],
    ["600", 600_000, 11],
    ["2 lb", 907_185, 17],
  ])("%s", (text, batch, units) => expect(size("grams", text)).toEqual({ ok: true, value: { batch, units } }));
  it.each([
    ["20 g", "small"],
    ["900 kg", "absurd"],
    ["2 cups", "noDensity"],
    ["", "empty"],
  ])("refuses %j as %s", (text, problem) => expect(code(size("grams", text))).toBe(problem));
});

describe("all of one lot", () => {
  it("scales so that every line of that material together takes just that lot", () => {
    const r = size("lot", "", 7);
    expect(r).toEqual({ ok: true, value: { batch: 1_000_000 as Mg, units: 19 } });
  });
  it.each([
    [8, "small"],
    [9, "lot"],
    [0, "lot"],
  ])("lot %i is %s", (id, problem) => expect(code(size("lot", "", id))).toBe(problem));
});
