/** What isn't for a summer stall: whipped butter, whose air goes, and whatever loses its shape at the warmth of one. Common practice, no source. */
import { firmness, mixOf, type Constants, type MixLine } from "../firmness/model.ts";
import { FEELS, feelOf, PLACES, type Feel } from "../firmness/words.ts";

const RUNS: ReadonlySet<Feel> = new Set<Feel>(["pours", "slumps"]);

/**
 * Why something isn't for a summer stall, in a few words; null where it may go, or nobody knows what is in it.
 * @example notForSummer(true, [], TRADE) // "loses its air in the heat"
 */
export function notForSummer(whipped: boolean, lines: readonly MixLine[], constants: Constants): string | null {
  if (whipped) return "loses its air in the heat";
  if (lines.length === 0) return null;
  const feel = feelOf(firmness(mixOf(lines), PLACES.stall.celsius, constants));
  return RUNS.has(feel) ? `${FEELS[feel].say} at ${PLACES.stall.celsius} °C` : null;
}
