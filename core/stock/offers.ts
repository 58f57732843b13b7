/**
 * Which pack is the cheapest, once what would expire unused is counted in.
 *
 * A large pack costs less per gram and is dearer per gram used when half of it goes rancid. Common practice, no source.
 */
import type { Base, Micros } from "../measure/exact.ts";
import { micros } from "../measure/exact.ts";
import type { UnitCost } from "../measure/money.ts";

export interface Offer {
  supplier: string;
  packSize: string;
  /** One pack. */
  qty: Base;
  price: Micros;
  /** Postage for one pack on its own. */
  postage: Micros;
}

/** Price and postage over what is in it. */
export const delivered = (o: Offer): UnitCost => ({ value: micros(o.price + o.postage), per: o.qty });

/** The cheapest delivered in front; what there is to go by while nobody knows how much is used. */
export const byDelivered = (a: Offer, b: Offer): number => dearer(delivered(a), delivered(b));

export interface PackPlan {
  offer: Offer;
  packs: number;
  paid: Micros;
  used: Base;
  /** What would expire unused. */
  wasted: Base;
  /** What was paid over what is used. */
  perUsed: UnitCost;
}

export interface NeedFor {
  amount: Base;
  /** Other use of the material; what is left over goes there while it keeps. */
  perDay: number | null;
  /** Days it keeps once bought; null when it doesn't spoil. */
  keepsDays: number | null;
}

/** Unit costs compared without rounding. */
export const dearer = (a: UnitCost, b: UnitCost): number => Math.sign(a.value * b.per - b.value * a.per);

/**
 * For one recipe's need: enough packs of each offer at once, cheapest per gram used first.
 * @example forOnce([offer], { amount: 300_000, perDay: null, keepsDays: 365 })[0].wasted // 700_000
 */
export function forOnce(offers: readonly Offer[], need: NeedFor): PackPlan[] {
  return offers
    .map((offer): PackPlan => {
      const packs = Math.ceil(need.amount / offer.qty);
      const bought = packs * offer.qty;
      const rest = bought - need.amount;
      // Without a limit everything left is used one day, if it is used at all.
      const later = need.perDay ? (need.keepsDays === null ? rest : Math.floor(need.perDay * need.keepsDays)) : 0;
      const used = need.amount + Math.min(rest, later);
      return planOf(offer, packs, used);
    })
    .sort((a, b) => dearer(a.perUsed, b.perUsed));
}

/**
 * For a year's use: a pack at a time, each used while it keeps.
 * @param need.amount a year's use; need.perDay is taken as a 365th of it
 */
export function forAYear(offers: readonly Offer[], need: NeedFor): PackPlan[] {
  const perDay = need.amount / 365;
  return offers
    .map((offer): PackPlan => {
      const ofOne = need.keepsDays === null ? offer.qty : Math.min(offer.qty, Math.floor(perDay * need.keepsDays));
      const packs = Math.ceil(need.amount / Math.max(1, ofOne));
      // What is left of the last pack still has its life before it; only what goes past its day is wasted.
      return planOf(offer, packs, packs * ofOne);
    })
    .sort((a, b) => dearer(a.perUsed, b.perUsed));
}

function planOf(offer: Offer, packs: number, used: Base): PackPlan {
  const paid = micros(packs * (offer.price + offer.postage));
  return { offer, packs, paid, used, wasted: packs * offer.qty - used, perUsed: { value: paid, per: Math.max(1, used) } };
}

export interface WantedLine {
  materialId: number;
  name: string;
  amount: Base;
  offers: readonly Offer[];
}

export interface ShoppingLine extends WantedLine {
  /** The cheapest delivered, or null when nobody is known to sell it. */
  offer: Offer | null;
  packs: number;
  cost: Micros;
}

/**
 * A shopping list, each line rounded up to whole packs of its cheapest offer, by supplier; lines without one come last.
 * @example shoppingList([{ name: "Shea", amount: 700_000, offers: [offer] }])[0] // { supplier: "Far Shore", lines: [{ packs: 1 }] }
 */
export function shoppingList(wanted: readonly WantedLine[]): { supplier: string | null; lines: ShoppingLine[]; cost: Micros }[] {
  const bySupplier = new Map<string | null, ShoppingLine[]>();
  for (const w of wanted) {
    const offer = [...w.offers].sort((a, b) => dearer(delivered(a), delivered(b)))[0] ?? null;
    const packs = offer ? Math.ceil(w.amount / offer.qty) : 0;
    const line = { ...w, offer, packs, cost: micros(offer ? packs * offer.price : 0) };
    const key = offer?.supplier ?? null;
    bySupplier.set(key, [...(bySupplier.get(key) ?? []), line]);
  }
  return [...bySupplier]
    .sort(([a], [b]) => (a === null ? 1 : b === null ? -1 : a.localeCompare(b)))
    .map(([supplier, lines]) => ({ supplier, lines, cost: micros(lines.reduce((a, l) => a + l.cost, 0)) }));
}
