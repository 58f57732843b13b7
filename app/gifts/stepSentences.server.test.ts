/** What an order still needs, each as a sentence that leads to where it is done. */
import { mg } from "#core/measure/exact";
import type { NamedStep } from "#db/gifts/begin";
import { expect, it } from "vitest";
import { stepSentences } from "./stepSentences.server.ts";

const BY = "2026-12-01";
const step = (s: object): NamedStep =>
  ({ name: "Rose salve", measured: "count", how: "", late: false, amount: 12, by: BY, ...s }) as NamedStep;
const oil = { name: "Rose oil", measured: "weight", amount: mg(1_800_000), materialId: 5 };

it.each<[object, string, string, string]>([
  [{ does: "pour", batchId: 3, productId: 9 }, "/bench/3", "Pour 12 × Rose salve: set out already", "pour by"],
  [{ does: "make", recipeId: 4, productId: 9 }, "/bench/set-out?recipe=4&size=9&units=12", "Make 12 × Rose salve", "pour by"],
  [{ does: "instead", productId: 9 }, "/gifts/7", "12 × Rose salve is no longer made: choose another", "by"],
  [{ ...oil, does: "strain", jarId: 2, from: "2026-11-20" }, "/jars/2#strain", "Strain 1.8 kg Rose oil", "by"],
  [{ ...oil, does: "fill", method: "sun" }, "/jars/fill?makes=5", "Fill a jar for 1.8 kg Rose oil", "fill by"],
  [{ ...oil, does: "await" }, "/shelf/5", "1.8 kg Rose oil is still to come", "here by"],
  [{ does: "buy", materialId: 5, name: "Tin", amount: 35 }, "/shelf/5/buying", "Buy 35 pcs Tin", "order by"],
])("%j leads to %s", (s, to, what, by) => {
  expect(stepSentences([step(s)], 7)).toEqual([{ to, what, by, day: BY, late: false, how: "", from: null }]);
  // One that is late says so before its day.
  expect(stepSentences([step({ ...s, late: true })], 7)[0]).toMatchObject({ by: `late: ${by}`, late: true });
});

it("says how a jar is steeped, and from when one can be strained where that is later than it should be", () => {
  expect(stepSentences([step({ ...oil, does: "fill", how: "by the sun" })], 7)[0]!.how).toBe(" (by the sun)");
  const strain = { ...oil, does: "strain", jarId: 2 };
  expect(stepSentences([step({ ...strain, from: "2026-12-02" })], 7)[0]).toMatchObject({
    from: "2026-12-02",
    how: ", ready at the earliest ",
  });
  expect(stepSentences([step({ ...strain, from: BY })], 7)[0]).toMatchObject({ from: null, how: "" });
});
