/**
 * What a poured batch came to: yield against plan, and the actual cost per unit.
 */
import { allocate, micros, mulDiv, type Mg, type Micros } from "../measure/exact.ts";
import { forMinutes, perUnitOf, type UnitCosts, type WorkRates } from "../recipe/cost.ts";

export interface PourIn {
  /** Everything weighed in, and what it cost. */
  weighed: Mg;
  ingredients: Micros;
  packaging: Micros;
  units: number;
  fill: Mg;
  /** Weighed back from the jug. */
  leftover: Mg;
  minutes: number;
  rates: WorkRates;
}

export interface PourResult {
  /** Weighed in, but neither filled nor left in the jug. */
  lost: Mg;
  lostShare: number;
  /** Share of what was weighed in that went into units, 0 to 1. */
  yield: number;
  perUnit: UnitCosts;
}

/** Tins filled by eye come out a little under their nominal weight: so much more may seem to be filled than was weighed in. */
export const FILL_TOLERANCE = 0.02;

/**
 * @returns null when the figures can't be true: clearly more was filled and left over than was weighed in, or nothing was filled
 * @example pourResult({ weighed: mg(1000), units: 2, fill: mg(450), leftover: mg(50), … }).lost // 50
 */
export function pourResult(p: PourIn): PourResult | null {
  const nominal = p.units * p.fill;
  const jug = p.weighed - p.leftover;
  if (p.units <= 0 || jug <= 0 || nominal > jug + p.weighed * FILL_TOLERANCE) return null;
  const filled = Math.min(nominal, jug);
  const lost = jug - filled;
  const [useful, waste] = allocate(p.ingredients, [filled, p.weighed - filled]) as [number, number];
  return {
    lost: lost as Mg,
    lostShare: lost / p.weighed,
    yield: filled / p.weighed,
    perUnit: perUnitOf(
      {
        ingredients: useful,
        packaging: p.packaging,
        work: forMinutes(p.minutes, p.rates.hourly),
        overhead: forMinutes(p.minutes, p.rates.overheadHourly),
        loss: waste,
      },
      p.units,
    ),
  };
}

/** The ledger value of a batch's finished units: materials only, so that value is conserved from purchase to sale. */
export const stockValue = (p: Pick<PourIn, "ingredients" | "packaging">): Micros => micros(p.ingredients + p.packaging);

/** Work of the batch a finished lot came from; nulls where the lot has no batch on record. */
export interface BatchWork {
  units: number | null;
  minutes: number | null;
  hourly: Micros | null;
  overheadHourly: Micros | null;
}

/**
 * What one unit of a finished lot cost: its materials as the ledger has them, and all costs with its share of the batch's work.
 * @param lot with something on hand
 * @example finishedCost({ onHand: 5, value: micros(10_000_000) }, { units: 10, minutes: 60, … }).materials // 2.00
 */
export function finishedCost(lot: { onHand: number; value: Micros }, batch: BatchWork): { materials: Micros; full: Micros } {
  const materials = micros(mulDiv(lot.value, 1, lot.onHand));
  const { units, minutes, hourly, overheadHourly } = batch;
  if (!units || minutes === null || hourly === null || overheadHourly === null) return { materials, full: materials };
  const work = mulDiv(forMinutes(minutes, hourly) + forMinutes(minutes, overheadHourly), 1, units);
  return { materials, full: micros(materials + work) };
}
