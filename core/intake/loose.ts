/**
 * Numbers, money and dates as other programs write them. One cell is often ambiguous ("1,234", "03/04/26"); its column seldom is,
 * so the style is found from the whole column and only then each cell is read.
 */
import { CENT, micros, type Micros } from "../measure/exact.ts";
import { done, refuse, type Outcome } from "../outcome.ts";
import { readDay, type Day } from "../when.ts";

export const NUMBER_STYLES = { point: "1,234.50", comma: "1.234,50" } as const;
export type NumberStyle = keyof typeof NUMBER_STYLES;

const bareNumber = (text: string): string =>
  text
    .replace(/[\p{Sc}\s'’\u00a0\u202f]/gu, "")
    .replace(/^[A-Za-z]{1,4}\.?(?=[-\d.,])|(?<=\d)[A-Za-z]{1,3}$/g, "")
    .replace(/[−–]/g, "-");

/** The style one number gives away, if it does. */
function styleOf(t: string): NumberStyle | null {
  const [lastPoint, lastComma] = [t.lastIndexOf("."), t.lastIndexOf(",")];
  if (lastPoint >= 0 && lastComma >= 0) return lastPoint > lastComma ? "point" : "comma";
  const at = Math.max(lastPoint, lastComma);
  if (at < 0) return null;
  const mine: NumberStyle = lastPoint >= 0 ? "point" : "comma";
  // Several marks of a kind part thousands, so the other one would be the decimal; one before three digits says nothing.
  if (t.indexOf(t[at]!) !== at) return mine === "point" ? "comma" : "point";
  return t.length - at - 1 === 3 ? null : mine;
}

/**
 * Whether a column writes decimals with a point or a comma; null when nothing in it tells.
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

/** The first number of a column that is one thing with a decimal point and another with a comma. @example ambiguousNumber(["7", "1,234"]) // "1,234" */
export const ambiguousNumber = (texts: readonly string[]): string | null =>
  texts.find((t) => {
    const [point, comma] = [looseNumber(t, "point"), looseNumber(t, "comma")];
    return point.ok && comma.ok && Number(point.value) !== Number(comma.value);
  }) ?? null;

/**
 * A number in a known style, as plain text "1234.5".
 * @returns problems `empty`, `notNumber`, `negative`
 * @example looseNumber("€ 1.234,50", "comma") // "1234.50"
 */
export function looseNumber(text: string, style: NumberStyle): Outcome<string> {
  const t = bareNumber(text);
  if (t === "") return refuse("empty", "It is empty.");
  if (/^\(.*\)$/.test(t) || t.startsWith("-")) return refuse("negative", `“${text}” is below zero.`);
  const plain = style === "point" ? t.replace(/,(?=\d{3}(\D|$))/g, "") : t.replace(/\.(?=\d{3}(\D|$))/g, "").replace(",", ".");
  return /^\d+(\.\d+)?$|^\.\d+$/.test(plain) ? done(plain) : refuse("notNumber", `“${text}” isn't a number.`);
}

/** Money in a known style, to the cent. @example looseMoney("12,5 €", "comma") // 12.50 */
export function looseMoney(text: string, style: NumberStyle): Outcome<Micros> {
  const n = looseNumber(text, style);
  if (!n.ok) return n;
  const cents = Math.round(Number(n.value) * 100);
  if (cents > 100_000_000) return refuse("absurd", `“${text}” is over a million.`);
  return done(micros(cents * CENT));
}

export const DATE_ORDERS = { ymd: "2026-11-25", dmy: "25.11.2026", mdy: "11/25/2026" } as const;
export type DateOrder = keyof typeof DATE_ORDERS;
const DATE_ORDER_IDS = Object.keys(DATE_ORDERS) as DateOrder[];

const PARTS = /^(\d{1,4})[-./ ](\d{1,2}|[A-Za-z]{3,9})[-./ ,]+(\d{1,4})(?:[T ].*)?$/;
const MONTHS = ["jan", "feb", "mar", "apr", "may", "jun", "jul", "aug", "sep", "oct", "nov", "dec"];

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
 * A date in a known order. A year of four digits in front and a month in letters are read in any.
 * @returns problem `notDate`
 * @example looseDay("5.3.26", "dmy") // "2026-03-05"
 * @example looseDay("26-03-05", "ymd") // "2026-03-05"
 */
export function looseDay(text: string, order: DateOrder): Outcome<Day> {
  const bad = refuse("notDate", `“${text}” isn't a date written like ${DATE_ORDERS[order]}.`);
  const p = PARTS.exec(text.trim());
  if (!p) return bad;
  const [a, b, c] = [p[1]!, p[2]!, p[3]!];
  const inLetters = /[A-Za-z]/.test(b);
  const [y, m, d] = a.length === 4 || (order === "ymd" && !inLetters) ? [a, b, c] : order === "mdy" && !inLetters ? [c, a, b] : [c, b, a];
  if (d.length > 2 || y.length === 3) return bad;
  const month = inLetters ? MONTHS.indexOf(m.slice(0, 3).toLowerCase()) + 1 : Number(m);
  const year = y.length <= 2 ? `20${y.padStart(2, "0")}` : y;
  const day = readDay(`${year}-${String(month).padStart(2, "0")}-${d.padStart(2, "0")}`);
  return day.ok ? day : bad;
}
