/**
 * What a receipt's lines cost once everything on it is shared out: postage, tax, discount, and a foreign currency's rate.
 *
 * Postage is shared by value or by weight, as the workshop prefers; tax and discount always by value, since that is what they are
 * taken of. Common practice, no source. Shares are whole cents and add up to what was paid, to the last cent.
 */
import { allocate, CENT, micros, mulDiv, sum, type Mg, type Micros } from "../measure/exact.ts";
import { toCent } from "../measure/money.ts";
import { done, refuse, type Outcome } from "../outcome.ts";

export const SPREADS = { value: "by price", weight: "by weight" } as const;
export type SpreadBy = keyof typeof SPREADS;

/** One of the workshop's currency for one of the receipt's. */
export const RATE_1 = 1_000_000;

export interface ReceiptIn {
  /** In the receipt's currency, whole cents as all its money. `weight` is null for things that are counted and whose piece nobody has weighed. */
  lines: readonly { price: Micros; weight: Mg | null }[];
  postage: Micros;
  tax: Micros;
  discount: Micros;
  spreadBy: SpreadBy;
  /** In millionths: 930 000 turns 1.00 into 0.93. */
  rate: number;
}

export interface LandedLine {
  /** Shares in the receipt's currency. */
  postage: Micros;
  tax: Micros;
  discount: Micros;
  /** In the workshop's currency. */
  landed: Micros;
}

export interface Receipt {
  lines: LandedLine[];
  /** In the receipt's currency and in the workshop's. */
  paid: Micros;
  paidHere: Micros;
}

const orAlike = (weights: readonly number[]): readonly number[] => (weights.some((w) => w > 0) ? weights : weights.map(() => 1));

/**
 * Shares a receipt out over its lines.
 * @param r.lines at least one
 * @returns problems `discount` (more than the goods), `noWeight` (by weight, but a line has none)
 * @example landReceipt({ ...receipt, lines: [{ price: micros(10e6) }, { price: micros(30e6) }], postage: micros(4e6) }).value.lines // [{ landed: 11e6 }, { landed: 33e6 }]
 */
export function landReceipt(r: ReceiptIn): Outcome<Receipt> {
  const prices = r.lines.map((l) => l.price);
  const goods = sum(prices);
  if (r.discount > goods) return refuse("discount", "The discount is more than the goods cost.");
  if (r.spreadBy === "weight" && r.postage > 0 && r.lines.some((l) => l.weight === null))
    return refuse("noWeight", "By weight needs a weight for every line; pieces have none until one is weighed. Share it by price.");
  const byValue = orAlike(prices);
  const postage = allocate(r.postage, r.spreadBy === "weight" ? orAlike(r.lines.map((l) => l.weight ?? 0)) : byValue, CENT);
  const tax = allocate(r.tax, byValue, CENT);
  // By value and in whole cents, no line gets more of the discount than it costs.
  const discount = allocate(r.discount, byValue, CENT);
  const own = r.lines.map((l, i) => micros(l.price + postage[i]! + tax[i]! - discount[i]!));
  const paid = sum(own);
  const paidHere = toCent(micros(mulDiv(paid, r.rate, RATE_1)));
  const landed = allocate(paidHere, orAlike(own), CENT).map(micros);
  return done({
    paid,
    paidHere,
    lines: landed.map((l, i) => ({ postage: micros(postage[i]!), tax: micros(tax[i]!), discount: micros(discount[i]!), landed: l })),
  });
}

/**
 * A line's cost, split between the packs that have come and those still to come.
 * @example splitLanded(micros(10_000_000), 1, 2) // [3.33e6, 6.67e6]
 */
export const splitLanded = (landed: Micros, arrived: number, rest: number): [arrived: Micros, rest: Micros] =>
  allocate(landed, [arrived, rest], CENT).map(micros) as [Micros, Micros];
