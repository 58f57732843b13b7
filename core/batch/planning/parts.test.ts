/** Parts of a pot: what each takes, how shares are read, and what of a part's scent is too much. */
import { mg } from "#core/measure/exact";
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { tooMuchScent } from "../../scent/tooMuch.ts";
import { ladled, MOST_STIRRED_IN, partTotal, readMeasure, scentsOfPart, shareOf, shareText, additionWeight } from "./parts.ts";

const shares = fc.array(fc.integer({ min: 1, max: 80_000 }), { minLength: 1, maxLength: 4 });

describe("a part", () => {
  it("is base and what is stirred in, to the milligram, and fills its units after what stays in the jug", () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 300 }),
        fc.integer({ min: 1000, max: 500_000 }),
        fc.integer({ min: 0, max: 3000 }),
        shares,
        (units, fill, lossBp, ppm) => {
          const total = partTotal(units, mg(fill), lossBp);
          const additions = ppm.map((s) => additionWeight(total, s));
          const base = ladled(total, additions);
          expect(base + additions.reduce((a, m) => a + m, 0)).toBe(total);
          expect(total * (1 - lossBp / 10_000)).toBeGreaterThanOrEqual(units * fill - 1e-6);
          expect(base).toBeGreaterThan(0);
          additions.forEach((a, i) => expect(Math.abs(a - (total * ppm[i]!) / 1e6)).toBeLessThanOrEqual(1));
        },
      ),
    );
  });
  const asShare = (text: string, total = mg(300_000)) => {
    const measure = readMeasure(text);
    return measure.ok ? shareOf(measure.value, total) : measure;
  };
  it("takes a share as it is said, in per cent or for this part, and says it again alike", () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: MOST_STIRRED_IN }), (ppm) => {
        expect(asShare(shareText(ppm), mg(1))).toEqual({ ok: true, value: ppm });
      }),
    );
  });
  it.each([
    ["2 %", 20_000],
    ["2", 20_000],
    ["6 g", 20_000],
    ["1/4 %", 2500],
    ["0.25 oz", 23_623], // 1 oz = 28.349 523 125 g, NIST SP 811
  ])("%s of 300 g", (text, value) => expect(asShare(text)).toEqual({ ok: true, value }));
  it.each([[""], ["0 %"], ["40 %"], ["200 g"], ["a pinch"]])("%s isn't taken", (text) => expect(asShare(text).ok).toBe(false));
});

describe("a scent in a part", () => {
  const oil = (name: string, libraryKey: string | null, grams: number) => ({
    name,
    libraryKey,
    weight: mg(grams * 1000),
    lots: [],
    short: false,
  });
  it("is said where it is too much, of an oil before all of them, and not where it isn't", () => {
    const said = (lines: ReturnType<typeof oil>[], whom: "anyone" | "children" = "anyone") =>
      tooMuchScent(lines, mg(100_000), "hands", whom).map((t) => [t.by, t.gravity, t.of]);
    expect(said([oil("Lavender", null, 2.5)])).toEqual([]);
    expect(said([oil("Lavender", null, 4)])).toEqual([["use", 2, ["Lavender"]]]);
    expect(said([oil("Lavender", null, 2.5)], "children")).toEqual([["use", 3, ["Lavender"]]]);
    expect(said([oil("Clove bud", "eo-clove-bud", 0.6), oil("Lavender", null, 1)])).toEqual([["oil", 3, ["Clove bud"]]]);
    expect(said([])).toEqual([]);
  });
  it("is the pot's share of what is ladled out, and what is stirred in: a third of the pot has a third of its scent", () => {
    const part = scentsOfPart([oil("Clove bud", "eo-clove-bud", 0.9)], mg(300_000), mg(100_000), [oil("Lavender", null, 1)]);
    expect(part.map((l) => [l.name, l.weight])).toEqual([
      ["Clove bud", 300],
      ["Lavender", 1000],
    ]);
  });
});
