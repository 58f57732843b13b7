/**
 * Replays a lot's movements from the first one and works out what each is worth.
 *
 * When something in the books turns out otherwise (a receipt is corrected, an act is reversed), the movements still in effect are replayed
 * in their order by the rules they were first written by, as if it had never been otherwise. The ledger has what was believed at the time;
 * the differences are posted beside it.
 */
import { micros, minus, type Base, type Micros } from "../measure/exact.ts";
import { costOf } from "../measure/money.ts";
import { drawValue } from "../stock/lots.ts";

export interface Entry {
  /** Came in at a stated value; was found, at what the lot cost; was drawn; or was counted, which says what is there, whatever came before. */
  how: "came" | "found" | "drawn" | "counted";
  /** Of what came in or was drawn, its amount now; of what was counted, all there is by it; not below zero. */
  qty: Base;
  /** Of what came in; passed over otherwise. */
  value: Micros;
}

export interface Replayed {
  /** Value of each entry, in order; of what was drawn as a positive figure, of what a count found missing below zero. */
  values: Micros[];
  /** How much each entry moved, in the same way. */
  qtys: Base[];
  left: { onHand: Base; value: Micros };
  /** The first draw the lot hadn't enough for, or find in a lot that never came, by its place; nothing after it is worked out. */
  shortAt: number | null;
}

/**
 * Goes through a lot's standing entries in order.
 * @example replay([{ how: "came", qty: 100, value: micros(30) }, { how: "drawn", qty: 50, value: micros(0) }]).values // [30, 15]
 * @example replay([{ how: "came", qty: 100, value: micros(30) }, { how: "counted", qty: 90, value: micros(0) }]).qtys // [100, -10]
 */
export function replay(entries: readonly Entry[]): Replayed {
  const left = { onHand: 0, value: micros(0) };
  const first = entries.find((e) => e.how === "came");
  const values: Micros[] = [];
  const qtys: Base[] = [];
  const moved = (qty: Base, value: Micros): void => {
    left.onHand += qty;
    left.value = micros(left.value + value);
  };
  const drawn = (qty: Base): Micros => {
    const value = drawValue(left, qty);
    moved(-qty, minus(value));
    return value;
  };
  for (const [i, e] of entries.entries()) {
    const short: Replayed = { values, qtys, left, shortAt: i };
    const qty = e.how === "counted" ? e.qty - left.onHand : e.qty;
    qtys.push(qty);
    if (e.how === "drawn") {
      if (qty > left.onHand) return { ...short, qtys: qtys.slice(0, -1) };
      values.push(drawn(qty));
      continue;
    }
    if (qty < 0) {
      values.push(minus(drawn(-qty)));
      continue;
    }
    // What was found was found in something: with what brought it gone, it can't stay behind by itself.
    if (e.how !== "came" && qty > 0 && !first) return { ...short, qtys: qtys.slice(0, -1) };
    const value = e.how === "came" ? e.value : first && first.qty > 0 ? costOf(qty, { value: first.value, per: first.qty }) : micros(0);
    moved(qty, value);
    values.push(value);
  }
  return { values, qtys, left, shortAt: null };
}
