/**
 * The units a maker writes, with their exact size.
 *
 * Mass and volume factors are the US customary ones as defined from the international pound (0.453 592 37 kg) and the
 * US gallon (231 cubic inches): NIST Special Publication 811, Appendix B.8. They are exact fractions, not rounded ones.
 * Drops and droppers are common practice, no source.
 */
import Fraction from "fraction.js";

export type UnitKind = "mass" | "volume" | "count" | "share";

export interface Unit {
  id: string;
  kind: UnitKind;
  /** How it is written after a number. */
  label: string;
  plural?: string;
  /** Milligrams per unit for a mass, millilitres per unit for a volume; absent where it depends on the material. */
  size?: Fraction;
  /** Every spelling accepted, lower case. `T` and `t` are told apart before lowering. */
  words: readonly string[];
}

const f = (n: string) => new Fraction(n);

export const UNITS = {
  mg: { id: "mg", kind: "mass", label: "mg", size: f("1"), words: ["mg", "milligram", "milligrams"] },
  g: { id: "g", kind: "mass", label: "g", size: f("1000"), words: ["g", "gr", "gm", "gram", "grams", "gramme", "grammes"] },
  kg: { id: "kg", kind: "mass", label: "kg", size: f("1000000"), words: ["kg", "kilo", "kilos", "kilogram", "kilograms"] },
  oz: { id: "oz", kind: "mass", label: "oz", size: f("28349.523125"), words: ["oz", "ounce", "ounces", "oz wt"] },
  lb: { id: "lb", kind: "mass", label: "lb", size: f("453592.37"), words: ["lb", "lbs", "pound", "pounds"] },
  ml: {
    id: "ml",
    kind: "volume",
    label: "mL",
    size: f("1"),
    words: ["ml", "millilitre", "millilitres", "milliliter", "milliliters", "cc"],
  },
  cl: { id: "cl", kind: "volume", label: "cL", size: f("10"), words: ["cl", "centilitre", "centilitres", "centiliter", "centiliters"] },
  dl: { id: "dl", kind: "volume", label: "dL", size: f("100"), words: ["dl", "decilitre", "decilitres", "deciliter", "deciliters"] },
  l: { id: "l", kind: "volume", label: "L", size: f("1000"), words: ["l", "litre", "litres", "liter", "liters"] },
  tsp: { id: "tsp", kind: "volume", label: "tsp", size: f("4.92892159375"), words: ["tsp", "tsps", "teaspoon", "teaspoons"] },
  tbsp: {
    id: "tbsp",
    kind: "volume",
    label: "tbsp",
    size: f("14.78676478125"),
    words: ["tbsp", "tbsps", "tbs", "tablespoon", "tablespoons"],
  },
  floz: { id: "floz", kind: "volume", label: "fl oz", size: f("29.5735295625"), words: ["fl oz", "floz", "fluid ounce", "fluid ounces"] },
  cup: { id: "cup", kind: "volume", label: "cup", plural: "cups", size: f("236.5882365"), words: ["cup", "cups", "c"] },
  pint: { id: "pint", kind: "volume", label: "pint", plural: "pints", size: f("473.176473"), words: ["pint", "pints", "pt"] },
  quart: { id: "quart", kind: "volume", label: "quart", plural: "quarts", size: f("946.352946"), words: ["quart", "quarts", "qt"] },
  gal: { id: "gal", kind: "volume", label: "gal", size: f("3785.411784"), words: ["gal", "gals", "gallon", "gallons"] },
  drop: { id: "drop", kind: "volume", label: "drop", plural: "drops", words: ["drop", "drops", "gtt"] },
  dropper: { id: "dropper", kind: "volume", label: "dropper", plural: "droppers", size: f("1"), words: ["dropper", "droppers"] },
  pc: { id: "pc", kind: "count", label: "pc", plural: "pcs", words: ["pc", "pcs", "piece", "pieces", "each", "ea"] },
  part: { id: "part", kind: "share", label: "part", plural: "parts", words: ["part", "parts"] },
  percent: { id: "percent", kind: "share", label: "%", words: ["%", "percent", "per cent"] },
} as const satisfies Record<string, Unit>;

export type UnitId = keyof typeof UNITS;

/** @example unit("oz").label // "oz" */
export const unit = (id: UnitId): Unit => UNITS[id];

const byWord = new Map<string, UnitId>(Object.values(UNITS).flatMap((u) => u.words.map((w) => [w, u.id] as const)));

/**
 * The unit a word means, or null. A lone capital T is a tablespoon and a lone small t a teaspoon, as on kitchen cards.
 * @example findUnit("Fl. Oz.") // "floz"
 */
export function findUnit(word: string): UnitId | null {
  const bare = word.trim().replace(/\./g, "").replace(/\s+/g, " ");
  if (bare === "T") return "tbsp";
  if (bare === "t") return "tsp";
  return byWord.get(bare.toLowerCase()) ?? null;
}
