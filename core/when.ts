/**
 * Days without a clock: plain ISO dates ("2026-11-25"), passed in by the caller. Strings sort as dates do.
 */
import { addDays as add, addMonths as addMonthsTo, differenceInCalendarDays, format, getDayOfYear, isValid, parse, previousSaturday } from "date-fns";
import { done, refuse, type Outcome } from "./outcome.ts";

/** An ISO calendar date, yyyy-mm-dd. */
export type Day = string;

const PLAIN = "yyyy-MM-dd";
const read = (day: Day): Date => parse(day, PLAIN, new Date(2000, 0, 1));
const write = (d: Date): Day => format(d, PLAIN);

/** @example addDays("2026-02-27", 2) // "2026-03-01" */
export const addDays = (day: Day, n: number): Day => write(add(read(day), n));
/** Ends of months hold: @example addMonths("2026-01-31", 1) // "2026-02-28" */
export const addMonths = (day: Day, n: number): Day => write(addMonthsTo(read(day), n));
/** Whole days from a to b; negative when b is earlier. @example daysBetween("2026-01-01", "2026-01-03") // 2 */
export const daysBetween = (a: Day, b: Day): number => differenceInCalendarDays(read(b), read(a));
/** The last Saturday on or before a day: when markets are held. @example saturdayBefore("2026-11-25") // "2026-11-21" */
export const saturdayBefore = (day: Day): Day => write(previousSaturday(add(read(day), 1)));
/** @example dayOfYear("2026-02-01") // 32 */
export const dayOfYear = (day: Day): number => getDayOfYear(read(day));

/**
 * Checks a typed date.
 * @returns problem `notDate` for anything that isn't a day of the calendar between 2000 and 2100
 * @example readDay("2026-02-30") // problem
 */
export function readDay(text: string): Outcome<Day> {
  const d = read(text.trim());
  const year = d.getFullYear();
  return /^\d{4}-\d{2}-\d{2}$/.test(text.trim()) && isValid(d) && year >= 2000 && year < 2100
    ? done(text.trim())
    : refuse("notDate", `“${text}” isn't a date. Write it as year-month-day, like 2026-11-25.`);
}

/** As people say it: weekday, day, month; the year when it isn't this one. @example sayDay("2026-12-14", "2026-11-25") // "Mon 14 Dec" */
export const sayDay = (day: Day, today: Day): string =>
  format(read(day), day.slice(0, 4) === today.slice(0, 4) ? "EEE d MMM" : "d MMM yyyy");
/** @example sayFullDay("2026-12-14") // "Monday 14 December 2026" */
export const sayFullDay = (day: Day): string => format(read(day), "EEEE d MMMM yyyy");
