/**
 * Weighing at the bench: how near is near enough, and what can be done when too much went in, or there isn't enough.
 *
 * Four grams of wax too many can be scooped back, as long as nothing else lies over it; left, and the batch sets harder; or met by as much more
 * of everything else, which makes a larger batch. What is short comes out of the next lot, or the batch is made smaller, or it is left as it is. Each is
 * said with what it does to firmness, scent, cost and yield. Common practice, no source.
 */
import { mendWith } from "../../firmness/mend.ts";
import { firmness, mixOf, SAID_AT, type Constants } from "../../firmness/model.ts";
import { meltsAt, type Sets } from "../../firmness/solids.ts";
import { mg, mulDiv, type Mg } from "../../measure/exact.ts";

/** A hundredth of what is weighed, and never less than a step of the scale: common practice, no source. */
const NEAR = 0.01;

/** What a small scale tells apart; for batches from before this was recorded, what theirs did. */
export const FINE = mg(100);

/** How far off a weight may be. @example weighingTolerance(mg(40_000), mg(100)) // 400 */
export const weighingTolerance = (target: Mg, step: Mg): Mg => mg(Math.max(step, Math.round(target * NEAR)));

/** How a reading compares to what is wanted. */
export type Nearness = "short" | "right" | "over";
/** @example compareToTarget(mg(44_000), mg(40_000), mg(100)) // "over" */
export function compareToTarget(weight: number, target: Mg, step: Mg): Nearness {
  const near = weighingTolerance(target, step);
  return weight < target - near ? "short" : weight > target + near ? "over" : "right";
}

export interface PotLine {
  name: string;
  /** Its place in the recipe: of several lots of one material each is a line of the same. */
  position: number;
  planned: Mg;
  weighed: Mg | null;
  sets: Sets;
  /** How much of it is scent, 0 to 1. */
  scent: number;
  /** Whether more of it may make the pot harder or softer: not what is dosed. */
  carries: boolean;
  /** Of all lots of it that may be used. */
  onHand: number;
  /** What a milligram of its lot cost, in millionths; null where nobody knows. */
  perMg: number | null;
}

/** Before, and after. */
type Change = readonly [before: number, after: number];

export interface Consequence {
  /** What the pot comes to when the rest is weighed as it then should be. */
  total: Change;
  /** As the share of beeswax in plain oil. */
  firm: Change;
  /** Of scents, as a share of all. */
  scent: Change;
  /** Of all that is in it, in millionths. */
  cost: Change;
}

export interface Matched extends Consequence {
  /** What each line should weigh then. */
  planned: Mg[];
  /** Weighed already, and by so much too little then; or, in a smaller batch, by so much too much. */
  off: { line: number; by: number }[];
  /** More than there is of it. */
  short: { line: number; by: number }[];
}

export interface OffTarget {
  /** Too much, or below zero too little. */
  by: number;
  keep: Consequence;
  /** The rest made to match: larger, or smaller. */
  match: Matched;
}

/** What may stand in for a line that ran out. */
export type Substitute = Pick<PotLine, "name" | "sets" | "scent" | "carries" | "onHand" | "perMg">;

const potOf = (lines: readonly PotLine[], weights: readonly number[], constants: Constants) => {
  const total = weights.reduce((a, w) => a + w, 0);
  const mix = mixOf(lines.map((l, i) => ({ weight: mg(Math.round(weights[i]!)), sets: l.sets })));
  const scents = lines.reduce((a, l, i) => a + l.scent * weights[i]!, 0);
  const cost = lines.reduce((a, l, i) => a + (l.perMg ?? 0) * weights[i]!, 0);
  return { total, firm: firmness(mix, SAID_AT, constants), scent: total === 0 ? 0 : scents / total, cost };
};

type Pot = ReturnType<typeof potOf>;
const changed = (before: Pot, after: Pot): Consequence => ({
  total: [before.total, after.total],
  firm: [before.firm, after.firm],
  scent: [before.scent, after.scent],
  cost: [before.cost, after.cost],
});

