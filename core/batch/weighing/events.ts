/** What is written down at the bench while a batch is made. */

import { mg, type Mg } from "../../measure/exact.ts";
import { celsiusOf } from "../../measure/heat.ts";

/** How a weight came on the sheet. */
export const WEIGHED_BY = { scale: "by the scale", hand: "typed" } as const;
export type WeighedBy = keyof typeof WEIGHED_BY;

export const BENCH_EVENTS = {
  step: "Step done",
  heat: "Warmth read",
  timer: "Timer",
  set: "Setting",
  test: "Tested",
  whip: "Whipping",
  scrape: "Scraped down",
  cupBefore: "A cup before whipping",
  cupAfter: "A cup after whipping",
  photo: "Photo",
  potAfter: "The pot with what stuck to it",
  note: "Noted",
} as const;
export type BenchEventKind = keyof typeof BENCH_EVENTS;

/**
 * What stuck to the pot: what it weighed after pouring over what it weighed empty; null where one of them wasn't weighed.
 * @param events in their order; the last in effect counts
 * @example stuckTo(mg(400_000), [{ kind: "potAfter", weight: mg(409_000), struckAt: null }]) // 9000
 */
export function stuckTo(
  vessel: Mg | null,
  events: readonly { kind: BenchEventKind; weight: Mg | null; struckAt: Date | null }[],
): Mg | null {
  const after = events.filter((e) => e.kind === "potAfter" && e.struckAt === null && e.weight !== null).at(-1)?.weight ?? null;
  return vessel === null || after === null ? null : mg(Math.max(0, after - vessel));
}

/** A wait and a warmth a step speaks of, so that they needn't be typed. */
export interface Hints {
  /** Minutes to wait; the longer, where it says "30 to 40". */
  minutes: number | null;
  /** Not above so many degrees Celsius. */
  below: number | null;
  /** At about so many. */
  about: number | null;
}

const WAIT = /(?:(\d{1,3})\s*(?:to|-|–)\s*)?(\d{1,3})\s*(min(?:utes?)?|h(?:ours?)?)\b/i;
const WARMTH = /(below|under|at most|no more than)?\s*(?:about\s*)?(\d{2,3})\s*°?\s*(C|F)\b/i;

/**
 * Reads a step's own words for how long and how warm.
 * @example hintsOf("Hold it hot for another 30 minutes, stirring now and then.") // { minutes: 30, below: null, about: null }
 * @example hintsOf("Below 50 °C stir in the scent.").below // 50
 * @example hintsOf("Pour at about 130 F.").about // 54
 */
export function hintsOf(text: string): Hints {
  const wait = WAIT.exec(text);
  const warm = WARMTH.exec(text);
  const celsius = warm ? Math.round(celsiusOf(Number(warm[2]), warm[3]!.toUpperCase() === "F" ? "F" : "C")) : null;
  return {
    minutes: wait ? Number(wait[2]) * (wait[3]!.toLowerCase().startsWith("h") ? 60 : 1) : null,
    below: warm?.[1] ? celsius : null,
    about: warm && !warm[1] ? celsius : null,
  };
}
