/** Whole unit costs against a general-purpose spreadsheet engine (HyperFormula, from the registry) with the same sums wired by hand. */
import { expect, it } from "vitest";
import { bothWays, pricesOf } from "./costing.ts";

it("a unit of a recipe costs what a spreadsheet says, to the micro, at whatever prices", () => {
  const { ours, theirs, close } = bothWays(60);
  for (const round of [1, 2, 3]) {
    const { lots, cells } = pricesOf(round);
    expect(ours(lots)).toEqual(theirs(cells));
  }
  close();
});
