/** What a recipe fills, as it is written on it: "makes 6 x 2 oz tins", "fill six 2 oz jars and six 1 oz". */
import { plainText } from "../../measure/parse.ts";
import { readWeight } from "../../measure/read.ts";
import { findUnit, UNITS } from "../../measure/units.ts";

export interface FilledSize {
  units: number;
  /** What each holds, as a field takes it. */
  fill: string;
}

const COUNTS: Readonly<Record<string, number>> = {
  one: 1,
  a: 1,
  two: 2,
  three: 3,
  four: 4,
  five: 5,
  six: 6,
  seven: 7,
  eight: 8,
  nine: 9,
  ten: 10,
  eleven: 11,
  twelve: 12,
  "a dozen": 12,
  "half a dozen": 6,
  "two dozen": 24,
};
const MANY = String.raw`(\d{1,3}|half a dozen|two dozen|a dozen|${Object.keys(COUNTS)
  .filter((w) => !w.includes(" "))
  .join("|")})`;
const FILL = String.raw`(\d{1,4}(?:[.,]\d{1,2})?)[\s-]*(fl\.? ?oz\.?|ounces?|oz\.?|grams?|g|ml|millilit(?:re|er)s?)\b`;
const EACH = new RegExp(String.raw`\b${MANY}\s*(?:[x×]\s*)?${FILL}`, "gi");
const SAYS = /^(?:this |it |recipe )?(?:fills?|makes|yields?|will fill|enough for|enough to fill|pour into|divide (?:between|into))\b/i;

/**
 * The sizes a line says it fills; null where it says none.
 * @example sizesIn("Fill six 2 oz jars and six 1 oz").map((s) => [s.units, s.fill]) // [[6, "2 oz"], [6, "1 oz"]]
 * @example sizesIn("2 oz beeswax") // null
 */
export function sizesIn(line: string): FilledSize[] | null {
  if (!SAYS.test(line)) return null;
  const sizes = [...line.matchAll(EACH)].flatMap(([, many, amount, word]) => {
    const unit = findUnit(word!);
    const units = COUNTS[many!.toLowerCase()] ?? Number(many);
    return unit && units > 0 ? [{ units, fill: `${plainText(Number(amount!.replace(",", ".")))} ${UNITS[unit].label}` }] : [];
  });
  return sizes.length > 0 ? sizes : null;
}

/** What all of them hold, in milligrams; null where one isn't filled by weight. @example weightOfSizes([{ units: 2, fill: "10 g" }]) // 20000 */
export function weightOfSizes(sizes: readonly FilledSize[]): number | null {
  let all = 0;
  for (const { units, fill } of sizes) {
    const each = readWeight(fill);
    if (!each.ok) return null;
    all += units * each.value;
  }
  return all;
}
