/** The state of an order: whether it could be packed, and whether what it lacks can still be had in time. */

export const STANDINGS = { ready: "Ready", missing: "Missing", late: "Late" } as const;
export type Standing = keyof typeof STANDINGS;
