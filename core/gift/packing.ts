/** Out of which lots an order is packed: a line that names its lot out of that one, the others use-first out of what is left. */
import { micros } from "../measure/exact.ts";
import { drawValue, type Lot } from "../stock/lots.ts";
import { planTakes, stockOnHand, type NeedPlan } from "../stock/shelf.ts";
import type { Day } from "../when.ts";

export interface PackLine {
  /** The product. */
  of: number;
  units: number;
  /** Chosen by hand. */
  lotId: number | null;
}

/**
 * Plans each line, in the order of the lines.
 * @param lots with what is open of each; a line that names none of them is short of all its units
 * @param day the lots taken by themselves last until then
 * @example planPacking([{ of: 1, units: 2, lotId: 7 }, { of: 1, units: 1, lotId: null }], [lot(7, 2), lot(8, 9)], today).map((p) => p.takes[0].lotId) // [7, 8]
 */
export function planPacking(lines: readonly PackLine[], lots: readonly Lot[], day: Day): NeedPlan[] {
  const left = new Map(lots.map((l) => [l.id, { ...l }]));
  const byHand = lines.map(({ units, lotId }): NeedPlan | null => {
    if (lotId === null) return null;
    const lot = left.get(lotId);
    const amount = Math.min(units, lot?.onHand ?? 0);
    if (!lot || amount === 0) return { takes: [], short: units };
    const value = drawValue(lot, amount);
    lot.onHand -= amount;
    lot.value = micros(lot.value - value);
    return { takes: [{ lotId, amount, value }], short: units - amount };
  });
  const rest = lines.filter((_, i) => byHand[i] === null);
  const plans = planTakes(
    rest.map((l) => ({ of: l.of, amount: l.units })),
    stockOnHand([...left.values()], day),
  );
  return byHand.map((p) => p ?? plans.shift()!);
}
