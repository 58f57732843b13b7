/**
 * The shelf as a value: worked out once, however many recipes ask it. Which lots of a material are taken and in which order, what a gram of
 * it costs on average, and what having it again would cost; and plans that draw on it without changing anything.
 */
import { micros, type Base, type Micros } from "../measure/exact.ts";
import type { UnitCost } from "../measure/money.ts";
import type { Day } from "../when.ts";
import { drawValue, isUsable, useFirst, type Lot } from "./lots.ts";

/** The running average over everything on hand, or null when nothing is. @example runningAverage([]) // null */
export function runningAverage(lots: readonly Pick<Lot, "onHand" | "value">[]): UnitCost | null {
  const per = lots.reduce((a, l) => a + l.onHand, 0);
  return per > 0 ? { value: micros(lots.reduce((a, l) => a + l.value, 0)), per } : null;
}

export interface Shelf {
  /** Lots of a material that are taken by themselves, use-first. */
  usable: (of: number) => readonly Lot[];
  /** Over all of it on hand, held and past its day too; null when nothing is. */
  average: (of: number) => UnitCost | null;
  /** Its newest landed unit cost; null when it was never bought. */
  again: (of: number) => UnitCost | null;
}

interface Row {
  lots: Lot[];
  usable?: readonly Lot[];
  average?: UnitCost | null;
}

const NEVER_BOUGHT: ReadonlyMap<number, UnitCost> = new Map();

/**
 * Works a shelf out. A material is sorted and averaged when it is first asked for, and never again.
 * @param lots of any materials or products, in any order; they stay as they are
 * @param again newest landed unit cost per material; absent where nothing is to be priced
 * @example shelfOf([lot(3, 900)], today).usable(1).length // 1
 */
export function shelfOf(lots: readonly Lot[], today: Day, again: ReadonlyMap<number, UnitCost> = NEVER_BOUGHT): Shelf {
  const rows = new Map<number, Row>();
  for (const l of lots) {
    const row = rows.get(l.of);
    if (row) row.lots.push(l);
    else rows.set(l.of, { lots: [l] });
  }
  return {
    usable: (of) => {
      const row = rows.get(of);
      return row ? (row.usable ??= row.lots.filter((l) => isUsable(l, today)).sort(useFirst)) : [];
    },
    average: (of) => {
      const row = rows.get(of);
      if (!row) return null;
      if (row.average === undefined) row.average = runningAverage(row.lots);
      return row.average;
    },
    again: (of) => again.get(of) ?? null,
  };
}

export interface Take {
  lotId: number;
  amount: Base;
  value: Micros;
}

export interface Need {
  of: number;
  amount: Base;
}

export interface NeedPlan {
  takes: Take[];
  /** What no usable lot could give. */
  short: Base;
}

/**
 * Plans draws for several needs from one shelf, use-first, splitting over lots; needs of the same material share its lots.
 * @example planTakes([{ of: 1, amount: 5 }], shelfOf([lot(3, 3), lot(4, 9)], today))[0].takes // [{ lotId: 3, amount: 3 }, { lotId: 4, amount: 2 }]
 */
export function planTakes(needs: readonly Need[], shelf: Pick<Shelf, "usable">): NeedPlan[] {
  // How far each material is used up: its next lot, and what is left of that.
  const at = new Map<number, { next: number; onHand: Base; value: Micros }>();
  return needs.map(({ of, amount }) => {
    const lots = shelf.usable(of);
    const left = at.get(of) ?? { next: 0, onHand: lots[0]?.onHand ?? 0, value: lots[0]?.value ?? micros(0) };
    at.set(of, left);
    const takes: Take[] = [];
    let open = amount;
    for (let lot = lots[left.next]; lot && open > 0; lot = lots[left.next]) {
      const take = Math.min(open, left.onHand);
      const value = drawValue(left, take);
      takes.push({ lotId: lot.id, amount: take, value });
      open -= take;
      left.onHand -= take;
      left.value = micros(left.value - value);
      if (left.onHand > 0) continue;
      const after = lots[++left.next];
      left.onHand = after?.onHand ?? 0;
      left.value = after?.value ?? micros(0);
    }
    return { takes, short: open };
  });
}
