/**
 * Slips in lot numbers. A scheme may end in a check character by ISO/IEC 7064, MOD 37,36, worked out from the letters and digits before it: any
 * one of them written wrong is found, and two neighbours that changed places but for one pair in 630, which the standard's system lets through.
 */
import { mod37_36 } from "cdigit";

const bare = (number: string): string => number.toUpperCase().replace(/[^0-9A-Z]/g, "");

/** @example checkOf("A1-2425G-ABC1234002") // "M" */
export const checkOf = (text: string): string => mod37_36.compute(bare(text));

/** Whether a number's last character fits the ones before it. @example checks("A1-2425G-ABC1234002-M") // true */
export const checks = (number: string): boolean => bare(number).length > 1 && mod37_36.validate(bare(number));

const ALPHABET = "0123456789ABCDEFGHIJKLMNOPQRSTUVWXYZ";
/** Longer than any number is, what is looked for is no number with a slip. */
const LONGEST = 40;

/**
 * What may have been meant by a number with one slip in it: one character written wrong, too many or missing, or two that changed places.
 * @returns in capitals, each once, without the number itself; none for what is no number
 * @example slipsOf("HB26-1").includes("BH26-1") // true
 */
export function slipsOf(typed: string): string[] {
  const number = typed.trim().toUpperCase();
  if (number.length > LONGEST || !/^[0-9A-Z.-]{3,}$/.test(number)) return [];
  const meant = new Set<string>();
  for (let i = 0; i <= number.length; i++) {
    const [before, after] = [number.slice(0, i), number.slice(i)];
    meant.add(before + after.slice(1));
    if (after.length > 1) meant.add(before + after[1]! + after[0]! + after.slice(2));
    for (const c of `${ALPHABET}-.`) {
      meant.add(before + c + after);
      if (after !== "") meant.add(before + c + after.slice(1));
    }
  }
  meant.delete(number);
  return [...meant];
}
