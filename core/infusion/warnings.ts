/**
 * Warnings that follow from the facts of a jar: each says why, and what to do instead.
 *
 * `never` can't be overridden, `reason` needs one stated, `mind` is to be read. Common practice, no source; where food or health
 * is at stake the words defer to the authority.
 */
import type { CautionId } from "../material/cautions.ts";
import { CAUTIONS } from "../material/cautions.ts";
import { SOLID_KINDS, type KindId } from "../material/kinds.ts";
import { addDays, sayFullDay, type Day } from "../when.ts";
import { isDry, type Dryness } from "../material/dryness.ts";
import { method, type MethodId, type Ready } from "./methods.ts";

export interface JarFacts {
  method: MethodId;
  /** A maker's own way may heat. */
  heated?: boolean;
  herbs: readonly { name: string; dryness: Dryness; cautions: readonly CautionId[] }[];
  carriers: readonly {
    name: string;
    kind: KindId;
    cautions: readonly CautionId[];
    keepsSealed: number | null;
    bestBefore: Day | null;
  }[];
  ready: Ready;
  day: Day;
  vesselMl: number | null;
  fillMl: number | null;
  looseMl: number | null;
}

export type Severity = "never" | "reason" | "mind";
export interface Warning {
  code: string;
  severity: Severity;
  why: string;
  instead: string;
}

/** A cold jar may be filled to here, a heated one needs about an inch below the mouth. */
export const HEADSPACE = { cold: 0.95, heated: 0.85 } as const;

/** Roots, bulbs and fruit low in acid, whatever they are called on the shelf and whether or not they are warmed. From memory. */
const FOOD_PLANTS =
  /\b(?:garlic|onions?|shallots?|leeks?|ramsons|ginger|turmeric|galangal|burdock|horse-?radish|chill?i(?:e?s)?|chilies|cayenne|peppers?|carrots?|beet(?:root)?s?|mushrooms?|tomato(?:es)?|truffles?)\b/i;

/** An oil that keeps for less than this is a poor choice for weeks of waiting. */
const SHORT_LIVED_MONTHS = 9;
/** What should be left of the carrier's life when the jar is ready. */
const LEFT_DAYS = 90;

/** What a vessel may be filled to, in mL. @example usableMl(500, true) // 425 */
export const usableMl = (vesselMl: number, heated: boolean): number => vesselMl * (heated ? HEADSPACE.heated : HEADSPACE.cold);

/** @example jarWarnings({ ...jar, herbs: [{ name: "Mint", dryness: "fresh", cautions: [] }] })[0].code // "wet" */
export function jarWarnings(f: JarFacts): Warning[] {
  const m = method(f.method);
  const heated = f.heated ?? m.heat === "gentle";
  const found: Warning[] = [];
  const warn = (code: string, severity: Severity, why: string, instead: string): number => found.push({ code, severity, why, instead });

  for (const h of f.herbs) {
    const dry = isDry(h.dryness);
    const food = h.cautions.includes("foodPlant") || FOOD_PLANTS.test(h.name);
    if (food && !dry)
      warn(
        "foodPlant",
        "never",
        `${h.name} is a low-acid food plant and not dry: under oil it is a botulism risk, heat or not.`,
        "Use it fully dried, and go by what your food-safety authority says.",
      );
    else if (food)
      warn(
        "foodPlant",
        "mind",
        `${h.name} is a low-acid food plant.`,
        "Be sure it is dry right through, and go by your food-safety authority.",
      );
    if (!dry && !food)
      warn(
        "wet",
        heated ? "mind" : "reason",
        `${h.name} isn't dry: its water feeds mould and bacteria in the oil.`,
        heated
          ? "Warm it with the lid off until no more bubbles rise, and use it within three months."
          : "Dry it until it snaps, or warm it gently instead. If you go on: half a jar, cloth top, use within three months.",
      );
    for (const c of ["photosensitising", "restricted", "irritant", "alkaloid", "salicylate"] as const)
      if (h.cautions.includes(c)) warn(c, "mind", `${h.name} is ${CAUTIONS[c].label}.`, CAUTIONS[c].say);
  }
  for (const c of f.carriers) {
    if (SOLID_KINDS.includes(c.kind) && !heated)
      warn(
        "solid",
        "reason",
        `${c.name} is solid at room temperature: it can't draw anything out on a shelf.`,
        "Use gentle heat, or a liquid oil.",
      );
    if (c.bestBefore !== null && c.bestBefore < f.day)
      warn("expired", "reason", `${c.name} is past its best-before already.`, "Smell it; better take a fresh lot.");
    else if (c.bestBefore !== null && c.bestBefore < addDays(f.ready.best, LEFT_DAYS))
      warn(
        "shortLived",
        "mind",
        `${c.name} is best before ${sayFullDay(c.bestBefore)}: little of its life is left once the jar is ready.`,
        "Take a lot with more life, a longer-keeping oil, or a quicker method.",
      );
    else if (c.keepsSealed !== null && c.keepsSealed <= SHORT_LIVED_MONTHS && !heated)
      warn(
        "shortLived",
        "mind",
        `${c.name} keeps ${c.keepsSealed} months at best: too short for weeks of waiting.`,
        "Take a longer-keeping oil.",
      );
    if (c.cautions.includes("delicate") && m.heat !== "none")
      warn(
        "delicate",
        "reason",
        `${c.name} is spoilt by heat and sun.`,
        "Steep in an oil that stands warmth, and add this one to the finished salve.",
      );
  }
  if (m.water)
    warn(
      "water",
      "mind",
      "Water stands beside the jar: one splash or drip of steam can spoil it.",
      "Keep the water below the mouth, cover it with a dry cloth, wipe the jar before you open it.",
    );
  if (f.method === "alcohol")
    warn("flammable", "mind", "Spirit vapour burns.", "No flame, good air, and let all of it go off before you close the jar.");
  if (f.vesselMl !== null && f.fillMl !== null && f.fillMl > usableMl(f.vesselMl, heated))
    warn(
      "overfull",
      f.fillMl > f.vesselMl ? "never" : "mind",
      `It takes ${Math.round(f.fillMl)} mL and the jar holds ${Math.round(f.vesselMl)} mL to the brim.`,
      heated
        ? "Leave about an inch of headspace when it is heated: a bigger jar, or less of both."
        : "Leave a finger's breadth: a bigger jar, or less of both.",
    );
  if (f.looseMl !== null && f.fillMl !== null && f.looseMl > f.fillMl * 1.05)
    warn(
      "uncovered",
      "mind",
      "The loose herb stands higher than the oil, and what stands out of it moulds.",
      "Press it down, top up with oil, or take less herb.",
    );
  return found;
}

/** Whether the jar may be filled, given the reason stated (if any). */
export function mayFill(warnings: readonly Warning[], why: string): { ok: true } | { ok: false; warning: Warning } {
  const stop =
    warnings.find((w) => w.severity === "never") ?? (why.trim() === "" ? warnings.find((w) => w.severity === "reason") : undefined);
  return stop ? { ok: false, warning: stop } : { ok: true };
}
