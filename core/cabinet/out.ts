/** Units of a finished lot that are with somebody: they may come back, and no more of them. */
import { among, MAY_COME_BACK, type Reason } from "../ledger/reasons.ts";

/**
 * How many of a lot are out.
 * @param rows its movements in effect; what left is below zero
 * @example unitsOut([{ reason: "filled", qty: 9 }, { reason: "sold", qty: -4 }, { reason: "cameBack", qty: 1 }]) // 3
 */
export const unitsOut = (rows: readonly { reason: Reason; qty: number }[]): number =>
  0 - rows.reduce((a, r) => a + (among(MAY_COME_BACK, r.reason) || r.reason === "cameBack" ? r.qty : 0), 0);

export const FATES = { kept: "goes back on the shelf", thrown: "is thrown away" } as const;
export type Fate = keyof typeof FATES;
export const FATE_IDS = Object.keys(FATES) as Fate[];
