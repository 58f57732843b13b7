/** What is melted in again, as it was typed. */
import { mg } from "#core/measure/exact";
import { expect, it } from "vitest";
import { meltedOf, rowsMissing, takesOf, type Base } from "./meltIn.tsx";

const base = (lotId: number): Base => ({ lotId, number: `R${lotId}`, materialId: 100 + lotId, name: `Base ${lotId}` });

it("stays with its own lot, whatever bases came or went since the sheet was begun; what can't be read is nothing yet", () => {
  const typed = [
    { lot: "7", amount: "120 g" },
    { lot: "8", amount: "" },
    { lot: "9", amount: "some" },
    { lot: "10", amount: "1 oz" },
  ];
  const found = (bases: readonly Base[]) => meltedOf(bases, typed).map((m) => [m.lotId, m.weight]);
  // 1 oz is 28.349 523 125 g: NIST SP 811, Appendix B.8.
  expect(found([7, 8, 9, 10].map(base))).toEqual([
    [7, 120_000],
    [10, 28_350],
  ]);
  expect(found([6, 8, 10].map(base))).toEqual([[10, 28_350]]);
  expect(rowsMissing([6, 8, 10].map(base), typed)).toEqual([{ lot: "6", amount: "" }]);
});

it("comes out of its own lot, and says by how much that is short", () => {
  const melted = { ...base(7), weight: mg(120_000) };
  expect(takesOf(melted, 200_000)).toEqual({ takes: [{ lotId: 7, amount: 120_000 }], short: 0 });
  expect(takesOf(melted, 50_000)).toEqual({ takes: [{ lotId: 7, amount: 50_000 }], short: 70_000 });
  expect(takesOf(melted, 0)).toEqual({ takes: [], short: 120_000 });
});
