/** What can be answered without the books: sums, temperatures, and one unit in another. */
import { celsiusOf, fahrenheitOf } from "../measure/heat.ts";
import Fraction from "fraction.js";
import { parseAmount, showAmount, type Amount } from "../measure/parse.ts";
import { writeNumber } from "../numbers.ts";
import { findUnit, unit, type UnitId } from "../measure/units.ts";
import type { Answer } from "./answer.ts";
import { sumOf } from "./sum.ts";

const DEGREES =
  /^(-?\d+(?:[.,]\d+)?)\s*(?:°|deg(?:rees)?)?\s*(f|c|fahrenheit|celsius)(?:\s+(?:in|to|as|=)\s+(?:°|deg(?:rees)?)?\s*(f|c|fahrenheit|celsius))?$/i;

/** A temperature in the other scale. @example degrees("130 F")?.say // "130 °F = 54.4 °C" */
export function degrees(text: string): Answer | null {
  const m = DEGREES.exec(text.trim());
  if (!m) return null;
  const from = m[2]!.slice(0, 1).toUpperCase();
  if (m[3]?.slice(0, 1).toUpperCase() === from) return null;
  const n = Number(m[1]!.replace(",", "."));
  const [to, other] = from === "F" ? ["C", celsiusOf(n, "F")] : ["F", fahrenheitOf(n)];
  return { say: `${writeNumber(n, 0, 1)} °${from} = ${writeNumber(other, 0, 1)} °${to}`, steps: [] };
}

/** Rounded as a scale or a jug shows it; kitchen fractions stay. */
const rounded = (n: Fraction): Fraction => (n.d <= 8n ? n : n.round(n.compare(1) < 0 ? 3 : 2));
const inUnit = (amount: Amount, to: UnitId): string =>
  showAmount({ n: rounded(amount.n.mul(unit(amount.unit).size!).div(unit(to).size!)), unit: to });

const plainly = (id: UnitId): boolean => unit(id).size !== undefined && (unit(id).kind === "mass" || unit(id).kind === "volume");

/**
 * One amount in other units, without saying of what: a weight in weights, a volume in volumes.
 * An ounce may be either, and then both are answered.
 * @example inOtherUnits("4 oz in g").map((a) => a.say) // ["4 oz = 113.4 g"]
 */
export function inOtherUnits(text: string): Answer[] {
  const m = /^(.+?)\s+(?:in|to|as|=)\s+(\S.*)$/i.exec(text.trim());
  const amount = parseAmount(m ? m[1]! : text);
  const to = m ? findUnit(m[2]!) : null;
  if (!amount.ok || !plainly(amount.value.unit) || (m && (to === null || !plainly(to)))) return [];
  const readings: Amount[] = amount.value.unit === "oz" ? [amount.value, { n: amount.value.n, unit: "floz" }] : [amount.value];
  return readings.flatMap((a): Answer[] => {
    const { kind } = unit(a.unit);
    if (to !== null) return unit(to).kind === kind ? [{ say: `${showAmount(a)} = ${inUnit(a, to)}`, steps: [] }] : [];
    const others = (kind === "mass" ? (["g", "oz"] as const) : (["ml", "floz", "cup", "tbsp"] as const)).filter((u) => u !== a.unit);
    return [{ say: `${showAmount(a)} = ${inUnit(a, others[0]!)}`, steps: others.slice(1).map((u) => inUnit(a, u)) }];
  });
}

/** Everything a question comes to that needs no book, the likeliest reading first. @example plainAnswers("12 x 4.50").length // 1 */
export function plainAnswers(text: string): Answer[] {
  return [sumOf(text), degrees(text)].flatMap((a) => a ?? []).concat(inOtherUnits(text));
}
