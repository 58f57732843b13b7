/**
 * What a poured batch came to: yield against plan, and what one unit of each size really cost.
 */
import { allocate, micros, mulDiv, sum, type Mg, type Micros } from "../../measure/exact.ts";
import { forMinutes, perUnitOf, type UnitCosts, type WorkRates } from "../../recipe/cost.ts";

/** What was filled of a size, and what it took of the pot. */
export interface OutOfPot {
  units: number;
  fill: Mg;
  /** What was stirred into this size alone. */
  added?: Mg;
  /** What was ladled out of the pot for it, where that was weighed. */
  ladled?: Mg | null;
}

export interface PouredSize extends OutOfPot {
  packaging: Micros;
  /** What was stirred into it cost. */
  addedCost?: Micros;
  /** Minutes of work that fall on it. */
  minutes: number;
}

/** How much of the base is in what was filled of a size. @example baseIn({ units: 6, fill: mg(50_000), added: mg(6_000) }) // 294_000 */
export const baseIn = (s: OutOfPot): number => Math.max(1, s.units * s.fill - (s.added ?? 0));

/**
 * How much there can be of a size: as it says on the label, and no more than there was in its jug.
 * @example filledOf({ units: 4, fill: mg(60_000), ladled: mg(210_000), added: mg(6_000) }) // 216_000
 */
export const filledOf = (s: OutOfPot): number => Math.min(s.units * s.fill, s.ladled == null ? Infinity : s.ladled + (s.added ?? 0));

/**
 * What a pot cost, shared over what was poured of it: a part by what was ladled out for it, where that was weighed; all else shares the rest by
 * what was filled.
 * @param pot what was weighed into the whole pot, without what was left over
 * @example potShares(micros(1000), mg(1000), [{ units: 4, fill: mg(100), ladled: mg(356) }, { units: 6, fill: mg(100) }]) // [356, 644]
 */
export function potShares(cost: Micros, pot: number, sizes: readonly OutOfPot[]): number[] {
  const own: number[] = sizes.map((s) => s.ladled ?? 0);
  const others = sizes.map((s) => (s.ladled == null ? baseIn(s) : 0));
  const filled = others.reduce((a, b) => a + b, 0);
  const rest = filled === 0 ? 0 : Math.max(filled, pot - own.reduce((a, b) => a + b, 0));
  const shares = allocate(cost, [...own, rest]);
  const restBy = allocate(shares.pop()!, filled === 0 ? others.map(() => 1) : others);
  return sizes.map((_, i) => shares[i]! + restBy[i]!);
}

export interface PourIn {
  /** Everything weighed in, and what of it went into the whole pot cost. */
  weighed: Mg;
  ingredients: Micros;
  sizes: readonly PouredSize[];
  /** Weighed back from the jug. */
  leftover: Mg;
  rates: WorkRates;
}

export interface PourResult {
  /** Weighed in, but neither filled nor left in the jug. */
  lost: Mg;
  lostShare: number;
  /** Share of what was weighed in that went into units, 0 to 1. */
  yield: number;
  /** Per size, in order. */
  perUnit: UnitCosts[];
}

/** Tins filled by eye come out a little under their nominal weight: so much more may seem to be filled than was weighed in. */
export const FILL_TOLERANCE = 0.02;

/**
 * @param p.sizes those with a unit in them
 * @returns null when the figures can't be true: clearly more was filled and left over than was weighed in, or nothing was filled
 * @example pourResult({ weighed: mg(1000), ingredients: micros(0), sizes: [{ units: 2, fill: mg(450), packaging: micros(0), minutes: 1 }], leftover: mg(50), rates }).lost // 50
 */
