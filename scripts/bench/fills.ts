/**
 * What a pot fills at best, by the solver the page asks: how long it takes for a kitchen's pot and for ever larger ones, how far what it found
 * is from its own bound, and what it leaves beside the plain rule of the largest first.
 */
import { planFill, type FillAsk, type FillSize } from "#core/fill/fill";
import type { Solve } from "#core/fill/wholeNumbers";
import { mg } from "#core/measure/exact";
import { writeNumber } from "#core/numbers";
import { solverOf } from "#app/recipes/fill/solver.ts";
import loadHighs from "highs";
import { median } from "./measure.ts";

const ROUNDS = 5;
const FILLS = [60, 28.4, 11.2, 92.3, 14.7, 4.4, 113.8, 45.1, 8.9, 33.3];
const POTS: readonly [kilos: number, sizes: number][] = [
  [0.5, 2],
  [1, 3],
  [5, 5],
  [20, 7],
  [50, 10],
];

const sizesOf = (n: number): FillSize[] =>
  FILLS.slice(0, n).map((grams, i) => ({ fill: mg(Math.round(grams * 1000)), wished: null, packaging: [{ of: i % 3, pieces: 1 }] }));

export async function benchFills(): Promise<void> {
  console.log(
    "\nWhat a pot fills with the least left over, in milliseconds; how far from the solver's bound; left, beside the first size first",
  );
  const solve = solverOf(await loadHighs());
  let apart = 0;
  const watched: Solve = (question) => {
    const found = solve(question);
    if (found) apart = Math.max(apart, found.cost - found.bound);
    return Promise.resolve(found);
  };
  for (const [kilos, sizes] of POTS) {
    const lids = Math.ceil(kilos * 40);
    const ask: FillAsk = {
      usable: mg(Math.round(kilos * 980_123)),
      sizes: sizesOf(sizes),
      onHand: new Map([0, 1, 2].map((of) => [of, lids])),
      by: "least",
    };
    const took: number[] = [];
    apart = 0;
    for (let i = 0; i < ROUNDS; i++) {
      const began = performance.now();
      await planFill(ask, watched);
      took.push(performance.now() - began);
    }
    const [best, first] = [await planFill(ask, watched), await planFill({ ...ask, by: "first" }, watched)];
    const left = (plan: typeof best): string => (plan ? `${writeNumber(plan.left / 1000, 2, 2)} g` : "—");
    console.log(
      `  ${kilos} kg into ${sizes} sizes: ${median(took).toFixed(0)} ms, ${apart.toFixed(1)} mg from its bound; ${left(best)} beside ${left(first)}`,
    );
  }
}
