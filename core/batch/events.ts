/** What is written down at the bench while a batch is made. */

import { celsiusOf } from "../measure/heat.ts";

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
  note: "Noted",
} as const;
export type BenchEventKind = keyof typeof BENCH_EVENTS;

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
