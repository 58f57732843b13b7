/**
 * How a pot smells: too faint, and more of its blend goes in, as far as its ceiling allows; too strong, and more of everything else. Said in five
 * steps like the spoon's; by how much each is off is common practice, no source.
 */
import { allocate, mg, type Mg } from "../../measure/exact.ts";
import type { PotLine } from "../weighing/weighingFixes.ts";

export const NOSE = {
  muchFaint: "much too faint",
  faint: "a little faint",
  right: "as it should be",
  strong: "a little strong",
  muchStrong: "much too strong",
} as const;
export type NoseVerdict = keyof typeof NOSE;
export const NOSE_IDS = Object.keys(NOSE) as NoseVerdict[];

/** How much more, or less, of the whole the blend should be. */
const TIMES: Record<NoseVerdict, number> = { muchFaint: 1.5, faint: 1.25, right: 1, strong: 0.8, muchStrong: 2 / 3 };

export interface NoseFix {
  /** What goes in more, and how much; of a blend at its ceiling nothing. */
  adds: { line: number; more: Mg }[];
  total: number;
  /** Of scents, before and after. */
  scent: readonly [before: number, after: number];
  /** No more may go in than that, though the nose asked for it. */
  capped: boolean;
}

/**
 * What puts the scent of a pot right.
 * @param most the largest share of the pot its blend may be, in the proportions it has; null where nobody knows of a limit
 * @returns null where it is right, or there is no scent in it to go by
 * @example scentFix([], "faint", null) // null
 */
export function scentFix(lines: readonly PotLine[], verdict: NoseVerdict, most: number | null): NoseFix | null {
  const inPot = lines.flatMap((l, line) => (l.weighed ? [{ line, weight: l.weighed, scent: l.scent }] : []));
  const total = inPot.reduce((a, l) => a + l.weight, 0);
  const scents = inPot.reduce((a, l) => a + l.weight * l.scent, 0);
  const stronger = TIMES[verdict] > 1;
  // Scent is added by what is all scent; what came with a base can't be added to.
  const by = inPot.filter((l) => (stronger ? l.scent === 1 : l.scent === 0));
  if (verdict === "right" || scents === 0 || by.length === 0) return null;
  const before = scents / total;
  const asked = before * TIMES[verdict];
  const wished = stronger && most !== null ? Math.min(asked, Math.max(before, most)) : asked;
  const more = stronger ? Math.floor((wished * total - scents) / (1 - wished) + 1e-6) : Math.ceil(scents / wished - total - 1e-6);
  const parts = allocate(
    more,
    by.map((l) => l.weight),
  );
  return {
    adds: by.flatMap((l, i) => (parts[i]! > 0 ? [{ line: l.line, more: mg(parts[i]!) }] : [])),
    total: total + more,
    scent: [before, (scents + (stronger ? more : 0)) / (total + more)],
    capped: wished < asked,
  };
}
