/** What a recipe on its sheet is costed by: its lines, the sizes that are made, and the work. */
import { orNothing, readPlain } from "#core/measure/read";
import type { Mg } from "#core/measure/exact";
import { costRecipe, type RecipeCost, type WorkRates } from "#core/recipe/cost";
import type { ReadRecipe } from "#core/recipe/written";
import type { Shelf } from "#core/stock/shelf";
import { lossOf } from "./foresight/foreseen.ts";
import type { RecipeTexts } from "./recipeTexts.ts";

export interface CostedLine {
  of: number;
  weight: Mg;
  name: string;
}

export interface CostedSize {
  label: string;
  fill: Mg;
  unitMinutes: number;
  packaging: { of: number; pieces: number; name: string }[];
}

export interface Costing {
  lines: CostedLine[];
  /** Those that aren't put away and can be read. */
  sizes: CostedSize[];
  lossBp: number;
  /** A batch into one size; of other lines than are written, where they are given. */
  cost: (size: CostedSize, lines?: readonly { of: number; weight: Mg }[]) => RecipeCost;
}

const plain = (text: string): number => orNothing(text, readPlain, 0);

export function costingOf(read: ReadRecipe, values: RecipeTexts, rates: WorkRates, shelf: Shelf): Costing {
  const lines = read.lines.flatMap((l) =>
    l.out.ok && l.material ? [{ of: l.material.id, weight: l.out.weight, name: l.material.name }] : [],
  );
  const sizes = read.sizes.flatMap((s, i) =>
    s.fill.ok && values.sizes[i]?.away !== "yes"
      ? [
          {
            label: s.fill.value.label,
            fill: s.fill.value.weight,
            unitMinutes: plain(values.sizes[i]?.minutes ?? ""),
            packaging: s.packaging.map((p) => ({ of: p.material.id, pieces: p.pieces, name: p.material.name })),
          },
        ]
      : [],
  );
  const lossBp = lossOf(values.loss);
  const work = { ...rates, batchMinutes: plain(values.batchMinutes) };
  return { lines, sizes, lossBp, cost: (size, of = lines) => costRecipe({ lines: of, ...size, lossBp, work }, shelf) };
}
