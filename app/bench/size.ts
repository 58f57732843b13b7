/** How large a batch: so many units, so many grams, or all of one lot. Read live on the page and again by the action. */
import { mg, type Mg } from "#core/measure/exact";
import { parseNumber } from "#core/measure/parse";
import { done, refuse, type Outcome } from "#core/outcome";
import { batchFor, fillPlan, totalForLine } from "#core/recipe/scale";
import type { Lot } from "#core/stock/lots";
import type { WrittenRecipe } from "#db/recipe/read";
import { readWeight } from "../forms/fields.ts";

export const SIZE_MODES = { units: "So many units", grams: "So much by weight", lot: "All of one lot" } as const;
export type SizeMode = keyof typeof SIZE_MODES;

const MOST_UNITS = 5000;

export interface BatchSize {
  batch: Mg;
  units: number;
}

/** @returns a problem in words when the size can't be read or fills no unit */
export function readSize(mode: SizeMode, text: string, lotId: number, w: WrittenRecipe, lots: readonly Lot[]): Outcome<BatchSize> {
  const { fill } = w.product;
  const planned = (batch: Mg): Outcome<BatchSize> => {
    const { units } = fillPlan(batch, fill, w.recipe.lossBp);
    if (units < 1) return refuse("small", "That doesn't fill a single unit.");
    return units > MOST_UNITS
      ? refuse("absurd", `That would fill ${units.toLocaleString("en-GB")} units. Check the amount.`)
      : done({ batch, units });
  };
  if (mode === "units") {
    const n = parseNumber(text);
    if (!n.ok) return n.problem.code === "empty" ? refuse("empty", "Enter how many units.") : n;
    const units = Number(n.value.valueOf());
    if (!Number.isInteger(units) || units < 1) return refuse("whole", "Enter a whole number of units, 1 or more.");
    return units > MOST_UNITS
      ? refuse("absurd", `${units.toLocaleString("en-GB")} units is more than a kitchen can pour; the most is ${MOST_UNITS}.`)
      : done({ batch: batchFor(units, fill, w.recipe.lossBp), units });
  }
  if (mode === "grams") {
    const weight = readWeight(text);
    return weight.ok ? planned(weight.value) : weight;
  }
  const lot = lots.find((l) => l.id === lotId);
  const line = lot && w.lines.filter((l) => l.materialId === lot.of).reduce((a, l) => a + l.weight, 0);
  if (!lot || !line) return refuse("lot", "Choose the lot to use up.");
  return planned(totalForLine(mg(w.lines.reduce((a, l) => a + l.weight, 0)), mg(line), mg(lot.onHand)));
}
