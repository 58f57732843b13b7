/**
 * Cautions a material carries, shown where the work needs them (common practice and from memory, no source). They never replace local rules, a
 * supplier's certificate or licensed advice.
 */
import { isKeyOf } from "../objects.ts";

export const CAUTIONS = {
  photosensitising: {
    label: "photosensitising",
    say: "Skin treated with it can burn in the sun. Say so on the label and keep it for evening use.",
  },
  restricted: {
    label: "restricted",
    say: "Outside use only, short use, not on broken skin, not for children or in pregnancy. Local rules may forbid it: look first.",
  },
  foodPlant: {
    label: "low-acid food plant",
    say: "A fresh root, bulb or food plant under oil is a botulism risk. Use it fully dried only, and go by your food-safety authority.",
  },
  irritant: { label: "skin irritant", say: "Can irritate or sensitise skin: keep the share low, patch-test, wear gloves." },
  nut: { label: "nut", say: "Name it as a nut allergen, and keep its tools apart." },
  delicate: {
    label: "delicate oil",
    say: "Goes rancid soon and is spoilt by heat: keep it cool, add it off the heat, never steep in it for long.",
  },
  flammable: { label: "flammable", say: "Vapour burns: no flame, good air, nowhere near the stove." },
  dust: { label: "fine dust", say: "Don't breathe it in: scoop gently, wear a mask." },
  notLips: { label: "not for lips", say: "Not where it could be swallowed: keep it out of what goes on lips." },
  pregnancy: { label: "not in pregnancy", say: "Not in pregnancy or while nursing; say so on the label." },
  smallChildren: {
    label: "not near small children",
    say: "Its vapour can stop a small child's breath, at any share: not on or near children under three, and not on their faces later.",
  },
  brokenSkin: { label: "not on broken skin", say: "Not on broken skin; say so on the label." },
  salicylate: {
    label: "salicylates",
    say: "Akin to aspirin: not for those who can't take it, nor with blood thinners, nor for children, and not in pregnancy.",
  },
  alkaloid: {
    label: "liver-harming alkaloids",
    say: "May carry pyrrolizidine alkaloids, which harm the liver: not for lips, broken skin, children or in pregnancy. In many places not allowed at all.",
  },
  sensitiser: { label: "sensitiser", say: "Some people's skin grows allergic to it: name it, and patch-test." },
  ages: {
    label: "sensitises once it is old",
    say: "Old or open to air it makes skin allergic: buy little, keep it closed and cool, and use it within its date.",
  },
  selfHeats: {
    label: "its cloths heat by themselves",
    say: "Cloths and paper soaked with it can catch fire by themselves: wash them at once, or spread them out to dry outside.",
  },
  colourRules: {
    label: "colour with its own rules",
    say: "Colours are approved country by country, and place by place on the body: look first.",
  },
} as const;

export type CautionId = keyof typeof CAUTIONS;
export const CAUTION_IDS = Object.keys(CAUTIONS) as CautionId[];
export const areCautions = (v: unknown): v is CautionId[] =>
  Array.isArray(v) && v.every((c) => typeof c === "string" && isKeyOf(CAUTIONS, c));

/** Cautions for the maker at work, which end with the batch. */
const AT_THE_BENCH: ReadonlySet<CautionId> = new Set<CautionId>(["foodPlant", "delicate", "flammable", "dust", "selfHeats"]);
/** Whether it goes on with the product to its user. @example staysSaid("nut") // true */
export const staysSaid = (c: CautionId): boolean => !AT_THE_BENCH.has(c);