export function pourResult(p: PourIn): PourResult | null {
  const nominal = p.sizes.reduce((a, s) => a + filledOf(s), 0);
  const jug = p.weighed - p.leftover;
  if (p.sizes.length === 0 || p.sizes.some((s) => s.units <= 0) || jug <= 0 || nominal > jug + p.weighed * FILL_TOLERANCE) return null;
  const filled = Math.min(nominal, jug);
  const lost = jug - filled;
  // What was stirred into a part is all in it; the base alone is shared out, and lost.
  const added = p.sizes.reduce((a, s) => a + (s.added ?? 0), 0);
  const inUnits = Math.max(1, filled - added);
  const [useful] = allocate(p.ingredients, [inUnits, Math.max(0, p.weighed - added - inUnits)]) as [number, number];
  const shares = potShares(p.ingredients, jug - added, p.sizes);
  const usefulBy = allocate(
    useful,
    p.sizes.map((s) => Math.max(1, filledOf(s) - (s.added ?? 0))),
  ).map((u, i) => Math.min(u, shares[i]!));
  return {
    lost: lost as Mg,
    lostShare: lost / p.weighed,
    yield: filled / p.weighed,
    perUnit: p.sizes.map((s, i) =>
      perUnitOf(
        {
          ingredients: micros(usefulBy[i]! + (s.addedCost ?? 0)),
          packaging: s.packaging,
          work: forMinutes(s.minutes, p.rates.hourly),
          overhead: forMinutes(s.minutes, p.rates.overheadHourly),
          loss: micros(shares[i]! - usefulBy[i]!),
        },
        s.units,
      ),
    ),
  };
}

/**
 * The ledger value of each size poured from a pot: its share of the base, and what went into it alone: its packaging, and what was stirred in.
 * Materials only, so that value is conserved from purchase to sale.
 * @param pot what was weighed into the whole pot, without what was left over @param sizes with what went into each alone
 * @example stockValues(micros(300), mg(150), [{ units: 2, fill: mg(50), own: micros(5) }, { units: 1, fill: mg(50), own: micros(7) }]) // [205, 107]
 */
export function stockValues(ingredients: Micros, pot: Mg, sizes: readonly (OutOfPot & { own: Micros })[]): Micros[] {
  const shares = potShares(ingredients, pot, sizes);
  return sizes.map((s, i) => micros(shares[i]! + s.own));
}

/**
 * More than fifteen in a hundred beyond what the recipe loses didn't stay in pot and jug: something was left, filled otherwise, or miscounted. It is
 * asked about, and teaches nothing. Common practice, no source.
 */
const FAR_OFF_BP = 1500;

/** @example isFarLoss(0.53, 200) // true */
export const isFarLoss = (lostShare: number, lossBp: number): boolean => lostShare * 10_000 > lossBp + FAR_OFF_BP;

/** Work in a poured size; nulls where the lot has no batch on record. */
export interface SizeWork {
  units: number | null;
  /** Minutes of the batch that fall on this size, in hundredths. */
  minutesHundredths: number | null;
  hourly: Micros | null;
  overheadHourly: Micros | null;
}

/**
 * What so many units of a poured size took in work and overhead.
 * @example workIn(5, { units: 10, minutesHundredths: 6000, hourly: micros(16_000_000), overheadHourly: micros(0) }) // 8.00
 */
export function workIn(units: number, size: SizeWork): Micros {
  if (!size.units || size.minutesHundredths === null || size.hourly === null || size.overheadHourly === null) return micros(0);
  const minutes = size.minutesHundredths / 100;
  return micros(mulDiv(forMinutes(minutes, size.hourly) + forMinutes(minutes, size.overheadHourly), units, size.units));
}

/**
 * What one unit of a finished lot cost: its materials as the ledger has them, and all costs with its share of the batch's work.
 * @param lot with something on hand
 * @example finishedCost({ onHand: 5, value: micros(10_000_000) }, size).materials // 2.00
 */
export function finishedCost(lot: { onHand: number; value: Micros }, size: SizeWork): { materials: Micros; full: Micros } {
  const materials = micros(mulDiv(lot.value, 1, lot.onHand));
  return { materials, full: sum([materials, workIn(1, size)]) };
}
