/**
 * Firmness in the words of the hand, and where it is felt. Common practice, no source: the bounds are set so that the ratios makers carry in
 * their heads are called what makers call them.
 */

/** What a finger finds, softest first; each from so much beeswax on. */
export const FEELS = {
  pours: { from: 0, say: "pours" },
  slumps: { from: 0.015, say: "slumps" },
  verySoft: { from: 0.03, say: "very soft" },
  scoops: { from: 0.08, say: "scoops" },
  firm: { from: 0.15, say: "takes a nail to scoop" },
  twists: { from: 0.2, say: "holds a stick" },
  bar: { from: 0.3, say: "hard as a bar" },
  harder: { from: 0.6, say: "harder than a bar" },
} as const;
export type Feel = keyof typeof FEELS;
export const FEEL_IDS = Object.keys(FEELS) as Feel[];

/** @example feelOf(0.12) // "scoops" */
export const feelOf = (firm: number): Feel => FEEL_IDS.findLast((f) => FEELS[f].from <= firm) ?? "pours";

/** From where to where a word holds; the last has no end. @example feelRange("scoops") // [0.08, 0.15] */
export const feelRange = (feel: Feel): readonly [number, number] => {
  const next = FEEL_IDS[FEEL_IDS.indexOf(feel) + 1];
  return [FEELS[feel].from, next ? FEELS[next].from : Infinity];
};

/** The middle of what a word means; a little past where the last begins. @example feelMiddle("slumps") // 0.0225 */
export const feelMiddle = (feel: Feel): number => {
  const [low, high] = feelRange(feel);
  return Number.isFinite(high) ? (low + high) / 2 : low * 1.1;
};

/** A cold house, a winter parcel, a car overnight: where hard butters crack. Common practice, no source. */
export const COLD = 12;

/** Where a product is, and how warm it gets there. */
export const PLACES = {
  kitchen: { label: "kitchen", in: "in the kitchen", celsius: 20 },
  pocket: { label: "pocket", in: "in a pocket", celsius: 31 },
  stall: { label: "summer stall", in: "on a summer stall", celsius: 35 },
  car: { label: "hot car", in: "in a hot car", celsius: 48 },
} as const;
/** What a recipe can be made right for: places, seasons and climates (common practice, no source). */
export const WARMTHS = {
  winter: { label: "a cool room in winter", celsius: 15 },
  kitchen: PLACES.kitchen,
  summer: { label: "a room in a hot summer", celsius: 27 },
  tropics: { label: "a hot climate", celsius: 32 },
  pocket: PLACES.pocket,
  stall: PLACES.stall,
  car: PLACES.car,
} as const;
export type Warmth = keyof typeof WARMTHS;
export const WARMTH_IDS = Object.keys(WARMTHS) as Warmth[];
export type Place = keyof typeof PLACES;
export const PLACE_IDS = Object.keys(PLACES) as Place[];
