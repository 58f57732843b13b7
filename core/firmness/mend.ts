/**
 * Too soft or too hard: how many grams of something make a pot as hard as is wished, put into what is in it and melted again. And the other
 * way round: how much wax for a hundred grams of the rest.
 */
import Fraction from "fraction.js";
import { mg, type Mg } from "../measure/exact.ts";
import { firmness, mixOf, type Constants, type MixLine, type Part } from "./model.ts";
import type { Sets } from "./solids.ts";

export interface Wished {
  /** As hard as so much beeswax in plain oil. */
  firm: number;
  /** Where. */
  celsius: number;
  /** What of the pot is to be so; all of it when absent. */
  part?: Part;
}

/** No more is added to a pot than it holds already: beyond that it is another recipe. */
const MOST_OF_POT = 1;
const HALVINGS = 40;

/**
 * How much of one thing brings a pot to the firmness that is wished: the least that does.
 * @param pot what is in it, not nothing
 * @returns null where no amount up to the pot's own weight does, or none is needed
 * @example mendWith([{ weight: mg(10_000), sets: waxy }, { weight: mg(90_000), sets: liquid }], waxy, { firm: 0.12, celsius: 20 }, TRADE) // 2273 mg
 */
export function mendWith(pot: readonly MixLine[], by: Sets, wished: Wished, constants: Constants): Mg | null {
  const total = pot.reduce((a, l) => a + l.weight, 0);
  const off = (more: number): number =>
    firmness(mixOf([...pot, { weight: mg(Math.round(more)), sets: by }]), wished.celsius, constants, wished.part) - wished.firm;
  const now = off(0);
  let low = 0;
  let high = total * MOST_OF_POT;
  if (now === 0 || Math.sign(off(high)) === Math.sign(now)) return null;
  for (let i = 0; i < HALVINGS && high - low > 1; i++) {
    const middle = (low + high) / 2;
    if (Math.sign(off(middle)) === Math.sign(now)) low = middle;
    else high = middle;
  }
  return mg(Math.ceil(high));
}

/**
 * How much wax a hundred grams of other things take to be as hard as is wished; null where they are as hard by themselves, or no wax does it.
 * @example waxFor([{ weight: mg(100_000), sets: liquid }], waxy, { firm: 0.12, celsius: 20 }, TRADE) // 13.6 g
 */
export function waxFor(rest: readonly MixLine[], wax: Sets, wished: Wished, constants: Constants): Mg | null {
  const total = rest.reduce((a, l) => a + l.weight, 0);
  if (total === 0) return null;
  const grams = mendWith(rest, wax, wished, constants);
  return grams === null || firmness(mixOf(rest), wished.celsius, constants, wished.part) >= wished.firm
    ? null
    : mg(Math.round((grams * 100_000) / total));
}

/** A ratio of more than this is told from a simpler one by nobody's scale: a fortieth. */
const AS_GOOD = 1 / 40;

/**
 * A ratio in the smallest whole numbers that are as good as it, for a scale and a head.
 * @param ratio > 0
 * @example inParts(7.53) // [2, 15]
 */
export function inParts(ratio: number): readonly [one: number, other: number] {
  const simple = new Fraction(ratio).simplify(ratio * AS_GOOD);
  return [Number(simple.d), Number(simple.n)];
}
