/**
 * Scaling a recipe, what a real scale can weigh of it, and how many units of which sizes a pot fills.
 */
import { allocate, mg, mulDiv, type Mg } from "../measure/exact.ts";
import { writeNumber } from "../numbers.ts";

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

/** A scale by its unit and what it reads to, in thousandths of that unit: 100 is 0.1 g, or 0.1 oz. */
export interface Scale {
  unit: "g" | "oz";
  step: number;
}
export const SCALE_STEPS = { g: [1000, 100, 10], oz: [100, 50, 10, 5] } as const satisfies Record<Scale["unit"], readonly number[]>;

/** An ounce is 28 349.523 125 mg (NIST SP 811, Appendix B.8), here in billionths of a gram. */
const UNIT = { g: { n: 1, d: 1 }, oz: { n: 28_349_523_125, d: 1_000_000_000 } } as const;

export interface Reading {
  /** What the scale shows, in whole steps. */
  steps: number;
  weight: Mg;
  /** Below half of the scale's step: it can't be weighed at all. */
  outOfReach: boolean;
  /** How far rounding moves it, as a share of the line: 0.02 is 2 % more. */
  shift: number;
}

/** What so many steps of a scale weigh. @example ofSteps(35, { unit: "g", step: 100 }) // 3500 mg */
export const ofSteps = (steps: number, scale: Scale): Mg => mg(mulDiv(steps * scale.step, UNIT[scale.unit].n, UNIT[scale.unit].d));

/**
 * Rounds a weight to what the scale reads.
 * @example onScale(mg(3250), { unit: "g", step: 100 }) // { steps: 33, weight: 3300, outOfReach: false, shift: 50 / 3250 }
 */
export function onScale(weight: Mg, scale: Scale): Reading {
  const { n, d } = UNIT[scale.unit];
  const steps = mulDiv(weight, d, n * scale.step);
  const rounded = ofSteps(steps, scale);
  return { steps, weight: rounded, outOfReach: steps === 0 && weight > 0, shift: weight > 0 ? (rounded - weight) / weight : 0 };
}

/** Further off than this by rounding, a line changes the recipe: a tenth. Common practice, no source. */
export const MOVED = 0.1;

/**
 * The smallest batch in which a line is weighed within what rounding may move it.
 * @param line what it weighs in a batch of `total`, > 0
 * @example leastBatch(mg(100_000), mg(100), { unit: "g", step: 100 }) // 500 g
 */
export const leastBatch = (total: Mg, line: Mg, scale: Scale): Mg =>
  // Half a step is a tenth of five.
  mg(mulDiv(total, ofSteps(Math.ceil(0.5 / MOVED), scale), line));

/** A reading as the scale shows it. @example showSteps(47, { unit: "oz", step: 50 }) // "2.35 oz" */
export function showSteps(steps: number, scale: Scale): string {
  const decimals = scale.step >= 1000 ? 0 : scale.step >= 100 ? 1 : scale.step >= 10 ? 2 : 3;
  return `${writeNumber((steps * scale.step) / 1000, decimals, decimals)} ${scale.unit}`;
}

/** The step itself. @example showScale({ unit: "g", step: 100 }) // "0.1 g" */
export const showScale = (scale: Scale): string => showSteps(1, scale);

/** A size in a pot: what one is filled with, and how many are wanted; null for as many as there is left for. */
export interface Wanted {
  fill: Mg;
  units: number | null;
}

export interface MixPlan {
  /** Whole units of each size, in order. */
  units: number[];
  /** Expected to stay in pot and jug. */
  potLoss: Mg;
  /** Left in the jug after the last full unit; below zero when more was wanted than there is. */
  leftover: number;
}

/**
 * What a batch fills: the counts that are wanted first, then as many of the first open size as there is left for, then of the next.
 * @param lossBp expected loss in basis points (200 is 2 %); 0 ≤ lossBp < 10 000
 * @example fillMix(mg(1_000_000), 0, [{ fill: mg(60_000), units: null }, { fill: mg(10_000), units: null }]).units // [16, 4]
 */
export function fillMix(batch: Mg, lossBp: number, sizes: readonly Wanted[]): MixPlan {
  const potLoss = mg(mulDiv(batch, lossBp, 10_000));
  let left = batch - potLoss - sizes.reduce((a, s) => a + (s.units ?? 0) * s.fill, 0);
  const units = sizes.map((s) => {
    if (s.units !== null) return s.units;
    const n = Math.max(0, Math.floor(left / s.fill));
    left -= n * s.fill;
    return n;
  });
  return { units, potLoss, leftover: left };
}

export interface FillPlan {
  /** Whole units that can be filled. */
  units: number;
  potLoss: Mg;
  leftover: Mg;
}

/**
 * How many units of one size a batch fills and what is left over.
 * @example fillPlan(mg(1_000_000), mg(60_000), 200) // { units: 16, potLoss: 20_000, leftover: 20_000 }
 */
export function fillPlan(batch: Mg, fill: Mg, lossBp: number): FillPlan {
  const { units, potLoss, leftover } = fillMix(batch, lossBp, [{ fill, units: null }]);
  return { units: units[0]!, potLoss, leftover: mg(leftover) };
}

/**
 * The smallest batch that fills a mix of sizes after the expected loss.
 * @example batchFor([{ units: 16, fill: mg(60_000) }], 200) // 979 592 mg
 */
export function batchFor(sizes: readonly { units: number; fill: Mg }[], lossBp: number): Mg {
  const filled = sizes.reduce((a, s) => a + s.units * s.fill, 0);
  return mg(Math.ceil((filled * 10_000) / (10_000 - lossBp)));
}
