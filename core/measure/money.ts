/**
 * Money: reading what is typed, writing what is owed, and unit costs that keep their exactness.
 *
 * A cost per gram is almost never a whole number of anything, so it is never rounded: it is carried as "this much money
 * for this much stuff" and only turned into money when multiplied by an amount.
 */
import { done, refuse, type Outcome } from "../outcome.ts";
import { CENT, micros, mulDiv, type Base, type Micros } from "./exact.ts";
import { parseNumber } from "./parse.ts";
import { THIN } from "./write.ts";

/** `value` micros for `per` base units (mg or pieces); `per` > 0. */
export interface UnitCost {
  value: Micros;
  per: Base;
}

/**
 * What an amount costs at a unit cost, in micros, rounded half up.
 * @example costOf(5000, { value: micros(12_000_000), per: 1_000_000 }) // 0.06
 */
export const costOf = (amount: Base, cost: UnitCost): Micros => micros(mulDiv(amount, cost.value, cost.per));

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

/** Rounds micros to the cent, half away from zero. @example toCent(micros(14_999)) // 0.01 */
export const toCent = (m: Micros): Micros => micros(mulDiv(m, 1, CENT) * CENT);

const formats = new Map<string, Intl.NumberFormat>();
const format = (currency: string, decimals: number): Intl.NumberFormat => {
  const key = `${currency}${decimals}`;
  let found = formats.get(key);
  if (!found) {
    found = new Intl.NumberFormat("en-IE", {
      style: "currency",
      currency,
      minimumFractionDigits: decimals,
      maximumFractionDigits: decimals,
    });
    formats.set(key, found);
  }
  return found;
};

/**
 * Writes money with its sign. Amounts below a cent keep four decimals so that a drop of oil never costs "0.00".
 * @example money(micros(1_250_000), "EUR") // "€1.25"
 */
export function money(m: Micros | number, currency: string): string {
  const small = m !== 0 && Math.abs(m) < CENT;
  return format(currency, small ? 4 : 2)
    .format((small ? m : mulDiv(m, 1, CENT) * CENT) / 1e6)
    .replaceAll(",", THIN);
}

/** Money as a plain number for an input field. @example moneyField(micros(1_250_000)) // "1.25" */
export const moneyField = (m: Micros | number): string => (m / 1e6).toFixed(2);

/** The weight a column of unit costs is compared by. */
export type PerWeight = "g" | "kg";

/**
 * Per gram where every gram costs ten cents or more, else per kilogram: costs under each other are told in one unit.
 * @example perWeight([{ value: micros(9_000_000), per: 1_000_000 }]) // "kg"
 */
export const perWeight = (costs: readonly (UnitCost | null)[]): PerWeight =>
  costs.every((c) => c === null || costOf(1000, c) >= 10 * CENT) ? "g" : "kg";

/**
 * A unit cost as people compare it: per gram or kilogram, or per piece for pieces.
 * @param per of its column; alone it follows `perWeight`
 * @example showUnitCost({ value: micros(9_000_000), per: 1_000_000 }, "weight", "EUR") // "€9.00/kg"
 */
export function showUnitCost(cost: UnitCost, measured: "weight" | "count", currency: string, per: PerWeight = perWeight([cost])): string {
  if (measured === "count") return `${money(costOf(1, cost), currency)}/pc`;
  return `${money(costOf(per === "kg" ? 1_000_000 : 1000, cost), currency)}/${per}`;
}
