/** What a container holds: worked out from its size when nobody has measured it. */
import { mg, type Mg } from "../measure/exact.ts";

/**
 * A round tin or jar, from its inner diameter and the height it is filled to: a cylinder, π d² h / 4.
 * @param innerMm,fillMm millimetres
 * @returns millilitres
 * @example roundCapacityMl(60, 25) // 70.7 mL
 */
export const roundCapacityMl = (innerMm: number, fillMm: number): number => (Math.PI * innerMm * innerMm * fillMm) / 4 / 1000;

/** How deep so many millilitres stand in a round one, in millimetres: the same cylinder the other way round. @example depthMm(70.7, 60) // 25.0 mm */
export const depthMm = (ml: number, innerMm: number): number => ml / roundCapacityMl(innerMm, 1);

export interface ContainerFacts {
  brimMl: number | null;
  usableMl: number | null;
  innerMm: number | null;
  fillMm: number | null;
}

export interface Holds {
  ml: number;
  /** How it is known. */
  by: "measured" | "its size" | "its brim";
}

/** Without a measured figure, what is left below the brim for a lid to close; common practice, no source. */
const BELOW_BRIM = 0.95;

/** The usable capacity: measured, else from its size, else a little below the brim. @example holds({ ...tin, innerMm: 60, fillMm: 25 })?.by // "its size" */
export function holds(c: ContainerFacts): Holds | null {
  if (c.usableMl) return { ml: c.usableMl, by: "measured" };
  if (c.innerMm && c.fillMm) return { ml: roundCapacityMl(c.innerMm, c.fillMm), by: "its size" };
  return c.brimMl ? { ml: c.brimMl * BELOW_BRIM, by: "its brim" } : null;
}

/** @param density mg/mL of what is poured, melted @example weightHeld(70.7, 900) // 63.6 g */
export const weightHeld = (ml: number, density: number): Mg => mg(Math.round(ml * density));
