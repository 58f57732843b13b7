/**
 * Scaling a recipe, and what a real scale can weigh of it.
 */
import { allocate, mg, mulDiv, type Mg } from "../measure/exact.ts";

/**
 * The same recipe at another batch weight; the lines add up to it exactly.
 * @param weights what each line weighs in the recipe as written, not all zero
 * @example scaleTo([mg(1000), mg(3000)], mg(8000)) // [2000, 6000]
 */
export const scaleTo = (weights: readonly Mg[], total: Mg): Mg[] => allocate(total, weights).map(mg);

/**
 * Batch weight at which one line uses up exactly what there is of it.
 * @param line weight of that line in the recipe as written, > 0
 * @example totalForLine(mg(4000), mg(1000), mg(1500)) // 6000
 */
export const totalForLine = (total: Mg, line: Mg, available: Mg): Mg => mg(mulDiv(total, available, line));

export interface Readable {
  /** Nearest weight the scale can show. */
  weight: Mg;
  /** Below half of the scale's step: it can't be weighed at all. */
  outOfReach: boolean;
  /** How far rounding moves it, as a share of the line: 0.02 is 2 % more. */
  shift: number;
}

/**
 * Rounds a weight to what the scale reads.
 * @param step the scale's reading step in mg (1 g kitchen scale: 1000)
 * @example onScale(mg(3250), mg(100)) // { weight: 3300, outOfReach: false, shift: 0.015 }
 */
export function onScale(weight: Mg, step: Mg): Readable {
  const rounded = mg(mulDiv(weight, 1, step) * step);
  return { weight: rounded, outOfReach: rounded === 0 && weight > 0, shift: weight > 0 ? (rounded - weight) / weight : 0 };
}

export interface FillPlan {
  /** Whole units that can be filled. */
  units: number;
  /** Expected to stay in pot and jug. */
  potLoss: Mg;
  /** Left in the jug after the last full unit. */
  leftover: Mg;
}

/**
 * How many units a batch fills and what is left over.
 * @param lossBp expected loss in basis points (200 is 2 %); 0 ≤ lossBp < 10 000
 * @param fill what one unit is filled with, > 0
 * @example fillPlan(mg(1_000_000), mg(60_000), 200) // { units: 16, potLoss: 20 g, leftover: 20 g }
 */
export function fillPlan(batch: Mg, fill: Mg, lossBp: number): FillPlan {
  const potLoss = mg(mulDiv(batch, lossBp, 10_000));
  const usable = batch - potLoss;
  const units = Math.floor(usable / fill);
  return { units, potLoss, leftover: mg(usable - units * fill) };
}

/**
 * The smallest batch that fills so many units after the expected loss.
 * @example batchFor(16, mg(60_000), 200) // 979 592 mg
 */
export function batchFor(units: number, fill: Mg, lossBp: number): Mg {
  let batch = Math.ceil((units * fill * 10_000) / (10_000 - lossBp));
  while (fillPlan(mg(batch), fill, lossBp).units < units) batch++;
  return mg(batch);
}
