/**
 * Drops: as large as what they fall from. A recipe counts them as its material drips; each bottle may drip otherwise, and is asked once.
 */
import type { Mg } from "./exact.ts";
import { massOf, USUAL_DROPS_PER_ML, volumeMl, type MassFacts } from "./mass.ts";
import type { Amount } from "./parse.ts";
import { writeNumber } from "../numbers.ts";

/** From a bottle with an orifice in its neck drops are smaller: 25 to 35 to the millilitre, from memory. */
const ORIFICE_DROPS_PER_ML = 30;

/** How a bottle may drip, to the millilitre. */
export const DRIPS_LEAST = 5;
export const DRIPS_MOST = 60;

/** A lot, as far as its bottle goes: how it drips, once somebody said. */
export interface Bottle {
  dropsPerMl?: number | null;
}

/** How the bottles of a material drip; null while nobody has counted. @example dripsOf([{ dropsPerMl: null }, { dropsPerMl: 27 }]) // 27 */
export const dripsOf = (bottles: readonly Bottle[]): number | null => bottles.find((b) => b.dropsPerMl)?.dropsPerMl ?? null;

/** What drops come to out of another bottle than the recipe counts by. */
export interface Dripped {
  weight: Mg;
  /** The same as a volume, which no bottle changes: "2 mL". */
  ml: string;
  /** The bottle is known to drip so; else it is asked about. */
  said: boolean;
}

/** Few enough decimals that the next to read it takes no point for a thousand's. */
const writeVolume = (ml: number): string => writeNumber(ml, 0, ml < 1 ? 3 : 2);

/**
 * What drops come to out of the bottle on the shelf, or out of an orifice bottle while nobody said how it drips.
 * @returns null for what isn't in drops, and where it comes to the same; also where the material's own drops were counted and nobody said so of
 *   its bottle
 * @example dripsByBottle({ n: new Fraction(60), unit: "drop" }, { name: "Lavender", form: "liquid", densities: { liquid: 900 }, dropsPerMl: 20 }, []) // { weight: 1_800, ml: "2 mL", said: false }
 */
export function dripsByBottle(amount: Amount, facts: MassFacts, bottles: readonly Bottle[]): Dripped | null {
  if (amount.unit !== "drop") return null;
  const counts = facts.dropsPerMl ?? USUAL_DROPS_PER_ML;
  const said = dripsOf(bottles);
  const drips = said ?? (counts === USUAL_DROPS_PER_ML ? ORIFICE_DROPS_PER_ML : counts);
  if (drips === counts) return null;
  const [weight, ml] = [massOf(amount, { ...facts, dropsPerMl: drips }), volumeMl(amount, drips)];
  return weight.ok && ml.ok ? { weight: weight.value, ml: `${writeVolume(ml.value.valueOf())} mL`, said: said !== null } : null;
}

/** Under so many steps of the scale a weight is a guess of over two per cent; more drops than that nobody counts. */
const FEW_STEPS = 50;
const MOST_COUNTED = 120;

/**
 * How many drops a weight is, where a scale is too coarse for it.
 * @param density of the liquid, mg/mL
 * @param counts drops to the mL as its material's facts have them; null where they don't
 * @param said how its bottle drips; null while nobody said
 * @returns one count, or out of a pipette and out of an orifice bottle where that isn't known; none where the scale tells it, or nobody would count
 *   so many
 * @example inDrops(mg(1_800), mg(100), { density: 900, counts: null }, null) // [40, 60]
 */
export function inDrops(
  weight: Mg,
  step: Mg,
  { density, counts }: { density: number; counts: number | null },
  said: number | null,
): number[] {
  if (weight <= 0 || weight > step * FEW_STEPS) return [];
  const own = said ?? (counts === null || counts === USUAL_DROPS_PER_ML ? null : counts);
  const drops = (own === null ? [USUAL_DROPS_PER_ML, ORIFICE_DROPS_PER_ML] : [own]).map((perMl) => Math.round((weight / density) * perMl));
  return drops.every((n) => n > 0 && n <= MOST_COUNTED) ? drops : [];
}
