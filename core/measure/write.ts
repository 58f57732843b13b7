/**
 * Writing numbers and weights. Thousands are parted by a thin space, which is no decimal mark in any country, so that a figure copied off a
 * screen into a field is that figure (SI Brochure, 9th edition, 5.4.4, quoted from memory: groups of three
 * by a thin space, neither dots nor commas).
 * Formatters are kept: making one costs more than using it a thousand times.
 */
import type { Mg } from "./exact.ts";

/** What parts thousands: a narrow space at which no line breaks. */
export const THIN = "\u202f";
const formats = new Map<string, Intl.NumberFormat>();

/** A number with between so many decimals. @example writeNumber(1050.25, 0, 1) // "1 050.3" */
export function writeNumber(n: number, least: number, most: number): string {
  const key = `${least} ${most}`;
  let format = formats.get(key);
  if (!format) {
    format = new Intl.NumberFormat("en-GB", { minimumFractionDigits: least, maximumFractionDigits: most });
    formats.set(key, format);
  }
  return format.format(n).replaceAll(",", THIN);
}

/** A figure for a field, where thousands are not parted. @example forField("1 050.3 g") // "1050.3 g" */
export const forField = (written: string): string => written.replaceAll(THIN, "");

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

/** A share as it is said: more exact, the smaller it is. @example sayShare(0.0066) // "0.66 %" */
export const sayShare = (share: number): string =>
  share === 0 ? "0 %" : `${(share * 100).toFixed(share < 0.01 ? 2 : share < 0.1 ? 1 : 0)} %`;
