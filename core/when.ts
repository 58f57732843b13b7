/**
 * Days without a clock: plain ISO dates ("2026-11-25"), passed in by the caller. Strings sort as dates do.
 */
// Each by itself: the package whole is three hundred files, read again at every start.
import { addDays as add } from "date-fns/addDays";
import { addMonths as addMonthsTo } from "date-fns/addMonths";
import { getDayOfYear } from "date-fns/getDayOfYear";
import { previousSaturday } from "date-fns/previousSaturday";
import { done, refuse, type Outcome } from "./outcome.ts";

/** An ISO calendar date, yyyy-mm-dd. */
export type Day = string;

// Reading, writing and counting days is done by hand: date-fns, driven by patterns and time zones, takes a good part of a
// page's time when a table shows two hundred of them.
const read = (day: Day): Date => new Date(Number(day.slice(0, 4)), Number(day.slice(5, 7)) - 1, Number(day.slice(8, 10)));
const write = (d: Date): Day => `${d.getFullYear()}-${String(d.getMonth() + 1).padStart(2, "0")}-${String(d.getDate()).padStart(2, "0")}`;

/** Days since 1970, by the calendar alone. */
export const dayNumber = (day: Day): number =>
  Date.UTC(Number(day.slice(0, 4)), Number(day.slice(5, 7)) - 1, Number(day.slice(8, 10))) / 86_400_000;

/** @example addDays("2026-02-27", 2) // "2026-03-01" */
export const addDays = (day: Day, n: number): Day => write(add(read(day), n));
/** Ends of months hold: @example addMonths("2026-01-31", 1) // "2026-02-28" */
export const addMonths = (day: Day, n: number): Day => write(addMonthsTo(read(day), n));
/** Whole days from a to b; negative when b is earlier. @example daysBetween("2026-01-01", "2026-01-03") // 2 */
export const daysBetween = (a: Day, b: Day): number => dayNumber(b) - dayNumber(a);
/** The last Saturday on or before a day: when markets are held. @example saturdayBefore("2026-11-25") // "2026-11-21" */
export const saturdayBefore = (day: Day): Day => write(previousSaturday(add(read(day), 1)));
/** @example dayOfYear("2026-02-01") // 32 */
export const dayOfYear = (day: Day): number => getDayOfYear(read(day));

/**
 * Checks a typed date.
 * @returns problem `empty`; `notDate` for anything that isn't a day of the calendar between 2000 and 2100
 * @example readDay("2026-02-30") // problem
 */
export function readDay(text: string): Outcome<Day> {
  const day = text.trim();
  if (day === "") return refuse("empty", "Enter a date, such as 5 Dec or tomorrow.");
  // A day the calendar hasn't got (30 February) reads as another one.
  return /^20\d{2}-\d{2}-\d{2}$/.test(day) && write(read(day)) === day
    ? done(day)
    : refuse("notDate", `“${text}” isn't a date. Write it like 5 Dec, tomorrow, in 3 weeks or 2026-11-25.`);
}

const WEEKDAYS = ["Sunday", "Monday", "Tuesday", "Wednesday", "Thursday", "Friday", "Saturday"];
const MONTHS = ["January", "February", "March", "April", "May", "June", "July", "August", "September", "October", "November", "December"];
const wordsOf = (day: Day) => ({
  weekday: WEEKDAYS[(dayNumber(day) + 4) % 7]!,
  date: Number(day.slice(8, 10)),
  month: MONTHS[Number(day.slice(5, 7)) - 1]!,
  year: day.slice(0, 4),
});

/**
 * As people say it: weekday, day, month; the year when it isn't this one.
 * @param monthFirst where the workshop writes the month before the day
 * @example sayDay("2026-12-14", "2026-11-25") // "Mon 14 Dec"
 */
export function sayDay(day: Day, today: Day, monthFirst = false): string {
  const { weekday, date, month, year } = wordsOf(day);
  const short = month.slice(0, 3);
  const said = monthFirst ? `${short} ${date}` : `${date} ${short}`;
  return year === today.slice(0, 4) ? `${weekday.slice(0, 3)} ${said}` : `${said}${monthFirst ? "," : ""} ${year}`;
}

/** @example sayFullDay("2026-12-14") // "Monday 14 December 2026" */
export function sayFullDay(day: Day): string {
  const { weekday, date, month, year } = wordsOf(day);
  return `${weekday} ${date} ${month} ${year}`;
}

/** @example sayMonth("2026-12-14") // "December 2026" */
export function sayMonth(day: Day): string {
  const { month, year } = wordsOf(day);
  return `${month} ${year}`;
}

const MINUTE = 60_000;
/** How long ago something was, as people say it. @param ms milliseconds since @example ago(7_500_000) // "2 hours ago" */
export function ago(ms: number): string {
  const say = (n: number, one: string): string => `${n} ${one}${n === 1 ? "" : "s"} ago`;
  if (ms < MINUTE) return "a moment ago";
  if (ms < 60 * MINUTE) return say(Math.floor(ms / MINUTE), "minute");
  if (ms < 24 * 60 * MINUTE) return say(Math.floor(ms / (60 * MINUTE)), "hour");
  return say(Math.floor(ms / (24 * 60 * MINUTE)), "day");
}

/** Minutes as a timer says them. @example span(135) // "2 h 15 min" */
export const span = (minutes: number): string => {
  const [h, m] = [Math.floor(minutes / 60), minutes % 60];
  return h === 0 ? `${m} min` : m === 0 ? `${h} h` : `${h} h ${m} min`;
};
