/**
 * What sets a pot: waxes by how strongly they do it and where they melt, butters by how much of them is solid at which warmth.
 *
 * Every figure here is from memory: typical of what suppliers and handbooks print, and nature varies by crop and season. A material of the
 * maker's own, without an entry here, is taken by its kind and its own melting range.
 */
import type { KindId } from "../material/kinds.ts";
import type { MadeOf } from "../material/makeup.ts";

/** A straight line from point to point: °C, and the share that is solid there, 0 to 1. Ordered by warmth, the share never rising. */
export type SolidCurve = readonly (readonly [celsius: number, solid: number])[];

/** Fats of one family crystallise together; those of two keep apart, and each is thinned by the other as it is by oil. */
export type FatFamily = "lauric" | "stearic";

export type Sets =
  | { as: "wax"; /** How much beeswax one gram of it does the work of. */ strength: number; /** Where it is melted, °C. */ melts: number }
  | { as: "fat"; family: FatFamily; solid: SolidCurve }
  | { as: "liquid" }
  /** Herb, starch, clay, colour: carried along, neither setting nor thinning. */
  | { as: "powder" }
  /** A base: as all that is in it. */
  | { as: "mixed"; of: readonly { share: number; sets: Sets }[] };

/** What there is to know of a material about how it sets. */
export interface SetsFacts {
  kind: KindId;
  libraryKey: string | null;
  /** °C. */
  meltFrom: number | null;
  meltTo: number | null;
  /** Of a base what it is made of, as far as that is known; of all else nothing. */
  makeup: readonly MadeOf[];
}

const AT = [10, 15, 20, 25, 30, 35, 40, 45, 50] as const;
/** Per cent solid at 10, 15, 20 … 50 °C. */
const curve = (...percents: number[]): SolidCurve => AT.map((celsius, i) => [celsius, (percents[i] ?? 0) / 100]);

/** Strength and melting point by library entry. Candelilla at half to two thirds of beeswax is common practice; all from memory. */
const WAXES: Readonly<Record<string, readonly [strength: number, melts: number]>> = {
  "beeswax-yellow": [1, 63],
  "beeswax-white": [1, 63],
  candelilla: [1.7, 70],
  carnauba: [1.6, 84],
  "rice-wax": [1.4, 79],
  "sunflower-wax": [1.8, 77],
  "berry-wax": [0.7, 51],
  "soy-wax": [0.5, 54],
  "castor-wax": [1.3, 85],
  "japan-wax": [0.6, 52],
  microcrystalline: [1, 78],
  ozokerite: [1.3, 73],
  "jojoba-esters": [0.9, 68],
  "cetyl-alcohol": [0.6, 49],
  "stearic-acid": [0.6, 62],
};

const SHEA = curve(56, 48, 38, 28, 20, 9, 2);
const COCOA = curve(88, 84, 76, 70, 45, 3);
const COCONUT = curve(80, 64, 37, 3);

/** Solid fat by library entry, as a pulsed magnetic resonance meter would read it; typical figures, from memory. */
const FATS: Readonly<Record<string, readonly [FatFamily, SolidCurve]>> = {
  "cocoa-raw": ["stearic", COCOA],
  "cocoa-deodorised": ["stearic", COCOA],
  mango: ["stearic", curve(70, 62, 52, 42, 22, 4)],
  kokum: ["stearic", curve(93, 91, 88, 84, 72, 40, 4)],
  sal: ["stearic", curve(75, 70, 62, 54, 38, 9)],
  illipe: ["stearic", curve(88, 85, 80, 74, 56, 12)],
  "tallow-beef": ["stearic", curve(56, 48, 38, 31, 24, 17, 10, 3)],
  tucuma: ["lauric", curve(76, 68, 54, 38, 12)],
  murumuru: ["lauric", curve(86, 82, 72, 50, 16)],
  "shea-unrefined": ["stearic", SHEA],
  "shea-refined": ["stearic", SHEA],
  "coconut-virgin": ["lauric", COCONUT],
  "coconut-refined": ["lauric", COCONUT],
  babassu: ["lauric", curve(66, 52, 30, 2)],
  "palm-kernel": ["lauric", curve(70, 60, 42, 17)],
  cupuacu: ["stearic", curve(62, 50, 36, 23, 6)],
  "avocado-butter": ["stearic", curve(46, 38, 31, 24, 16, 8, 3)],
  lanolin: ["stearic", curve(50, 45, 40, 33, 25, 15, 4)],
  palm: ["stearic", curve(48, 38, 26, 17, 10, 5, 1)],
  bacuri: ["stearic", curve(70, 62, 54, 44, 30, 12, 2)],
  ucuuba: ["lauric", curve(92, 90, 88, 84, 76, 62, 42, 14)],
  "tallow-lamb": ["stearic", curve(64, 57, 48, 40, 32, 23, 15, 6)],
  "hemp-butter": ["stearic", curve(46, 38, 31, 24, 16, 8, 3)],
  "almond-butter": ["stearic", curve(46, 38, 31, 24, 16, 8, 3)],
  lard: ["stearic", curve(29, 25, 20, 14, 7, 3, 1)],
};

