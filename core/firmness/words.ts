/**
 * Firmness in the words of the hand, where it is felt, and what each product is wished to be. Common practice, no source: the bounds are
 * set so that the ratios makers carry in their heads are called what makers call them.
 */
import type { RecipeType } from "../recipe/types.ts";

/** What a finger finds, softest first; each from so much beeswax on. */
export const FEELS = {
  pours: { from: 0, say: "pours" },
  slumps: { from: 0.015, say: "slumps" },
  verySoft: { from: 0.03, say: "very soft" },
  scoops: { from: 0.08, say: "scoops" },
  firm: { from: 0.17, say: "takes a nail to scoop" },
  twists: { from: 0.21, say: "holds a stick" },
  bar: { from: 0.345, say: "right for a bar" },
  drags: { from: 0.405, say: "drags" },
} as const;
export type Feel = keyof typeof FEELS;
export const FEEL_IDS = Object.keys(FEELS) as Feel[];

/** @example feelOf(0.12) // "scoops" */
export const feelOf = (firm: number): Feel => FEEL_IDS.findLast((f) => FEELS[f].from <= firm) ?? "pours";

/** From where to where a word holds; the last has no end. @example feelRange("scoops") // [0.08, 0.17] */
export const feelRange = (feel: Feel): readonly [number, number] => {
  const next = FEEL_IDS[FEEL_IDS.indexOf(feel) + 1];
  return [FEELS[feel].from, next ? FEELS[next].from : Infinity];
};

/** Where a product is, and how warm it gets there. */
export const PLACES = {
  kitchen: { label: "kitchen", in: "in the kitchen", celsius: 20 },
  pocket: { label: "pocket", in: "in a pocket", celsius: 31 },
  stall: { label: "summer stall", in: "on a summer stall", celsius: 35 },
  car: { label: "hot car", in: "in a hot car", celsius: 48 },
} as const;
export type Place = keyof typeof PLACES;
export const PLACE_IDS = Object.keys(PLACES) as Place[];

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
