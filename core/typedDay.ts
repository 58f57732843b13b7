/**
 * Days as people type them: `5 12`, `5 dec`, `12/25/27`, `tomorrow`, `friday`, `in 3 weeks`, `aug 2027`; in the order the workshop writes
 * them, and written back the same way.
 */
import { done, refuse, type Outcome } from "./outcome.ts";
import { addDays, addMonths, daysBetween, readDay, type Day } from "./when.ts";

export const DATE_STYLES = { dmy: "5 Dec 2026", mdy: "Dec 5, 2026", ymd: "2026-12-05" } as const;
export type DateStyle = keyof typeof DATE_STYLES;
export const DATE_STYLE_IDS = Object.keys(DATE_STYLES) as DateStyle[];

/** Which year is meant where none is typed: the last such day, the next one, or the nearest. */
export type Leaning = "past" | "future" | "near";

export interface Typing {
  today: Day;
  style: DateStyle;
  leaning: Leaning;
}

const MONTHS = ["jan", "feb", "mar", "apr", "may", "jun", "jul", "aug", "sep", "oct", "nov", "dec"];
const MONTH_NAMES = ["Jan", "Feb", "Mar", "Apr", "May", "Jun", "Jul", "Aug", "Sep", "Oct", "Nov", "Dec"];
const WEEKDAYS = ["sun", "mon", "tue", "wed", "thu", "fri", "sat"];
/** A Sunday, to count weekdays from. */
const SUNDAY = "2023-01-01";

/** @example writeDay("2026-12-05", "dmy") // "5 Dec 2026" */
export function writeDay(day: Day, style: DateStyle): string {
  const [y, m, d] = day.split("-") as [string, string, string];
  const month = MONTH_NAMES[Number(m) - 1]!;
  return style === "ymd" ? day : style === "mdy" ? `${month} ${Number(d)}, ${y}` : `${Number(d)} ${month} ${y}`;
}

const dayOf = (y: number, m: number, d: number): Day | null => {
  const day = readDay(`${String(y).padStart(4, "0")}-${String(m).padStart(2, "0")}-${String(d).padStart(2, "0")}`);
  return day.ok ? day.value : null;
};
const yearOf = (text: string): number => (text.length <= 2 ? 2000 + Number(text) : Number(text));
/** Best-befores are often a month: its last day is meant. */
const endOfMonth = (y: number, m: number): Day | null => {
  const first = dayOf(y, m, 1);
  return first && addDays(addMonths(first, 1), -1);
};

/** The day of a month that is meant without its year. */
function inSomeYear(m: number, d: number, { today, leaning }: Typing): Day | null {
  const year = Number(today.slice(0, 4));
  // A leap day may be some years off.
  const days = [-4, -3, -2, -1, 0, 1, 2, 3, 4].flatMap((n) => dayOf(year + n, m, d) ?? []);
  if (leaning === "future") return days.find((x) => x >= today) ?? null;
  if (leaning === "past") return days.filter((x) => x <= today).at(-1) ?? null;
  return [...days].sort((a, b) => Math.abs(daysBetween(today, a)) - Math.abs(daysBetween(today, b)))[0] ?? null;
}

/** Two or three numbers, in the workshop's order; where that is no day of the calendar, in the other. */
function ofNumbers([a, b, c]: readonly string[], t: Typing): Day | null {
  if (a!.length === 4) return c === undefined ? endOfMonth(Number(a), Number(b)) : dayOf(Number(a), Number(b), Number(c));
  if (b!.length === 4) return endOfMonth(Number(b), Number(a));
  if (t.style === "ymd" && c !== undefined && c.length <= 2) return dayOf(yearOf(a!), Number(b), Number(c));
  const pairs = [
    [a!, b!],
    [b!, a!],
  ] as const;
  const orders = t.style === "dmy" ? [...pairs].reverse() : pairs;
  for (const [m, d] of orders) {
    const day = c === undefined ? inSomeYear(Number(m), Number(d), t) : dayOf(yearOf(c), Number(m), Number(d));
    if (day) return day;
  }
  return null;
}

const monthIn = (word: string): number => (word.length >= 3 ? MONTHS.findIndex((m) => word.startsWith(m)) + 1 : 0);

/** "5 dec", "dec 5th 2027", "december 2027". */
function ofMonthName(words: readonly string[], t: Typing): Day | null {
  const at = words.findIndex((w) => monthIn(w) > 0);
  if (at < 0) return null;
  const month = monthIn(words[at]!);
  const numbers = words.filter((_, i) => i !== at).map((w) => w.replace(/(?<=\d)(st|nd|rd|th)$/, ""));
  if (numbers.length === 0 || numbers.length > 2 || !numbers.every((n) => /^\d{1,4}$/.test(n))) return null;
  const [d, y] = numbers as [string, string | undefined];
  if (d.length === 4) return y === undefined ? endOfMonth(Number(d), month) : dayOf(Number(d), month, Number(y));
  return y === undefined ? inSomeYear(month, Number(d), t) : dayOf(yearOf(y), month, Number(d));
}

const STEPS: Record<string, (day: Day, n: number) => Day> = {
  day: addDays,
  week: (day, n) => addDays(day, 7 * n),
  month: addMonths,
  year: (day, n) => addMonths(day, 12 * n),
};

/** "tomorrow", "in 3 weeks", "2 days ago", "friday", "next friday". */
function ofWords(text: string, { today, leaning }: Typing): Day | null {
  const near = { today: 0, tomorrow: 1, yesterday: -1 }[text];
  if (near !== undefined) return addDays(today, near);
  const away = /^(?:in )?(\d{1,3}|an?|one) (day|week|month|year)s?( ago)?$/.exec(text);
  if (away) return STEPS[away[2]!]!(today, (Number(away[1]) || 1) * (away[3] ? -1 : 1));
  const named = /^(?:(next|last|on) )?([a-z]{3,9})$/.exec(text);
  const weekday = WEEKDAYS.findIndex((w) => named?.[2]!.startsWith(w));
  if (weekday < 0) return null;
  const ahead = (weekday - (((daysBetween(SUNDAY, today) % 7) + 7) % 7) + 7) % 7 || 7;
  const which = named?.[1];
  const before = which === "last" || (leaning === "past" && !which);
  return addDays(today, before ? ahead - 7 || -7 : ahead);
}

/**
 * Reads a day as it was typed.
 * @returns problems `empty`, `notDate`
 * @example readTypedDay("5 12", { today: "2026-11-26", style: "dmy", leaning: "near" }) // "2026-12-05"
 * @example readTypedDay("aug 2027", { today: "2026-11-26", style: "dmy", leaning: "future" }) // "2027-08-31"
 */
export function readTypedDay(text: string, t: Typing): Outcome<Day> {
  const said = text
    .trim()
    .toLowerCase()
    .replace(/,/g, " ")
    .replace(/\bof\b/g, " ")
    .replace(/\s+/g, " ");
  if (said === "") return refuse("empty", `Enter a date, such as ${writeDay(t.today, t.style)} or tomorrow.`);
  const numbers = /^(\d{1,4})[ ./-](\d{1,4})(?:[ ./-](\d{1,2}|\d{4}))?\.?$/.exec(said);
  const parts = numbers?.slice(1).filter(Boolean);
  const day = (parts && ofNumbers(parts, t)) ?? ofMonthName(said.split(/[ .]+/).filter(Boolean), t) ?? ofWords(said, t);
  return day !== null
    ? done(day)
    : refuse("notDate", `“${text.trim()}” isn't a date. Write it like ${writeDay(t.today, t.style)}, tomorrow or in 3 weeks.`);
}
