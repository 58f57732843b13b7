/**
 * Which backups are saved: the last eight, so that a mistake that was backed up an hour later takes nothing with it; and the newest of each of the last
 * seven days that have one, of each of the last five weeks, and of each of the last twelve months. Common practice, no source.
 */
import { dayNumber, type Day } from "../when.ts";

export const RETENTION = { last: 8, days: 7, weeks: 5, months: 12 } as const;

/** A backup by the moment it was made, in any text that sorts by time and begins with its day. */
type Moment = string;

const dayOf = (moment: Moment): Day => moment.slice(0, 10);
/** Weeks begin on Monday, as ISO 8601 has it; day 0 was a Thursday. */
const weekOf = (moment: Moment): string => String(Math.floor((dayNumber(dayOf(moment)) + 3) / 7));
const monthOf = (moment: Moment): string => moment.slice(0, 7);

/** The newest of each of the last so many periods that have any. */
function newestOfEach(newestFirst: readonly Moment[], periodOf: (m: Moment) => string, most: number): Moment[] {
  const found = new Map<string, Moment>();
  for (const m of newestFirst) if (!found.has(periodOf(m))) found.set(periodOf(m), m);
  return [...found.values()].slice(0, most);
}

/**
 * Those of some backups that are of no more use.
 * @example toDrop(["2026-11-30T07:00", "2026-11-30T19:00"]) // []
 */
export function toDrop(moments: readonly Moment[]): Moment[] {
  const newestFirst = moments.toSorted().reverse();
  const saved = new Set([
    ...newestFirst.slice(0, RETENTION.last),
    ...newestOfEach(newestFirst, dayOf, RETENTION.days),
    ...newestOfEach(newestFirst, weekOf, RETENTION.weeks),
    ...newestOfEach(newestFirst, monthOf, RETENTION.months),
  ]);
  return moments.filter((m) => !saved.has(m));
}
