/**
 * What a lot may be used for, and why not: one answer, asked wherever something is taken by hand or by plan.
 *
 * A lot on hold is used for nothing until it is free again. One past its day goes into nothing that is made, packed or wrapped: what is
 * made never outlasts its shortest-lived lot. What was sold at a stall was sold, and is recorded. Common practice, no source.
 */
import { BLENDED_KINDS, CARRIER_KINDS, KINDS, type KindId } from "../material/kinds.ts";
import { done, refuse, type Outcome } from "../outcome.ts";
import { sayFullDay, type Day } from "../when.ts";
import { lotState, type Lot } from "./lots.ts";

export type Use = "weigh" | "melt" | "herb" | "carrier" | "blend" | "wrap" | "order" | "stall";

export type UsedLot = Pick<Lot, "number" | "onHand" | "bestBefore" | "hold"> & {
  /** Null for finished units. */
  kind: KindId | null;
  holdReason?: string | null;
};

const WANTED: Record<Use, { fits: (kind: KindId | null) => boolean; say: string }> = {
  weigh: { fits: (k) => k !== null && KINDS[k].measured === "weight", say: "Choose a lot of something that is weighed." },
  melt: { fits: (k) => k === null, say: "Choose a lot of finished units." },
  herb: { fits: (k) => k === "herb", say: "Choose a lot of a herb." },
  carrier: { fits: (k) => k !== null && CARRIER_KINDS.includes(k), say: "Choose a lot of oil." },
  blend: { fits: (k) => k !== null && BLENDED_KINDS.includes(k), say: "Choose a lot of liquid or infused oil." },
  wrap: { fits: (k) => k !== null && KINDS[k].measured === "count", say: "Choose a lot of something that is counted." },
  order: { fits: (k) => k === null, say: "Choose a lot of finished units." },
  stall: { fits: (k) => k === null, say: "Choose a lot of finished units." },
};

/**
 * @returns problems `kind`, `hold`, `expired`
 * @example mayUse({ number: "R1", onHand: 5, bestBefore: null, hold: true, kind: "oil" }, "carrier", "2026-11-25") // problem hold
 */
export function mayUse(lot: UsedLot, use: Use, today: Day): Outcome<true> {
  const wanted = WANTED[use];
  if (!wanted.fits(lot.kind)) return refuse("kind", wanted.say);
  if (use === "stall") return done(true);
  // On hand or not: a lot just used up may still be on a sheet.
  const state = lotState({ ...lot, onHand: 1 }, today);
  if (state === "hold")
    return refuse("hold", `Lot ${lot.number} is on hold${lot.holdReason ? `: ${lot.holdReason}` : ""}. Release it first, or take another.`);
  if (state === "expired")
    return refuse(
      "expired",
      `Lot ${lot.number} was best before ${sayFullDay(lot.bestBefore!)}, so it goes into nothing any more. If the date is wrong, correct its receipt.`,
    );
  return done(true);
}
