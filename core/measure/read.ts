/** Reading what is typed into a field for a weight, a volume, a count or money, and writing it back. */
import { done, orElse, refuse, type Outcome } from "../outcome.ts";
import { CENT, mg, micros, type Mg, type Micros } from "./exact.ts";
import { massOf, volumeMl } from "./mass.ts";
import { parseAmount, parseNumber, plainText } from "./parse.ts";
import { unit } from "./units.ts";
import { grams } from "./write.ts";
import { forField } from "../numbers.ts";

/** A plain weight such as "60 g" or "2 oz"; a bare number is grams. @example readWeight("60") // 60 g */
export const readWeight = (text: string): Outcome<Mg> => {
  const amount = parseAmount(text, "g");
  if (!amount.ok) return amount;
  if (unit(amount.value.unit).kind !== "mass") return refuse("notWeight", "Enter a weight, such as 60 g or 2 oz.");
  return massOf(amount.value, { name: "", form: "block", densities: {} });
};

/** A volume such as "2 1/2 cups", "1 L" or "80", in mL. */
export function readMl(text: string): Outcome<number> {
  const amount = parseAmount(text, "ml");
  if (!amount.ok) return amount;
  const ml = volumeMl(amount.value);
  if (!ml.ok) return refuse("notVolume", "Enter a volume, such as 500 mL, 1 L or 2 cups.");
  const n = ml.value.valueOf();
  return n > 0 && n <= 100_000 ? done(n) : refuse("range", "Enter between 0 and 100 L.");
}

/** A weight a scale may show, zero allowed. */
export const readWeighed = (text: string): Outcome<Mg> => {
  const zero = parseNumber(text.replace(/\s*g$/i, ""));
  return zero.ok && zero.value.equals(0) ? done(mg(0)) : readWeight(text);
};

/** Grams as they are in a field. @example weightText(mg(56_700)) // "56.7 g" */
export const weightText = (m: Mg | null): string => (m === null ? "" : forField(grams(m)));

/** A weight to the milligram, as it is in a field. @example exactWeightText(mg(1_234)) // "1.2340 g" */
export const exactWeightText = (m: Mg): string => `${plainText(m / 1000)} g`;

/**
 * Reads money typed with or without a currency sign, to the cent.
 * @returns problems `empty`, `notMoney`, `negative`, `cents`, `absurd`
 * @example parseMoney("€ 12,50") // 12.50
 */
export function parseMoney(text: string): Outcome<Micros> {
  const bare = text
    .replace(/\p{Sc}/gu, "")
    .trim()
    .replace(/^[A-Z]{3}\s*(?=[\d.,])|(?<=\d)\s*[A-Z]{3}$/g, "");
  if (bare === "") return refuse("empty", "Enter an amount of money; 0 if it cost nothing.");
  // Cents have two decimals: a third that isn't nought is one too many, whatever else it may be.
  const n = parseNumber(bare, bare.endsWith("0") ? "asked" : "decimal");
  if (!n.ok)
    return n.problem.code === "notNumber" ? refuse("notMoney", `“${text.trim()}” isn't an amount of money. Write it like 12.50.`) : n;
  if (/\//.test(bare)) return refuse("notMoney", "Write money as 12.50, not as a fraction.");
  const inCents = n.value.mul(100);
  if (inCents.d !== 1n) return refuse("cents", "Money has at most two decimals here.");
  if (n.value.compare(1_000_000) > 0) return refuse("absurd", "That is over a million. Check the amount.");
  return done(micros(inCents.valueOf() * CENT));
}

/** A whole number of units, pieces or minutes. @example readCount("12") // 12 */
export function readCount(text: string): Outcome<number> {
  const n = parseNumber(text, "asked");
  if (!n.ok) return n;
  return n.value.d === 1n ? done(n.value.valueOf()) : refuse("whole", "Enter a whole number.");
}

/** A number with decimals, a per cent sign allowed. @example readPlain("2,5 %") // 2.5 */
export const readPlain = (text: string): Outcome<number> => {
  const n = parseNumber(text.replace("%", ""));
  return n.ok ? done(n.value.valueOf()) : n;
};

/**
 * What of a sheet can't be read, the first of it: until that is mended no figure of the sheet is shown.
 * @param texts the name of each field, what is typed in it, and how it is read; an empty field is not unread
 * @example firstUnread([["Hours", "six", readPlain]]) // "Hours: “six” isn't a number. Write it like 2.5, 2 1/2 or ½."
 */
export function firstUnread(
  texts: readonly (readonly [field: string, text: string, read: (text: string) => Outcome<unknown>])[],
): string | null {
  for (const [field, text, read] of texts) {
    if (text.trim() === "") continue;
    const r = read(text);
    if (!r.ok) return `${field}: ${r.problem.say}`;
  }
  return null;
}

/** A field that may be left empty, as its empty value. @example orNothing("", readCount, 0) // 0 */
export const orNothing = <T, F>(text: string, read: (text: string) => Outcome<T>, nothing: F): T | F =>
  text.trim() === "" ? nothing : orElse(read(text), nothing);

/** Reads a number with decimals between two, times `scale`, as a whole number. @example between(0, 50, "per cent", 100)("2.5 %") // { ok: true, value: 250 } */
export const between =
  (least: number, most: number, what: string, scale: number) =>
  (text: string): Outcome<number> => {
    const n = parseNumber(text.replace("%", ""));
    if (!n.ok) return n.problem.code === "empty" ? refuse("empty", `Enter ${least} to ${most} ${what}.`) : n;
    const value = n.value.valueOf();
    return value < least || value > most ? refuse("range", `Enter ${least} to ${most} ${what}.`) : done(Math.round(value * scale));
  };
