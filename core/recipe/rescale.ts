/**
 * A recipe made larger or smaller: what each line weighs then, what the workshop's scale makes of it, what rounding does to the shares, and
 * the smallest batch of which every line can still be weighed.
 */
import { mg, sum, type Mg } from "../measure/exact.ts";
import { leastBatch, MOVED, onScale, scaleTo, type Reading, type Scale } from "./scale.ts";

export interface Rescaled {
  /** Exactly. */
  weight: Mg;
  /** As the scale reads it. */
  reading: Reading;
  /** Of the batch as it is written, and as it comes out when every line is weighed to the scale's reading. */
  share: number;
  shareThen: number;
  /** Rounding moves it by more than it may. */
  unsure: boolean;
}

export interface Rescale {
  lines: Rescaled[];
  /** All lines, as they are weighed. */
  total: Mg;
  /** The smallest batch every line of which is weighed within what it may be off; null where all of this one are. */
  least: Mg | null;
}

/**
 * @param weights what each line weighs as written, not all nought
 * @example rescale([mg(90_000), mg(10_000)], mg(50_000), { unit: "g", step: 1000 }).lines.map((l) => l.reading.steps) // [45, 5]
 */
export function rescale(weights: readonly Mg[], total: Mg, scale: Scale): Rescale {
  const whole = sum(weights);
  const exact = scaleTo(weights, total);
  const readings = exact.map((w) => onScale(w, scale));
  const weighed = sum(readings.map((r) => r.weight));
  const lines = exact.map((weight, i) => {
    const reading = readings[i]!;
    const share = weights[i]! / whole;
    return { weight, reading, share, shareThen: weighed > 0 ? reading.weight / weighed : 0, unsure: Math.abs(reading.shift) > MOVED };
  });
  const smallest = mg(Math.min(...weights.filter((w) => w > 0)));
  return { lines, total: weighed, least: lines.some((l) => l.unsure) ? leastBatch(whole, smallest, scale) : null };
}
