/**
 * What a scent may be at most of what stays on the skin: by oil, by where it is used and by who uses it.
 *
 * All of it from memory or common practice, to warn by and never to clear by: the certificate that came with the lot, and the rules of the
 * place where it is sold, come before every figure here.
 */
import { isKeyOf } from "../objects.ts";

/** Where it is used: from what is usual to what is the most, as a share of the whole. Common practice, no source. */
export const USED_ON = {
  lips: { label: "Lips and face", usual: 0.005, most: 0.01 },
  body: { label: "All over the body", usual: 0.01, most: 0.02 },
  hands: { label: "Hands and feet", usual: 0.02, most: 0.03 },
  spot: { label: "A small spot, like a perfume", usual: 0.05, most: 0.1 },
} as const;
export type UsedOn = keyof typeof USED_ON;
export const USED_ON_IDS = Object.keys(USED_ON) as UsedOn[];

/** Who uses it, and how much of the usual most is left for them: less, or none. From memory. */
export const FOR_WHOM = {
  anyone: { label: "Grown people", part: 1, say: "" },
  sensitive: { label: "Sensitive skin, or the elderly", part: 0.5, say: "for sensitive skin, half" },
  pregnancy: { label: "Pregnancy", part: 0.5, say: "in pregnancy, half at the most, and many oils not at all: ask a midwife or doctor" },
  children: { label: "Children from three on", part: 0.25, say: "for children, a quarter at the most" },
  infants: { label: "Infants and children under three", part: 0, say: "for infants none at all" },
} as const;
export type ForWhom = keyof typeof FOR_WHOM;
export const FOR_WHOM_IDS = Object.keys(FOR_WHOM) as ForWhom[];

/** The most of one oil, whatever the use; by library entry, from memory. */
const CEILINGS = {
  "eo-lemongrass": 0.007,
  "eo-clove-bud": 0.005,
  "eo-cinnamon-leaf": 0.006,
  "eo-cinnamon-bark": 0.0007,
  "eo-ylang": 0.008,
  "eo-peppermint": 0.054,
  "eo-tea-tree": 0.15,
  "eo-spearmint": 0.017,
} as const;

/** Where it stays on the face: figures from 0.1 to 1 % are named, and the lower is warned by. From memory. */
const ON_THE_FACE = { "eo-tea-tree": 0.001 } as const;
/** Oils whose ceiling is disputed: said beside it. */
const DISPUTED: ReadonlySet<string> = new Set(["eo-tea-tree", "eo-spearmint"]);
/** @example isDisputed("eo-tea-tree") // true */
export const isDisputed = (key: string | null): boolean => key !== null && DISPUTED.has(key);

/** The most on skin left in the sun; shares of it add up over the oils of a blend. By library entry, from memory. */
const IN_THE_SUN = {
  "eo-bergamot": 0.004,
  "eo-lime": 0.007,
  "eo-bitter-orange": 0.0125,
  "eo-lemon": 0.02,
  "eo-grapefruit": 0.04,
} as const;

/** @example ceilingOf("eo-clove-bud", "hands") // 0.005 */
export function ceilingOf(key: string | null, on: UsedOn): number | null {
  if (key === null) return null;
  if (on === "lips" && isKeyOf(ON_THE_FACE, key)) return ON_THE_FACE[key];
  return isKeyOf(CEILINGS, key) ? CEILINGS[key] : null;
}
export interface Ceiling {
  /** Of the whole, 0 to 1. */
  share: number;
  /** The lot whose paper says so; null where it is the usual one. */
  lot: string | null;
}

/** A lot of an oil, with what its supplier's paper allows of it, in millionths, where that is written down. */
export interface PaperLot {
  number: string;
  scentMostPpm?: number | null;
}

/** An oil as it would be taken: by its library entry, out of which lots, and whether some of it has to be bought, whose paper nobody has seen. */
export interface Taken {
  libraryKey: string | null;
  lots: readonly PaperLot[];
  short: boolean;
}

/**
 * The most of an oil in a product: each lot's own paper goes before the usual ceiling, which counts for what still has to be bought; the strictest counts.
 * @example ceilingBy({ libraryKey: "eo-clove-bud", lots: [{ number: "C7", scentMostPpm: 8000 }], short: false }, "hands") // { share: 0.008, lot: "C7" }
 */
export function ceilingBy({ libraryKey, lots, short }: Taken, on: UsedOn): Ceiling | null {
  const share = ceilingOf(libraryKey, on);
  const usual: Ceiling | null = share === null ? null : { share, lot: null };
  const said = lots.map(({ number, scentMostPpm: ppm }) => (ppm == null ? usual : { share: ppm / 1e6, lot: number }));
  const all = short || lots.length === 0 ? [...said, usual] : said;
  return all.reduce((a, b) => (a === null || (b !== null && b.share < a.share) ? b : a), null);
}

/** @example sunLimitOf("eo-bergamot") // 0.004 */
export const sunLimitOf = (key: string | null): number | null => (key !== null && isKeyOf(IN_THE_SUN, key) ? IN_THE_SUN[key] : null);