/** A butter nobody has measured: mostly solid well below its melting range, a fifth of that at its start, none at its end. */
function ofRange(from: number, to: number, cold: number): SolidCurve {
  const end = Math.max(to, from + 1);
  return [
    [Math.min(10, from - 12), cold],
    [from - 10, cold * 0.75],
    [from, cold * 0.35],
    [end, 0],
  ];
}

/** Every part of it by itself: a base by what is in it. @example unmixed(4, { as: "mixed", of: [{ share: 0.5, sets: liquid }] }) // [{ weight: 2, sets: liquid }] */
export const unmixed = (weight: number, sets: Sets): { weight: number; sets: Sets }[] =>
  sets.as === "mixed" ? sets.of.flatMap((p) => unmixed(weight * p.share, p.sets)) : [{ weight, sets }];

const LIQUID: Sets = { as: "liquid" };
const byKind: Readonly<Partial<Record<KindId, (m: SetsFacts) => Sets>>> = {
  wax: (m) => ({ as: "wax", strength: 1, melts: m.meltTo ?? m.meltFrom ?? 63 }),
  hardButter: (m) => ({ as: "fat", family: "stearic", solid: ofRange(m.meltFrom ?? 34, m.meltTo ?? 38, 0.8) }),
  softButter: (m) => ({ as: "fat", family: "stearic", solid: ofRange(m.meltFrom ?? 32, m.meltTo ?? 45, 0.55) }),
  base: (m) =>
    m.makeup.length > 0
      ? { as: "mixed", of: m.makeup.map((p) => ({ share: p.share, sets: setsBy({ ...p, makeup: [] }) })) }
      : { as: "fat", family: "stearic", solid: ofRange(m.meltFrom ?? 32, m.meltTo ?? 45, 0.55) },
  herb: () => ({ as: "powder" }),
  powder: () => ({ as: "powder" }),
  colour: () => ({ as: "powder" }),
};

/**
 * How a material sets: by its entry in the library, else by its kind and melting range.
 * @example setsBy({ kind: "wax", libraryKey: "candelilla", meltFrom: 68, meltTo: 73, makeup: [] }) // { as: "wax", strength: 1.7, melts: 70 }
 * @example setsBy({ kind: "oil", libraryKey: "olive", meltFrom: null, meltTo: null, makeup: [] }).as // "liquid"
 */
export function setsBy(m: SetsFacts): Sets {
  const wax = m.libraryKey === null ? undefined : WAXES[m.libraryKey];
  if (wax) return { as: "wax", strength: wax[0], melts: wax[1] };
  const fat = m.libraryKey === null ? undefined : FATS[m.libraryKey];
  if (fat) return { as: "fat", family: fat[0], solid: fat[1] };
  return byKind[m.kind]?.(m) ?? LIQUID;
}

/**
 * The share of a fat that is solid at some warmth.
 * @example solidAt([[10, 0.8], [20, 0.4], [30, 0]], 25) // 0.2
 */
export function solidAt(solid: SolidCurve, celsius: number): number {
  const after = solid.findIndex(([c]) => c >= celsius);
  if (after === 0) return solid[0]![1];
  if (after < 0) return solid.at(-1)?.[1] ?? 0;
  const [c0, s0] = solid[after - 1]!;
  const [c1, s1] = solid[after]!;
  return s0 + ((s1 - s0) * (celsius - c0)) / (c1 - c0);
}

/** Where a fat or a wax is melted, °C: the hardest goes in first; 0 of what is liquid anyway. @example meltsAt({ as: "wax", strength: 1, melts: 63 }) // 63 */
export function meltsAt(sets: Sets): number {
  if (sets.as === "wax") return sets.melts;
  if (sets.as === "fat") return sets.solid.find(([, solid]) => solid < 0.05)?.[0] ?? 50;
  return sets.as === "mixed" ? Math.max(0, ...sets.of.map((p) => meltsAt(p.sets))) : 0;
}
