/**
 * Why something went in or out of a lot, and what that means to the books: said here once. The trace, recalls, the pace of sales, costs and
 * what may come back all derive their lists from this one.
 */
import type { Where } from "./whereabouts.ts";

interface Meaning {
  /** In the words the screens use. */
  say: string;
  /** Where it is then: it came into the lot, went on into another one, or is with somebody. */
  where: Where | "came" | "on";
  /** What it costs as it comes in: what a person said, what it was made of, or what its lot costs already. */
  cost?: "said" | "made" | "found";
  /** It turns lots into another one: out of those and into that by one act, for the same reason. */
  turns?: true;
  /** Its cost tells what its material costs to get again. */
  again?: true;
  /** It was sold: such movements are the pace at which a product goes. */
  sale?: true;
  /** It left whole, and may be brought back. */
  mayComeBack?: true;
}

export const REASONS = {
  received: { say: "received", where: "came", cost: "said" },
  strained: { say: "strained", where: "came", cost: "made", again: true },
  blended: { say: "blended", where: "on", cost: "made", turns: true, again: true },
  remelted: { say: "melted down", where: "on", cost: "made", turns: true, again: true },
  harvested: { say: "harvested and dried", where: "came", cost: "said", again: true },
  opening: { say: "was opening stock", where: "came", cost: "said", again: true },
  infused: { say: "put into a jar", where: "on" },
  leftOver: { say: "left over in the jug", where: "came" },
  wasted: { say: "thrown away", where: "ended" },
  given: { say: "given to someone", where: "handed", mayComeBack: true },
  returned: { say: "sent back", where: "ended" },
  corrected: { say: "receipt corrected", where: "came" },
  restated: { say: "cost restated", where: "came" },
  counted: { say: "count corrected", where: "lost", cost: "found" },
  used: { say: "used in a batch", where: "on" },
  filled: { say: "filled", where: "came", cost: "made" },
  sold: { say: "sold", where: "stall", sale: true, mayComeBack: true },
  tester: { say: "tester", where: "handed", mayComeBack: true },
  gift: { say: "given away", where: "handed", mayComeBack: true },
  own: { say: "own use", where: "handed", mayComeBack: true },
  damaged: { say: "damaged", where: "ended" },
  cameBack: { say: "came back", where: "handed", cost: "found" },
  ordered: { say: "packed in an order", where: "named", sale: true, mayComeBack: true },
  wrapped: { say: "used for wrapping", where: "named" },
  undone: { say: "taken back", where: "came" },
} as const satisfies Record<string, Meaning>;
export type Reason = keyof typeof REASONS;

const those = (mean: (m: Meaning) => boolean): readonly Reason[] => (Object.keys(REASONS) as Reason[]).filter((r) => mean(REASONS[r]));

/** What comes in at a cost that a person said: it is corrected, never worked out. */
export const COST_SAID = those((m) => m.cost === "said");
/** What comes in at the cost of what it was made of. */
export const COST_MADE = those((m) => m.cost === "made");
/** What is found on top of what the books say comes in at what its lot cost, and rests on what came before it. */
export const FOUND = those((m) => m.cost === "found");
/** What leaves one lot and comes into another by one act. */
export const TURNED = those((m) => m.turns === true);
/** What tells, beside purchases, what a material costs to get again. */
export const COSTS_AGAIN = those((m) => m.again === true);
export const SALES = those((m) => m.sale === true);
export const MAY_COME_BACK = those((m) => m.mayComeBack === true);

/** Whether it is one of some. @example among(FOUND, "counted") // true */
export const among = (reasons: readonly Reason[], r: Reason): boolean => reasons.includes(r);

/** Reasons for taking finished units out by hand. */
export const TAKE_OUT_REASONS = ["tester", "gift", "own", "damaged"] as const satisfies readonly Reason[];
export type TakeOutReason = (typeof TAKE_OUT_REASONS)[number];

/** Reasons for taking material out by hand. */
export const MOVE_OUT_REASONS = ["wasted", "given", "returned", "own"] as const satisfies readonly Reason[];
export type MoveOutReason = (typeof MOVE_OUT_REASONS)[number];
