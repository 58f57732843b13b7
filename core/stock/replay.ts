/**
 * What a lot's movements are worth, worked out from the beginning.
 *
 * When something that stands in the books turns out otherwise (a receipt is corrected, an act is taken back), the movements that still
 * stand are gone through again in their order with the very rules they were first written by, so that the books come out as if it had
 * never been otherwise. The ledger keeps what was believed at the time; the differences are posted beside it.
 */
import { micros, type Base, type Micros } from "../measure/exact.ts";
import { costOf } from "../measure/money.ts";
import { drawValue } from "./lots.ts";

export interface Entry {
  /** Came in at a value of its own; was found by counting, at what the lot cost; or was drawn. */
  how: "came" | "found" | "drawn";
  /** Of what came in or was drawn, as it stands now; not below zero. */
  qty: Base;
  /** Of what came in; passed over otherwise. */
  value: Micros;
}

export interface Replayed {
  /** Value of each entry, in order; of what was drawn as a positive figure. */
  values: Micros[];
  left: { onHand: Base; value: Micros };
  /** The first draw the lot hadn't enough for, or find in a lot that never came, by its place; nothing after it is worked out. */
  shortAt: number | null;
}

/**
 * Goes through a lot's standing entries in order.
 * @example replay([{ how: "came", qty: 100, value: micros(30) }, { how: "drawn", qty: 50, value: micros(0) }]).values // [30, 15]
 */
export function replay(entries: readonly Entry[]): Replayed {
  const left = { onHand: 0, value: micros(0) };
  const first = entries.find((e) => e.how === "came");
  const values: Micros[] = [];
  for (const [i, e] of entries.entries()) {
    if (e.how === "drawn") {
      if (e.qty > left.onHand) return { values, left, shortAt: i };
      const value = drawValue(left, e.qty);
      left.onHand -= e.qty;
      left.value = micros(left.value - value);
      values.push(value);
      continue;
    }
    // What was found by counting was found in something: with what brought it gone, it can't stay behind by itself.
    if (e.how === "found" && !first) return { values, left, shortAt: i };
    const value = e.how === "came" ? e.value : first && first.qty > 0 ? costOf(e.qty, { value: first.value, per: first.qty }) : micros(0);
    left.onHand += e.qty;
    left.value = micros(left.value + value);
    values.push(value);
  }
  return { values, left, shortAt: null };
}
