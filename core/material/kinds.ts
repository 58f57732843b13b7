/**
 * The kinds of material a workroom keeps, how each is measured, and the figures a new one starts from.
 *
 * Starting densities are typical figures from memory; the maker sees them as suggestions when adding a material and their
 * own figure always wins.
 */
import type { Densities, Form } from "../measure/mass.ts";

export interface Kind {
  label: string;
  plural: string;
  measured: "weight" | "count";
  /** The shelf's group it is listed in. */
  group: "ingredient" | "packaging";
  /** Forms it can be measured in, usual one first; empty for counted things. */
  forms: readonly Form[];
  /** Typical densities in mg/mL, from memory. */
  start: Densities;
}

const ingredient = (label: string, plural: string, forms: readonly Form[], start: Densities): Kind => ({
  label,
  plural,
  measured: "weight",
  group: "ingredient",
  forms,
  start,
});
const packaging = (label: string, plural: string): Kind => ({
  label,
  plural,
  measured: "count",
  group: "packaging",
  forms: [],
  start: {},
});

export const KINDS = {
  wax: ingredient("Wax", "Waxes", ["pellets", "grated", "block", "melted"], { pellets: 480, grated: 330, block: 960, melted: 860 }),
  hardButter: ingredient("Hard butter", "Hard butters", ["block", "chopped", "grated", "melted"], {
    block: 950,
    chopped: 600,
    grated: 420,
    melted: 900,
  }),
  softButter: ingredient("Soft butter", "Soft butters", ["block", "chopped", "melted"], { block: 920, chopped: 650, melted: 900 }),
  oil: ingredient("Liquid oil", "Liquid oils", ["liquid"], { liquid: 920 }),
  infusedOil: ingredient("Infused oil", "Infused oils", ["liquid"], { liquid: 920 }),
  herb: ingredient("Herb", "Herbs", ["dried", "powder"], {}),
  essentialOil: ingredient("Essential oil", "Essential oils", ["liquid"], { liquid: 900 }),
  fragrance: ingredient("Fragrance", "Fragrances", ["liquid"], { liquid: 970 }),
  antioxidant: ingredient("Antioxidant", "Antioxidants", ["liquid"], { liquid: 950 }),
  powder: ingredient("Powder", "Powders", ["powder"], {}),
  colour: ingredient("Colour", "Colours", ["powder"], {}),
  base: ingredient("Base", "Bases", ["block", "chopped", "melted"], { block: 930, chopped: 640, melted: 880 }),
  watery: ingredient("Water-bearing", "Water-bearing", ["liquid"], { liquid: 1000 }),
  container: packaging("Container", "Containers"),
  closure: packaging("Lid", "Lids"),
  mould: packaging("Mould", "Moulds"),
  label: packaging("Label", "Labels"),
  wrap: packaging("Wrapping", "Wrapping"),
  box: packaging("Set box", "Set boxes"),
  consumable: packaging("Consumable", "Consumables"),
} as const satisfies Record<string, Kind>;

export type KindId = keyof typeof KINDS;
export const KIND_IDS = Object.keys(KINDS) as KindId[];

/** @example kind("wax").measured // "weight" */
export const kind = (id: KindId): Kind => KINDS[id];

const kindsWhere = (fits: (k: Kind) => boolean): readonly KindId[] => KIND_IDS.filter((id) => fits(KINDS[id]));
/** What herbs are steeped in; solid ones are melted for it. */
export const CARRIER_KINDS: readonly KindId[] = ["oil", "infusedOil", "softButter", "hardButter"];
/** What a pot is made of and made right with: whatever else is in it (scent, actives, powders, colour) is dosed, and never added to change how it sets. */
const CARRYING_KINDS: readonly KindId[] = ["wax", "hardButter", "softButter", "oil", "infusedOil"];
/** Whether more of it may be added to make a pot harder or softer. @example carries({ kind: "essentialOil" }) // false */
export const carries = (m: { kind: KindId }): boolean => CARRYING_KINDS.includes(m.kind);
/** What can be poured together into one bottle. */
export const BLENDED_KINDS: readonly KindId[] = ["oil", "infusedOil"];
/** What sets before it can be poured. */
export const SOLID_KINDS: readonly KindId[] = ["wax", "hardButter", "softButter", "base"];
export const COUNTED_KINDS = kindsWhere((k) => k.measured === "count");