/**
 * By how much everything else grows to match one line.
 * @returns as a fraction, since what is planned is whole milligrams
 * @example matchRatio([{ position: 0, planned: mg(40_000) }], 0, mg(44_000)) // [44_000, 40_000]
 */
export function matchRatio(
  lines: readonly Pick<PotLine, "position" | "planned">[],
  at: number,
  weighed: Mg,
): readonly [n: number, d: number] {
  const line = lines[at]!;
  const planned = lines.reduce((a, l) => a + (l.position === line.position ? l.planned : 0), 0);
  return [planned - line.planned + weighed, planned];
}

/**
 * What can be done about a line that is off.
 * @param at the line; @param weighed what went in
 * @example weighingFixes([{ name: "Wax", position: 0, planned: mg(40_000), weighed: null, sets: waxy, scent: 0, carries: true, onHand: 90_000, perMg: null }], 0, mg(44_000), TRADE).by // 4000
 */
export function weighingFixes(lines: readonly PotLine[], at: number, weighed: Mg, constants: Constants): OffTarget {
  const line = lines[at]!;
  const [n, d] = matchRatio(lines, at, weighed);
  // What was weighed already lies in the pot as it is; the rest comes as it is planned.
  const weights = (of: (l: PotLine, i: number) => number): number[] => lines.map((l, i) => (i === at ? of(l, i) : (l.weighed ?? of(l, i))));
  const before = potOf(
    lines,
    weights((l) => l.planned),
    constants,
  );
  const kept = potOf(
    lines,
    weights((l, i) => (i === at ? weighed : l.planned)),
    constants,
  );
  const planned = lines.map((l, i) => (i === at ? weighed : l.position === line.position ? l.planned : mg(mulDiv(l.planned, n, d))));
  const matched = potOf(
    lines,
    planned.map((p, i) => (i === at ? p : Math.max(p, lines[i]!.weighed ?? 0))),
    constants,
  );
  const other = (i: number): boolean => lines[i]!.position !== line.position;
  return {
    by: weighed - line.planned,
    keep: changed(before, kept),
    match: {
      ...changed(before, matched),
      planned,
      off: lines.flatMap((l, i) => {
        const by = Math.abs(planned[i]! - (l.weighed ?? 0));
        return other(i) && l.weighed !== null && by > 0 ? [{ line: i, by }] : [];
      }),
      short: lines.flatMap((l, i) => (other(i) && planned[i]! > l.onHand ? [{ line: i, by: planned[i]! - l.onHand }] : [])),
    },
  };
}

/**
 * What of something else does for what is missing of a line: of what sets as much as leaves the pot as firm, of anything else the same weight.
 * @param at the line; @param weighed what there was of it
 * @returns null where no amount does, or there isn't so much
 * @example substitute([{ name: "Oil", position: 0, planned: mg(90_000), weighed: null, sets: liquid, scent: 0, onHand: 0, perMg: null }], 0, mg(50_000), { name: "Other oil", sets: liquid, scent: 0, onHand: 90_000, perMg: null }, TRADE).amount // 40_000
 */
export function substitute(
  lines: readonly PotLine[],
  at: number,
  weighed: Mg,
  by: Substitute,
  constants: Constants,
): (Consequence & { amount: Mg }) | null {
  const weights = lines.map((l, i) => (i === at ? weighed : (l.weighed ?? l.planned)));
  const before = potOf(
    lines,
    lines.map((l, i) => (i === at ? l.planned : (l.weighed ?? l.planned))),
    constants,
  );
  const missing = lines[at]!.planned - weighed;
  const sets = meltsAt(by.sets) > 0;
  const rest = lines.flatMap((l, i) => (weights[i]! > 0 ? [{ weight: mg(weights[i]!), sets: l.sets }] : []));
  const amount = sets && rest.length > 0 ? mendWith(rest, by.sets, { firm: before.firm, celsius: SAID_AT }, constants) : mg(missing);
  if (missing <= 0 || amount === null || amount > by.onHand) return null;
  const then = [...lines, { ...by, position: lines[at]!.position, planned: amount, weighed: null }];
  return { amount, ...changed(before, potOf(then, [...weights, amount], constants)) };
}
