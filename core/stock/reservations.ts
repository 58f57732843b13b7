/** Subtracts from the stock what batches on the bench have reserved, so that no gram is planned twice. */
import { micros } from "../measure/exact.ts";
import type { Day } from "../when.ts";
import { drawValue, type Lot } from "./lots.ts";
import { planTakes, stockOnHand, type Need, type Take } from "./shelf.ts";

type Taken = Pick<Take, "lotId" | "amount">;

export interface Reservations {
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
 * What is left of lots without what is reserved; a lot reserved whole is left out.
 * @example unreserved([], { takes: [], needs: [] }, "2026-11-27") // []
 */
export function unreserved(lots: readonly Lot[], { takes, needs }: Reservations, day: Day): Lot[] {
  const left = without(lots, takes);
  return without(
    left,
    planTakes(needs, stockOnHand(left, day)).flatMap((p) => p.takes),
  );
}
