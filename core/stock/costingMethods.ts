/**
 * Three answers to "what does a gram of this cost?", all in use among makers (common practice, no source):
 *
 * - `lot`: specific lot — what the lots cost that would be taken, first expired first;
 * - `average`: moving average of all that is on hand;
 * - `again`: replacement — what buying it today would cost: the newest purchase, postage included.
 */
import { micros, sum, type Base, type Micros } from "../measure/exact.ts";
import { costOf, type UnitCost } from "../measure/money.ts";
import { Draws, planTakes, type Need, type NeedPlan, type Shelf, type Take } from "./shelf.ts";

export const COSTING_METHODS = { lot: "Lot cost", average: "Average cost", again: "Replacement cost" } as const;
export type CostingMethod = keyof typeof COSTING_METHODS;
export const COSTING_METHOD_IDS = Object.keys(COSTING_METHODS) as CostingMethod[];

/** A value for each costing method. @example byCostingMethod((s) => s.length) // { lot: 3, average: 7, again: 5 } */
export const byCostingMethod = <T>(of: (school: CostingMethod) => T): Record<CostingMethod, T> => ({
  lot: of("lot"),
  average: of("average"),
  again: of("again"),
});

export interface NeedCost {
  plan: NeedPlan;
  /** Per school; null when there is nothing to price it by. */
  cost: Record<CostingMethod, Micros | null>;
  /** True where the lots fall short and the rest of `lot` is priced as if bought again. */
  estimated: boolean;
}

/**
 * What each need costs by each costing method.
 * @example costNeeds([{ of: 1, amount: 100 }], stockOnHand([lot(3, 900)], today, again))[0].cost // { lot: 100_000, average: 100_000, again: 200 }
 */
export function costNeeds(needs: readonly Need[], shelf: Shelf): NeedCost[] {
  const plans = planTakes(needs, shelf);
  return needs.map(({ of, amount }, i) => {
    const plan = plans[i]!;
    const { average, again: anew } = shelf.of(of);
    const rest = costOrNone(plan.short, anew);
    return {
      plan,
      estimated: plan.short > 0,
      cost: {
        lot: rest === null ? null : micros(valueOf(plan.takes) + rest),
        average: costOrNone(amount, average ?? anew),
        again: costOrNone(amount, anew),
      },
    };
  });
}

const costOrNone = (amount: Base, by: UnitCost | null): Micros | null =>
  amount === 0 ? micros(0) : by === null ? null : costOf(amount, by);

function valueOf(takes: readonly Take[]): number {
  let value = 0;
  for (const t of takes) value += t.value;
  return value;
}

/** Per school, null when there is nothing to price something in it by. */
export type Totals = Record<CostingMethod, Micros | null>;

/** Both, as long as both are known. */
const plus = (sum: Micros | null, one: Micros | null): Micros | null => (sum === null || one === null ? null : micros(sum + one));

/** What needs that were costed come to. */
export const totalOf = (costs: readonly NeedCost[]): Totals =>
  byCostingMethod((school) => costs.reduce<Micros | null>((a, c) => plus(a, c.cost[school]), micros(0)));

/**
 * What each of several groups of needs comes to, met one group after the other: `totalOf` their `costNeeds`, where nobody asks for the lots.
 * @example costGroups([[{ of: 1, amount: 100 }]], stockOnHand([lot(3, 900)], today, again))[0] // { lot: 100_000, average: 100_000, again: 200 }
 */
export function costGroups(groups: readonly (readonly Need[])[], shelf: Shelf): Totals[] {
  const draws = new Draws();
  return groups.map((needs) => {
    let [lot, average, again] = [0, 0, 0];
    // Of what was never bought nothing says what more of it costs; of what isn't here either, nothing at all does.
    let [lotKnown, averageKnown, againKnown] = [true, true, true];
    for (const { of, amount } of needs) {
      if (amount === 0) continue;
      const stock = shelf.of(of);
      const short = draws.take(stock, amount, (_lot, _amount, value) => {
        lot += value;
      });
      if (stock.again) {
        again += costOf(amount, stock.again);
        if (short > 0) lot += costOf(short, stock.again);
      } else {
        againKnown = false;
        if (short > 0) lotKnown = false;
      }
      const by = stock.average ?? stock.again;
      if (by) average += costOf(amount, by);
      else averageKnown = false;
    }
    return {
      lot: lotKnown ? micros(lot) : null,
      average: averageKnown ? micros(average) : null,
      again: againKnown ? micros(again) : null,
    };
  });
}

/**
 * What everything on hand is worth by each costing method. Lot by lot and on average it is what was paid, since an average only shares it
 * out; bought again it is what the same amounts would cost today, and what was never bought stays at what it cost.
 * @example worthByCostingMethod([{ id: 1, onHand: 1000, value: micros(5) }], new Map([[1, { value: micros(10), per: 1000 }]])).again // 10
 */
export function worthByCostingMethod(
  stock: readonly { id: number; onHand: Base; value: Micros }[],
  again: ReadonlyMap<number, UnitCost>,
): Record<CostingMethod, Micros> {
  const paid = sum(stock.map((s) => s.value));
  return {
    lot: paid,
    average: paid,
    again: sum(
      stock.map((s) => {
        const anew = again.get(s.id);
        return anew ? costOf(s.onHand, anew) : s.value;
      }),
    ),
  };
}
