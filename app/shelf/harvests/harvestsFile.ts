/** Harvests as a file. */
import type { FileColumn } from "#core/lists/fileColumns";
import { DRYING_METHODS } from "#core/infusion/drying";
import type { HarvestRow } from "#db/shelf/harvests";

export const HARVESTS_FILE: FileColumn<HarvestRow>[] = [
  { head: "picked", of: ({ harvest }) => harvest.picked },
  { head: "herb", of: (h) => h.material },
  { head: "place", of: ({ harvest }) => harvest.place },
  { head: "drying", of: ({ harvest }) => DRYING_METHODS[harvest.method] },
  { head: "celsius", of: ({ harvest }) => harvest.celsius, as: "number" },
  { head: "state", of: ({ harvest }) => (harvest.driedActId === null ? "drying" : "dried") },
  { head: "fresh", of: ({ harvest }) => harvest.fresh, as: "grams" },
  { head: "last weighed", of: ({ harvest, checks }) => harvest.dry ?? checks.at(-1)?.weight ?? harvest.fresh, as: "grams" },
  { head: "dry", of: ({ harvest }) => harvest.dry, as: "grams" },
  { head: "lot", of: (h) => h.number },
  { head: "left", of: (h) => h.onHand, as: "grams" },
  { head: "best before", of: (h) => h.bestBefore },
  { head: "minutes of work", of: ({ harvest }) => harvest.minutes, as: "number" },
  { head: "note", of: ({ harvest }) => harvest.note },
];
