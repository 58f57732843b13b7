/**
 * How much oil stays in the herb.
 *
 * Dry herb holds back about a sixth of the oil over two cups of cut leaf to three of oil (common practice, no source), which is about
 * two grams to the gram; whole flowers keep more, 2.5 to 3.5 (from memory), finer herb too, root and seed less. Once a workshop has its own strainings,
 * those count instead.
 */
import { isKeyOf } from "../objects.ts";
import { mg, type Mg } from "../measure/exact.ts";

export const CUTS = {
  whole: "whole flowers or leaf",
  cut: "cut leaf",
  fine: "finely cut",
  powder: "powder",
  root: "root, bark or seed",
} as const;
export type Cut = keyof typeof CUTS;
export const CUT_IDS = Object.keys(CUTS) as Cut[];
export const isCut = (text: string): text is Cut => isKeyOf(CUTS, text);

/** Grams of oil a gram of dry herb holds back, strained through cloth and not pressed. */
export const OIL_RETAINED: Record<Cut, number> = { whole: 3, cut: 2.1, fine: 2.5, powder: 2.2, root: 1.2 };

/** A press leaves about this share of what cloth alone would leave; from memory. */
export const PRESSED_LEAVES = 0.6;

/** A straining as the workshop recorded it, per herb in the jar. */
export interface Straining {
  materialId: number;
  cut: Cut;
  /** All the herb in that jar, and the oil it held back. */
  herb: Mg;
  kept: Mg;
  pressed: boolean;
}

export interface Keeping {
  /** Grams of oil per gram of herb, not pressed. */
  perGram: number;
  /** Where the figure comes from. */
  from: "own figure" | "own strainings" | "common practice";
  /** How many strainings it rests on. */
  count: number;
}

/**
 * What a herb holds back: the maker's own figure, else the mean of the workshop's strainings of it (of that cut where there are
 * some), else what is usual for the cut.
 * @example oilRetention(7, "cut", null, []) // { perGram: 2.1, from: "common practice", count: 0 }
 */
export function oilRetention(materialId: number, cut: Cut, own: number | null, past: readonly Straining[]): Keeping {
  if (own !== null) return { perGram: own, from: "own figure", count: 0 };
  const mine = past.filter((s) => s.materialId === materialId && s.herb > 0);
  const same = mine.filter((s) => s.cut === cut);
  const use = same.length > 0 ? same : mine;
  if (use.length === 0) return { perGram: OIL_RETAINED[cut], from: "common practice", count: 0 };
  const herb = use.reduce((a, s) => a + s.herb, 0);
  const kept = use.reduce((a, s) => a + s.kept / (s.pressed ? PRESSED_LEAVES : 1), 0);
  return { perGram: kept / herb, from: "own strainings", count: use.length };
}

/**
 * Oil expected back from a jar.
 * @returns never below zero
 * @example expectedBack(mg(648_000), [{ herb: mg(52_000), perGram: 2.1 }], false) // 538.8 g
 */
export function expectedBack(oil: Mg, herbs: readonly { herb: Mg; perGram: number }[], pressed: boolean): Mg {
  const kept = herbs.reduce((a, h) => a + h.herb * h.perGram, 0) * (pressed ? PRESSED_LEAVES : 1);
  return mg(Math.max(0, Math.round(oil - kept)));
}
