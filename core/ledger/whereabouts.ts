/** Where what left a lot is, as a recall has to ask: by how those who have it can be reached. */

export const WHEREABOUTS = {
  named: "packed in orders, with people known by name",
  stall: "sold or given at a stall, to people not known by name",
  handed: "testers, presents, own use",
  ended: "thrown away, damaged or sent back",
  lost: "missing at a count",
} as const;
export type Where = keyof typeof WHEREABOUTS;
export const WHERE = Object.keys(WHEREABOUTS) as Where[];
