/**
 * Reading amounts as people write them: "2 1/2 cups", "1.5 oz", "½ tsp", "1 lb 4 oz", "30 drops".
 *
 * Numbers are kept as exact fractions. A decimal comma is understood; a comma or point that could be either a decimal or
 * a thousands mark is refused with both readings rather than guessed.
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

const NUMBER = String.raw`\d+\s+\d+\/\d+|\d+\/\d+|\d*[.,]\d+|\d+`;
const PIECE = new RegExp(String.raw`^(${NUMBER})(?![\d.,/])\s*((?:[\p{L}%][^\d]*?)?)\s*(?=$|\d)`, "u");

const tidy = (text: string): string =>
  text
    .normalize("NFC")
    .replace(/[½⅓⅔¼¾⅕⅖⅗⅘⅙⅚⅛⅜⅝⅞]/g, (c) => ` ${VULGAR[c]}`)
    .replace(/[⁄∕]/g, "/")
    .replace(/\u00a0/g, " ")
    .replace(/\s+/g, " ")
    .trim();

/**
 * Reads a number without unit as an exact fraction.
 * @returns problems `empty`, `notNumber`, `negative`, `ambiguous`
 * @example parseNumber("2 ½") // 5/2
 */
export function parseNumber(text: string): Outcome<Fraction> {
  const t = tidy(text);
  if (t === "") return refuse("empty", "Enter an amount.");
  if (/^[-−–]\s*[\d.,]/.test(t)) return refuse("negative", "Amounts can't be below zero.");
  if (!new RegExp(`^(?:${NUMBER})$`).test(t)) {
    if (/^\d{1,3}([.,]\d{3}){2,}$/.test(t) || /^\d{1,3},\d{3}\.\d+$/.test(t) || /^\d{1,3}\.\d{3},\d+$/.test(t))
      return refuse("ambiguous", `Write “${t}” without thousands marks.`);
    return refuse("notNumber", `“${t}” isn't a number. Write it like 2.5, 2 1/2 or ½.`);
  }
  if (/^[1-9]\d{0,2},\d{3}$/.test(t))
    return refuse("ambiguous", `“${t}” could be ${t.replace(",", "")} or ${t.replace(",", ".")}. Write it one of those ways.`);
  if (/\/0+$/.test(t)) return refuse("notNumber", "A fraction can't be over zero.");
  const words = t.replace(",", ".").split(" ");
  return done(words.reduce((a, w) => a.add(new Fraction(w.startsWith(".") ? `0${w}` : w)), new Fraction(0)));
}

/**
 * Reads an amount with its unit; several pieces of one kind add up ("1 lb 4 oz").
 * @param fallback the unit meant when none is written; without it a bare number is a problem
 * @returns problems of `parseNumber`, and `noUnit`, `unknownUnit`, `mixedUnits`
 * @example parseAmount("2 1/2 cups") // { n: 5/2, unit: "cup" }
 */
export function parseAmount(text: string, fallback?: UnitId): Outcome<Amount> {
  let rest = tidy(text);
  if (rest === "") return refuse("empty", "Enter an amount.");
  if (/^[-−–]\s*[\d.,]/.test(rest)) return refuse("negative", "Amounts can't be below zero.");
  let total: Amount | null = null;
  while (rest !== "") {
    const m = PIECE.exec(rest);
    if (!m) {
      const number = parseNumber(/^[\d.,/\s]*/.exec(rest)![0]);
      if (!number.ok && number.problem.code === "ambiguous") return number;
      return refuse("notNumber", `“${tidy(text)}” isn't an amount. Write it like 40 g, 1.5 oz or 2 1/2 cups.`);
    }
    const n = parseNumber(m[1]!);
    if (!n.ok) return n;
    const word = m[2]!.trim();
    const id = word === "" ? (fallback ?? null) : findUnit(word);
    if (id === null) {
      return word === ""
        ? refuse("noUnit", "Add a unit, such as g, oz or tbsp.")
        : refuse(
            "unknownUnit",
            `“${word}” isn't a unit Zelbin knows. Try g, kg, oz, lb, cups, tbsp, tsp, fl oz, mL, drops, pcs, parts or %.`,
          );
    }
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

/** Writes an amount the way it would be read back. @example showAmount({ n: new Fraction(5, 2), unit: "cup" }) // "2 1/2 cups" */
export function showAmount({ n, unit: id }: Amount): string {
  const u = unit(id);
  const kitchen = u.kind === "volume" && n.d <= 8n && n.d !== 1n && n.d !== 5n;
  const number = kitchen ? n.toFraction(true) : String(Number(n.valueOf().toFixed(3)));
  const label = u.plural && n.compare(1) > 0 ? u.plural : u.label;
  return id === "percent" ? `${number} %` : `${number} ${label}`;
}
