/** What is to be minded of something because of what is in it: each caution and allergen once, with what brings it. */
import { CAUTION_IDS, CAUTIONS, staysSaid, type CautionId } from "./cautions.ts";

export interface Minded {
  /** As it is named on a label, and what brings it. */
  allergens: { name: string; of: string[] }[];
  cautions: { id: CautionId; of: string[] }[];
}

/** A caution as a line: what it is, what brings it, and what to do. */
export interface MindedLine {
  head: string;
  of: string[];
  say: string;
}

/**
 * Allergens first, then cautions.
 * @example mindedLines({ allergens: [{ name: "tree nut", of: ["Almond oil"] }], cautions: [] })[0].head // "Allergen: tree nut"
 */
export const mindedLines = ({ allergens, cautions }: Minded): MindedLine[] => [
  ...allergens.map(({ name, of }) => ({ head: `Allergen: ${name}`, of, say: "" })),
  ...cautions.map(({ id, of }) => ({ head: CAUTIONS[id].label, of, say: CAUTIONS[id].say })),
];
/** Beneath them, wherever they are shown. */
export const MINDED_FROM =
  "From memory and from what your materials say. A supplier’s papers and local rules come first, and nothing here clears a product.";

/**
 * In the order of the cautions, without those that end with the batch.
 * @param made of these, each looked through (`lookThrough.ts`); several allergens are told apart by a comma
 * @example mindedOf([{ name: "Almond oil", cautions: [], allergen: "Tree nut" }]).allergens // [{ name: "Tree nut", of: ["Almond oil"] }]
 */
export function mindedOf(made: readonly { name: string; cautions: readonly CautionId[]; allergen: string }[]): Minded {
  const names = (brings: (m: (typeof made)[number]) => boolean): string[] => [...new Set(made.filter(brings).map((m) => m.name))];
  const allergens = [...new Set(made.flatMap((m) => m.allergen.split(", ")).filter(Boolean))];
  return {
    allergens: allergens.map((name) => ({ name, of: names((m) => m.allergen.split(", ").includes(name)) })),
    cautions: CAUTION_IDS.filter(staysSaid)
      .map((id) => ({ id, of: names((m) => m.cautions.includes(id)) }))
      .filter((c) => c.of.length > 0),
  };
}
