/** What a cost rests on besides what was paid: what was on the shelf before the books began has no receipt. */
import type { Lot } from "./lots.ts";
import type { NeedPlan } from "./shelf.ts";

/** Lots a plan takes from whose cost is a guess, and those that have none. */
export interface Unsure {
  guessed: Lot[];
  none: Lot[];
}

/**
 * What a cost rests on besides what was paid: each lot once, in the order it is taken.
 * @example uncertainCosts([{ takes: [{ lotId: 3, amount: 5, value: micros(0) }], short: 0 }], [{ ...lot(3, 5), costKnown: "none" }]).none.length // 1
 */
export function uncertainCosts(plans: readonly NeedPlan[], lots: readonly Lot[]): Unsure {
  const taken = new Set(plans.flatMap((p) => p.takes.map((t) => t.lotId)));
  const among = lots.filter((l) => taken.has(l.id));
  return { guessed: among.filter((l) => l.costKnown === "guessed"), none: among.filter((l) => l.costKnown === "none") };
}
