/**
 * A drop on a cold spoon: how the pot will set, told in five steps, and how many grams put it right while it is still liquid.
 *
 * The hand is believed before the model: where a pot that the model calls right is felt to be too soft, the model is off by that share, and what
 * is added is worked out with it off by as much. What each step is worth is common practice, no source.
 */
import { mendWith } from "../../firmness/mend.ts";
import type { Bounds, FirmnessTest } from "../../firmness/fit.ts";
import { mixOf, type Constants, type MixLine } from "../../firmness/model.ts";
import { mg, type Mg } from "../../measure/exact.ts";
import { measured, FIRMNESS_TARGETS, type Side } from "../../recipe/firmnessTargets.ts";
import type { RecipeType } from "../../recipe/types.ts";
import type { PotLine } from "../weighing/weighingFixes.ts";

export const SPOON = {
  muchSoft: "much too soft",
  soft: "a little soft",
  right: "as it should be",
  hard: "a little hard",
  muchHard: "much too hard",
} as const;
export type SpoonVerdict = keyof typeof SPOON;
export const SPOON_IDS = Object.keys(SPOON) as SpoonVerdict[];

/**
 * What is too soft or too hard lies so far beyond the bound of that side; but where much is right, as of a balm, a little is still a little: no
 * further than so many times from the middle.
 */
const BEYOND: Readonly<Record<Exclude<SpoonVerdict, "right">, { bound: number; times: number }>> = {
  muchSoft: { bound: 0.7, times: 2.2 },
  soft: { bound: 0.92, times: 1.5 },
  hard: { bound: 1.08, times: 1.5 },
  muchHard: { bound: 1.3, times: 2.2 },
};
/** How far either way a word may be meant. */
const MEANT = 0.12;

/** Which side of what is right a verdict is about, and how firm it makes a product by that side's measure. */
export function feltOn(verdict: Exclude<SpoonVerdict, "right">, type: RecipeType): { side: Side; firm: number } {
  const { soft, hard } = FIRMNESS_TARGETS[type];
  const { bound, times } = BEYOND[verdict];
  return bound < 1
    ? { side: soft, firm: Math.max(soft.bound * bound, soft.aim / times) }
    : { side: hard, firm: Math.min(hard.bound * bound, hard.aim * times) };
}

/** What a verdict teaches of a pot: within what it lies, by which measure. What is right lies within both sides. */
export function lessonsOf(verdict: SpoonVerdict, type: RecipeType, lines: readonly MixLine[]): FirmnessTest {
  const by = ({ celsius, part }: Side, low: number, high: number): Bounds => ({ celsius, part, within: [low, high] });
  const { soft, hard } = FIRMNESS_TARGETS[type];
  if (verdict === "right") return { lines, says: [by(soft, soft.bound, Infinity), by(hard, 0, hard.bound)] };
  const { side, firm } = feltOn(verdict, type);
  return { lines, says: [by(side, firm * (1 - MEANT), firm * (1 + MEANT))] };
}

export interface SpoonFix {
  /** What to add more of, and how much. */
  line: number;
  more: Mg;
  total: number;
  /** Of scents, before and after. */
  scent: readonly [before: number, after: number];
}

/** What hardens a pot, or softens it: the most there is of wax, else of butter; the most of liquid oil. Of what isn't in it yet the first. */
function mendingLine(lines: readonly PotLine[], type: RecipeType, harder: boolean): number {
  const most = (of: (l: PotLine) => boolean): number =>
    lines.reduce((best, l, i) => (l.carries && of(l) && (best < 0 || (l.weighed ?? 0) > (lines[best]!.weighed ?? 0)) ? i : best), -1);
  if (!harder) return most((l) => l.sets.as === "liquid");
  // Hard by its butter: wax in it wouldn't melt on skin.
  const [first, next] = type === "massageBar" ? (["fat", "wax"] as const) : (["wax", "fat"] as const);
  const found = most((l) => l.sets.as === first);
  return found >= 0 ? found : most((l) => l.sets.as === next);
}

/**
 * How many grams of what put a pot right.
 * @param lines what is in it, and what could be
 * @returns null where it is right, or nothing of that does
 * @example firmnessFix([], "right", "salve", TRADE) // null
 */
export function firmnessFix(lines: readonly PotLine[], verdict: SpoonVerdict, type: RecipeType, constants: Constants): SpoonFix | null {
  if (verdict === "right") return null;
  const { side, firm: felt } = feltOn(verdict, type);
  const line = mendingLine(lines, type, felt < side.aim);
  if (line < 0) return null;
  const pot = lines.flatMap((l) => (l.weighed ? [{ weight: l.weighed, sets: l.sets }] : []));
  const wished = (measured(mixOf(pot), side, constants) * side.aim) / felt;
  const more = mendWith(pot, lines[line]!.sets, { ...side, firm: wished }, constants);
  if (more === null) return null;
  const before = pot.reduce((a, l) => a + l.weight, 0);
  const scents = lines.reduce((a, l) => a + l.scent * (l.weighed ?? 0), 0);
  return { line, more: mg(more), total: before + more, scent: [scents / before, scents / (before + more)] };
}
