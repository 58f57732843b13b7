/**
 * Until when a lot of a material is good, and what says so.
 *
 * What is printed on it counts. Where nothing is, it keeps as long as its material does, from the day it arrived; once it is opened,
 * as long as the material keeps opened, and never longer than it would have sealed. Common practice, no source.
 */
import { addMonths, type Day } from "../when.ts";

export const BEST_BY = {
  "": "nobody has said how long it keeps",
  printed: "as printed",
  keeping: "by how long it keeps",
  opened: "since it was opened",
} as const;
export type BestBeforeBasis = keyof typeof BEST_BY;

export interface Keeping {
  /** Months unopened and once opened; null where nobody has said. */
  keepsSealed: number | null;
  keepsOpened: number | null;
}

/**
 * @returns the day that counts and what it follows from
 * @example bestBy({ printed: null, arrived: "2026-01-10", opened: null }, { keepsSealed: 6, keepsOpened: 3 }) // { day: "2026-07-10", by: "keeping" }
 */
export function bestBy(
  lot: { printed: Day | null; arrived: Day; opened: Day | null },
  keeps: Keeping,
): { day: Day | null; by: BestBeforeBasis } {
  const sealed: { day: Day | null; by: BestBeforeBasis } =
    lot.printed !== null
      ? { day: lot.printed, by: "printed" }
      : keeps.keepsSealed === null
        ? { day: null, by: "" }
        : { day: addMonths(lot.arrived, keeps.keepsSealed), by: "keeping" };
  if (lot.opened === null || keeps.keepsOpened === null) return sealed;
  const open = addMonths(lot.opened, keeps.keepsOpened);
  return sealed.day !== null && sealed.day <= open ? sealed : { day: open, by: "opened" };
}
