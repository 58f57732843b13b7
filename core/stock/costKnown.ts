/** How a lot's cost is known: what was on the shelf before the books began has no receipt, and is remembered, guessed, or not known at all. */

export const COST_KNOWN = { paid: "what was paid", guessed: "a guess", none: "not known" } as const;
export type CostKnown = keyof typeof COST_KNOWN;
