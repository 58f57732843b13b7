/**
 * When a receipt is corrected after some of a lot was used: what each draw and what is left should have cost, and the differences
 * to post. The ledger keeps what was believed at the time; the differences stand beside it.
 */
import { allocate, micros, type Base, type Micros } from "../measure/exact.ts";

export interface Drawn {
  qty: Base;
  value: Micros;
}

export interface Restated {
  /** To add to the value of what is left. */
  left: Micros;
  /** To add to the value of each draw, in order. */
  draws: Micros[];
}

/**
 * Shares a lot's corrected cost over what is left and what was drawn, by amount.
 * @param cost all that came into the lot, corrected
 * @param left what is on hand, with the value it has in the books
 * @example restate(micros(200), { qty: 50, value: 50 }, [{ qty: 50, value: 50 }]) // left +50, draws [+50]
 */
export function restate(cost: Micros, left: Drawn, draws: readonly Drawn[]): Restated {
  const all = [left, ...draws];
  const shares = all.some((d) => d.qty > 0)
    ? allocate(
        cost,
        all.map((d) => d.qty),
      )
    : all.map(() => 0);
  const [first, ...rest] = shares.map((s, i) => micros(s - all[i]!.value));
  return { left: first!, draws: rest };
}
