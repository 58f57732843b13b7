/** Amounts as every screen writes them: never without their unit. */
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { percent, showBase, showInColumn } from "./amounts.tsx";

describe("amounts", () => {
  it.each<[number, "weight" | "count", string, string]>([
    [0, "count", "0 pcs", "0 pcs"],
    [1250, "count", "1\u202f250 pcs", "1\u202f250 pcs"],
    [450, "weight", "0.45 g", "0.5 g"],
    [56_699, "weight", "56.7 g", "56.7 g"],
    [999_999, "weight", "1\u202f000 g", "1\u202f000.0 g"],
    [2_440_000, "weight", "2.44 kg", "2\u202f440.0 g"],
  ])("%i by %s", (n, measured, alone, inColumn) => {
    expect(showBase(n, measured)).toBe(alone);
    expect(showInColumn(n, measured)).toBe(inColumn);
  });
  it("always end in their unit, and a column always has one decimal", () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 900_000_000 }), (n) => {
        expect(showBase(n, "weight")).toMatch(/^\d[\d\u202f.]* (g|kg)$/);
        expect(showInColumn(n, "weight")).toMatch(/^\d[\d\u202f]*\.\d g$/);
        expect(showBase(n, "count")).toMatch(/^\d[\d\u202f]* pcs$/);
      }),
    );
  });
  it("shares", () => expect([percent(0.125), percent(0.5, 0), percent(1 / 3, 2)]).toEqual(["12.5 %", "50 %", "33.33 %"]));
});
