/**
 * Reading amounts as people write them: "2 1/2 cups", "1.5 oz", "½ tsp", "1 lb 4 oz", "30 drops".
 *
 * Numbers are exact fractions. Point and comma both part decimals, and both part thousands, as do spaces and apostrophes, whatever
 * the habit of a country: a number that has one reading is read, and one that could be two is asked about with both readings. Nothing that
 * could be two numbers is ever added up.
 */
import Fraction from "fraction.js";
import { done, refuse, type Outcome } from "../outcome.ts";
import { findUnit, unit, type UnitId } from "./units.ts";

export interface Amount {
  n: Fraction;
  unit: UnitId;
}

const VULGAR: Record<string, string> = {
  "½": "1/2",
  "⅓": "1/3",
  "⅔": "2/3",
  "¼": "1/4",
  "¾": "3/4",
  "⅕": "1/5",
  "⅖": "2/5",
  "⅗": "3/5",
  "⅘": "4/5",
  "⅙": "1/6",
  "⅚": "5/6",
  "⅛": "1/8",
  "⅜": "3/8",
  "⅝": "5/8",
  "⅞": "7/8",
};

/** What parts thousands beside point and comma: an apostrophe, and the narrow spaces that only a printed number has. */
const MARKS = "'\u2019\u02bc\u00a0\u2009\u202f";
const PIECE = new RegExp(String.raw`^([\d.,](?:[\d.,/ ${MARKS}]*[\d.,])?)\s*((?:[\p{L}%][^\d]*?)?)\s*(?=$|\d)`, "u");
/** Thousands in groups of three behind one mark, and decimals behind another. */
const GROUPED = new RegExp(String.raw`^([1-9]\d{0,2})(?:([.,${MARKS} ])\d{3})(?:\2\d{3})*(?:(?!\2)[.,](\d+))?$`);
const PLAIN = /^(?:\d+ \d+\/\d+|\d+\/\d+|\d*[.,]\d+|\d+)$/;

/** No amount is longer; what is isn't looked at, so that no text takes longer to read than a glance. */
const LONGEST = 200;
const isTooLong = (text: string): boolean => text.length > LONGEST;
const TOO_LONG = refuse("long", "That is too long to be an amount.");

const tidy = (text: string): string =>
  text
    .normalize("NFC")
    .replace(/[½⅓⅔¼¾⅕⅖⅗⅘⅙⅚⅛⅜⅝⅞]/g, (c) => ` ${VULGAR[c]}`)
    .replace(/\s*[/⁄∕]\s*/g, "/")
    // A narrow space between digits parts thousands; anywhere else, and before a fraction, it is a space.
    .replace(/[\u00a0\u2009\u202f](?!\d)|(?<!\d)[\u00a0\u2009\u202f]|[\u00a0\u2009\u202f](?=\d+\/)/g, " ")
    .replace(/[^\S\u00a0\u2009\u202f]+/g, " ")
    .trim();

const either = (t: string, one: string, other: string): Outcome<never> =>
  refuse("ambiguous", `“${t}” could be ${one} or ${other}. Write it one of those ways.`);

/** A number in groups of three, or null where it isn't one. @param point what a lone point before three digits is */
function grouped(t: string, point: Point): Outcome<Fraction> | null {
  const m = GROUPED.exec(t);
  if (!m) return null;
  const mark = m[2]!;
  const decimals = m[3];
  const whole = (decimals === undefined ? t : t.slice(0, -decimals.length - 1)).replaceAll(mark, "");
  const plain = decimals === undefined ? whole : `${whole}.${decimals}`;
  if (mark === " ") return either(t, plain, "two numbers");
  const alone = decimals === undefined && t.indexOf(mark) === t.lastIndexOf(mark);
  const small = t.replace(",", ".");
  if (alone && mark === ".") return point === "asked" ? either(t, whole, plainText(Number(small))) : null;
  if (alone && mark === ",") return either(t, whole, point === "asked" ? plainText(Number(small)) : small);
  return done(new Fraction(plain));
}

/** A lone point before three digits: a decimal where a thousand of it can't be, asked about where it can. */
export type Point = "decimal" | "asked";

/**
 * Reads a number without unit as an exact fraction.
 * @returns problems `empty`, `notNumber`, `negative`, `ambiguous`
 * @example parseNumber("2 ½") // 5/2
 * @example parseNumber("1’234.5") // 2469/2
 */
