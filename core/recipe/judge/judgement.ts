/**
 * What a careful colleague would say of a recipe: a few lines, worst first, each with its reason, its figure and, where there is one, the
 * change that mends it. Nothing where all is well. It warns and never clears: rules of the place and a supplier's papers stand above it.
 */
import type { Constants } from "../../firmness/model.ts";
import type { Sets, SetsFacts } from "../../firmness/solids.ts";
import type { CautionId } from "../../material/cautions.ts";
import type { Mg } from "../../measure/exact.ts";
import type { Amount } from "../../measure/parse.ts";
import { forField } from "../../measure/write.ts";
import type { ForWhom, UsedOn } from "../../scent/limits.ts";
import type { KeepingOf } from "../keeping.ts";
import { MOVED, ofSteps, onScale, showSteps, type Scale } from "../scale.ts";
import type { RecipeType } from "../types.ts";
import { exactWeightText } from "../../measure/read.ts";

/** 3 can hurt somebody or spoils the batch, 2 won't come out as it is meant, 1 could be better. */
export type Gravity = 1 | 2 | 3;

/** What is typed in place of what stands there. */
export interface Mend {
  /** What the press does, in a few words. */
  say: string;
  /** Rows of the sheet and their new amounts; of another material, where one stands in. */
  rows: { row: number; entered: string; material?: string; form?: string }[];
  /** A new batch weight, where shares are taken of one. */
  makes?: string;
}

export interface Judgement {
  /** The same as long as the same thing is said of the same thing: what an answer is kept by. */
  key: string;
  gravity: Gravity;
  say: string;
  why: string;
  figure: string;
  mend: Mend | null;
}

export interface JudgedLine extends SetsFacts {
  /** Its row on the sheet. */
  row: number;
  /** The material. */
  of: number;
  name: string;
  sets: Sets;
  cautions: readonly CautionId[];
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
  keepsMonths: number;
  keeping: KeepingOf;
  lossBp: number;
  /** What one unit holds, where it is made in one size. */
  fill: Mg | null;
}

export type Judge = (of: Judged) => Judgement[];

/** Whether grams put into one row are the grams that are meant: with parts or per cent on the sheet the others would move. */
export const inGrams = (of: Judged): boolean => of.lines.every((l) => l.amount.unit !== "part" && l.amount.unit !== "percent");

/**
 * A weight as it is typed for the workshop's scale; to the milligram where the scale can't show it.
 * @example forScale(mg(78_742), { unit: "g", step: 100 }) // "78.7 g"
 */
export function forScale(weight: Mg, scale: Scale): string {
  const { steps, outOfReach } = onScale(weight, scale);
  return outOfReach ? exactWeightText(weight) : forField(showSteps(steps, scale));
}

/**
 * The same, never less than it is; to the milligram where that would change the recipe.
 * @example forScaleUp(mg(78_742), { unit: "g", step: 100 }) // "78.8 g"
 */
export function forScaleUp(weight: Mg, scale: Scale): string {
  const near = onScale(weight, scale);
  const steps = near.weight < weight ? near.steps + 1 : near.steps;
  return ofSteps(steps, scale) > weight * (1 + MOVED) ? exactWeightText(weight) : forField(showSteps(steps, scale));
}

/** A share as it is said: more exact, the smaller it is. @example sayShare(0.0066) // "0.66 %" */
export const sayShare = (share: number): string =>
  share === 0 ? "0 %" : `${(share * 100).toFixed(share < 0.01 ? 2 : share < 0.1 ? 1 : 0)} %`;
