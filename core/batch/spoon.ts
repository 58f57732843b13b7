/**
 * A drop on a cold spoon: how the pot will set, told in five steps, and how many grams put it right while it is still liquid.
 *
 * The hand is believed before the model: where a pot that the model calls right is felt to be too soft, the model is off by that share, and what
 * is added is worked out with it off by as much. What each step is worth is common practice, no source.
 */
import { mendWith } from "../firmness/mend.ts";
import { firmness, mixOf, SAID_AT, type Constants } from "../firmness/model.ts";
import { mg, type Mg } from "../measure/exact.ts";
import { middleOf, WISHES } from "../recipe/wishes.ts";
import type { RecipeType } from "../recipe/types.ts";
import type { PotLine } from "./offTarget.ts";

export const SPOON = {
  muchSoft: "much too soft",
  soft: "a little soft",
  right: "as it should be",
  hard: "a little hard",
  muchHard: "much too hard",
} as const;
export type SpoonVerdict = keyof typeof SPOON;
export const SPOON_IDS = Object.keys(SPOON) as SpoonVerdict[];

/** How firm a verdict makes a product, as the share of beeswax in plain oil. @example feltFirm("right", "salve") === middleOf("salve") // true */
export function feltFirm(verdict: SpoonVerdict, type: RecipeType): number {
  const [low, high] = WISHES[type].right;
  return { muchSoft: low * 0.7, soft: low * 0.92, right: middleOf(type), hard: high * 1.08, muchHard: high * 1.3 }[verdict];
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
function mendingLine(lines: readonly PotLine[], harder: boolean): number {
  const most = (of: (l: PotLine) => boolean): number =>
    lines.reduce((best, l, i) => (l.carries && of(l) && (best < 0 || (l.weighed ?? 0) > (lines[best]!.weighed ?? 0)) ? i : best), -1);
  if (!harder) return most((l) => l.sets.as === "liquid");
  const wax = most((l) => l.sets.as === "wax");
  return wax >= 0 ? wax : most((l) => l.sets.as === "fat");
}

/**
 * How many grams of what put a pot right.
 * @param lines what is in it, and what could be
 * @returns null where it is right, or nothing of that does
 * @example spoonFix([], "right", "salve", TRADE) // null
 */
export function spoonFix(lines: readonly PotLine[], verdict: SpoonVerdict, type: RecipeType, constants: Constants): SpoonFix | null {
  if (verdict === "right") return null;
  const felt = feltFirm(verdict, type);
  const harder = felt < middleOf(type);
  const line = mendingLine(lines, harder);
  if (line < 0) return null;
  const pot = lines.flatMap((l) => (l.weighed ? [{ weight: l.weighed, sets: l.sets }] : []));
  const wished = (firmness(mixOf(pot), SAID_AT, constants) * middleOf(type)) / felt;
  const more = mendWith(pot, lines[line]!.sets, { firm: wished, celsius: SAID_AT }, constants);
  if (more === null) return null;
  const before = pot.reduce((a, l) => a + l.weight, 0);
  const scents = lines.reduce((a, l) => a + l.scent * (l.weighed ?? 0), 0);
  return { line, more: mg(more), total: before + more, scent: [scents / before, scents / (before + more)] };
}
