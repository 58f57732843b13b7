/**
 * What of the cabinet ages before it sells at the present pace: what is left of each lot on its day, when the one to sell first goes first.
 * Make only what will be sold within half of its life: common practice, no source.
 */
import { daysBetween, type Day } from "../when.ts";

/** Over so many days the pace is looked at, and before so many it is too early to say; common practice, no source. */
export const PACE_DAYS = 90;
const EARLY_DAYS = 21;

/**
 * Units a day.
 * @param sold in the last `PACE_DAYS` @param since the day the first of it was made
 * @returns null where it is too early to say
 * @example paceOf(30, "2026-01-01", "2026-11-28") // 1 / 3
 */
export function paceOf(sold: number, since: Day, today: Day): number | null {
  const days = Math.min(PACE_DAYS, daysBetween(since, today));
  return days < EARLY_DAYS ? null : sold / days;
}

interface Standing {
  bestBefore: Day | null;
  onHand: number;
}

/**
 * How many are left on their day, of lots that aren't past it, sold one after the other, soonest day first.
 * @param perDay units a day
 * @example agesUnsold([{ bestBefore: "2026-12-08", onHand: 30 }], 2, "2026-11-28") // 10
 */
export function agesUnsold(lots: readonly Standing[], perDay: number, today: Day): number {
  const inOrder = lots
    .filter((l) => l.bestBefore !== null && l.bestBefore >= today)
    .sort((a, b) => (a.bestBefore! < b.bestBefore! ? -1 : 1));
  let gone = 0;
  let left = 0;
  for (const l of inOrder) {
    // What goes until its day, less what went of those before it.
    const sells = Math.max(0, Math.floor(perDay * Math.max(0, daysBetween(today, l.bestBefore!)) + 1e-9) - gone);
    const goes = Math.min(l.onHand, sells);
    gone += goes;
    left += l.onHand - goes;
  }
  return left;
}

/** A pace in words. @example sayPace(1 / 3) // "Sells 2.3 a week" */
export const sayPace = (perDay: number): string => {
  const week = perDay * 7;
  return week === 0 ? "None sold of late" : week < 0.95 ? `Sells ${(perDay * 30).toFixed(1)} a month` : `Sells ${week.toFixed(1)} a week`;
};
