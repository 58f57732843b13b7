/**
 * A second reckoning of a workshop's year: plain fractions over plain facts, written from what the documents say (docs/ledger.md, docs/costing.md) and from
 * nothing of core or of the database. It knows no movements: after every change it begins again from nothing, with the facts that stand.
 */
import Fraction from "fraction.js";

type Lot = number;
interface Taken {
  lot: Lot;
  qty: number;
}

/** What was done, as somebody would write it into a notebook. Money in cents, weights in milligrams. */
export type Fact =
  | { do: "buy"; lines: { lot: Lot; qty: number; cents: number }[]; postage: number; tax: number; discount: number }
  | { do: "steep"; jar: number; month: string; parts: Taken[] }
  | { do: "strain"; jar: number; bottles: Taken[] }
  | {
      do: "pour";
      batch: number;
      month: string;
      /** Into the whole pot, or into the size of that place alone. */
      takes: (Taken & { into: number | null })[];
      packs: (Taken & { into: number })[];
      sizes: { lot: Lot; units: number; fill: number; ladled: number | null }[];
      leftover: number;
      /** What was left over, in a mould: it comes at nothing. */
      base: Lot | null;
    }
  | {
      do: "market";
      day: number;
      lines: { lot: Lot; sold: number; given: number; damaged: number; cents: number }[];
      costs: number;
      card: Fraction;
    }
  | { do: "order"; order: number; lines: Taken[] }
  | { do: "handOut"; lot: Lot; qty: number }
  | { do: "comeBack"; lot: Lot; qty: number; to: "named" | "stall" | "handed"; thrown: boolean }
  | { do: "count"; lot: Lot; counted: number };

/** Where the units of a lot are. */
export const PLACES = ["named", "stall", "handed", "ended", "lost"] as const;
type Places = Record<(typeof PLACES)[number], number>;

export interface Reckoned {
  lots: Map<Lot, { onHand: number; value: Fraction; /** What one came in at. */ each: Fraction; places: Places }>;
  /** What left at a market day cost, and what was earned by it, in cents. */
  days: Map<number, { stock: Fraction; profit: Fraction }>;
  orders: Map<number, Fraction>;
  /** What one unit of each size of a batch cost in materials, in cents, and what was lost of the pot. */
  batches: Map<number, { each: Fraction[]; lost: number }>;
  /** By material's lot and month. */
  used: Map<string, number>;
}

const zero = new Fraction(0);
const total = (of: readonly Fraction[]): Fraction => of.reduce((a, b) => a.add(b), zero);

/** Shares so many cents by weights, whole cents each: those with the largest rest get the odd ones, the first of those alike. */
function inCents(cents: number, weights: readonly number[]): number[] {
  const all = weights.reduce((a, b) => a + b, 0);
  const exact = weights.map((w) => (all === 0 ? new Fraction(cents, weights.length) : new Fraction(cents).mul(w).div(all)));
  const out = exact.map((e) => Number(e.floor()));
  const order = exact.map((e, i) => ({ i, rest: e.sub(out[i]!) })).sort((a, b) => b.rest.compare(a.rest) || a.i - b.i);
  for (let odd = cents - out.reduce((a, b) => a + b, 0), n = 0; odd > 0; odd--, n++) out[order[n]!.i]!++;
  return out;
}

