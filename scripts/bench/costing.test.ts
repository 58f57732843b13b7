/** Whole unit costs against a general-purpose spreadsheet engine (HyperFormula, from the registry) with the same sums wired by hand. */
import { expect, it } from "vitest";
import { anotherPrice, bothWays, everything, pricesOf } from "./costing.ts";

it("a unit of a recipe costs what a spreadsheet says, to the micro, at whatever prices, and after one has changed", () => {
  const both = bothWays(60, pricesOf(0));
  for (const round of [1, 2, 3]) {
    const prices = pricesOf(round);
    expect(both.ours(everything(prices))).toEqual(both.theirs(prices));
    const one = anotherPrice(prices, round);
    const before = both.ours(everything(prices)).slice();
    const after = both.oursOfSome(one.lots);
    expect(after).toEqual(both.theirsOfOne(one.prices, round));
    expect(after).not.toEqual(before);
  }
  both.close();
});
