/**
 * How old what is in the cabinet is, against the life it has: make only what is sold within half of it. Common practice, no source.
 */
import { SOON_DAYS } from "../stock/lots.ts";
import { daysBetween, type Day } from "../when.ts";

export const AGES = {
  first: "in the first half of its life",
  second: "in the second half",
  soon: "near its day",
  past: "past its day",
} as const;
export type Age = keyof typeof AGES;
export const AGE_IDS = Object.keys(AGES) as Age[];

interface Dated {
  arrived: Day;
  bestBefore: Day | null;
}

/** @example ageOf({ arrived: "2026-01-01", bestBefore: "2027-01-01" }, "2026-08-01") // "second" */
export function ageOf({ arrived, bestBefore }: Dated, today: Day): Age {
  if (bestBefore === null) return "first";
  const left = daysBetween(today, bestBefore);
  if (left < 0) return "past";
  if (left <= SOON_DAYS) return "soon";
  return left * 2 >= daysBetween(arrived, bestBefore) ? "first" : "second";
}

/** A lot's life against today: how long ago it was poured, and how long it has left. */
export interface Life {
  id: number;
  number: string;
  name: string;
  onHand: number;
  /** Days since it was poured. */
  age: number;
  /** Days until it is best before; below zero once that is past, null where it has no such day. */
  left: number | null;
  is: Age;
}

/**
 * The lives of lots that are there, the one with the least left first.
 * @example lives([{ id: 1, number: "HB1", name: "Hand balm", label: "60 g", onHand: 4, arrived: "2026-01-01", bestBefore: "2027-01-01" }], "2026-01-31")[0].age // 30
 */
export const lives = (
  lots: readonly (Dated & { id: number; number: string; name: string; label: string; onHand: number })[],
  today: Day,
): Life[] =>
  lots
    .map((l) => ({
      ...{ id: l.id, number: l.number, onHand: l.onHand },
      name: `${l.name}, ${l.label.replace(/ /g, "\u00a0")}`,
      age: daysBetween(l.arrived, today),
      left: l.bestBefore === null ? null : daysBetween(today, l.bestBefore),
      is: ageOf(l, today),
    }))
    .sort((a, b) => (a.left ?? Infinity) - (b.left ?? Infinity) || b.age - a.age || a.id - b.id);
