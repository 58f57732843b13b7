/**
 * Straining: what came back, what stayed in the herb, and what the bottles cost.
 *
 * Everything that went into the jar was paid for, so all of its cost falls on the oil that came out of it.
 */
import { allocate, mg, micros, sum, type Mg, type Micros } from "../measure/exact.ts";
import { grams } from "../measure/write.ts";
import { done, refuse, type Outcome } from "../outcome.ts";
import { addMonths, type Day } from "../when.ts";
import { isDry, type Dryness } from "../material/dryness.ts";

export interface StrainIn {
  oilIn: Mg;
  herbIn: Mg;
  /** What everything in the jar cost. */
  value: Micros;
  /** Oil through the first straining. */
  back: Mg;
  /** What a second, finer straining left of it; null when there was none. */
  secondBack: Mg | null;
  sediment: Mg;
  bottles: readonly Mg[];
  expected: Mg;
}

export interface Strained {
  /** Oil that stayed in the herb. */
  kept: Mg;
  keptPerGram: number;
  /** Oil bottled. */
  bottled: Mg;
  /** Lost in cloth, filter and pour. */
  lost: Mg;
  /** Bottled oil by oil that went in, 0 to 1. */
  yield: number;
  /** Oil back by what was expected; null when nothing was. */
  against: number | null;
  /** Per bottle; adds up to the jar's value to the micro. */
  values: Micros[];
}

/**
 * Works out a straining.
 * @returns problems `noBottle`, `moreBack`, `moreSecond`, `moreBottled`, each with the `field` it belongs to in its code
 * @example strain({ ...strained, back: mg(500_000), bottles: [mg(250_000), mg(250_000)] }) // { keptPerGram: 2, lost: 0 }
 */
export function strain(s: StrainIn): Outcome<Strained> {
  if (s.bottles.length === 0 || s.bottles.some((b) => b <= 0)) return refuse("bottles.0.amount", "Enter what went into each bottle.");
  if (s.back > s.oilIn)
    return refuse(
      "back",
      `${grams(s.back)} is more oil than the ${grams(s.oilIn)} that went in. Was the jar weighed with it, or topped up without a note?`,
    );
  if (s.secondBack !== null && s.secondBack > s.back) return refuse("secondBack", "A second straining can't give more than the first.");
  const bottled = sum(s.bottles);
  const last = s.secondBack ?? s.back;
  if (bottled + s.sediment > last)
    return refuse(
      "bottles.0.amount",
      `The bottles and the sediment come to ${grams(bottled + s.sediment)}, more than the ${grams(last)} strained.`,
    );
  const kept = mg(s.oilIn - s.back);
  return done({
    kept,
    keptPerGram: s.herbIn > 0 ? kept / s.herbIn : 0,
    bottled,
    lost: mg(last - bottled - s.sediment + (s.back - last)),
    yield: bottled / s.oilIn,
    against: s.expected > 0 ? s.back / s.expected : null,
    values: bottleValues(s.value, s.bottles),
  });
}

/** What each bottle of a jar is worth: all that went in, shared by what is in it. @example bottleValues(micros(30), [mg(2), mg(1)]) // [20, 10] */
export const bottleValues = (value: Micros, bottles: readonly number[]): Micros[] => allocate(value, bottles).map(micros);

/** Months an infused oil keeps at most: a year from dry herb, three months from herb that held water; from memory. */
export const INFUSED_KEEPS = { dry: 12, wet: 3 } as const;

/**
 * Best-before of an infused oil: never later than its carriers', nor longer than its herb allows.
 * @example infusedBestBefore("2026-12-01", ["2027-06-30"], ["dry"]) // "2027-06-30"
 */
export function infusedBestBefore(day: Day, carriers: readonly (Day | null)[], herbs: readonly Dryness[]): Day {
  const own = addMonths(day, herbs.every(isDry) ? INFUSED_KEEPS.dry : INFUSED_KEEPS.wet);
  return carriers.reduce<Day>((a, b) => (b !== null && b < a ? b : a), own);
}
