/**
 * What one unit costs, and out of what: ingredients, packaging, work, overhead and loss, by each costing method.
 *
 * One pot may fill several sizes: each carries its share of the pot by weight, and its own packaging and minutes. The loss is
 * everything in the pot that does not end in a unit (what clings, and the rest too small for another unit). Overhead is charged per
 * hour of work: insurance, power and rent run while the workroom does (common practice, no source).
 */
import { allocate, micros, mulDiv, sum, type Mg, type Micros } from "../measure/exact.ts";
import {
  byCostingMethod,
  costGroups,
  costNeeds,
  totalOf,
  type NeedCost,
  type CostingMethod,
  type Totals,
} from "../stock/costingMethods.ts";
import type { Need, Shelf } from "../stock/shelf.ts";
import { fillPlan, type FillPlan } from "./scale.ts";

export interface WorkRates {
  hourly: Micros;
  overheadHourly: Micros;
}

export interface SizeIn {
  /** Packaging for one unit: material and pieces. */
  packaging: readonly { of: number; pieces: number }[];
  fill: Mg;
  unitMinutes: number;
}

interface PotIn {
  /** Ingredient lines of the batch: material and weight. */
  lines: readonly { of: number; weight: Mg }[];
  work: WorkRates & { batchMinutes: number };
}

export type CostIn = PotIn & SizeIn & { lossBp: number };
export type MixIn = PotIn & { sizes: readonly (SizeIn & { units: number })[] };

export const COST_PARTS = { ingredients: "Ingredients", packaging: "Packaging", work: "Work", overhead: "Overhead", loss: "Loss" } as const;
export type CostPart = keyof typeof COST_PARTS;
export const COST_PART_IDS = Object.keys(COST_PARTS) as CostPart[];

/** Micros per unit; `total` is the exact sum of the parts. `materials` = ingredients + packaging + loss. */
export type UnitCosts = Record<CostPart, Micros> & { total: Micros; materials: Micros };

export interface SizeCost {
  units: number;
  /** Minutes of the whole batch that fall on this size. */
  minutes: number;
  packaging: NeedCost[];
  /** Per unit and school; null where some material has no cost yet, or not one unit is filled. */
  perUnit: Record<CostingMethod, UnitCosts | null>;
}

export interface MixCost {
  batch: Mg;
  lines: NeedCost[];
  sizes: SizeCost[];
}

export interface RecipeCost extends SizeCost {
  batch: Mg;
  fill: FillPlan;
  lines: NeedCost[];
}

/** What so many minutes cost at an hourly rate. @example forMinutes(90, micros(16_000_000)) // 24.00 */
export const forMinutes = (minutes: number, hourly: Micros): Micros => micros(mulDiv(hourly, Math.round(minutes * 100), 6000));

/**
 * The minutes each size takes of a batch: of the pot by weight, of the filling its own.
 * @example minutesBySize(60, [{ units: 10, fill: mg(60_000), unitMinutes: 1 }, { units: 10, fill: mg(20_000), unitMinutes: 2 }]) // [55, 35]
 */
export function minutesBySize(batchMinutes: number, sizes: readonly { units: number; fill: Mg; unitMinutes: number }[]): number[] {
  const all = sizes.reduce((a, s) => a + s.units * s.fill, 0);
  return sizes.map((s) => (all > 0 ? (batchMinutes * s.units * s.fill) / all : 0) + s.unitMinutes * s.units);
}

/**
 * Minutes a whole batch is planned to take: the pot, and each unit.
 * @example plannedMinutes(40, [{ planned: 12, unitMinutesHundredths: 150 }]) // 58
 */
export const plannedMinutes = (batchMinutes: number, sizes: readonly { planned: number; unitMinutesHundredths: number }[]): number =>
  Math.round(batchMinutes + sizes.reduce((a, s) => a + (s.unitMinutesHundredths / 100) * s.planned, 0));

/**
 * Costs a batch poured into a mix of sizes against a shelf.
 * @example costMix({ lines: [{ of: 1, weight: mg(900) }], sizes: [{ ...size, units: 2 }], work: { ...rates, batchMinutes: 0 } }, stockOnHand([lot(3, 900)], today, again)).sizes[0].perUnit.lot?.total // 450000
 */
