/** What is to be minded of something because of what is in it: each caution and allergen once, with what brings it. */
import { CAUTION_IDS, staysSaid, type CautionId } from "./cautions.ts";

export interface Minded {
  /** As it is named on a label, and what brings it. */
  allergens: { name: string; of: string[] }[];
  cautions: { id: CautionId; of: string[] }[];
}

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
