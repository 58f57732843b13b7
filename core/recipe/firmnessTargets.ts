/**
 * How firm each product is wished to be, what the message is when it isn't, and where it has to hold. A product has two sides: what holds it, and what
 * is too much for skin. A bar is held by all that is solid where it is warm, and drags by the wax that is still solid on skin, where butter has
 * melted. Common practice, no source; the bounds are set so that recipes come out as a hand says (core/recipe/handSays.test.ts).
 */
import type { Wished } from "../firmness/mend.ts";
import { firmness, SAID_AT, solidFat, type Constants, type Mix, type Part } from "../firmness/model.ts";
import { COLD, type Place } from "../firmness/words.ts";
import type { RecipeType } from "./types.ts";

/** One side of what is right: what is measured and where, how far it goes, where a mend aims, and what it is beyond. */
export interface Side {
  part: Part;
  celsius: number;
  bound: number;
  aim: number;
  say: string;
}

interface Wish {
  soft: Side;
  hard: Side;
  fit: string;
  /** Right for many hands, but a little hard for some: from so much on, by the measure of the hard side. */
  edge?: { from: number; say: string };
  /** What it has to hold where it is warm, and where that is; none for what is made to melt. */
  warm: { at: Place; least: number; say: string } | null;
}

/** Wax that is still solid on warm skin is felt there. */
const ON_SKIN = 33;
/** Where a bar is held: a warm hand, a pocket. */
const IN_HAND = 31;

/** Scooped: all of it, in the kitchen, on both sides. */
const scooped = (low: number, high: number, soft: string, hard: string) => ({
  soft: { part: "all", celsius: SAID_AT, bound: low, aim: (low + high) / 2, say: soft } as const,
  hard: { part: "all", celsius: SAID_AT, bound: high, aim: (low + high) / 2, say: hard } as const,
});
/** Rubbed on: held by all of it somewhere, felt as the wax that skin doesn't melt. */
const rubbed = (
  low: number,
  at: number,
  high: number,
  [soft, hard]: readonly [string, string],
  [harder, softer]: readonly [number, number],
) => ({
  soft: { part: "all", celsius: at, bound: low, aim: harder, say: soft } as const,
  hard: { part: "wax", celsius: ON_SKIN, bound: high, aim: softer, say: hard } as const,
});

export const FIRMNESS_TARGETS: Readonly<Record<RecipeType, Wish>> = {
  salve: {
    ...scooped(0.08, 0.18, "softer than a salve", "hard to scoop"),
    fit: "right for a salve",
    warm: { at: "stall", least: 0.03, say: "runs" },
  },
  balm: {
    ...scooped(0.06, 0.24, "softer than a balm", "hard to scoop"),
    fit: "scoops, and melts as it is rubbed in",
    warm: { at: "stall", least: 0.03, say: "runs" },
  },
  lipBalm: {
    ...rubbed(0.17, SAID_AT, 0.29, ["too soft for a tube", "drags on the lip"], [0.23, 0.23]),
    fit: "twists up",
    warm: { at: "pocket", least: 0.12, say: "goes soft in its tube" },
  },
  lotionBar: {
    ...rubbed(0.26, IN_HAND, 0.33, ["melts as it is picked up", "drags on the skin"], [0.29, 0.29]),
    fit: "right for a bar",
    edge: { from: 0.315, say: "right for many hands, drags for some" },
    warm: { at: "stall", least: 0.2, say: "loses its shape" },
  },
  massageBar: {
    ...rubbed(0.25, SAID_AT, 0.15, ["too soft to be held", "doesn't melt as it is rubbed"], [0.28, 0.1]),
    fit: "hard to the hand, and melts on skin",
    warm: null,
  },
  bodyButter: {
    ...scooped(0.03, 0.142, "too soft to hold air", "stiff: it whips to crumbs"),
    fit: "scoops like cream",
    warm: { at: "pocket", least: 0.03, say: "falls and runs" },
  },
};

export type Fit = "soft" | "fit" | "hard";

/** What one side of a wish finds in a pot. */
export const measured = (mix: Mix, { part, celsius }: Pick<Side, "part" | "celsius">, constants: Constants): number =>
  firmness(mix, celsius, constants, part);

/** A side where it is used: for the kitchen it is that place, what is held in a hand no cooler than there; skin is skin. */
const sideAt = (side: Side, celsius: number): Side =>
  side.part === "wax" ? side : { ...side, celsius: side.celsius === SAID_AT ? celsius : Math.max(side.celsius, celsius) };

/**
 * Whether it is right for what it is.
 * @param celsius where it is used
 * @example fitOf(mixOf([{ weight: mg(12_000), sets: waxy }, { weight: mg(88_000), sets: liquid }]), "salve", TRADE) // "fit"
 */
export function fitOf(mix: Mix, type: RecipeType, constants: Constants, celsius = SAID_AT): Fit {
  const { soft, hard } = FIRMNESS_TARGETS[type];
  if (measured(mix, sideAt(soft, celsius), constants) < soft.bound) return "soft";
  return measured(mix, sideAt(hard, celsius), constants) > hard.bound ? "hard" : "fit";
}

/** A bar too soft for lotion may be right for massage: hard in the kitchen, with little wax. */
const isForMassage = (mix: Mix, constants: Constants): boolean => fitOf(mix, "massageBar", constants) === "fit";

/** Fit for the product, in its own words. @example sayFit(mixOf([{ weight: mg(2_000), sets: waxy }, { weight: mg(98_000), sets: liquid }]), "lotionBar", TRADE) // "melts as it is picked up" */
export function sayFit(mix: Mix, type: RecipeType, constants: Constants): string {
  const { soft, hard, fit, edge } = FIRMNESS_TARGETS[type];
  const found = fitOf(mix, type, constants);
  if (found === "hard") return hard.say;
  if (found === "soft")
    return type === "lotionBar" && isForMassage(mix, constants) ? "hard, and gone on warm skin: a massage bar" : soft.say;
  return edge && measured(mix, hard, constants) > edge.from ? edge.say : fit;
}

/**
 * What a mend aims at: on the soft side to be harder, on the hard side to be softer.
 * @param celsius where it is used
 * @example wishOf("salve", true) // { part: "all", celsius: 20, firm: 0.13 }
 */
export function wishOf(type: RecipeType, harder: boolean, celsius = SAID_AT): Required<Wished> {
  const side = sideAt(FIRMNESS_TARGETS[type][harder ? "soft" : "hard"], celsius);
  return { part: side.part, celsius: side.celsius, firm: side.aim };
}

/** With more solid fat than this it breaks when it is bent, and cracks when it cools fast. From memory. */
const BRITTLE = 0.65;

/** Whether it cracks in the cold: what is left of it liquid is too little to give. @example cracksInCold(mixOf([{ weight: mg(100_000), sets: liquid }]), TRADE) // false */
export const cracksInCold = (mix: Mix, constants: Constants): boolean => solidFat(mix, COLD, constants) > BRITTLE;
