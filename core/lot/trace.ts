/**
 * Following lots: back to everything one came from, and forward to everything it went into.
 *
 * Lots are joined by what was made of them. The walk is the same either way, visits each lot once and so ends even if a
 * record were to loop.
 */

import { groupBy } from "../collect.ts";

/** Some of lot `from` is in lot `to`. */
export interface Link {
  from: number;
  to: number;
}

export interface Step {
  lot: number;
  /** 1 for direct neighbours of the starting lot. */
  depth: number;
  /** The lot it was reached through, nearer to the start. */
  via: number;
}

/**
 * Every lot reachable from some, nearest first, without those themselves.
 * @param direction "back" to what they came from, "forward" to what they went into
 * @example traceFrom([3], [{ from: 1, to: 2 }, { from: 2, to: 3 }], "back") // [{ lot: 2, depth: 1, via: 3 }, { lot: 1, depth: 2, via: 2 }]
 */
export function traceFrom(starts: readonly number[], links: readonly Link[], direction: "back" | "forward"): Step[] {
  const [near, far] = direction === "back" ? (["to", "from"] as const) : (["from", "to"] as const);
  const next = groupBy(links, (l) => l[near]);
  const seen = new Set(starts);
  const steps: Step[] = [];
  let ring: readonly number[] = starts;
  for (let depth = 1; ring.length > 0; depth++) {
    const outer: number[] = [];
    for (const via of ring)
      for (const { [far]: lot } of next.get(via) ?? []) {
        if (seen.has(lot)) continue;
        seen.add(lot);
        steps.push({ lot, depth, via });
        outer.push(lot);
      }
    ring = outer;
  }
  return steps;
}

/** The same from one lot. @example trace(1, [{ from: 1, to: 2 }], "forward") // [{ lot: 2, depth: 1, via: 1 }] */
export const trace = (start: number, links: readonly Link[], direction: "back" | "forward"): Step[] => traceFrom([start], links, direction);
