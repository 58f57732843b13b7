/** The cabinet as a file, lot by lot. */
import { finishedCost } from "#core/batch/finishing/result";
import type { FileColumn } from "#core/lists/fileColumns";
import { RECIPE_TYPES } from "#core/recipe/types";
import type { CabinetLot } from "#db/cabinet/cabinet";

const known = (l: CabinetLot): boolean => l.costKnown !== "none";

export const CABINET_FILE: FileColumn<CabinetLot>[] = [
  { head: "product", of: (l) => l.name },
  { head: "size", of: (l) => l.label },
  { head: "kind", of: (l) => (l.type ? RECIPE_TYPES[l.type].label : "") },
  { head: "lot", of: (l) => l.number },
  { head: "poured", of: (l) => l.arrived },
  { head: "best before", of: (l) => l.bestBefore },
  { head: "on hold", of: (l) => (l.hold ? "yes" : "no") },
  { head: "here", of: (l) => l.onHand, as: "number" },
  { head: "materials, one", of: (l) => (known(l) ? finishedCost(l, l).materials : null), as: "money" },
  { head: "all costs, one", of: (l) => (known(l) ? finishedCost(l, l).full : null), as: "money" },
  { head: "worth in materials", of: (l) => (known(l) ? l.value : null), as: "money" },
];
