/** How dry a herb lot is. Only a dry herb keeps under oil: water left in it feeds mould and bacteria (common practice, no source). */

export const DRYNESS = { "": "not said", dry: "dry, it snaps", wilted: "wilted", damp: "not yet dry", fresh: "fresh" } as const;
export type Dryness = keyof typeof DRYNESS;

/** Whether a herb may stand in oil without heat. Bought herb that says nothing is sold dried. @example isDry("wilted") // false */
export const isDry = (d: Dryness): boolean => d === "dry" || d === "";
