/** Writing weights, stock and shares. */
import { writeNumber } from "../numbers.ts";
import type { Mg } from "./exact.ts";

/** Grams with fixed decimals, for columns that line up on the decimal. @example gramsIn(2)(mg(56_699)) // "56.70 g" */
export const gramsIn =
  (decimals: number) =>
  (weight: Mg | number): string =>
    `${writeNumber(weight / 1000, decimals, decimals)} g`;

/** Grams written without needless zeros; two decimals below 10 g. @example grams(mg(56_699)) // "56.7 g" */
export function grams(weight: Mg | number, decimals = 1): string {
  const g = weight / 1000;
  return `${writeNumber(g, 0, Math.abs(g) < 10 ? Math.max(decimals, 2) : decimals)} g`;
}

/** An amount of stock: weights as grams or kilograms, counted things as pieces. @example showStock(1500, "weight") // "1.5 g" */
export function showStock(n: number, measured: "weight" | "count"): string {
  if (measured === "count") return `${writeNumber(n, 0, 0)} pcs`;
  return Math.abs(n) >= 1_000_000 ? `${writeNumber(n / 1_000_000, 0, 3)} kg` : grams(n);
}

/** A share in per cent, more exact the smaller it is. @example sayShare(0.0066) // "0.66 %" */
export const sayShare = (share: number): string =>
  share === 0 ? "0 %" : `${(share * 100).toFixed(share < 0.01 ? 2 : share < 0.1 ? 1 : 0)} %`;
