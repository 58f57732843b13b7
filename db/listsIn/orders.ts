/** Gift orders out of a list: those still to be packed, and those that were handed over before the books began, of which nothing leaves a lot. */
import { sameOrder, type OrderLine } from "#core/listsIn/orders";
import { micros } from "#core/measure/exact";
import { Refused } from "#core/refused";
import { sayFullDay } from "#core/when";
import { counted } from "#core/words";
import { eq, inArray } from "drizzle-orm";
import { array, object } from "yup";
import { defineAct } from "../act/define.ts";
import { undoId } from "../act/left.ts";
import type { Reads } from "../client.ts";
import { requireNeverMoved, requireNoLaterActs, theseIds } from "../ledger/effective.ts";
import { giftItem, giftOrder, giftWrap } from "../schema.ts";
import { aboutOrder, writeOrder } from "../gifts/gifts.ts";

export type AddOrdersIn = { orders: readonly Omit<OrderLine, "row">[] };

/** Every order there is, as `sameOrder` tells them. */
export const ordersAlready = async (db: Reads): Promise<Set<string>> =>
  new Set((await db.select({ customer: giftOrder.customer, due: giftOrder.due }).from(giftOrder)).map((o) => sameOrder(o.customer, o.due)));

/** Writes a list of orders, all or none. @throws Refused for one that is there already, a product that has gone, or a day that hasn't come */
export const addOrders = defineAct({
  kind: "addOrders",
  // Of two windows with one list the second finds it there.
  exclusive: true,
  run: async (tx, { orders }: AddOrdersIn, { actId, day: today, seen, step }) => {
    if (orders.length === 0) throw Refused.one("", "Enter at least one order.");
    const there = await ordersAlready(tx);
    const twice = orders.find((o) => there.has(sameOrder(o.customer, o.due)));
    if (twice)
      throw Refused.one("", `The order of ${twice.customer} for ${sayFullDay(twice.due)} is in the books already. Look at the list again.`);
    const ids: number[] = [];
    for (const { handedOver, items, ...head } of orders) {
      if (handedOver !== null && handedOver > today)
        throw Refused.one("", `The order of ${head.customer} can't have been handed over on ${sayFullDay(handedOver)}.`);
      const { orderId } = await writeOrder(tx, { ...head, items, extra: micros(0), discountBp: 0, wrapMinutes: 0, wrapping: [] }, seen);
      if (handedOver !== null) await tx.update(giftOrder).set({ packedActId: actId, handedOver }).where(eq(giftOrder.id, orderId));
      ids.push(orderId);
      await step(ids.length, orders.length);
    }
    const out = orders.filter((o) => o.handedOver !== null).length;
    return {
      path: "/gifts",
      summary: `Added ${counted(orders.length, "order")} from a list${out === 0 ? "" : out === orders.length ? ", handed over before" : `, ${out} of them handed over before`}`,
      about: ids.flatMap(aboutOrder),
      leaves: { ids },
    };
  },
  leaves: object({ ids: array().of(undoId()).required() }),
  back: async (tx, { ids }, { undoes }) => {
    const whole = { kind: "order", among: theseIds(ids) } as const;
    await requireNoLaterActs(tx, whole, undoes, ["saveGift", "packOrder"], "One of these orders has been saved or packed since.");
    const why = "One of these orders has been packed before, so the books name it for good. Change it by hand.";
    await requireNeverMoved(tx, "giftOrderId", ids, why);
    await tx.delete(giftItem).where(inArray(giftItem.giftOrderId, ids));
    await tx.delete(giftWrap).where(inArray(giftWrap.giftOrderId, ids));
    await tx.delete(giftOrder).where(inArray(giftOrder.id, ids));
    return "/gifts";
  },
});