export function parseNumber(text: string, point: Point = "decimal"): Outcome<Fraction> {
  if (isTooLong(text)) return TOO_LONG;
  const t = tidy(text);
  if (t === "") return refuse("empty", "Enter an amount.");
  if (/^[-−–]\s*[\d.,]/.test(t)) return refuse("negative", "Amounts can't be below zero.");
  const inGroups = grouped(t, point);
  if (inGroups) return inGroups;
  if (!PLAIN.test(t)) {
    if (/^[\d.,]+( [\d.,/]+)+$/.test(t)) return refuse("ambiguous", `“${t}” could be two numbers. Write one.`);
    if (/^\d[\d.,]*$/.test(t) && /[.,].*[.,]/.test(t)) return refuse("ambiguous", `Write “${t}” without thousands marks.`);
    return refuse("notNumber", `“${t}” isn't a number. Write it like 2.5, 2 1/2 or ½.`);
  }
  if (/\/0+$/.test(t)) return refuse("notNumber", "A fraction can't be over zero.");
  const [whole, part] = t.replace(",", ".").split(" ") as [string, string?];
  const n = new Fraction(whole.startsWith(".") ? `0${whole}` : whole);
  return done(part === undefined ? n : n.add(part));
}

/** Units a thousand of which is a batch, a jar or a box: there a point before three digits may part thousands. */
export const THOUSANDS: readonly UnitId[] = ["g", "ml", "drop", "pc", "part"];

/**
 * Reads an amount with its unit; several pieces of one kind add up ("1 lb 4 oz").
 * @param fallback the unit meant when none is written; without it a bare number is a problem
 * @returns problems of `parseNumber`, and `noUnit`, `unknownUnit`, `mixedUnits`
 * @example parseAmount("2 1/2 cups") // { n: 5/2, unit: "cup" }
 */
export function parseAmount(text: string, fallback?: UnitId): Outcome<Amount> {
  if (isTooLong(text)) return TOO_LONG;
  let rest = tidy(text);
  if (rest === "") return refuse("empty", "Enter an amount.");
  if (/^[-−–]\s*[\d.,]/.test(rest)) return refuse("negative", "Amounts can't be below zero.");
  let total: Amount | null = null;
  while (rest !== "") {
    const m = PIECE.exec(rest);
    if (!m) return refuse("notNumber", `“${tidy(text)}” isn't an amount. Write it like 40 g, 1.5 oz or 2 1/2 cups.`);
    const word = m[2]!.trim();
    const id = word === "" ? (fallback ?? null) : findUnit(word);
    const n = parseNumber(m[1]!, id !== null && THOUSANDS.includes(id) ? "asked" : "decimal");
    if (!n.ok) return n;
    if (id === null) {
      return word === ""
        ? refuse("noUnit", "Add a unit, such as g, oz or tbsp.")
        : refuse(
            "unknownUnit",
            `“${word}” isn't a unit Zelbin knows. Try g, kg, oz, lb, cups, tbsp, tsp, fl oz, mL, drops, pcs, parts or %.`,
          );
    }
    // A bare number means the usual unit only where it is alone.
    if (word === "" && total !== null) return refuse("noUnit", `Add a unit to the ${m[1]!.trim()} as well, such as g, oz or tbsp.`);
    if (total === null) total = { n: n.value, unit: id };
    else {
      const have = unit(total.unit);
      const more = unit(id);
      if (have.kind !== more.kind || !have.size || !more.size)
        return refuse("mixedUnits", `${have.label} and ${more.label} can't be added up in one amount.`);
      total = { unit: total.unit, n: total.n.add(n.value.mul(more.size).div(have.size)) };
    }
    rest = rest.slice(m[0].length).trim();
  }
  return done(total!);
}

/**
 * A number for a field, so that it has one reading: with exactly three decimals it would look like thousands, and gets a fourth.
 * @example plainText(1.234) // "1.2340"
 */
export const plainText = (n: number): string => String(n).replace(/^([1-9]\d{0,2}\.\d{3})$/, "$10");

/** Writes an amount the way it would be read back. @example showAmount({ n: new Fraction(5, 2), unit: "cup" }) // "2 1/2 cups" */
export function showAmount({ n, unit: id }: Amount): string {
  const u = unit(id);
  const kitchen = u.kind === "volume" && n.d <= 8n && n.d !== 1n && n.d !== 5n;
  const rounded = Number(n.valueOf().toFixed(3));
  const number = kitchen ? n.toFraction(true) : THOUSANDS.includes(id) ? plainText(rounded) : String(rounded);
  const label = u.plural && n.compare(1) > 0 ? u.plural : u.label;
  return id === "percent" ? `${number} %` : `${number} ${label}`;
}
