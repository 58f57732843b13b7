/** The one place that reads the clock. */
import type { Day } from "#core/when";
import { format } from "date-fns/format";

/** Today, by this machine's calendar. `ZELBIN_TODAY` pins it, for pictures and tests that must not change with the day. */
export const today = (): Day => process.env.ZELBIN_TODAY ?? format(new Date(), "yyyy-MM-dd");

/** This moment by this machine's calendar and clock, to the second, such as `2026-12-01T07:12:30`. */
export const now = (): string => format(new Date(), "yyyy-MM-dd'T'HH:mm:ss");
