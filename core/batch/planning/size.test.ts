/** How large a batch: units, weight, or all of one lot. */
import { mg, micros } from "../../measure/exact.ts";
import { fillPlan } from "../../recipe/scale.ts";
import type { Lot } from "../../stock/lots.ts";
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { mostUnits, readSize, type Sized, type SizeMode } from "./size.ts";

const line = (materialId: number, weight: number) => ({
  materialId,
  weight: mg(weight),
});
const recipe: Sized = {
  recipe: { lossBp: 200, total: mg(100_000) },
  sizes: [{ id: 1, fill: mg(50_000), label: "50 g" }],
  lines: [line(1, 80_000), line(2, 15_000), line(1, 5_000)],
};
const twoSizes: Sized = { ...recipe, sizes: [...recipe.sizes, { id: 2, fill: mg(8_000), label: "8 g" }] };
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
const size = (mode: SizeMode, text: string, lotId = 0) =>
  readSize({ mode, weight: mode === "grams" ? text : "", lotId, units: mode === "pots" ? [text] : [] }, recipe, LOTS);
const code = (r: ReturnType<typeof size>): string => (r.ok ? "ok" : r.problem.code);

describe("so many units", () => {
  it("is the smallest batch that fills them after the loss", () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 5000 }), (units) => {
        const r = size("pots", String(units));
        expect(r.ok && r.value.units).toEqual([units]);
        expect(r.ok && fillPlan(r.value.batch, mg(50_000), 200).units).toBe(units);
      }),
    );
  });
  it.each([
    ["", "empty"],
    ["0", "empty"],
    ["2.5", "whole"],
    ["-1", "negative"],
    ["many", "notNumber"],
    ["5001", "absurd"],
  ])("refuses %j as %s", (text, problem) => expect(code(size("pots", text))).toBe(problem));
});

describe("so much by weight", () => {
  it.each([
    ["1 kg", 1_000_000, 19],
    ["600", 600_000, 11],
    ["2 lb", 907_185, 17],
  ])("%s", (text, batch, units) => expect(size("grams", text)).toMatchObject({ ok: true, value: { batch, units: [units] } }));
  it.each([
    ["20 g", "small"],
    ["900 kg", "absurd"],
    ["2 cups", "notWeight"],
    ["", "empty"],
  ])("refuses %j as %s", (text, problem) => expect(code(size("grams", text))).toBe(problem));
});

describe("all of one lot", () => {
  it("scales so that every line of that material together takes just that lot", () => {
    const r = size("lot", "", 7);
    expect(r).toMatchObject({ ok: true, value: { batch: 1_000_000, units: [19] } });
  });
  it.each([
    [8, "small"],
    [9, "lot"],
    [0, "lot"],
  ])("lot %i is %s", (id, problem) => expect(code(size("lot", "", id))).toBe(problem));
});

describe("a mix from one pot", () => {
  const mix = (mode: SizeMode, ...units: string[]) => readSize({ mode, weight: "1 kg", lotId: 0, units }, twoSizes, LOTS);
  it("so many of each is the smallest pot for all of them", () => {
    expect(mix("pots", "4", "10")).toMatchObject({ ok: true, value: { batch: 285_715, units: [4, 10] } });
    expect(mix("pots", "", "10")).toMatchObject({ ok: true, value: { units: [0, 10] } });
  });
  it("as written, half and double follow the recipe; the first size goes first, then the next with the rest", () => {
    expect(mix("written")).toMatchObject({ ok: true, value: { batch: 100_000, units: [1, 6] } });
    expect(mix("half")).toMatchObject({ ok: true, value: { batch: 50_000, units: [0, 6] } });
    expect(mix("double")).toMatchObject({ ok: true, value: { batch: 200_000, units: [3, 5], leftover: 6_000 } });
    expect(mix("double", "2", "")).toMatchObject({ ok: true, value: { units: [2, 12] } });
  });
  it("more than there is, is said", () => expect(code(mix("written", "1", "40"))).toBe("over"));
});

it("the largest batch that can be made instead is in the proportion that was wanted, there is enough for it, and not for the next", () => {
  const counts = fc.array(fc.nat(400), { minLength: 1, maxLength: 4 }).filter((u) => u.some((n) => n > 0));
  fc.assert(
    fc.property(counts, fc.double({ min: 0, max: 0.999, noNaN: true }), (wanted, share) => {
      const whole = wanted.reduce((a, n) => a + n, 0);
      const enough = (units: readonly number[]): boolean => units.reduce((a, n) => a + n, 0) <= whole * share;
      const most = Math.max(...wanted);
      const got = mostUnits(wanted, enough);
      const at = (n: number): number[] => wanted.map((u) => Math.floor((u * n) / most));
      const n = got ? Array.from({ length: most }, (_, i) => i).findLast((i) => String(at(i)) === String(got))! : 0;
      if (got) expect(enough(got) && got.some((u) => u > 0)).toBe(true);
      expect(n + 1 < most && enough(at(n + 1))).toBe(false);
    }),
  );
});
