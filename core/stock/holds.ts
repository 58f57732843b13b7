/** What a lot can be on hold for. Each hold is independent, and is lifted by what put it there and nothing else. */

export const HELD_BY = {
  hand: "somebody put it on hold",
  check: "its batch waits for its check, or was held back by it",
  recall: "a recall",
  made: "something in it was on hold when it was strained",
} as const;
export type HeldBy = keyof typeof HELD_BY;
