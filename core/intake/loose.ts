/**
 * Numbers, money and days as other programs write them. One cell is often ambiguous ("1,234", "03/04/26"); its column seldom is, so the
 * style is found from the whole column. By it a cell is then written so that it has one reading, and read as what is typed into a field is.
 */
import type Fraction from "fraction.js";
import { settleNumbers } from "../measure/habit.ts";
import { parseNumber } from "../measure/parse.ts";
import { done, refuse, type Outcome } from "../outcome.ts";
import { readTypedDay } from "../typedDay.ts";
import { readDay, type Day } from "../when.ts";

export const NUMBER_STYLES = { point: "1,234.50", comma: "1.234,50" } as const;
export type NumberStyle = keyof typeof NUMBER_STYLES;
/** No number and no date is longer; what is isn't looked at. */
const LONGEST = 60;
/** The habit of a workshop that writes so. */
const HABIT_OF = { point: "comma", comma: "point" } as const;

/** A number in groups behind spaces: in a column of prices it is one, beside an amount it could be two. */
const SPACED = /^(\d{1,3}(?:[ \u00a0\u2009\u202f]\d{3})+)([.,]\d+)?$/;

/**
 * Writes a cell so that it has one reading in its column's style.
 * @param alone whether all of the cell is one number
 * @example settled("1.234,50", "comma", true) // "1234.50"
 * @example settled("0,250 kg", "point", false) // "0,250 kg"
 */
