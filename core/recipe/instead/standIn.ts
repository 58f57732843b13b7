/** Which kinds of material can replace one another, and a candidate with the stock there is of it. */
import type { Vegan } from "../../material/facts.ts";
import type { KindId } from "../../material/kinds.ts";
import type { SkinFeel, Smell } from "../../material/senses.ts";
import type { Bottle } from "../../measure/drops.ts";
import type { UnitCost } from "../../measure/money.ts";
import type { PaperLot } from "../../scent/limits.ts";
import type { Day } from "../../when.ts";
import type { MaterialChoice } from "../written.ts";

/** A material that may stand in, with what there is of it. */
export interface StandIn extends MaterialChoice {
  allergen: string;
  vegan: Vegan;
  feel: SkinFeel;
  smell: Smell;
  /** Usable, in the order in which they are taken; none of one of the library, or used up. */
  lots: readonly ({ number: string; bestBefore: Day | null; onHand: number } & PaperLot & Bottle)[];
  /** What a gram of it costs: of what is on hand, else as it was bought last. */
  per: UnitCost | null;
}

const GROUPS: readonly (readonly KindId[])[] = [
  ["wax"],
  ["hardButter", "softButter"],
  ["oil", "infusedOil"],
  ["essentialOil", "fragrance"],
  ["antioxidant"],
  ["powder"],
  ["colour"],
  ["herb"],
];
/** Kinds that can stand in for one another. @example likeKinds("hardButter") // ["hardButter", "softButter"] */
export const likeKinds = (of: KindId): readonly KindId[] => GROUPS.find((g) => g.includes(of)) ?? [of];
/** What there is of it. @example onHandOf({ lots: [{ number: "R1", bestBefore: null, onHand: 500 }] }) // 500 */
export const onHandOf = (by: Pick<StandIn, "lots">): number => by.lots.reduce((a, l) => a + l.onHand, 0);
