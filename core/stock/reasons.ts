/** Why something went in or out of a lot, in the words the screens use. */
export const REASONS = {
  received: "received",
  opening: "was there when the books began",
  harvested: "harvested and dried",
  infused: "put into a jar",
  strained: "strained",
  blended: "blended",
  remelted: "melted down",
  leftOver: "left over in the jug",
  wasted: "thrown away",
  given: "given to someone",
  returned: "sent back",
  corrected: "receipt corrected",
  restated: "cost restated",
  counted: "count corrected",
  used: "used in a batch",
  filled: "filled",
  sold: "sold",
  tester: "tester",
  gift: "given away",
  own: "own use",
  damaged: "damaged",
  cameBack: "came back",
  ordered: "packed in an order",
  wrapped: "used for wrapping",
  undone: "taken back",
} as const;
export type Reason = keyof typeof REASONS;

/** What is found on top of what the books say comes in at what its lot cost, and rests on what came before it. */
export const FOUND = ["counted", "cameBack"] as const satisfies readonly Reason[];

/** What leaves one lot and comes into another by one act: out of the one it went on, into the other it came. */
export const TURNED = ["blended", "remelted"] as const satisfies readonly Reason[];

/** Whether it is one of some. @example among(FOUND, "counted") // true */
export const among = (reasons: readonly Reason[], r: Reason): boolean => reasons.includes(r);

/** Reasons for taking finished units out by hand. */
export const TAKE_OUT_REASONS = ["tester", "gift", "own", "damaged"] as const satisfies readonly Reason[];
export type TakeOutReason = (typeof TAKE_OUT_REASONS)[number];

/** Reasons for taking material out by hand. */
export const MOVE_OUT_REASONS = ["wasted", "given", "returned", "own"] as const satisfies readonly Reason[];
export type MoveOutReason = (typeof MOVE_OUT_REASONS)[number];
