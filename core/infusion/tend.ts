/**
 * A jar while it steeps: how far it is, whether it wants shaking, and what is due. Shaking once or twice a day for the first two
 * weeks and now and then after that is common practice, no source.
 */
import { addDays, daysBetween, type Day } from "../when.ts";
import { method, type MethodId, type Ready } from "./methods.ts";

export type JarState = "steeping" | "usable" | "ready" | "late";
export const JAR_STATES: Record<JarState, string> = {
  steeping: "steeping",
  usable: "could be strained",
  ready: "ready to strain",
  late: "strain it now",
};

export interface Steeping extends Ready {
  day: Day;
  method: MethodId;
}

/** @example jarState({ ...steeping, earliest: "2026-01-10", best: "2026-01-20" }, "2026-01-12") // "usable" */
export const jarState = (jar: Ready, today: Day): JarState =>
  today > jar.latest ? "late" : today >= jar.best ? "ready" : today >= jar.earliest ? "usable" : "steeping";

/** How far it is to its best day, 0 to 1. @example jarProgress({ ...steeping, day: "2026-01-01", best: "2026-01-11" }, "2026-01-06") // 0.5 */
export function jarProgress(jar: Steeping, today: Day): number {
  const all = daysBetween(jar.day, jar.best);
  return all <= 0 ? 1 : Math.max(0, Math.min(1, daysBetween(jar.day, today) / all));
}

/** Days between shakes: daily in the first fortnight, every third day after. */
const shakeEvery = (jar: Steeping, today: Day): number => (daysBetween(jar.day, today) <= 14 ? 1 : 3);

/** Whether it wants shaking today. @param last the day it was shaken last */
export function wantsShake(jar: Steeping, last: Day | null, today: Day): boolean {
  if (!method(jar.method).shaken || today >= jar.best) return false;
  return today >= addDays(last ?? jar.day, shakeEvery(jar, today));
}
