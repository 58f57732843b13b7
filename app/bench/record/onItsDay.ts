/** Whether the hour something was put down at is the hour it was done. */
import type { Day } from "#core/when";

const DAY_MS = 86_400_000;

/** Put down another day than it was done, the hour is of the putting down. Whose midnight it was nobody knows: half a day either way. */
export const onItsDay = (day: Day, at: Date | string | null): boolean =>
  at !== null && Math.abs(new Date(at).getTime() - Date.parse(`${day}T12:00Z`)) < DAY_MS;