export function costMix(input: MixIn, shelf: Shelf): MixCost {
  const needs = [...ingredientsOf(input), ...input.sizes.flatMap((s) => packagingOf(s, s.units))];
  const costs = costNeeds(needs, shelf);
  const lines = costs.slice(0, input.lines.length);
  let at = input.lines.length;
  const packaging = input.sizes.map((s) => costs.slice(at, (at += s.packaging.length)));
  const batch = sum(input.lines.map((l) => l.weight));
  const shared = shareOut(batch, totalOf(lines), input.sizes, packaging.map(totalOf), input.work);
  return { batch, lines, sizes: shared.map((s, i) => ({ ...s, packaging: packaging[i]! })) };
}

const ingredientsOf = (pot: PotIn): Need[] => pot.lines.map((l) => ({ of: l.of, amount: l.weight }));
const packagingOf = (size: SizeIn, units: number): Need[] => size.packaging.map((p) => ({ of: p.of, amount: p.pieces * units }));

/** Shares what a pot cost out to the sizes it fills. */
function shareOut(
  batch: Mg,
  lines: Totals,
  sizes: MixIn["sizes"],
  packaging: readonly Totals[],
  work: PotIn["work"],
): Omit<SizeCost, "packaging">[] {
  const weights = sizes.map((s) => s.units * s.fill);
  const minutes = minutesBySize(work.batchMinutes, sizes);
  const filled = weights.reduce((a, w) => a + w, 0);
  const shares = byCostingMethod((school) => {
    const all = lines[school];
    if (all === null || filled === 0) return null;
    const useful = allocate(all, [...weights, Math.max(0, batch - filled)]);
    return { useful, lost: allocate(useful.at(-1)!, weights) };
  });
  return sizes.map(({ units }, i) => {
    const worked = forMinutes(minutes[i]!, work.hourly);
    const overhead = forMinutes(minutes[i]!, work.overheadHourly);
    return {
      units,
      minutes: minutes[i]!,
      perUnit: byCostingMethod((school) => {
        const share = shares[school];
        const packed = packaging[i]![school];
        if (!share || packed === null || units === 0) return null;
        return perUnitOf({ ingredients: share.useful[i]!, packaging: packed, work: worked, overhead, loss: share.lost[i]! }, units);
      }),
    };
  });
}

/**
 * What one unit costs, where nobody asks out of which lots: `costRecipe` without its lines.
 * @example unitCosts({ ...size, lines: [{ of: 1, weight: mg(900) }], work: { ...rates, batchMinutes: 0 }, lossBp: 0 }, stockOnHand([lot(3, 900)], today, again)).units // 2
 */
export function unitCosts(input: CostIn, shelf: Shelf): Omit<SizeCost, "packaging"> {
  const batch = sum(input.lines.map((l) => l.weight));
  const { units } = fillPlan(batch, input.fill, input.lossBp);
  const [lines, packaging] = costGroups([ingredientsOf(input), packagingOf(input, units)], shelf);
  const { fill, unitMinutes } = input;
  return shareOut(batch, lines!, [{ packaging: [], fill, unitMinutes, units }], [packaging!], input.work)[0]!;
}

/**
 * Costs a batch of a recipe that goes into one size, as many units as it fills.
 * @example costRecipe({ ...size, lines: [{ of: 1, weight: mg(900) }], work: { ...rates, batchMinutes: 0 }, lossBp: 0 }, stockOnHand([lot(3, 900)], today, again)).units // 2
 */
export function costRecipe(input: CostIn, shelf: Shelf): RecipeCost {
  const fill = fillPlan(sum(input.lines.map((l) => l.weight)), input.fill, input.lossBp);
  const { packaging, unitMinutes } = input;
  const size = { packaging, fill: input.fill, unitMinutes, units: fill.units };
  const { batch, lines, sizes } = costMix({ lines: input.lines, work: input.work, sizes: [size] }, shelf);
  return { ...sizes[0]!, batch, fill, lines };
}

/**
 * Shares batch costs over its units.
 * @param units > 0
 * @example perUnitOf({ ingredients: 600, packaging: 0, work: 0, overhead: 0, loss: 0 }, 3).total // 200
 */
export function perUnitOf(batch: Record<CostPart, number>, units: number): UnitCosts {
  const ingredients = micros(mulDiv(batch.ingredients, 1, units));
  const packaging = micros(mulDiv(batch.packaging, 1, units));
  const work = micros(mulDiv(batch.work, 1, units));
  const overhead = micros(mulDiv(batch.overhead, 1, units));
  const loss = micros(mulDiv(batch.loss, 1, units));
  const materials = micros(ingredients + packaging + loss);
  return { ingredients, packaging, work, overhead, loss, materials, total: micros(materials + work + overhead) };
}
