/**
 * Allocates finished units to open market days, then to orders by due date; what is on hold or past its day is for neither, and the rest is
 * available.
 *
 * A market day that isn't closed has its lots with it. An order gets units that are still good on the day it is due: of two lots, the one
 * that lasts least. No unit is allocated twice. Common practice, no source.
 */
import { groupBy } from "../collect.ts";
import type { Day } from "../when.ts";
import { lotState, firstExpiredFirst, type Lot } from "./lots.ts";

/** So many units of a lot taken along to a day that isn't closed. */
export interface Stall {
  dayId: number;
  name: string;
  lotId: number;
  taken: number;
}

/** So many units of a product in an order that isn't packed. */
export interface OrderDemand {
  orderId: number;
  customer: string;
  due: Day;
  of: number;
  units: number;
}

export interface LotAllocation {
  lot: Lot;
  /** None where a lot may not be used. */
  usable: number;
  /** By market day. */
  stalls: Map<number, number>;
  /** Usable and with no market day. */
  open: number;
}

export interface ProductAllocation {
  here: number;
  held: number;
  expired: number;
  onTheWay: number;
  /** What each order is sure of, soonest due first; less than it wishes where there isn't enough. */
  reserved: { orderId: number; customer: string; due: Day; units: number; wished: number }[];
  free: number;
  lots: LotAllocation[];
}

const sum = (ns: Iterable<number>): number => [...ns].reduce((a, n) => a + n, 0);

function standOfLot(lot: Lot, stalls: readonly Stall[], today: Day): LotAllocation {
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

/** Whether a lot can still be handed over on a day. */
const lastsTo = (lot: Lot, day: Day | null): boolean => day === null || lot.bestBefore === null || lot.bestBefore >= day;

/** What is open of each lot. */
type Open = { lot: Lot; open: number };

/** Hands units out to orders in turn, each out of what lasts least and long enough. @returns what each gets; `lots` has what is left then */
function handOut(lots: Open[], orders: readonly { due: Day; units: number }[]): number[] {
  const inOrder = [...lots].sort((a, b) => firstExpiredFirst(a.lot, b.lot));
  return orders.map(({ due, units }) => {
    let wanted = units;
    for (const l of inOrder) {
      if (!lastsTo(l.lot, due)) continue;
      const n = Math.min(l.open, wanted);
      l.open -= n;
      wanted -= n;
    }
    return units - wanted;
  });
}

const openOf = (lots: readonly LotAllocation[], taken: ReadonlyMap<number, number> = new Map()): Open[] =>
  lots.map(({ lot, open }) => ({ lot, open: Math.max(0, open - (taken.get(lot.id) ?? 0)) }));

/**
 * The allocation of every product.
 * @param lots finished lots with something on hand
 * @example allocateUnits([lot(7, 10)], [{ dayId: 1, lotId: 7, taken: 4 }], [], today).get(1)?.free // 6
 */
export function allocateUnits(
  lots: readonly Lot[],
  stalls: readonly Stall[],
  wishes: readonly OrderDemand[],
  today: Day,
): Map<number, ProductAllocation> {
  const stallsOf = groupBy(stalls, (s) => s.lotId);
  const wishesOf = groupBy(
    [...wishes].sort((a, b) => a.due.localeCompare(b.due) || a.orderId - b.orderId),
    (w) => w.of,
  );
  const lotsOf = groupBy(lots, (l) => l.of);
  const out = new Map<number, ProductAllocation>();
  for (const of of new Set([...lotsOf.keys(), ...wishesOf.keys()])) {
    const own = (lotsOf.get(of) ?? []).map((l) => standOfLot(l, stallsOf.get(l.id) ?? [], today));
    const inState = (state: "hold" | "expired") => sum(own.filter((l) => lotState(l.lot, today) === state).map((l) => l.lot.onHand));
    const open = openOf(own);
    const asked = wishesOf.get(of) ?? [];
    const got = handOut(open, asked);
    const reserved = asked.map((w, i) => ({ orderId: w.orderId, customer: w.customer, due: w.due, units: got[i]!, wished: w.units }));
    out.set(of, {
      here: sum(own.map((l) => l.lot.onHand)),
      held: inState("hold"),
      expired: inState("expired"),
      onTheWay: sum(own.flatMap((l) => [...l.stalls.values()])),
      reserved,
      free: sum(open.map((l) => l.open)),
      lots: own,
    });
  }
  return out;
}

/**
 * Units an order can be packed with: what is allocated to it, and what is free and lasts until it is due. Other orders' and the markets' are left
 * alone.
 * @param due without it, whatever may be used today counts
 * @example unitsFor(allocateUnits([lot(7, 10)], [], [{ orderId: 13, customer: "Choir", due: today, of: 1, units: 9 }], today).get(1), 12, null) // 1
 */
export function unitsFor(stand: ProductAllocation | undefined, orderId: number | null, due: Day | null): number {
  if (!stand) return 0;
  const open = openOf(stand.lots);
  handOut(
    open,
    stand.reserved.filter((p) => p.orderId !== orderId),
  );
  return sum(open.filter((l) => lastsTo(l.lot, due)).map((l) => l.open));
}

/**
 * Units of one lot that could go along to a market: neither on their way elsewhere nor allocated, and good on that day.
 * @param stand the product's allocation without the day that asks
 * @param along units of other lots that go along to it, by lot
 * @param day the market's; without it, today
 * @example unitsForStall(allocateUnits([lot(7, 10)], [], [], today).get(1), 7, new Map(), null) // 10
 */
export function unitsForStall(
  stand: ProductAllocation | undefined,
  lotId: number,
  along: ReadonlyMap<number, number>,
  day: Day | null,
): number {
  const own = stand?.lots.find((l) => l.lot.id === lotId);
  if (!stand || !own || !lastsTo(own.lot, day)) return 0;
  const others = openOf(stand.lots, along);
  const mine = others.find((l) => l.lot.id === lotId)!;
  const open = mine.open;
  // What the orders lack without this lot they need of it; each unit of it that stays gives them one more until they have all they had.
  mine.open = 0;
  const without = sum(handOut(others, stand.reserved));
  return Math.max(0, open - Math.max(0, sum(stand.reserved.map((p) => p.units)) - without));
}
