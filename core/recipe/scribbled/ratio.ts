/** Ratios as makers say them: "1 oz wax to 1 cup oil", "8 : 8 : 6.5 coconut : shea : wax", "2 : 1 : 1", "equal parts wax, oil and butter". */
import { findAmount, type FoundAmount } from "./amounts.ts";

export interface RatioPart {
  amount: FoundAmount;
  name: string;
}

const parts = (n: string, name: string): RatioPart => ({
  amount: { readings: [`${n} part`], unit: "part", about: null, also: null, rest: name },
  name,
});
const NUMBERS = /(\d+(?:[.,]\d+)?|½|¼|¾)(?:\s*:\s*(?:\d+(?:[.,]\d+)?|½|¼|¾))+/;
const namesIn = (text: string): string[] => {
  const bare = text.replace(/\([^)]*\bweight[^)]*\)|\bby weight\b|\bparts?\b|\bratio\b/gi, " ").replace(/[()=]/g, " ");
  const split = /:/.test(bare) ? bare.split(":") : bare.split(/,|\band\b|\bto\b|\+|&|\//i);
  return split.map((n) => n.replace(/^[\s,;–-]+|[\s,;–-]+$/g, "").trim()).filter((n) => n !== "");
};

/**
 * The parts of a ratio said in one line; null where it is none, or where names and numbers don't match up.
 * @example ratioOf("8 : 8 : 6.5 coconut oil : shea : beeswax").map((p) => p.name) // ["coconut oil", "shea", "beeswax"]
 * @example ratioOf("1 oz wax to 1 cup oil").map((p) => p.amount.readings[0]) // ["1 oz", "1 cup"]
 * @example ratioOf("2 cups olive oil") // null
 */
export function ratioOf(line: string): RatioPart[] | null {
  const equal = /^equal (?:parts|amounts)(?: of)?:?\s+(.+)$/i.exec(line);
  if (equal) {
    const names = namesIn(equal[1]!);
    return names.length > 1 ? names.map((n) => parts("1", n)) : null;
  }
  const run = NUMBERS.exec(line);
  if (run) {
    const numbers = run[0].split(":").map((n) => n.trim());
    const names = namesIn(line.replace(run[0], " "));
    return names.length === numbers.length ? names.map((n, i) => parts(numbers[i]!, n)) : null;
  }
  return listed(line);
}

/** Several amounts with their names in one line, each with a unit: "1 part wax, 1 part butter, 2 parts oil". */
function listed(line: string): RatioPart[] | null {
  const pieces = line.split(/\s*[,;:]\s*(?:and\s+)?|\s+(?:to|and|per)\s+(?=(?:about\s+)?(?:an?\s+)?[\d½⅓⅔¼¾⅛])/i);
  if (pieces.length < 2) return null;
  const found = pieces.map((p) => findAmount(p.trim()));
  const all = found.flatMap((f) =>
    f && !("vague" in f) && f.unit !== null && f.rest !== "" && f.readings.length === 1 ? [{ amount: f, name: f.rest }] : [],
  );
  return all.length === pieces.length ? all : null;
}
