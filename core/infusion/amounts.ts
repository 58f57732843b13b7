/**
 * How much herb and oil go into a jar: by weight, by cups, by how full the jar is, or all of a lot in hand.
 */
import { mg, shares, type Mg } from "../measure/exact.ts";
import { done, refuse, type Outcome } from "../outcome.ts";

export const AMOUNT_BY = { ratio: "By weight", cups: "By cups", fill: "By how full the jar is", lot: "All of the herb in hand" } as const;
export type AmountBy = keyof typeof AMOUNT_BY;
export const AMOUNT_BY_IDS = Object.keys(AMOUNT_BY) as AmountBy[];

/** How full of loose herb a jar is, by what is in it; common practice, no source. */
export const JAR_FILLS = [
  [33, "a third, dried herb"],
  [50, "half, dried or wilted herb"],
  [75, "three quarters, loose flowers"],
] as const;

/** What the plant itself displaces once the air is out: about 1.4 g to the mL, from memory. */
const PLANT_MG_PER_ML = 1400;

export interface HerbFacts {
  name: string;
  /** Loose, as it is cupped, mg/mL. */
  loose: number | null;
  /** Its share of a blend, by weight. */
  parts: number;
}

export type AmountIn =
  | { by: "ratio"; oil: Mg; oilPerHerb: number }
  | { by: "cups"; herbMl: number; oilMl: number }
  | { by: "fill"; vesselMl: number; fillMl: number; share: number }
  | { by: "lot"; herb: Mg; oilPerHerb: number };

export interface Amounts {
  /** Per herb, in order; adds up to `herb`. */
  herbs: Mg[];
  herb: Mg;
  oil: Mg;
  /** Grams of oil to a gram of herb. */
  ratio: number;
  /** Room it takes in the jar: oil, and the plant itself. */
  fillMl: number;
  /** Room the loose herb takes; above `fillMl` it rises above the oil. */
  looseMl: number | null;
}

/** The volume-weighted density of a blend of loose herbs, or the name of the one that has none. */
function looseOf(herbs: readonly HerbFacts[]): number | string {
  const parts = herbs.reduce((a, h) => a + h.parts, 0);
  let ml = 0;
  for (const h of herbs) {
    if (!h.loose) return h.name;
    ml += h.parts / h.loose;
  }
  return parts / ml;
}

/**
 * Works out grams of herb and oil.
 * @param herbs at least one
 * @param oilDensity mg/mL
 * @returns problems `noHerb`, `noLoose` (cups or jar fill of a herb whose loose weight nobody has given), `noRoom`, `zero`
 * @example amounts({ by: "ratio", oil: mg(453_592), oilPerHerb: 32 }, [petals], 913).value.herb // 14.2 g
 */
export function amounts(input: AmountIn, herbs: readonly HerbFacts[], oilDensity: number): Outcome<Amounts> {
  if (herbs.length === 0) return refuse("noHerb", "Choose the herb first.");
  const loose = looseOf(herbs);
  let herb: number;
  let oil: number;
  if (input.by === "ratio" || input.by === "lot") {
    if (!(input.oilPerHerb > 0)) return refuse("zero", "Enter how many parts of oil to one of herb.");
    [herb, oil] = input.by === "ratio" ? [input.oil / input.oilPerHerb, input.oil] : [input.herb, input.herb * input.oilPerHerb];
  } else {
    if (typeof loose === "string")
      return refuse("noLoose", `Nobody has said what a mL of loose ${loose} weighs. Add its density on its sheet, or go by weight.`);
    if (input.by === "cups") [herb, oil] = [input.herbMl * loose, input.oilMl * oilDensity];
    else {
      herb = input.vesselMl * input.share * loose;
      oil = (input.fillMl - herb / PLANT_MG_PER_ML) * oilDensity;
    }
  }
  const [herbMg, oilMg] = [mg(Math.round(herb)), mg(Math.round(oil))];
  if (herbMg <= 0) return refuse("zero", "Enter more than zero.");
  if (oilMg <= 0) return refuse("noRoom", "That leaves no room for oil. Take less herb or a bigger jar.");
  return done({
    herbs: shares(
      herbMg,
      herbs.map((h) => h.parts),
    ).map(mg),
    herb: herbMg,
    oil: oilMg,
    ratio: oilMg / herbMg,
    fillMl: oilMg / oilDensity + herbMg / PLANT_MG_PER_ML,
    looseMl: typeof loose === "string" ? null : herbMg / loose,
  });
}
