/** Everything a recall reaches, put together from what the books say of its lots: each lot's account, and everybody who has some of it. */
import { groupBy } from "../collect.ts";
import type { Reason } from "../ledger/reasons.ts";
import type { Day } from "../when.ts";
import { accountOf, together, whereIs, type Account } from "./recall.ts";
import { type Where } from "../ledger/whereabouts.ts";

/** So much of a lot in or out, on a day, and to whom. */
export interface Went {
  lotId: number;
  reason: Reason;
  qty: number;
  day: Day;
  note: string;
  orderId: number | null;
  marketDayId: number | null;
  /** Customer or market, as the books know them; null where nobody is named. */
  contactId: number | null;
}

/** What somebody got in one go: with an order, or at a stall on a day. */
export interface Handed {
  day: Day;
  orderId: number | null;
  marketDayId: number | null;
  had: { lotId: number; units: number }[];
}

/** Somebody who has some of it, or a market where it was sold. */
export interface Holder {
  contactId: number;
  times: Handed[];
  units: number;
}

export interface Reached {
  /** Of each lot, by its id. */
  accounts: ReadonlyMap<number, Account>;
  people: Holder[];
  markets: Holder[];
  /** What is with nobody who can be told, by why. */
  others: Record<Exclude<Where, "named" | "stall">, (Went & { units: number })[]>;
}

/** What went somewhere, as an amount. */
const units = (w: Went): Went & { units: number } => ({ ...w, units: -w.qty });

/** One handing over by lot: what of it was taken back meanwhile, and what was sold and what was given, come together. */
function handed(all: readonly Went[]): Handed {
  const { day, orderId, marketDayId } = all[0]!;
  const had = [...groupBy(all, (w) => w.lotId)].map(([lotId, of]) => ({ lotId, units: of.reduce((n, w) => n - w.qty, 0) }));
  return { day, orderId, marketDayId, had: had.filter((h) => h.units !== 0) };
}

function holders(went: readonly Went[]): Holder[] {
  const by = groupBy(
    went.filter((w) => w.contactId !== null),
    (w) => w.contactId!,
  );
  return [...by]
    .map(([contactId, all]) => ({
      contactId,
      times: [...groupBy(all, (w) => `${w.orderId} ${w.marketDayId}`).values()].map(handed).filter((t) => t.had.length > 0),
      units: all.reduce((n, w) => n - w.qty, 0),
    }))
    .filter((h) => h.units !== 0);
}

/** Of whom it is taken off where nobody wrote down who brought it back: as in the account, the last to get some first. */
const OWING = ["handed", "stall", "named"] as const;

/** What went out, less what came back: of the holder who is named first, and then, where none is, of those it may have been. */
function lessReturns(went: readonly Went[]): Went[] {
  const rows = went.map((w) => ({ ...w }));
  const out = (lotId: number): Went[] => rows.filter((w) => w.lotId === lotId && w.qty < 0 && w.reason !== "cameBack").reverse();
  const isNamed = (w: Went): boolean => w.orderId !== null || w.marketDayId !== null;
  const takeOff = (back: Went, from: readonly Went[]): void => {
    for (const w of from) {
      const n = Math.min(-w.qty, back.qty);
      w.qty += n;
      back.qty -= n;
    }
  };
  const backs = rows.filter((w) => w.reason === "cameBack");
  for (const back of backs.filter(isNamed))
    takeOff(
      back,
      out(back.lotId).filter((w) => w.orderId === back.orderId && w.marketDayId === back.marketDayId),
    );
  for (const back of backs.filter((w) => !isNamed(w)))
    for (const where of OWING)
      takeOff(
        back,
        out(back.lotId).filter((w) => whereIs(moved(w)) === where),
      );
  return rows.filter((w) => w.qty !== 0);
}
const moved = (w: Went) => ({ ...w, atStall: w.marketDayId !== null, inOrder: w.orderId !== null });

/**
 * @param lots every lot that was reached
 * @example reached([1], [{ lotId: 1, reason: "filled", qty: 12, day: "2026-11-02", note: "", orderId: null, marketDayId: null, contactId: null }]).people // []
 */
export function reached(lots: readonly number[], went: readonly Went[]): Reached {
  const of = groupBy(went, (w) => w.lotId);
  const where = groupBy(lessReturns(went), (w) => whereIs(moved(w)));
  const at = (w: Where): Went[] => where.get(w) ?? [];
  return {
    accounts: new Map(lots.map((id) => [id, accountOf((of.get(id) ?? []).map(moved))])),
    people: holders(at("named")),
    markets: holders(at("stall")),
    others: {
      handed: at("handed")
        .filter((w) => w.reason !== "cameBack")
        .map(units),
      ended: at("ended").map(units),
      lost: at("lost").map(units),
    },
  };
}

/** The account of some of the lots. @example accountAmong({ accounts: new Map() }, [3]).here // 0 */
export const accountAmong = ({ accounts }: Pick<Reached, "accounts">, lots: readonly number[]): Account =>
  together(lots.flatMap((id) => accounts.get(id) ?? []));
