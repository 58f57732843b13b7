/**
 * How warm a jar is, as a thermometer read it: what makers call gentle is 37 to 49 °C, and most cookers are hotter than they say (common practice;
 * the bounds from memory).
 */
import { method, type MethodId } from "./methods.ts";

/** Up to here it is gentle enough; above it is called hot, and above the second too hot. °C. */
const GENTLE = 55;
const SCORCHES = 70;
/** Below it, heat does no more than a shelf. */
const HARDLY_WARM = 30;
/** A jar without heat that is warmer is in the wrong place. */
const STANDS_WARM = 40;

/** Whether a thermometer is asked for. @param heatedOwn a maker's own way that heats @example isHeated("cooker", false) // true */
export const isHeated = (id: MethodId, heatedOwn: boolean): boolean => method(id).heat === "gentle" || (id === "own" && heatedOwn);

/**
 * What a reading says; null where all is well.
 * @param heated whether it is meant to be warm
 * @example judgeWarmth(true, 44) // null
 * @example judgeWarmth(true, 82)?.startsWith("Too hot") // true
 */
export function judgeWarmth(heated: boolean, celsius: number): string | null {
  if (celsius > SCORCHES)
    return "Too hot: it scorches the herb and ages the oil. Take it off, let it cool, and go on with the warm setting and the lid off, or a thermostat.";
  if (!heated) return celsius > STANDS_WARM ? "Too warm for weeks of standing: the oil turns. Find it a cooler place." : null;
  if (celsius > GENTLE) return "Hotter than gentle: lid off, the warm setting or a thermostat, and read it again in half an hour.";
  return celsius < HARDLY_WARM ? "Hardly warm: at this it takes as long as a shelf." : null;
}
