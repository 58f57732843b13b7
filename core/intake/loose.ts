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

const PARTS = /^(\d{1,4})[-./ ](\d{1,2}|[A-Za-z]{3,9})[-./ ,]+(\d{1,4})(?:[T ].*)?$/;
const MONTHS = ["jan", "feb", "mar", "apr", "may", "jun", "jul", "aug", "sep", "oct", "nov", "dec"];
const partsOf = (text: string): [string, string, string] | null => {
  const m = PARTS.exec(text.trim());
  return m ? [m[1]!, m[2]!, m[3]!] : null;
};

/**
 * The order of day, month and year in a column; null when nothing in it tells day from month.
 * @example dateOrder(["03/04/26", "25/04/26"]) // "dmy"
 */
export function dateOrder(texts: readonly string[]): DateOrder | null {
  for (const text of texts) {
    const p = partsOf(text);
    if (!p) continue;
    if (p[0].length === 4) return "ymd";
    // Points between the parts are only written day first.
    if (/[A-Za-z]/.test(p[1]) || Number(p[0]) > 12 || /^\d+\.\d+\.\d+/.test(text.trim())) return "dmy";
    if (Number(p[1]) > 12) return "mdy";
  }
  return null;
}

/**
 * A date in a known order.
 * @returns problem `notDate`
 * @example looseDay("5.3.26", "dmy") // "2026-03-05"
 */
export function looseDay(text: string, order: DateOrder): Outcome<Day> {
  const bad = refuse("notDate", `“${text}” isn't a date written like ${DATE_ORDERS[order]}.`);
  const p = partsOf(text);
  if (!p) return bad;
  const [a, b, c] = p;
  const [y, m, d] = a.length === 4 ? [a, b, c] : order === "mdy" && !/[A-Za-z]/.test(b) ? [c, a, b] : [c, b, a];
  const month = /[A-Za-z]/.test(m) ? MONTHS.indexOf(m.slice(0, 3).toLowerCase()) + 1 : Number(m);
  const year = y.length <= 2 ? `20${y.padStart(2, "0")}` : y;
  const day = readDay(`${year}-${String(month).padStart(2, "0")}-${d.padStart(2, "0")}`);
  return day.ok ? day : bad;
}
