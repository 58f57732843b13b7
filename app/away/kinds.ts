/** What can be put away, and what can be done with it. */
export const AWAY_OF = ["material", "recipe", "product", "contact"] as const;
export const AWAY_DOES = ["away", "back", "delete"] as const;
export type AwayOf = (typeof AWAY_OF)[number];
export type AwayDoes = (typeof AWAY_DOES)[number];
