/**
 * Best-before of what is made: never later than the shortest-lived lot in it (common practice, no source; usual shelf life is
 * 9–12 months for salves and balms).
 */
import { addMonths, type Day } from "../../when.ts";

export interface BestBefore {
  day: Day;
  /** The lot that cut it short, when one did. */
  limitedBy: string | null;
}

/**
 * @param keepsMonths how long the product keeps when every lot does
 * @example bestBefore("2026-01-10", 12, [{ number: "R7", bestBefore: "2026-08-01" }]) // { day: "2026-08-01", limitedBy: "R7" }
 */
export function bestBefore(made: Day, keepsMonths: number, lots: readonly { number: string; bestBefore: Day | null }[]): BestBefore {
  let best: BestBefore = { day: addMonths(made, keepsMonths), limitedBy: null };
  for (const lot of lots) if (lot.bestBefore !== null && lot.bestBefore < best.day) best = { day: lot.bestBefore, limitedBy: lot.number };
  return best;
}
