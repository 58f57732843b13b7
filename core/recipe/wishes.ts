/**
 * How firm each product is wished to be: in the kitchen, and where it gets warm. Common practice, no source; the bounds are set with those of
 * the words for firmness, ratio by ratio (core/recipe/firmness.test.ts).
 */
import type { Place } from "../firmness/words.ts";
import type { RecipeType } from "./types.ts";

interface Wish {
  /** In the kitchen: from where to where it is right. */
  right: readonly [number, number];
  /** What it is when it isn't. */
  soft: string;
  fit: string;
  hard: string;
  /** What it has to hold where it is warm, and where that is. */
  warm: { at: Place; least: number; say: string };
}

/** What each product is wished to be. */
export const WISHES: Readonly<Record<RecipeType, Wish>> = {
  salve: {
    right: [0.08, 0.205],
    soft: "softer than a salve",
    fit: "scoops with a finger",
    hard: "hard to scoop",
    warm: { at: "stall", least: 0.03, say: "runs" },
  },
  balm: {
    right: [0.09, 0.24],
    soft: "softer than a balm",
    fit: "scoops, and melts as it is rubbed in",
    hard: "hard to scoop",
    warm: { at: "stall", least: 0.03, say: "runs" },
  },
  lipBalm: {
    right: [0.19, 0.33],
    soft: "too soft to stand in a tube",
    fit: "twists up",
    hard: "drags on the lip",
    warm: { at: "pocket", least: 0.12, say: "goes soft in its tube" },
  },
  lotionBar: {
    right: [0.345, 0.405],
    soft: "melts as it is picked up",
    fit: "right for a bar",
    hard: "drags on the skin",
    warm: { at: "stall", least: 0.2, say: "loses its shape" },
  },
  bodyButter: {
    right: [0.03, 0.15],
    soft: "too soft to hold air",
    fit: "scoops like cream",
    hard: "stiff: it whips to crumbs",
    warm: { at: "pocket", least: 0.03, say: "falls and runs" },
  },
};

export type Fit = "soft" | "fit" | "hard";

/** @example fitOf(0.12, "salve") // "fit" */
export const fitOf = (firm: number, type: RecipeType): Fit => {
  const [low, high] = WISHES[type].right;
  return firm < low ? "soft" : firm > high ? "hard" : "fit";
};

/** Fit for the product, in its own words. @example sayFit(0.02, "lotionBar") // "melts as it is picked up" */
export const sayFit = (firm: number, type: RecipeType): string => WISHES[type][fitOf(firm, type)];

/** The middle of what is right. @example middleOf("salve") // 0.1425 */
export const middleOf = (type: RecipeType): number => (WISHES[type].right[0] + WISHES[type].right[1]) / 2;
