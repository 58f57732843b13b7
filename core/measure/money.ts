/**
 * Money: writing what is owed, and unit costs that keep their exactness. What is typed is read by `read.ts`: few pages have a field for it.
 *
 * A cost per gram is almost never a whole number of anything, so it is never rounded: it is carried as "this much money
 * for this much stuff" and only turned into money when multiplied by an amount.
 */
import { CENT, micros, mulDiv, type Base, type Micros } from "./exact.ts";
import { THIN } from "../numbers.ts";

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
