/**
 * A simulated pan: what lies on it, how the reading creeps towards that, how it wanders while the room warms, and what it shows of all that.
 *
 * It settles like a damped beam (the reading covers 63 % of the way in `SETTLES_MS`), drifts by a hair a minute, and shows whole steps; it is
 * stable once it has shown the same step, give or take one, for `STEADY_MS`.
 */
import { mg, type Mg } from "#core/measure/exact";
import type { ScaleReading } from "#core/device/lines";

/** The least it tells apart and the most it carries. */
export const STEP: Mg = mg(100);
export const MOST: Mg = mg(2_000_000);
const SETTLES_MS = 260;
const STEADY_MS = 900;
/** Milligrams it may wander in a minute. */
const DRIFT_MG = 40;
/** While it moves it trembles by this share of what is still to come. */
const TREMBLE = 0.02;

export interface Pan {
  /** On it, in milligrams, and what is being poured: so much a millisecond until so much has come. */
  load: number;
  pours: { perMs: number; left: number } | null;
  /** Where the beam is, and where it has wandered to. */
  beam: number;
  drift: number;
  tare: Mg;
  /** What it last showed, and for how long within a step of it. */
  shown: number;
  steadyMs: number;
}

/** An empty one. */
export const newPan = (): Pan => ({ load: 0, pours: null, beam: 0, drift: 0, tare: mg(0), shown: 0, steadyMs: STEADY_MS });

/** Lets so much time go by. @param chance 0 to 1, again at each call */
export function pass(pan: Pan, ms: number, chance: () => number): void {
  if (pan.pours) {
    const now = Math.min(pan.pours.left, pan.pours.perMs * ms);
    pan.load += now;
    pan.pours.left -= now;
    if (pan.pours.left <= 0) pan.pours = null;
  }
  const way = pan.load - pan.beam;
  pan.beam += way * (1 - Math.exp(-ms / SETTLES_MS));
  pan.drift += (chance() - 0.5) * 2 * DRIFT_MG * Math.sqrt(ms / 60_000);
  const tremble = (chance() - 0.5) * TREMBLE * Math.abs(pan.load - pan.beam);
  const shown = Math.round((pan.beam + pan.drift + tremble) / STEP) * STEP;
  pan.steadyMs = Math.abs(shown - pan.shown) <= STEP && !pan.pours ? pan.steadyMs + ms : 0;
  if (pan.steadyMs === 0 || shown !== pan.shown) pan.shown = shown;
}

/** What it shows. */
export function shows(pan: Pan): ScaleReading {
  if (pan.shown > MOST) return { standing: "over" };
  if (pan.shown + MOST / 10 < 0) return { standing: "under" };
  return { standing: pan.steadyMs >= STEADY_MS ? "stable" : "moving", net: pan.tare !== 0, weight: mg(pan.shown - pan.tare) };
}

/** A press on it. @returns whether it took: nothing is tared while it moves, or carries too much */
export function press(pan: Pan, button: string): boolean {
  const reading = shows(pan);
  if (button === "gross") pan.tare = mg(0);
  else if (button === "tare" && reading.standing === "stable") pan.tare = mg(pan.shown);
  else return false;
  return true;
}

const GRAMS = /^(\d{1,7}(?:\.\d{1,3})?)(?: over (\d{1,3}))?$/;

/**
 * What a hand does at it, which only a simulated one is told: "add 40" and "add 40 over 6" put grams on it, at once or poured over seconds;
 * "take 4" takes some off; "clear" takes all off.
 */
export function hand(pan: Pan, does: string): boolean {
  const [verb = "", ...rest] = does.split(" ");
  if (verb === "clear") {
    pan.load = 0;
    pan.pours = null;
    return true;
  }
  const amount = GRAMS.exec(rest.join(" "));
  if (!amount) return false;
  const grams = Number(amount[1]) * 1000;
  if (verb === "take") pan.load = Math.max(0, pan.load - grams);
  else if (verb === "add" && amount[2]) pan.pours = { perMs: grams / (Number(amount[2]) * 1000), left: grams };
  else if (verb === "add") pan.load += grams;
  else return false;
  return true;
}
