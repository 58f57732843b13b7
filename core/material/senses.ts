/** What a hand and a nose say of a material, in the words a maker chooses from. */
import type { KindId } from "./kinds.ts";

/** How soon a scent is smelled and how long it stays: what a blend is built by. */
export const SCENT_NOTES = {
  "": "not said",
  top: "top: smelled first, soon gone",
  middle: "middle: the heart of it",
  base: "base: slow, stays longest",
} as const;
export type ScentNote = keyof typeof SCENT_NOTES;
export const NOTE_IDS = ["top", "middle", "base"] as const satisfies readonly ScentNote[];

export const SKIN_FEELS = {
  "": "not said",
  light: "light: sinks in quickly",
  medium: "in between",
  rich: "rich: stays on the skin a while",
} as const;
export type SkinFeel = keyof typeof SKIN_FEELS;

const FELT: ReadonlySet<KindId> = new Set<KindId>(["wax", "hardButter", "softButter", "oil", "infusedOil"]);
/** Whether the skin feels it and the nose smells it by itself. @example isFelt({ kind: "oil" }) // true */
export const isFelt = (m: { kind: KindId }): boolean => FELT.has(m.kind);

export const SMELLS = { "": "not said", none: "of nothing", faint: "faintly", strong: "strongly of itself" } as const;
export type Smell = keyof typeof SMELLS;
