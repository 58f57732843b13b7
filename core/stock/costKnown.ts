/** How a lot's cost is known: what was on the shelf before the books began has no receipt, and is remembered, guessed, or not known at all. */
import { counted } from "../words.ts";

export const COST_KNOWN = { paid: "what was paid", guessed: "a guess", none: "not known" } as const;
export type CostKnown = keyof typeof COST_KNOWN;

/**
 * Stands in place of a profit or a margin while what so many units cost isn't known.
 * @example beforeCosts(1) // "Left, before what 1 unit cost"
 */
export const beforeCosts = (units: number): string => `Left, before what ${counted(units, "unit")} cost`;
