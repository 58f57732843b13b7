/** Reading what is typed into a field for a weight or a volume, and writing it back. */
import { done, refuse, type Outcome } from "../outcome.ts";
import { mg, type Mg } from "./exact.ts";
import { massOf, volumeMl } from "./mass.ts";
import { parseAmount, parseNumber } from "./parse.ts";
import { unit } from "./units.ts";
import { grams } from "./write.ts";

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

/** Grams as they stand in a field. @example weightText(mg(56_700)) // "56.7 g" */
export const weightText = (m: Mg | null): string => (m === null ? "" : grams(m).replace(/,/g, ""));
