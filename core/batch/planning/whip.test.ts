/** Air in a whipped butter: by a cup of it, and what it does to a jar filled as high as was planned. */
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { mg } from "../../measure/exact.ts";
import { filledAs, overrunOf, sayFilled, sayLeft } from "./whip.ts";

const weight = fc.integer({ min: 20_000, max: 900_000 }).map(mg);

describe("air", () => {
  it("is what makes the same weight take more room: a cup before is a cup after and its air", () => {
    fc.assert(
      fc.property(weight, fc.integer({ min: 0, max: 15_000 }), (before, bp) => {
        const after = mg(Math.round(before / (1 + bp / 10_000)));
        expect(overrunOf(before, after)).toBeCloseTo(bp / 10_000, 3);
        expect(overrunOf(after, before)).toBe(0);
      }),
    );
  });
  it("more of it leaves less in a jar of one height, as planned leaves it as it was, and what is said follows", () => {
    fc.assert(
      fc.property(weight, fc.integer({ min: 0, max: 10_000 }), fc.integer({ min: 0, max: 10_000 }), (fill, planned, was) => {
        const holds = filledAs(fill, planned, was / 10_000);
        expect(Math.sign(holds - fill)).toBe(Math.abs(holds - fill) === 0 ? 0 : Math.sign(planned - was));
        const said = sayFilled("120 g", fill, holds);
        expect(said === null).toBe(Math.abs(holds - fill) <= fill / 100);
        if (said) expect(said).toContain(holds < fill ? "less than its label says" : "more than its label says");
      }),
    );
  });
  it("what is left over is the pot less what the jars hold by then, and is said in jars", () => {
    const jars = [
      { label: "120 g", units: 8, fill: mg(120_000) },
      { label: "60 g", units: 0, fill: mg(60_000) },
    ];
    // 960 g planned at 40 % air: at half as much again the jars of that height hold 112 g each, 896 g of it.
    expect(sayLeft(mg(990_000), jars, 4_000, 0.5)).toBe("Filled as high as planned, the jars take 896 g: 94 g is left over.");
    expect(sayLeft(mg(1_010_000), jars, 4_000, 0.5)).toContain("114 g is left over, enough for 1 × 120 g more.");
    // With less air they take more than there is.
    expect(sayLeft(mg(990_000), jars, 4_000, 0.2)).toMatch(/take 1\s?120 g: 130 g more than there is/);
    expect(sayLeft(mg(990_000), jars, 4_000, 0.4)).toBeNull();
    expect(sayLeft(mg(990_000), [], 4_000, 0.5)).toBeNull();
  });
  it("an 8 fl oz jar then holds well under 8 oz by weight", () => {
    // 236.6 mL of a butter of 0.92 g/mL; whipped by half (common practice, no source).
    expect(filledAs(mg(217_700), 0, 0.5)).toBeLessThan(226_796 * 0.66);
  });
});
