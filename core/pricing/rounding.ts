/**
 * Prices people can pay with the coins in their pocket.
 */
import { CENT, micros, type Micros } from "../measure/exact.ts";

/** A price point repeats every `step`, `ending` above a multiple of it; all in micros. */
export interface PointRule {
  label: string;
  step: Micros;
  ending: Micros;
}

const cents = (n: number): Micros => micros(n * CENT);

export const PRICE_POINTS = {
  whole: { label: "whole units", step: cents(100), ending: cents(0) },
  half: { label: "halves", step: cents(50), ending: cents(0) },
  tenth: { label: "tenths", step: cents(10), ending: cents(0) },
  ninety: { label: "ending in .90", step: cents(100), ending: cents(90) },
  cent: { label: "to the cent", step: cents(1), ending: cents(0) },
} as const satisfies Record<string, PointRule>;
export type PricePoint = keyof typeof PRICE_POINTS;

/**
 * The nearest price point, ties upward, or the next one that isn't below, or above; never below the lowest one above zero.
 * @example roundToPoint(micros(7_430_000), "half") // 7.50
 * @example roundToPoint(micros(7_130_000), "half", "up") // 7.50
 * @example roundToPoint(micros(7_430_000), "half", "down") // 7.00
 */
export function roundToPoint(price: Micros, point: PricePoint, to: "near" | "up" | "down" = "near"): Micros {
  const { step, ending } = PRICE_POINTS[point];
  const lowest = ending > 0 ? ending : step;
  const steps = (price - ending) / step;
  const whole = { near: Math.floor(steps + 0.5), up: Math.ceil(steps), down: Math.floor(steps) }[to];
  return micros(Math.max(lowest, whole * step + ending));
}