export function reckon(facts: readonly Fact[]): Reckoned {
  const r: Reckoned = { lots: new Map(), days: new Map(), orders: new Map(), batches: new Map(), used: new Map() };
  const jars = new Map<number, Fraction>();
  const bring = (lot: Lot, qty: number, value: Fraction): void => {
    const places = { named: 0, stall: 0, handed: 0, ended: 0, lost: 0 };
    r.lots.set(lot, { onHand: qty, value, each: value.div(qty), places });
  };
  /** Takes a share of what a lot is worth, as large as what is taken of it. */
  const take = ({ lot, qty }: Taken, place?: keyof Places): Fraction => {
    const l = r.lots.get(lot)!;
    if (qty > l.onHand) throw new Error(`lot ${lot} has ${l.onHand}, and ${qty} were taken`);
    const share = qty === 0 ? zero : l.value.mul(qty).div(l.onHand);
    l.onHand -= qty;
    l.value = l.value.sub(share);
    if (place) l.places[place] += qty;
    return share;
  };
  const put = (lot: Lot, qty: number): void => {
    const l = r.lots.get(lot)!;
    l.onHand += qty;
    l.value = l.value.add(l.each.mul(qty));
  };
  const use = (month: string, t: Taken): Fraction => {
    r.used.set(`${t.lot} ${month}`, (r.used.get(`${t.lot} ${month}`) ?? 0) + t.qty);
    return take(t);
  };
  for (const f of facts)
    switch (f.do) {
      case "buy": {
        const prices = f.lines.map((l) => l.cents);
        const [postage, tax, discount] = [f.postage, f.tax, f.discount].map((c) => inCents(c, prices));
        f.lines.forEach((l, i) => bring(l.lot, l.qty, new Fraction(l.cents + postage![i]! + tax![i]! - discount![i]!)));
        break;
      }
      case "steep":
        jars.set(f.jar, total(f.parts.map((p) => use(f.month, p))));
        break;
      case "strain": {
        const oil = f.bottles.reduce((a, b) => a + b.qty, 0);
        for (const b of f.bottles) bring(b.lot, b.qty, jars.get(f.jar)!.mul(b.qty).div(oil));
        jars.set(f.jar, zero);
        break;
      }
      case "pour": {
        const spent = f.takes.map((t) => ({ into: t.into, qty: t.qty, value: use(f.month, t) }));
        const packed = f.packs.map((p) => ({ into: p.into, value: take(p) }));
        const of = (into: number | null): Fraction => total([...spent, ...packed].filter((s) => s.into === into).map((s) => s.value));
        const weighed = (into: number | null): number => spent.filter((s) => s.into === into).reduce((a, s) => a + s.qty, 0);
        const pot = weighed(null) - f.leftover;
        const ladled = f.sizes.reduce((a, s) => a + (s.ladled ?? 0), 0);
        // A part costs what was ladled out for it; the others share the rest by what is base in them.
        const base = f.sizes.map((s, i) => (s.ladled === null ? Math.max(1, s.units * s.fill - weighed(i)) : 0));
        const filled = base.reduce((a, b) => a + b, 0);
        const rest = filled === 0 ? 0 : Math.max(filled, pot - ladled);
        const values = f.sizes.map((s, i) => {
          const share = s.ladled === null ? new Fraction(rest).mul(base[i]!).div(filled) : new Fraction(s.ladled);
          return of(null)
            .mul(share)
            .div(ladled + rest)
            .add(of(i));
        });
        f.sizes.forEach((s, i) => bring(s.lot, s.units, values[i]!));
        if (f.base !== null) bring(f.base, f.leftover, zero);
        const jug = f.sizes.reduce((a, s, i) => a + Math.min(s.units * s.fill, s.ladled === null ? Infinity : s.ladled + weighed(i)), 0);
        const all = spent.reduce((a, s) => a + s.qty, 0);
        r.batches.set(f.batch, { each: values.map((v, i) => v.div(f.sizes[i]!.units)), lost: Math.max(0, all - f.leftover - jug) });
        break;
      }
      case "market": {
        const stock = total(
          f.lines.flatMap(({ lot, sold, given, damaged }) => [
            take({ lot, qty: sold }, "stall"),
            take({ lot, qty: given }, "stall"),
            take({ lot, qty: damaged }, "ended"),
          ]),
        );
        const takings = f.lines.reduce((a, l) => a + l.sold * l.cents, 0);
        r.days.set(f.day, { stock, profit: new Fraction(takings).sub(stock).sub(f.costs).sub(f.card) });
        break;
      }
      case "order":
        r.orders.set(f.order, total(f.lines.map((l) => take(l, "named"))));
        break;
      case "handOut":
        take(f, "handed");
        break;
      case "comeBack":
        put(f.lot, f.qty);
        r.lots.get(f.lot)!.places[f.to] -= f.qty;
        if (f.thrown) take(f, "ended");
        break;
      case "count": {
        const l = r.lots.get(f.lot)!;
        const more = f.counted - l.onHand;
        if (more < 0) take({ lot: f.lot, qty: -more }, "lost");
        else put(f.lot, more);
        if (more > 0) l.places.lost -= more;
        break;
      }
    }
  return r;
}
