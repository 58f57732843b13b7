/** How much of everything a lot came from is in it, by every way it got there. */
import { groupBy } from "../collect.ts";
import type { Base } from "../measure/exact.ts";

/** So much of lot `from` is in all of lot `to` as it was made. */
export interface Contained {
  from: number;
  to: number;
  qty: Base;
}

/**
 * Of what went into something in between, the share of that which is in the lot counts; what got there in several ways is added up.
 * @param made how much of each lot there was in all
 * @returns by lot, rounded where it is shown to the milligram or the hundredth of a piece; without the lot itself
 * @example contentsOf(3, [{ from: 1, to: 2, qty: 50 }, { from: 2, to: 3, qty: 20 }, { from: 1, to: 3, qty: 5 }], new Map([[2, 100], [3, 30]])).get(1) // 15
 */
export function contentsOf(lot: number, links: readonly Contained[], made: ReadonlyMap<number, Base>): Map<number, number> {
  const into = groupBy(links, (l) => l.from);
  const known = new Map<number, number>([[lot, made.get(lot) ?? 0]]);
  const open = new Set<number>();
  const amountOf = (of: number): number => {
    const before = known.get(of);
    if (before !== undefined) return before;
    // A record that were to loop ends here.
    if (open.has(of)) return 0;
    open.add(of);
    const amount = (into.get(of) ?? []).reduce((a, { to, qty }) => {
      const whole = made.get(to) ?? 0;
      return a + (to === lot ? qty : whole > 0 ? (qty * amountOf(to)) / whole : 0);
    }, 0);
    open.delete(of);
    known.set(of, amount);
    return amount;
  };
  return new Map([...into.keys()].filter((from) => from !== lot).map((from) => [from, amountOf(from)]));
}
