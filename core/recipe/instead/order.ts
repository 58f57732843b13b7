/** How near a substitute comes to the original: in feel, smell, melting, cost and shelf life; in words, and ranked. */
import type { SkinFeel, Smell } from "../../material/senses.ts";
import type { Micros } from "../../measure/exact.ts";
import { isScent } from "../../scent/dilution.ts";
import type { StandIn } from "./standIn.ts";

/** A stand-in with what it is put in order by. */
export interface Comparable {
  by: StandIn;
  /** All in all; the lower, the better. */
  rank: number;
  /** Months the product keeps then. */
  months: number;
  /** Of the whole batch, against what it costs as it is; null where something in it has no cost. */
  dearer: Micros | null;
}

const STEPS: readonly SkinFeel[] = ["light", "medium", "rich"];
/** How far two feel apart on the skin, in steps; half a one where nobody has said. */
export const feelsApart = (a: Pick<StandIn, "feel">, b: Pick<StandIn, "feel">): number =>
  a.feel === "" || b.feel === "" ? 0.5 : Math.abs(STEPS.indexOf(a.feel) - STEPS.indexOf(b.feel));
const LOUD: readonly Smell[] = ["none", "faint", "strong"];
/** How far two are apart to the nose: by the note of a scent, by how much anything else smells of itself. */
export const smellsApart = (a: Senses, b: Senses): number => {
  if (isScent(a)) return a.scentNote === b.scentNote && a.scentNote !== "" ? 0 : 1;
  return a.smell === "" || b.smell === "" ? 0.5 : Math.abs(LOUD.indexOf(a.smell) - LOUD.indexOf(b.smell));
};
type Senses = Pick<StandIn, "kind" | "scentNote" | "smell">;
const melting = (m: Pick<StandIn, "meltFrom" | "meltTo">): number | null =>
  m.meltFrom === null || m.meltTo === null ? null : (m.meltFrom + m.meltTo) / 2;

/** What is other to hand and nose, in a few words each. */
export function otherwise(by: StandIn, was: StandIn): (string | false)[] {
  const [a, b] = [melting(was), melting(by)];
  const warmer = a === null || b === null ? 0 : Math.round(b - a);
  return [
    by.feel !== was.feel &&
      by.feel !== "" &&
      was.feel !== "" &&
      (STEPS.indexOf(by.feel) > STEPS.indexOf(was.feel) ? "richer on the skin" : "lighter on the skin"),
    by.smell !== was.smell && by.smell === "strong" && "smells strongly of itself",
    by.smell !== "" && by.smell !== was.smell && was.smell === "strong" && "smells less of itself",
    isScent(by) && by.scentNote !== "" && (by.scentNote === was.scentNote ? `a ${by.scentNote} note too` : `a ${by.scentNote} note`),
    Math.abs(warmer) >= 5 && `melts ${Math.abs(warmer)} °C ${warmer > 0 ? "warmer" : "cooler"}`,
  ];
}

/** What stand-ins can be put in order by: the best all in all, or the nearest in one thing. */
export const ORDERS = {
  all: { say: "All in all", far: (s: Comparable) => s.rank },
  feel: { say: "Nearest on the skin", far: (s: Comparable, was: StandIn) => feelsApart(s.by, was) },
  scent: { say: "Nearest to the nose", far: (s: Comparable, was: StandIn) => smellsApart(s.by, was) },
  melting: { say: "Nearest in melting", far: (s: Comparable, was: StandIn) => Math.abs((melting(s.by) ?? Infinity) - (melting(was) ?? 0)) },
  cost: { say: "Cheapest", far: (s: Comparable) => s.dearer ?? Number.MAX_SAFE_INTEGER },
  keeping: { say: "Keeps longest", far: (s: Comparable) => -s.months },
} as const;
export type Order = keyof typeof ORDERS;

/** In an order; of those alike in it the best all in all first. @param was what is there now */
export const ordered = <T extends Comparable>(found: readonly T[], by: Order, was: StandIn | undefined): readonly T[] =>
  was ? [...found].sort((a, b) => ORDERS[by].far(a, was) - ORDERS[by].far(b, was) || a.rank - b.rank) : found;
