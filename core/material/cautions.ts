/**
 * Cautions a material carries, shown where the work needs them (common practice, no source). They never replace local rules, a
 * supplier's certificate or licensed advice.
 */
import { isKeyOf } from "../record.ts";

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
} as const;

export type CautionId = keyof typeof CAUTIONS;
export const CAUTION_IDS = Object.keys(CAUTIONS) as CautionId[];
export const areCautions = (v: unknown): v is CautionId[] =>
  Array.isArray(v) && v.every((c) => typeof c === "string" && isKeyOf(CAUTIONS, c));
