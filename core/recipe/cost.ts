/**
 * What one unit costs, and out of what: ingredients, packaging, work, overhead and loss, by each costing school.
 *
 * The loss is everything in the pot that does not end in a unit (what clings, and the rest too small for another unit).
 * Overhead is charged per hour of work: insurance, power and rent run while the workroom does (common practice, no source).
 */
import { allocate, micros, mulDiv, type Mg, type Micros } from "../measure/exact.ts";
import type { Lot } from "../stock/lots.ts";
import { SCHOOL_IDS, costNeeds, type NeedCost, type School } from "../stock/schools.ts";
import type { UnitCost } from "../measure/money.ts";
import type { Day } from "../when.ts";
import { fillPlan, type FillPlan } from "./scale.ts";

export interface CostIn {
  /** Ingredient lines of the batch: material and weight. */
  lines: readonly { of: number; weight: Mg }[];
  /** Packaging for one unit: material and pieces. */
  packaging: readonly { of: number; pieces: number }[];
  fill: Mg;
  lossBp: number;
  work: WorkRates & { batchMinutes: number; unitMinutes: number };
}

export interface WorkRates {
  hourly: Micros;
  overheadHourly: Micros;
}

export const COST_PARTS = { ingredients: "Ingredients", packaging: "Packaging", work: "Work", overhead: "Overhead", loss: "Loss" } as const;
export type CostPart = keyof typeof COST_PARTS;

/** Micros per unit; `total` is the exact sum of the parts. `materials` = ingredients + packaging + loss. */
export type UnitCosts = Record<CostPart, Micros> & { total: Micros; materials: Micros };

export interface RecipeCost {
  batch: Mg;
  fill: FillPlan;
  minutes: number;
  lines: NeedCost[];
  packaging: NeedCost[];
  /** Per unit and school; null where some material has no cost yet, or not one unit can be filled. */
  perUnit: Record<School, UnitCosts | null>;
}

/** What so many minutes cost at an hourly rate. @example forMinutes(90, micros(16_000_000)) // 24.00 */
export const forMinutes = (minutes: number, hourly: Micros): Micros => micros(mulDiv(hourly, Math.round(minutes * 100), 6000));

const total = (costs: readonly NeedCost[], school: School): Micros | null => {
  let t = 0;
  for (const c of costs) {
    const one = c.cost[school];
    if (one === null) return null;
    t += one;
  }
  return micros(t);
};

/**
 * Costs a batch of a recipe against a shelf.
 * @param lots lots of every material in it
 * @param again newest landed unit cost per material
 * @example costRecipe(input, lots, again, today).perUnit.lot?.total
 */
export function costRecipe(input: CostIn, lots: readonly Lot[], again: ReadonlyMap<number, UnitCost>, today: Day): RecipeCost {
  const batch = input.lines.reduce((a, l) => a + l.weight, 0) as Mg;
  const fill = fillPlan(batch, input.fill, input.lossBp);
  const needs = [
    ...input.lines.map((l) => ({ of: l.of, amount: l.weight as number })),
    ...input.packaging.map((p) => ({ of: p.of, amount: p.pieces * fill.units })),
  ];
  const costs = costNeeds(needs, lots, again, today);
  const lines = costs.slice(0, input.lines.length);
  const packaging = costs.slice(input.lines.length);
  const minutes = input.work.batchMinutes + input.work.unitMinutes * fill.units;
  const perUnit = Object.fromEntries(
    SCHOOL_IDS.map((school) => {
      const ingredients = total(lines, school);
      const packed = total(packaging, school);
      if (ingredients === null || packed === null || fill.units === 0) return [school, null];
      const inUnits = fill.units * input.fill;
      const [useful, lost] = allocate(ingredients, [inUnits, batch - inUnits]) as [number, number];
      return [
        school,
        perUnitOf(
          {
            ingredients: useful,
            packaging: packed,
            work: forMinutes(minutes, input.work.hourly),
            overhead: forMinutes(minutes, input.work.overheadHourly),
            loss: lost,
          },
          fill.units,
        ),
      ];
    }),
  ) as Record<School, UnitCosts | null>;
  return { batch, fill, minutes, lines, packaging, perUnit };
}

/**
 * Shares batch costs over its units.
 * @param units > 0
 * @example perUnitOf({ ingredients: 600, packaging: 0, work: 0, overhead: 0, loss: 0 }, 3).total // 200
 */
export function perUnitOf(batch: Record<CostPart, number>, units: number): UnitCosts {
  const each = (n: number): Micros => micros(mulDiv(n, 1, units));
  const parts = {
    ingredients: each(batch.ingredients),
    packaging: each(batch.packaging),
    work: each(batch.work),
    overhead: each(batch.overhead),
    loss: each(batch.loss),
  };
  const materials = micros(parts.ingredients + parts.packaging + parts.loss);
  return { ...parts, materials, total: micros(materials + parts.work + parts.overhead) };
}
