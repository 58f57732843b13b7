/**
 * What finished units are spoken for: on hold, past their day, on their way to a market, promised in an order, and what is left free.
 *
 * A market day that isn't closed has its lots with it. What remains usable is promised to orders in the order they are due. Nothing is
 * promised twice. Common practice, no source.
 */
import { groupBy } from "../collect.ts";
import type { Day } from "../when.ts";
import { lotState, type Lot } from "./lots.ts";

/** So many units of a lot taken along to a day that isn't closed. */
export interface Stall {
  dayId: number;
  name: string;
  lotId: number;
  taken: number;
}

/** So many units of a product in an order that isn't packed. */
export interface Wish {
  orderId: number;
  customer: string;
  due: Day;
  of: number;
  units: number;
}

export interface LotStand {
  lot: Lot;
  /** None where a lot may not be used. */
  usable: number;
  /** By market day. */
  stalls: Map<number, number>;
  /** Usable and with no market day. */
  open: number;
}

export interface ProductStand {
  here: number;
  held: number;
  expired: number;
  onTheWay: number;
  /** What each order is sure of, soonest due first; less than it wishes where there isn't enough. */
  promised: { orderId: number; customer: string; units: number; wished: number }[];
  free: number;
  lots: LotStand[];
}

const sum = (ns: Iterable<number>): number => [...ns].reduce((a, n) => a + n, 0);

function standOfLot(lot: Lot, stalls: readonly Stall[], today: Day): LotStand {
  const state = lotState(lot, today);
  const usable = state === "good" || state === "soon" ? lot.onHand : 0;
  let left = usable;
  const taken = new Map<number, number>();
  for (const s of stalls) {
    const n = Math.min(s.taken, left);
    taken.set(s.dayId, (taken.get(s.dayId) ?? 0) + n);
    left -= n;
  }
  return { lot, usable, stalls: taken, open: left };
}

/**
 * Where every product stands.
 * @param lots finished lots with something on hand
 * @example whereUnitsStand([lot(7, 10)], [{ dayId: 1, lotId: 7, taken: 4 }], [], today).get(1)?.free // 6
 */
export function whereUnitsStand(
  lots: readonly Lot[],
  stalls: readonly Stall[],
  wishes: readonly Wish[],
  today: Day,
): Map<number, ProductStand> {
  const stallsOf = groupBy(stalls, (s) => s.lotId);
  const wishesOf = groupBy(
    [...wishes].sort((a, b) => a.due.localeCompare(b.due) || a.orderId - b.orderId),
    (w) => w.of,
  );
  const lotsOf = groupBy(lots, (l) => l.of);
  const out = new Map<number, ProductStand>();
  for (const of of new Set([...lotsOf.keys(), ...wishesOf.keys()])) {
    const own = (lotsOf.get(of) ?? []).map((l) => standOfLot(l, stallsOf.get(l.id) ?? [], today));
    const inState = (state: "hold" | "expired") => sum(own.filter((l) => lotState(l.lot, today) === state).map((l) => l.lot.onHand));
    let free = sum(own.map((l) => l.open));
    const promised = (wishesOf.get(of) ?? []).map((w) => {
      const units = Math.min(w.units, free);
      free -= units;
      return { orderId: w.orderId, customer: w.customer, units, wished: w.units };
    });
    out.set(of, {
      here: sum(own.map((l) => l.lot.onHand)),
      held: inState("hold"),
      expired: inState("expired"),
      onTheWay: sum(own.flatMap((l) => [...l.stalls.values()])),
      promised,
      free,
      lots: own,
    });
  }
  return out;
}

/**
 * Units an order can be packed with: what it is promised, and what is free. Other orders' and the markets' are left alone.
 * @example unitsFor({ free: 3, promised: [{ orderId: 12, units: 2 }, { orderId: 13, units: 9 }] }, 12) // 5
 */
export const unitsFor = (stand: ProductStand | undefined, orderId: number | null): number =>
  (stand?.free ?? 0) + sum((stand?.promised ?? []).filter((p) => p.orderId === orderId).map((p) => p.units));

/**
 * Units of one lot that could go along to a market: neither on their way elsewhere nor promised.
 * @param stand where the product stands without the day that asks
 * @param along units of the product's other lots that go along to it
 * @example unitsForStall({ free: 9, lots: [{ lot: lot(7, 10), open: 10 }] }, 7, 0) // 9
 */
export function unitsForStall(stand: ProductStand | undefined, lotId: number, along: number): number {
  const own = stand?.lots.find((l) => l.lot.id === lotId);
  return stand && own ? Math.max(0, Math.min(own.open, stand.free - along)) : 0;
}
