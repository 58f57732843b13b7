/** The warning that Today shows about backups: none while all is well. */
import { daysBetween, type Day } from "../when.ts";

/** So many days without a look at the backups are too many: a week's work would be lost. */
const TOO_LONG_DAYS = 7;

export interface BackupsToday {
  /** When the newest was made, such as `2026-12-01T07:12:30`; null where there is none. */
  made: string | null;
  /** When it was last seen to be as the books are. */
  lookedAt: string | null;
  /** Why the last one failed. */
  trouble: string | null;
}

/**
 * A warning, or null where all is well.
 * @example backupWarning({ made: null, lookedAt: null, trouble: null }, "2026-12-01") // "There is no backup of these books yet."
 * @example backupWarning({ made: "2026-11-20T07:12:30", lookedAt: null, trouble: null }, "2026-12-01") // "The last backup was made 11 days ago."
 * @example backupWarning({ made: "2026-11-20T07:12:30", lookedAt: "2026-11-24T07:00:00", trouble: null }, "2026-12-01") // null
 * @example backupWarning({ made: "2026-11-30T07:12:30", lookedAt: null, trouble: "The disk is full." }, "2026-12-01") // "The last backup failed. The disk is full."
 * @example backupWarning({ made: "2026-11-30T07:12:30", lookedAt: "2026-12-01T07:00:00", trouble: null }, "2026-12-01") // null
 */
export function backupWarning({ made, lookedAt, trouble }: BackupsToday, today: Day): string | null {
  if (trouble !== null) return `The last backup failed. ${trouble}`;
  if (made === null) return "There is no backup of these books yet.";
  const seen = lookedAt !== null && lookedAt > made ? lookedAt : made;
  const days = daysBetween(seen.slice(0, 10), today);
  return days > TOO_LONG_DAYS ? `The last backup was made ${days} days ago.` : null;
}

const HOUR_MS = 3_600_000;

/**
 * Whether it is time to look for a backup again: an hour after the last look. A clock that was set back counts as time gone by.
 * @param lookedAt when that was, by the same clock as `now`; null for never
 * @example backupIsDue("2026-12-01T07:12:30", "2026-12-01T08:00:00") // false
 * @example backupIsDue("2026-12-01T07:12:30", "2026-12-01T08:12:30") // true
 * @example backupIsDue("2031-01-01T00:00:00", "2026-12-01T08:12:30") // true
 */
export const backupIsDue = (lookedAt: string | null, now: string): boolean =>
  lookedAt === null || !(Math.abs(Date.parse(now) - Date.parse(lookedAt)) < HOUR_MS);
