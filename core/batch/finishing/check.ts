/**
 * After pouring: how long it sets before it is capped or pressed out, and the check that lets it go or holds it back. How long and what is looked
 * at are common practice, no source; that what is finished is checked before it goes is in good manufacturing practice (ISO 22716, 9.3, from
 * memory).
 */
import type { RecipeType } from "../../recipe/types.ts";
import { SPOON, type SpoonVerdict } from "./spoon.ts";

/** The shortest it is left alone, and what is done then; whipped butter doesn't wait. */
export const SETTING: Readonly<Record<RecipeType, { minutes: number; then: string } | null>> = {
  salve: { minutes: 240, then: "cap once cold" },
  balm: { minutes: 240, then: "cap once cold" },
  lipBalm: { minutes: 60, then: "top up dimples, cap once cold" },
  lotionBar: { minutes: 40, then: "press the bars out; wrap after a day" },
  massageBar: { minutes: 40, then: "press the bars out; wrap after a day" },
  bodyButter: null,
};

export const FACES = { smooth: "Smooth", dimpled: "Dimpled or cracked", grainy: "Grainy", sweating: "Sweating" } as const;
export const SCENTS = { right: "As it should be", faint: "Too faint", strong: "Too strong", off: "Off" } as const;
export const CLOSURES = { right: "All close, or came out whole", some: "Some don’t" } as const;
export const FACE_IDS = Object.keys(FACES) as (keyof typeof FACES)[];
export const SCENT_IDS = Object.keys(SCENTS) as (keyof typeof SCENTS)[];
export const CLOSURE_IDS = Object.keys(CLOSURES) as (keyof typeof CLOSURES)[];
export const VERDICTS = { release: "Released", hold: "Held back" } as const;

export interface Findings {
  face: keyof typeof FACES;
  scent: keyof typeof SCENTS;
  closes: keyof typeof CLOSURES;
  /** Units with their label on: product, net weight, lot, best before. */
  labelled: number;
  /** How firm it is between two fingers in a cool room; null where nobody felt. */
  firm: SpoonVerdict | null;
}

/** Why a lot is on hold that nobody has looked at yet. */
export const WAITS = "It waits for its check";

/**
 * What speaks against letting it go, in words.
 * @param units filled
 * @example amiss({ face: "grainy", scent: "right", closes: "right", labelled: 22, firm: "right" }, 24) // ["grainy", "2 of 24 without a label"]
 */
export function amiss({ face, scent, closes, labelled, firm }: Findings, units: number): string[] {
  return [
    face === "smooth" ? "" : FACES[face].toLowerCase(),
    firm === null || firm === "right" ? "" : SPOON[firm],
    scent === "right" ? "" : scent === "off" ? "smells off" : `scent ${SCENTS[scent].toLowerCase()}`,
    closes === "right" ? "" : "some don’t close, or broke",
    labelled >= units ? "" : labelled === 0 ? "no labels yet" : `${units - labelled} of ${units} without a label`,
  ].filter(Boolean);
}
