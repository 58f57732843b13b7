/**
 * A blend in a pot: how much of the whole it is, how much it may be at most and which of its oils says so, and what a slip of the hand
 * makes of it.
 */
import { mg, mulDiv, sum, type Mg } from "../measure/exact.ts";
import type { KindId } from "../material/kinds.ts";
import { partOf, type MadeOf } from "../material/makeup.ts";
import { ceilingBy, FOR_WHOM, isDisputed, sunLimitOf, USED_ON, type Ceiling, type ForWhom, type Taken, type UsedOn } from "./limits.ts";

const SCENTS: ReadonlySet<KindId> = new Set<KindId>(["essentialOil", "fragrance"]);
/** @example isScent({ kind: "fragrance" }) // true */
export const isScent = (m: { kind: KindId }): boolean => SCENTS.has(m.kind);

export interface ScentLine extends Taken {
  name: string;
  weight: Mg;
}

/** How much of something is scent: all of an essential oil, of a base as much as is in it. @example scentShare({ kind: "fragrance", makeup: [] }) // 1 */
export const scentShare = (m: { kind: KindId; makeup: readonly MadeOf[] }): number => partOf(m, isScent);

/**
 * The scents there are in something that is no scent: a base's. Which lots they came of is the base's own history.
 * @example scentsOfBase({ weight: mg(1000), makeup: [] }) // []
 */
export const scentsOfBase = ({ weight, makeup }: { weight: Mg; makeup: readonly MadeOf[] }): ScentLine[] =>
  makeup
    .filter(isScent)
    .map((p) => ({ name: p.name, libraryKey: p.libraryKey, weight: mg(Math.round(weight * p.share)), lots: [], short: false }));

export interface ScentFacts {
  /** Of the whole, 0 to 1. */
  share: number;
  /** Each oil's: of the whole and of the blend, and the most it may be of the whole; null where nobody has said. */
  oils: { name: string; share: number; part: number; ceiling: Ceiling | null; disputed: boolean; sun: number | null }[];
  /** Shares of each oil's own limit in the sun, added up; over 1 the blend is too much for skin left in it. */
  sun: number;
  most: Most;
}

/** The most a blend may be of the whole, in the proportions it has. */
export interface Most {
  share: number;
  /** What says so: where it is used, an oil by name, or the sun. */
  by: { kind: "use" } | { kind: "oil"; name: string; ceiling: Ceiling } | { kind: "sun" };
}

/** The most for a place and a person. @example mostOn("hands", "children") // 0.0075 */
export const mostOn = (on: UsedOn, whom: ForWhom): number => USED_ON[on].most * FOR_WHOM[whom].part;

/**
 * What a blend comes to in a pot; null where there is none. Lines of one oil count as one.
 * @example scentOf([{ name: "Clove bud", libraryKey: "eo-clove-bud", weight: mg(1000), lots: [], short: false }], mg(100_000), "hands", "anyone")?.most.share // 0.005
 */
export function scentOf(lines: readonly ScentLine[], total: Mg, on: UsedOn, whom: ForWhom): ScentFacts | null {
  const byName = new Map<string, ScentLine>();
  for (const l of lines) {
    const was = byName.get(l.name);
    if (!was) byName.set(l.name, l);
    else byName.set(l.name, { ...l, weight: mg(l.weight + was.weight), lots: [...was.lots, ...l.lots], short: l.short || was.short });
  }
  const blend = sum(lines.map((l) => l.weight));
  if (blend === 0 || total === 0) return null;
  const oils = [...byName.values()].map(({ name, weight, ...taken }) => ({
    name,
    share: weight / total,
    part: weight / blend,
    ceiling: ceilingBy(taken, on),
    disputed: isDisputed(taken.libraryKey),
    sun: sunLimitOf(taken.libraryKey),
  }));
  const sun = oils.reduce((a, o) => a + (o.sun === null ? 0 : o.share / o.sun), 0);
  const share = blend / total;
  let most: Most = { share: mostOn(on, whom), by: { kind: "use" } };
  for (const o of oils)
    if (o.ceiling !== null && o.ceiling.share / o.part < most.share)
      most = { share: o.ceiling.share / o.part, by: { kind: "oil", name: o.name, ceiling: o.ceiling } };
  if (sun > 0 && share / sun < most.share) most = { share: share / sun, by: { kind: "sun" } };
  return { share, oils, sun, most };
}

/**
 * The most one line may weigh so that its share of the whole is a ceiling, the rest staying as it is; rounded down to the milligram.
 * @param ceiling from 1 on nothing is too much, and there is no such weight
 * @throws RangeError from 1 on
 * @example mostInPot(mg(99_000), 0.01) // 1000 mg
 */
export const mostInPot = (rest: Mg, ceiling: number): Mg => mg(Math.floor((rest * ceiling) / (1 - ceiling) + 1e-6));

/**
 * After too much of one oil went in: what every other must come to, so that the blend smells as it was meant to.
 * @param meant what each oil was to weigh @param at which of them it was @param poured what went in, more than was meant
 * @example afterSpill([mg(300), mg(600)], 0, mg(900)) // [900, 1800]
 */
export const afterSpill = (meant: readonly Mg[], at: number, poured: Mg): Mg[] =>
  meant.map((m, i) => (i === at ? poured : mg(mulDiv(m, poured, meant[at]!))));
