/** What comes in out of lists, thrown by dice: goods from before the books, earlier market days, orders and prices. */
import { addDays } from "#core/when";
import { micros } from "#core/measure/exact";
import { openingFinished } from "#db/listsIn/finished";
import { addOrders } from "#db/listsIn/orders";
import { addPastDays } from "#db/listsIn/pastDays";
import { choosePricesOfList } from "#db/prices/prices";
import { euro } from "../fresh.ts";
import { DAY } from "../workshop.ts";
import { doing, type Throw } from "./world.ts";

/** By the dice, not counted, so that another workshop is thrown the same. What is there already is refused in both. */
const named = (a: number, b: number): string => `${a}-${b}`;

export const LISTS_IN = {
  goodsBefore: (_db, a, b) => {
    const lotOnIt = `H${named(a, b)}`;
    const line = { units: 1 + (a % 5), cost: b % 3 ? euro(2) : null, lotOnIt, made: b % 2 ? DAY : null, bestBefore: null, worked: false };
    return (v) => openingFinished(v.db, { lots: [{ productId: v.ids.product, ...line }] }, doing);
  },
  daysBefore: (_db, a, b) => {
    const head = {
      market: `List ${named(a, b)}`,
      day: addDays(DAY, -(a % 400)),
      stallFee: euro(10),
      travel: micros(0),
      minutes: 60,
      note: "",
    };
    return (v) =>
      addPastDays(
        v.db,
        { days: [{ ...head, sales: [{ productId: b % 2 ? v.ids.product : null, name: "Balm", units: b % 9, takings: euro(b) }] }] },
        doing,
      );
  },
  ordersBefore: (_db, a, b) => {
    const head = { customer: `List ${named(a, b)}`, due: DAY, note: "", handedOver: a % 2 ? DAY : null };
    return (v) =>
      addOrders(v.db, { orders: [{ ...head, items: [{ productId: v.ids.product, units: 1 + (b % 3), price: euro(6) }] }] }, doing);
  },
  listOfPrices: (_db, a) => (v) =>
    choosePricesOfList(v.db, { lines: [{ productId: v.ids.product, prices: { market: euro(5 + (a % 9)) } }] }, doing),
} satisfies Record<string, Throw>;
