/**
 * Lots on the shelf: what state one is in, which is used first, and what a draw from it takes with it. `shelf.ts` asks all of them at once.
 *
 * Use-first is common practice, no source: the soonest best-before goes first, then the oldest; a lot that is expired or on
 * hold is never taken unless a person picks it by hand.
 */
import type { Dryness } from "../material/dryness.ts";
import { micros, mulDiv, type Base, type Micros } from "../measure/exact.ts";
import { wordList } from "../words.ts";
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
  /** A scent: the most of it a product may hold by its supplier's paper, in millionths; nothing where that isn't written down. */
  scentMostPpm?: number | null;
  /** A herb: how dry it is; bought ones say nothing. */
  dryness?: Dryness;
  /** A bottle: how many drops to the millilitre fall from it, once somebody said. */
  dropsPerMl?: number | null;
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
export const isUsable = (lot: Pick<Lot, "onHand" | "bestBefore" | "hold">, today: Day): boolean =>
  lot.onHand > 0 && !lot.hold && (lot.bestBefore === null || lot.bestBefore >= today);

/**
 * Why some of what is on hand isn't taken by itself, as a sentence to follow what is short; nothing where all of it may be.
 * @example passedOver([{ number: "R7", onHand: 5, bestBefore: "2026-01-01", hold: false }], "2026-02-01") // " Lot R7 is past its day."
 */
export function passedOver(lots: readonly Pick<Lot, "number" | "onHand" | "bestBefore" | "hold">[], today: Day): string {
  const said = (state: LotState, one: string, many: string): string => {
    const which = lots.filter((l) => lotState(l, today) === state).map((l) => l.number);
    return which.length === 0 ? "" : ` ${which.length === 1 ? "Lot" : "Lots"} ${wordList(which)} ${which.length === 1 ? one : many}.`;
  };
  return said("hold", "is on hold", "are on hold") + said("expired", "is past its day", "are past their day");
}

/** Days are in order as they are written. */
const earlier = (a: Day, b: Day): number => (a === b ? 0 : a < b ? -1 : 1);
const NEVER = "9999-12-31";

/** Orders lots for use: soonest best-before first, those without one last, then by arrival, then by id. */
export const firstExpiredFirst = (a: Lot, b: Lot): number =>
  earlier(a.bestBefore ?? NEVER, b.bestBefore ?? NEVER) || earlier(a.arrived, b.arrived) || a.id - b.id;

/**
 * Why a lot is used before the next one, in words; null where there is nothing to choose between.
 * @example whyFirst([lot(3, 1, "2027-01-01"), lot(4, 1, "2027-06-01")]) // "best before soonest"
 */
export function whyFirst([first, next]: readonly Lot[]): string | null {
  if (!first || !next) return null;
  if (first.bestBefore !== next.bestBefore) return next.bestBefore === null ? "the only one with a best before" : "best before soonest";
  return first.arrived === next.arrived ? "alike, lower number first" : "came first";
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
