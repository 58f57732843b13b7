/** The cabinet as a file, lot by lot. */
import { finishedCost } from "#core/batch/finishing/result";
import type { FileColumn } from "#core/lists/fileColumns";
import { RECIPE_TYPES } from "#core/recipe/types";
import type { CabinetLot } from "#db/cabinet/cabinet";

export const CABINET_FILE: FileColumn<CabinetLot>[] = [
  { head: "product", of: (l) => l.name },
  { head: "size", of: (l) => l.label },
  { head: "kind", of: (l) => (l.type ? RECIPE_TYPES[l.type].label : "") },
  { head: "lot", of: (l) => l.number },
  { head: "poured", of: (l) => l.arrived },
  { head: "best before", of: (l) => l.bestBefore },
  { head: "on hold", of: (l) => (l.hold ? "yes" : "no") },
  { head: "here", of: (l) => l.onHand, as: "number" },
  { head: "materials, one", of: (l) => finishedCost(l, l).materials, as: "money" },
  { head: "all costs, one", of: (l) => finishedCost(l, l).full, as: "money" },
  { head: "worth in materials", of: (l) => l.value, as: "money" },
];
