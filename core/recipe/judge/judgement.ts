/**
 * What a careful colleague would say of a recipe: a few lines, worst first, each with its reason, its figure and, where there is one, the
 * change that mends it. Nothing where all is well. It warns and never clears: local rules and a supplier's papers come first.
 */
import type { Constants } from "../../firmness/model.ts";
import type { Sets, SetsFacts } from "../../firmness/solids.ts";
import type { Dryness } from "../../material/dryness.ts";
import type { CautionId } from "../../material/cautions.ts";
import type { Mg } from "../../measure/exact.ts";
import type { Amount } from "../../measure/parse.ts";
import { unit } from "../../measure/units.ts";
import { forField } from "../../numbers.ts";
import type { ForWhom, PaperLot, UsedOn } from "../../scent/limits.ts";
import type { Day } from "../../when.ts";
import type { KeepsLine } from "../keeping.ts";
import { MOVED, ofSteps, onScale, showSteps, type Scale } from "../scale.ts";
import type { RecipeType } from "../types.ts";
import { exactWeightText } from "../../measure/read.ts";

/** 3 can hurt somebody or spoils the batch, 2 won't come out as it is meant, 1 could be better. */
export type Gravity = 1 | 2 | 3;

/** What is typed in place of what is there. */
export interface SuggestedFix {
  /** What the press does, in a few words. */
  say: string;
  /** Rows of the sheet and their new amounts; of another material, where it is a substitute. */
  rows: { row: number; entered: string; material?: string; form?: string }[];
  /** A new batch weight, where shares are taken of one. */
  makes?: string;
}

export interface Judgement {
  /** The same for the same judgement on the same thing: answers are saved under it. */
  key: string;
  gravity: Gravity;
  say: string;
  why: string;
  figure: string;
  mend: SuggestedFix | null;
}

export interface JudgedLine extends SetsFacts, KeepsLine {
  lots: readonly (KeepsLine["lots"][number] & PaperLot & { dryness?: Dryness })[];
  /** Its row on the sheet. */
  row: number;
  /** The material. */
  of: number;
  sets: Sets;
  /** All there are, its own and those of what is in it. */
  cautions: readonly CautionId[];
  /** Named on a label; several are told apart by a comma. */
  allergen: string;
  dropsPerMl: number | null;
  amount: Amount;
  weight: Mg;
  share: number;
}

export interface Judged {
  type: RecipeType;
  lines: readonly JudgedLine[];
  total: Mg;
  scale: Scale;
  /** Of the model of firmness, as this workshop has taught it. */
  constants: Constants;
  usedOn: UsedOn;
  forWhom: ForWhom;
  today: Day;
  keepsMonths: number;
  lossBp: number;
  /** What one unit holds, where it is made in one size. */
  fill: Mg | null;
}

export type Judge = (of: Judged) => Judgement[];

/** Whether a line is a share of what the others leave. @example isShared({ amount: amount("2 parts") }) // true */
export const isShared = (l: Pick<JudgedLine, "amount">): boolean => unit(l.amount.unit).kind === "share";

/** Whether grams put into one row are the grams that are meant: with parts or per cent on the sheet the others would move. */
export const inGrams = (of: Judged): boolean => !of.lines.some(isShared);

/**
 * A weight as it is typed for the workshop's scale; to the milligram where rounding to its reading would change the recipe.
 * @param to the nearest reading, or one that is never less or never more than the weight
 * @example forScale(mg(78_742), { unit: "g", step: 100 }) // "78.7 g"
 * @example forScale(mg(78_742), { unit: "g", step: 100 }, "up") // "78.8 g"
 */
export function forScale(weight: Mg, scale: Scale, to: "near" | "up" | "down" = "near"): string {
  const near = onScale(weight, scale);
  const off = near.weight - weight;
  const steps = near.steps + (to === "up" && off < 0 ? 1 : to === "down" && off > 0 ? -1 : 0);
  return Math.abs(ofSteps(steps, scale) - weight) > weight * MOVED ? exactWeightText(weight) : forField(showSteps(steps, scale));
}
