/**
 * A simulated pot with a probe in it: over the heat it warms, off it it cools towards the kitchen as Newton's law of cooling has it, the faster
 * the hotter it is.
 */

/** Of the kitchen, and the share of the way to it that is left after this time. */
const KITCHEN = 21;
const COOLS_MS = 22 * 60_000;
/** Degrees a minute over the heat, and where the water bath holds it. */
const WARMS = 6;
const BATH = 82;
/** A probe's own tremble, in degrees. */
const TREMBLE = 0.25;

export interface Pot {
  celsius: number;
  over: boolean;
  probe: boolean;
  /** How much quicker than a clock, to try things. */
  hurry: number;
}

export const newPot = (): Pot => ({ celsius: KITCHEN, over: false, probe: true, hurry: 1 });

/** Lets so much time go by. */
export function pass(pot: Pot, ms: number): void {
  const time = ms * pot.hurry;
  if (pot.over) pot.celsius = Math.min(BATH, pot.celsius + (WARMS * time) / 60_000);
  else pot.celsius = KITCHEN + (pot.celsius - KITCHEN) * Math.exp(-time / COOLS_MS);
}

/** What the probe shows; null while it is out. @param chance 0 to 1, again at each call */
export const shows = (pot: Pot, chance: () => number): number | null => (pot.probe ? pot.celsius + (chance() - 0.5) * 2 * TREMBLE : null);

/** What a hand does at it: "heat on", "heat off", "probe in", "probe out", "hurry 30". */
export function hand(pot: Pot, does: string): boolean {
  const [what, how = ""] = does.split(" ");
  const on = how === "on" || how === "in";
  if (what === "heat" && (on || how === "off")) pot.over = on;
  else if (what === "probe" && (on || how === "out")) pot.probe = on;
  else if (what === "hurry" && /^\d{1,3}$/.test(how) && Number(how) > 0) pot.hurry = Number(how);
  else return false;
  return true;
}
