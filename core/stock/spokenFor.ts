/** What of the shelf is promised already to batches on the bench: no two of them may count on the same gram. */
import { micros } from "../measure/exact.ts";
import type { Day } from "../when.ts";
import { drawValue, type Lot } from "./lots.ts";
import { planTakes, shelfOf, type Need, type Take } from "./shelf.ts";

type Taken = Pick<Take, "lotId" | "amount">;

export interface SpokenFor {
  /** Out of lots that were chosen. */
  takes: readonly Taken[];
  /** Out of whichever lot is used first when it comes to it: packaging. */
  needs: readonly Need[];
}

/** Lots without so much of each, and what that is worth. */
function without(lots: readonly Lot[], takes: readonly Taken[]): Lot[] {
  const gone = new Map<number, number>();
  for (const t of takes) gone.set(t.lotId, (gone.get(t.lotId) ?? 0) + t.amount);
  return lots.flatMap((l) => {
    const amount = Math.min(l.onHand, gone.get(l.id) ?? 0);
    if (amount === 0) return [l];
    return amount === l.onHand ? [] : [{ ...l, onHand: l.onHand - amount, value: micros(l.value - drawValue(l, amount)) }];
  });
}

/**
 * What is left of lots once what is promised is set aside; of one that is promised whole nothing.
 * @example unspoken([], { takes: [], needs: [] }, "2026-11-27") // []
 */
export function unspoken(lots: readonly Lot[], { takes, needs }: SpokenFor, day: Day): Lot[] {
  const left = without(lots, takes);
  return without(
    left,
    planTakes(needs, shelfOf(left, day)).flatMap((p) => p.takes),
  );
}
