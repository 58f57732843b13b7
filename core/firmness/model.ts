/**
 * How hard a pot will be once it has set: an estimate, said as the share of beeswax that would set plain oil as hard at 20 °C.
 *
 * Three rules, from what is known of waxes and fats in oil (docs/firmness.md has them for makers, docs/firmness-model.md for engineers):
 * - A wax sets by what of it is not dissolved. What a liquid dissolves falls by a factor e for every `dissolving` degrees below the wax's
 *   melting point (the ideal solubility of van 't Hoff and Schröder near the melting point: R T² ÷ ΔH, some 8 °C for beeswax).
 * - A butter sets by its solid fat. Thinned with oil it behaves as if it were warmer: by `dilution` degrees each time it is thinned to the
 *   e-th part, the same law with the heat of a fat. Fats of one family count as one.
 * - Solid fat sets less than wax, and little of it much less: `fat` × its share to the power `bend`.
 *
 * What drags on skin is wax alone: a butter melts there. So a pot can be asked for its wax by itself.
 *
 * The constants are set so that the trade's own ratios come out as makers say they do (common practice, no source), and a workshop's own
 * tests move them (`fit.ts`).
 */
import type { Mg } from "../measure/exact.ts";
import { solidAt, unmixed, type FatFamily, type Sets } from "./solids.ts";

export interface Constants {
  /** How strongly wax sets in this workshop's hands; 1 for the trade's. */
  wax: number;
  /** What a pot of nothing but solid fat is worth, in beeswax. */
  fat: number;
  /** °C that a butter seems warmer for each time it is thinned to the e-th part. */
  dilution: number;
  /** °C below its melting point at which oil holds an e-th of what it would at that point. */
  dissolving: number;
  /** How much less a little solid fat does than much of it: the power of its share. */
  bend: number;
}

export const TRADE: Constants = { wax: 1, fat: 0.8, dilution: 5, dissolving: 8.2, bend: 1.7 };

/** The temperature firmness is given at: a cool kitchen, common practice. */
export const SAID_AT = 20;

export interface MixLine {
  weight: Mg;
  sets: Sets;
}

/** What a gram of liquid holds of a wax, in grams, at some warmth below its melting point. */
function heldByOil(melts: number, celsius: number, { dissolving }: Constants): number {
  const share = Math.exp((celsius - melts) / dissolving);
  return share / (1 - share);
}

/** Set wax as the share of beeswax that would leave it at 20 °C, which is how firmness is given. */
function asBeeswax(set: number): number {
  if (set <= 0) return 0;
  const held = heldByOil(63, SAID_AT, TRADE);
  return (set * (1 - held) + held) / (1 + held * (1 - set));
}

/** What a pot comes to once, so that it can be asked at every warmth. */
export interface Mix {
  total: number;
  waxes: readonly { weight: number; strength: number; melts: number }[];
  /** Butters, by family. */
  fats: readonly { weight: number; of: readonly { weight: number; solid: (celsius: number) => number }[] }[];
  /** Butters and all that is liquid. */
  oils: number;
}

/** @example mixOf([{ weight: mg(12_000), sets: waxy }, { weight: mg(88_000), sets: liquid }]).oils // 88_000 */
export function mixOf(lines: readonly MixLine[]): Mix {
  const waxes = new Map<string, { weight: number; strength: number; melts: number }>();
  const fats = new Map<FatFamily, { weight: number; of: { weight: number; solid: (celsius: number) => number }[] }>();
  let total = 0;
  let oils = 0;
  for (const { weight, sets } of lines.flatMap((l) => unmixed(l.weight, l.sets))) {
    if (weight === 0) continue;
    total += weight;
    if (sets.as === "wax") {
      // In two lines it is dissolved once.
      const { strength, melts } = sets;
      const key = `${strength} ${melts}`;
      waxes.set(key, { weight: weight + (waxes.get(key)?.weight ?? 0), strength, melts });
    } else if (sets.as !== "powder") oils += weight;
    if (sets.as === "fat") {
      const family = fats.get(sets.family) ?? { weight: 0, of: [] };
      family.weight += weight;
      family.of.push({ weight, solid: (celsius) => solidAt(sets.solid, celsius) });
      fats.set(sets.family, family);
    }
  }
  return { total, waxes: [...waxes.values()], fats: [...fats.values()], oils };
}

/** What of a pot is asked about: all that sets it, or its wax alone. */
export type Part = "all" | "wax";

/** The share of a pot's butters and oils that is solid fat at some warmth, 0 to 1; of oil alone 0. */
export function solidFat({ fats, oils }: Mix, celsius: number, { dilution }: Pick<Constants, "dilution">): number {
  let solid = 0;
  for (const family of fats) {
    const thinned = celsius - dilution * Math.log(family.weight / oils);
    for (const f of family.of) solid += (f.weight / oils) * f.solid(thinned);
  }
  return solid;
}

/**
 * How hard a pot is at some warmth, once it has set: the share of beeswax in plain oil that is as hard at 20 °C, 0 to 1 and beyond.
 * @param celsius of the product itself @param part its wax alone, for what drags on skin
 * @example firmness(mixOf([{ weight: mg(12_000), sets: waxy }, { weight: mg(88_000), sets: liquid }]), 20, TRADE).toFixed(2) // "0.12"
 */
export function firmness(mix: Mix, celsius: number, constants: Constants, part: Part = "all"): number {
  const { total, waxes, oils } = mix;
  if (total === 0) return 0;
  const solid = solidFat(mix, celsius, constants);
  const liquid = oils * (1 - solid);
  let set = 0;
  let dissolved = 0;
  for (const w of waxes) {
    const held = celsius >= w.melts ? w.weight : Math.min(w.weight, heldByOil(w.melts, celsius, constants) * liquid);
    set += w.strength * (w.weight - held);
    dissolved += held;
  }
  // What is dissolved neither sets nor thins what does.
  const share = set > 0 ? set / (total - dissolved) : 0;
  return asBeeswax(constants.wax * share + (part === "wax" ? 0 : constants.fat * solid ** constants.bend));
}
