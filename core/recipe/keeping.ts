/**
 * How long what is made of a recipe today would keep, and what cuts it short: never longer than the shortest-lived lot in it. Salves and
 * balms keep 9 to 12 months, six once they are opened (common practice, no source).
 */
import { addMonths, daysBetween, type Day } from "../when.ts";

/** Months it keeps once the lid was off; common practice, no source. */
export const OPENED_MONTHS = 6;

export interface KeepsLine {
  name: string;
  /** Months a new one keeps unopened; null where nobody has said. */
  keepsSealed: number | null;
  /** The lots it would be made of now; none where it has to be bought. */
  lots: readonly { number: string; bestBefore: Day | null }[];
  /** Whether some of it has to be bought. */
  short: boolean;
}

export interface Weak {
  name: string;
  /** The lot; null for one still to be bought. */
  number: string | null;
  day: Day;
}

export interface KeepingOf {
  day: Day;
  /** Whole months from today. */
  months: number;
  /** What would cut it short, soonest first, each material once: by the soonest of what is taken of it. */
  weak: Weak[];
}

/** Whole months by the calendar; none for a day that is past. @example monthsUntil("2026-11-27", "2027-05-27") // 6 */
export function monthsUntil(today: Day, day: Day): number {
  // A month has 31 days at most, so that this is never too many.
  let months = Math.max(0, Math.floor(daysBetween(today, day) / 31));
  while (addMonths(today, months + 1) <= day) months++;
  return months;
}

/**
 * @param keepsMonths how long the product keeps when everything in it does
 * @example keepingOf([{ name: "Rosehip", keepsSealed: 9, lots: [{ number: "R7", bestBefore: "2027-02-01" }], short: false }], "2026-11-27", 12).day // "2027-02-01"
 */
export function keepingOf(lines: readonly KeepsLine[], today: Day, keepsMonths: number): KeepingOf {
  const usual = addMonths(today, keepsMonths);
  const soonest = new Map<string, Weak>();
  const weaken = (w: Weak): void => {
    const was = soonest.get(w.name);
    if (w.day < usual && (!was || w.day < was.day)) soonest.set(w.name, w);
  };
  for (const { name, keepsSealed, lots, short } of lines) {
    for (const { number, bestBefore } of lots) if (bestBefore !== null) weaken({ name, number, day: bestBefore });
    if (short && keepsSealed !== null) weaken({ name, number: null, day: addMonths(today, keepsSealed) });
  }
  const weak = [...soonest.values()].sort((a, b) => (a.day < b.day ? -1 : a.day > b.day ? 1 : 0));
  const day = weak[0]?.day ?? usual;
  return { day, months: monthsUntil(today, day), weak };
}
