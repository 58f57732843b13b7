/** Poured batches as a file: a row for each size that was filled. */
import type { FileColumn } from "#core/lists/fileColumns";
import { RECIPE_TYPES } from "#core/recipe/types";
import type { listBatches } from "#db/bench/read";

type Batch = Awaited<ReturnType<typeof listBatches>>[number];
type Filled = Batch & { size: Batch["sizes"][number] };

export const filledOf = (batches: readonly Batch[]): Filled[] =>
  batches.flatMap((b) => b.sizes.filter((s) => s.units).map((size) => ({ ...b, size })));

export const BATCHES_FILE: FileColumn<Filled>[] = [
  { head: "poured", of: (b) => b.day },
  { head: "recipe", of: (b) => b.recipe },
  { head: "kind", of: (b) => RECIPE_TYPES[b.type].label },
  { head: "version", of: (b) => b.version, as: "number" },
  { head: "batch planned", of: (b) => b.plannedMg, as: "grams" },
  { head: "size", of: ({ size }) => size.label },
  { head: "lot", of: ({ size }) => size.number },
  { head: "units planned", of: ({ size }) => size.planned, as: "number" },
  { head: "units filled", of: ({ size }) => size.units, as: "number" },
  { head: "units left", of: ({ size }) => size.onHand, as: "number" },
  { head: "best before", of: ({ size }) => size.bestBefore },
  { head: "on hold", of: ({ size }) => (size.hold ? "yes" : "no") },
];
