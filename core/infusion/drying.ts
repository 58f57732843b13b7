/**
 * Drying a harvest: how far it is, when it is dry, and what its dry weight is worth.
 *
 * Low and slow until it snaps; weight that no longer falls says the same by the scale. Common practice, no source; the share of
 * weight a herb has left when dried (about a fifth) is from memory.
 */
import { micros, type Mg, type Micros } from "../measure/exact.ts";
import { costOf, type UnitCost } from "../measure/money.ts";
import { done, refuse, type Outcome } from "../outcome.ts";
import { forMinutes } from "../recipe/cost.ts";

export const DRYING_METHODS = {
  air: "In air",
  dehydrator: "Dehydrator",
  oven: "Oven, door ajar",
  frame: "On a frame in the warm",
} as const;
export type DryingMethod = keyof typeof DRYING_METHODS;

/** Above it leaf and flower lose what they are dried for. About 52 °C is usual in a dehydrator; the ceiling is from memory. */
export const HOTTEST_DRYING = 60;
/** How warm each part of a plant is dried, low and slow; from memory. */
export const DRY_AT = "Flowers dry at 35 to 40 °C, leaves at 40 to 45, roots at 50 to 55, until they snap.";

/** Weight that falls by less than this share between two checks has stopped falling. */
const STEADY = 0.02;

export interface DryingState {
  /** Share of the fresh weight that is left. */
  left: number;
  steady: boolean;
  say: string;
}

/**
 * How far a drying is by its weights, oldest first.
 * @example dryingState(mg(500_000), [mg(120_000), mg(119_000)]) // { left: 0.238, steady: true }
 */
export function dryingState(fresh: Mg, weights: readonly Mg[]): DryingState {
  const now = weights.at(-1) ?? fresh;
  const before = weights.at(-2);
  const steady = before !== undefined && before - now < STEADY * before;
  const left = now / fresh;
  const say =
    weights.length === 0
      ? "Weigh it again in a day."
      : steady && left < 0.5
        ? "Its weight has stopped falling: try whether it snaps."
        : steady
          ? "Its weight has stopped falling but much water seems left. Is it drying at all?"
          : "Still losing water.";
  return { left, steady, say };
}

/**
 * Checks what a finished drying says.
 * @returns problems `heavier` (more than was picked), `wet` (snaps, but hardly lighter than fresh)
 * @example readDry(mg(500_000), mg(100_000), true) // ok
 */
export function readDry(fresh: Mg, dry: Mg, snaps: boolean): Outcome<Mg> {
  if (dry > fresh) return refuse("heavier", "That is more than was picked. Check both weights.");
  if (snaps && dry > fresh * 0.6)
    return refuse("wet", "It has hardly lost any water, so it can't snap yet. Check the weights, or leave the snap test unticked.");
  return done(dry);
}

export const HERB_VALUES = { nothing: "At nothing", hours: "At the hours it took", market: "At the market price" } as const;
export type HerbValue = keyof typeof HERB_VALUES;

/**
 * What the dry herb is worth when it goes on the shelf.
 * @param market price per base unit; needed for "market"
 * @example harvestValue("hours", { dry: mg(1), minutes: 90, hourly: micros(16_000_000), market: null }) // 24.00
 */
export function harvestValue(by: HerbValue, h: { dry: Mg; minutes: number; hourly: Micros; market: UnitCost | null }): Micros {
  if (by === "nothing") return micros(0);
  if (by === "hours") return forMinutes(h.minutes, h.hourly);
  return h.market ? costOf(h.dry, h.market) : micros(0);
}
