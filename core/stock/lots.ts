/**
 * Lots on the shelf: what state one is in, which is used first, and what a draw from it takes with it.
 *
 * Use-first is common practice, no source: the soonest best-before goes first, then the oldest; a lot that is expired or on
 * hold is never taken unless a person picks it by hand.
 */
import { groupBy } from "../collect.ts";
import { micros, mulDiv, type Base, type Micros } from "../measure/exact.ts";
import { daysBetween, type Day } from "../when.ts";
import type { CostKnown } from "./costKnown.ts";

export interface Lot {
  id: number;
  number: string;
  /** The material or product it is a lot of. */
  of: number;
  onHand: Base;
  /** What is left of its cost: always exactly cost minus what was drawn. */
  value: Micros;
  arrived: Day;
  bestBefore: Day | null;
  hold: boolean;
  /** How its cost is known; as paid when absent. */
  costKnown?: CostKnown;
}

export type LotState = "good" | "soon" | "expired" | "hold" | "empty";

/** A lot is worth using up when less than this is left; common practice, no source. */
export const SOON_DAYS = 60;

/** @example lotState(lot(3, 0), "2026-01-01") // "empty" */
export function lotState(lot: Pick<Lot, "onHand" | "bestBefore" | "hold">, today: Day): LotState {
  if (lot.onHand === 0) return "empty";
  if (lot.hold) return "hold";
  if (lot.bestBefore === null) return "good";
  const left = daysBetween(today, lot.bestBefore);
  return left < 0 ? "expired" : left <= SOON_DAYS ? "soon" : "good";
}

/** Whether a lot is taken by itself: neither used up, on hold nor past its day. @example isUsable({ onHand: 5, bestBefore: null, hold: false }, today) // true */
export const isUsable = (lot: Pick<Lot, "onHand" | "bestBefore" | "hold">, today: Day): boolean => {
  const state = lotState(lot, today);
  return state === "good" || state === "soon";
};

/** Orders lots for use: soonest best-before first, those without one last, then by arrival, then by id. */
export const useFirst = (a: Lot, b: Lot): number =>
  (a.bestBefore ?? "9999").localeCompare(b.bestBefore ?? "9999") || a.arrived.localeCompare(b.arrived) || a.id - b.id;

/**
 * Why a lot is used before the next one, in words; null where there is nothing to choose between.
 * @example whyFirst([lot(3, 1, "2027-01-01"), lot(4, 1, "2027-06-01")]) // "its best before is the sooner"
 */
export function whyFirst([first, next]: readonly Lot[]): string | null {
  if (!first || !next) return null;
  if (first.bestBefore !== next.bestBefore)
    return next.bestBefore === null ? "it has a best before, the others none" : "its best before is the sooner";
  return first.arrived === next.arrived ? "both are alike, and its number is the lower" : "it came first";
}

export interface Take {
  lotId: number;
  amount: Base;
  value: Micros;
}

/**
 * What a draw takes of a lot's value: its share of what is left, and all of it with the last gram, so that a lot's draws
 * add up to its cost to the last micro.
 * @param amount 0 ≤ amount ≤ onHand
 * @throws RangeError when more is drawn than is there
 * @example drawValue({ onHand: 1000, value: micros(333) }, 1000) // 333
 */
export function drawValue(lot: { onHand: Base; value: Micros }, amount: Base): Micros {
  if (amount < 0 || amount > lot.onHand) throw new RangeError(`can't draw ${amount} of ${lot.onHand}`);
  return amount === lot.onHand ? lot.value : micros(mulDiv(lot.value, amount, lot.onHand));
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
 * Nothing is changed: the caller's lots are copied.
 * @example planTakes([{ of: 1, amount: 5 }], [lot(3, 3), lot(4, 9)], today)[0].takes // [{ lotId: 3, amount: 3 }, { lotId: 4, amount: 2 }]
 */
export function planTakes(needs: readonly Need[], lots: readonly Lot[], today: Day): NeedPlan[] {
  const shelf = groupBy(
    lots.filter((l) => isUsable(l, today)).map((l) => ({ ...l })),
    (l) => l.of,
  );
  for (const row of shelf.values()) row.sort(useFirst);
  return needs.map(({ of, amount }) => {
    const takes: Take[] = [];
    let open = amount;
    for (const lot of shelf.get(of) ?? []) {
      const take = Math.min(open, lot.onHand);
      if (take === 0) continue;
      const value = drawValue(lot, take);
      takes.push({ lotId: lot.id, amount: take, value });
      lot.onHand -= take;
      lot.value = micros(lot.value - value);
      open -= take;
    }
    return { takes, short: open };
  });
}