export function settled(cell: string, style: NumberStyle, alone: boolean): string {
  const spaced = alone ? SPACED.exec(cell) : null;
  const text = spaced ? `${spaced[1]!.replace(/\D/g, "")}${spaced[2] ?? ""}` : cell.replace(/(?<=\d)['’](?=\d{3})/g, "");
  return settleNumbers(text, HABIT_OF[style], "asked");
}

/** The number in a cell without the signs and letters about it: "12,50" of "€ 12,50". */
const bareNumber = (text: string): string => /[\d.,]*\d/.exec(text.replace(/\p{L}+\.|[\s'’]/gu, ""))?.[0] ?? "";

/** The style one number gives away, if it does. */
function styleOf(t: string): NumberStyle | null {
  const [lastPoint, lastComma] = [t.lastIndexOf("."), t.lastIndexOf(",")];
  if (lastPoint >= 0 && lastComma >= 0) return lastPoint > lastComma ? "point" : "comma";
  const at = Math.max(lastPoint, lastComma);
  if (at < 0) return null;
  const mine: NumberStyle = lastPoint >= 0 ? "point" : "comma";
  // Several marks of a kind part thousands, so the other one would be the decimal; one before three digits says nothing, unless nought is before it.
  if (t.indexOf(t[at]!) !== at) return mine === "point" ? "comma" : "point";
  return t.length - at - 1 === 3 && !t.startsWith("0") ? null : mine;
}

/**
 * Whether columns write decimals with a point or a comma; null when nothing in them tells.
 * @example numberStyle(["1.234,50", "7"]) // "comma"
 */
export function numberStyle(texts: readonly string[]): NumberStyle | null {
  let point = 0;
  let comma = 0;
  for (const text of texts) {
    const style = styleOf(bareNumber(text));
    if (style === "point") point++;
    else if (style === "comma") comma++;
  }
  return point === 0 && comma === 0 ? null : point >= comma ? "point" : "comma";
}

/**
 * The first cell that is one thing with a decimal point and another with a comma.
 * @param read the cell in a style, as something that can be compared
 * @example ambiguousCell(["7", "1,234"], (t, style) => parseNumber(settled(t, style, true))) // "1,234"
 */
export const ambiguousCell = (
  texts: readonly string[],
  read: (text: string, style: NumberStyle) => Outcome<{ valueOf: () => number }>,
): string | null =>
  texts.find((t) => {
    const [point, comma] = [read(t, "point"), read(t, "comma")];
    return point.ok && comma.ok && point.value.valueOf() !== comma.value.valueOf();
  }) ?? null;

export interface LooseMoney {
  /** In whatever money its sign says, never below zero. */
  n: Fraction;
  /** It was given back: "9.50 CR", "-9.50", "9.50-" or in brackets. */
  credit: boolean;
  /** The currency's sign or letters beside it; empty where there are none. */
  sign: string;
  /** With four decimals or more, a spreadsheet worked it out: it is money once it is rounded. With three it could be thousands. */
  worked: boolean;
}

const CREDIT = /^\((.*)\)$|^[-−–](.*)$|^(.*\d.*?)\s*(?:\bCR\.?|(?<=[.,]\d{2})[-−])$/i;
const SIGN = /^(\p{L}{0,3}\.?\p{Sc}|\p{L}{2,3}\.?(?=[\s\d-]))|(\p{L}{0,3}\p{Sc}|(?<=[\s\d-])\p{L}{2,3}\.?)$/u;

/**
 * Money in a known style.
 * @returns problems of `parseNumber`, and `notMoney`
 * @example looseMoney("12,- €", "comma").value.n // 12
 */
export function looseMoney(text: string, style: NumberStyle): Outcome<LooseMoney> {
  if (text.length > LONGEST) return refuse("long", "That is too long to be an amount of money.");
  let sign = "";
  const without = (t: string): string =>
    t
      .trim()
      .replace(SIGN, (found) => {
        if (/^CR\.?$/i.test(found)) return found;
        sign = found.trim();
        return "";
      })
      .trim();
  const outer = without(text);
  const given = CREDIT.exec(outer);
  const inner = without(given ? (given[1] ?? given[2] ?? given[3])! : outer);
  const n = parseNumber(settled(inner.replace(/(?<=\d)[.,][-–—]+$/, ""), style, true), inner.endsWith("0") ? "asked" : "decimal");
  if (!n.ok) return n.problem.code === "notNumber" ? refuse("notMoney", `“${text}” isn't an amount of money. Write it like 12.50.`) : n;
  return inner.includes("/")
    ? refuse("notMoney", "Write money as 12.50, not as a fraction.")
    : done({ n: n.value, credit: given !== null, sign, worked: /[.,]\d{4,}$/.test(bareNumber(inner)) });
}

export const DATE_ORDERS = { ymd: "2026-11-25", dmy: "25.11.2026", mdy: "11/25/2026" } as const;
export type DateOrder = keyof typeof DATE_ORDERS;
const DATE_ORDER_IDS = Object.keys(DATE_ORDERS) as DateOrder[];

const NUMBERS = /^(\d{1,4})[-./ ](\d{1,2})[-./ ,]+(\d{1,4})(?:[T ].*)?$/;
/** A month by name or number, and a year: read as what is typed into a field. */
const WITH_YEAR = /\p{L}{3}.*\d{4}|\d\D+\p{L}{3}\p{L}*\D+\d{2}$|^\d{1,2}[-./ ]\d{4}$|^\d{4}[-./]\d{1,2}$/u;

/** What tells how a column of dates is written: the one order they fit, or two days one of them could be. */
export type DatesTold = { order: DateOrder } | { text: string; could: [Day, Day] };

/**
 * The order of day, month and year in columns of dates: the one that reads them all. Where several do and a cell is another day
 * in each, it is not guessed; where they agree, or nothing can be read, the first will do.
 * @param columns with the last day a column can hold, if it has one (nothing is bought after today)
 * @returns what is told, or a date that could be two days
 * @example dateOrder([{ texts: ["03/04/26", "04/25/26"] }]) // { order: "mdy" }
 * @example dateOrder([{ texts: ["26-03-05"] }]) // { text: "26-03-05", could: ["2026-03-05", "2005-03-26"] }
 */
export function dateOrder(columns: readonly { texts: readonly string[]; latest?: Day }[]): DatesTold {
  const cells = columns.flatMap(({ texts, latest }) =>
    texts.map((text) => ({
      text,
      days: DATE_ORDER_IDS.map((o): Day | null => {
        // Points between the parts are never written month first.
        if (o === "mdy" && text.includes(".")) return null;
        const day = looseDay(text, o);
        return day.ok && (latest === undefined || day.value <= latest) ? day.value : null;
      }),
    })),
  );
  const dated = cells.filter((c) => c.days.some((d) => d !== null));
  // The orders that read most: one line mistyped doesn't decide how the others are written.
  const reads = DATE_ORDER_IDS.map((_, i) => dated.filter((c) => c.days[i] !== null).length);
  const most = Math.max(...reads);
  const fit = DATE_ORDER_IDS.flatMap((_, i) => (reads[i] === most ? [i] : []));
  for (const { text, days } of dated) {
    const could = [...new Set(fit.flatMap((i) => days[i] ?? []))];
    if (could.length > 1) return { text, could: [could[0]!, could[1]!] };
  }
  return { order: DATE_ORDER_IDS[fit[0]!]! };
}

/**
 * A date in a known order. A year of four digits in front and a month in letters are read in any; a month alone is its last day.
 * @returns problem `notDate`
 * @example looseDay("5.3.26", "dmy") // "2026-03-05"
 * @example looseDay("26-03-05", "ymd") // "2026-03-05"
 * @example looseDay("Apr 2027", "mdy") // "2027-04-30"
 */
export function looseDay(text: string, order: DateOrder): Outcome<Day> {
  const bad = refuse("notDate", `“${text}” isn't a date written like ${DATE_ORDERS[order]}.`);
  if (text.length > LONGEST) return bad;
  const p = NUMBERS.exec(text.trim());
  if (!p) {
    // The text has its year: no day is needed to find it.
    const said = WITH_YEAR.test(text.trim()) ? readTypedDay(text, { today: "2000-01-01", style: order, leaning: "near" }) : bad;
    return said.ok ? said : bad;
  }
  const [a, b, c] = [p[1]!, p[2]!, p[3]!];
  const [y, m, d] = a.length === 4 || order === "ymd" ? [a, b, c] : order === "mdy" ? [c, a, b] : [c, b, a];
  if (d.length > 2 || y.length === 3) return bad;
  const year = y.length <= 2 ? `20${y.padStart(2, "0")}` : y;
  const day = readDay(`${year}-${m.padStart(2, "0")}-${d.padStart(2, "0")}`);
  return day.ok ? day : bad;
}
