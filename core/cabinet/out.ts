/** Units of a finished lot that are with somebody: they may come back, and no more of them. */
import { among, type Reason } from "../stock/reasons.ts";

/** How units leave the house whole; what is damaged or thrown away comes back from nobody. */
export const LEAVES = ["sold", "ordered", "tester", "gift", "own", "given"] as const satisfies readonly Reason[];

/**
 * How many of a lot are out.
 * @param rows what stands of its comings and goings; what left is below zero
 * @example unitsOut([{ reason: "filled", qty: 9 }, { reason: "sold", qty: -4 }, { reason: "cameBack", qty: 1 }]) // 3
 */
export const unitsOut = (rows: readonly { reason: Reason; qty: number }[]): number =>
  0 - rows.reduce((a, r) => a + (among(LEAVES, r.reason) || r.reason === "cameBack" ? r.qty : 0), 0);

export const FATES = { kept: "goes back on the shelf", thrown: "is thrown away" } as const;
export type Fate = keyof typeof FATES;
export const FATE_IDS = Object.keys(FATES) as Fate[];
