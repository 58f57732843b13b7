/** The days an account is for: a year as a rule, from its first day to its last. */
import type { Day } from "../when.ts";

export interface Period {
  from: Day;
  to: Day;
}

/** @example calendarYear("2026") // { from: "2026-01-01", to: "2026-12-31" } */
export const calendarYear = (year: string): Period => ({ from: `${year}-01-01`, to: `${year}-12-31` });

/** The calendar years that days of a span are in, newest first. @example yearsOf({ from: "2025-03-01", to: "2026-12-01" }) // ["2026", "2025"] */
export const yearsOf = ({ from, to }: Period): string[] => {
  const [first, last] = [Number(from.slice(0, 4)), Number(to.slice(0, 4))];
  return Array.from({ length: last - first + 1 }, (_, i) => String(last - i));
};
