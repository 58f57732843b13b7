/**
 * What a gift order is worth: its price, what goes into it and what is left.
 */
import { micros, mulDiv, sum, type Micros } from "../measure/exact.ts";
import { forMinutes } from "../recipe/cost.ts";

export interface OrderIn {
  items: readonly { units: number; price: Micros; /** Full cost of all units of the line. */ cost: Micros }[];
  wrapping: readonly { pieces: number; /** Cost of all pieces. */ cost: Micros }[];
  wrapMinutes: number;
  hourly: Micros;
  /** What is asked for wrapping and card, on top of the items. */
  extra: Micros;
  /** Taken off the whole, in basis points. */
  discountBp: number;
}

export interface OrderResult {
  goods: Micros;
  price: Micros;
  cost: Micros;
  margin: Micros;
  marginShare: number;
}

/**
 * Price = items + wrapping charge − discount, to the cent; cost includes wrapping materials and time.
 * @example orderResult({ ...order, items: [{ units: 2, price: micros(9e6), cost: micros(4e6) }] }).goods // 18.00
 */
export function orderResult(o: OrderIn): OrderResult {
  const goods = sum(o.items.map((i) => micros(i.units * i.price)));
  const full = goods + o.extra;
  const price = micros(full - mulDiv(mulDiv(full, o.discountBp, 10_000), 1, 10_000) * 10_000);
  const work = forMinutes(o.wrapMinutes, o.hourly);
  const cost = micros(sum(o.items.map((i) => i.cost)) + sum(o.wrapping.map((w) => w.cost)) + work);
  const margin = micros(price - cost);
  return { goods, price, cost, margin, marginShare: price > 0 ? margin / price : 0 };
}
