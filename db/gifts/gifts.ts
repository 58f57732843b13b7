/** Gift orders: reading and writing them. */
import { groupBy } from "#core/collect";
import type { Micros } from "#core/measure/exact";
import { Refused } from "#core/refused";
import type { Day } from "#core/when";
import { asc, eq, inArray, sql } from "drizzle-orm";
import { array, object } from "yup";
import { sqlText } from "../columnsOf.ts";
import { defineAct, type ActContext } from "../act/define.ts";
import { undoId, leftRow } from "../act/left.ts";
import { requireUnchanged } from "../act/seen.ts";
import { requireNeverMoved, requireNoLaterActs } from "../ledger/effective.ts";
import type { Reads, Tx } from "../client.ts";
import { LISTED_AT_MOST } from "../lists.ts";
import { anyOf } from "../pieces.ts";
import { runPrepared } from "../prepared.ts";
import { giftItem, giftOrder, giftWrap, material, product, recipe } from "../schema.ts";

export interface GiftIn {
  /** Of an order that is there already. */
  id?: number | undefined;
  customer: string;
  due: Day;
  extra: Micros;
  discountBp: number;
  wrapMinutes: number;
  note: string;
  items: readonly { productId: number; units: number; price: Micros }[];
  wrapping: readonly { materialId: number; pieces: number }[];
}

/** Gift orders, unpacked and soonest due first, with what is in them; a packed one as it was called when it was packed. */
export async function listGiftOrders(db: Reads, ids?: readonly number[], most = LISTED_AT_MOST) {
  const orders = await runPrepared(db, ids ? "orders_of" : "orders", { ids: ids ?? [], most }, (at) =>
    db
      .select()
      .from(giftOrder)
      .where(ids && anyOf(giftOrder.id, at.ids))
      .orderBy(
        sql`${giftOrder.packedActId} is not null`,
        sql`case when ${giftOrder.packedActId} is null then ${giftOrder.due} end`,
        sql`${giftOrder.due} desc`,
      )
      .limit(at.most),
  );
  if (orders.length === 0) return [];
  const orderIds = orders.map((o) => o.id);
  const packed = sql`${giftOrder.packedActId} is not null`;
  const items = await runPrepared(db, "items_of_orders", { orderIds }, (at) =>
    db
      .select({
        id: giftItem.id,
        orderId: giftItem.giftOrderId,
        productId: giftItem.productId,
        name: sqlText(sql`case when ${packed} then ${giftItem.name} else ${recipe.name} || ', ' || ${product.label} end`),
        units: giftItem.units,
        price: giftItem.price,
      })
      .from(giftItem)
      .innerJoin(giftOrder, eq(giftOrder.id, giftItem.giftOrderId))
      .innerJoin(product, eq(product.id, giftItem.productId))
      .innerJoin(recipe, eq(recipe.id, product.recipeId))
      .where(anyOf(giftItem.giftOrderId, at.orderIds))
      .orderBy(asc(giftItem.id)),
  );
  const wraps = await runPrepared(db, "wraps_of_orders", { orderIds }, (at) =>
    db
      .select({
        id: giftWrap.id,
        orderId: giftWrap.giftOrderId,
        materialId: giftWrap.materialId,
        name: sqlText(sql`case when ${packed} then ${giftWrap.name} else ${material.name} end`),
        pieces: giftWrap.pieces,
      })
      .from(giftWrap)
      .innerJoin(giftOrder, eq(giftOrder.id, giftWrap.giftOrderId))
      .innerJoin(material, eq(material.id, giftWrap.materialId))
      .where(anyOf(giftWrap.giftOrderId, at.orderIds))
      .orderBy(asc(giftWrap.id)),
  );
  const itemsOf = groupBy(items, (i) => i.orderId);
  const wrapsOf = groupBy(wraps, (w) => w.orderId);
  return orders.map((o) => ({ ...o, items: itemsOf.get(o.id) ?? [], wrapping: wrapsOf.get(o.id) ?? [] }));
}

export type GiftOrderRead = Awaited<ReturnType<typeof listGiftOrders>>[number];

/** What products and materials are called today. @throws Refused beside an item or wrapping that has gone */
async function namesNow(tx: Tx, input: Pick<GiftIn, "items" | "wrapping">) {
  const products = input.items.map((i) => i.productId);
  const materials = input.wrapping.map((w) => w.materialId);
  const ofProduct = new Map(
    (products.length === 0
      ? []
      : await tx
          .select({ id: product.id, name: sqlText(sql`${recipe.name} || ', ' || ${product.label}`) })
          .from(product)
          .innerJoin(recipe, eq(recipe.id, product.recipeId))
          .where(inArray(product.id, products))
    ).map((p) => [p.id, p.name]),
  );
  const ofMaterial = new Map(
    (materials.length === 0
      ? []
      : await tx.select({ id: material.id, name: material.name }).from(material).where(inArray(material.id, materials))
    ).map((m) => [m.id, m.name]),
  );
  const named = (names: ReadonlyMap<number, string>, id: number, field: string): string => {
    const name = names.get(id);
    if (name === undefined) throw Refused.one(field, "That isn't here any more.");
    return name;
  };
  return {
    items: input.items.map((i, n) => ({ ...i, name: named(ofProduct, i.productId, `items.${n}.product`) })),
    wrapping: input.wrapping.map((w, n) => ({ ...w, name: named(ofMaterial, w.materialId, `wrapping.${n}.material`) })),
  };
}

interface Written {
  orderId: number;
  before: {
    order: typeof giftOrder.$inferSelect;
    items: (typeof giftItem.$inferSelect)[];
    wrapping: (typeof giftWrap.$inferSelect)[];
  } | null;
}

/** Writes an order's sheet: a new one, or over an unpacked one, called what everything is called today. */
export async function writeOrder(tx: Tx, { id, items, wrapping, ...head }: GiftIn, seen: ActContext["seen"]): Promise<Written> {
  let orderId = id;
  let before: Written["before"] = null;
  if (orderId === undefined) {
    const [row] = await tx.insert(giftOrder).values(head).returning({ id: giftOrder.id });
    orderId = row!.id;
  } else {
    const order = await unpacked(tx, orderId);
    await requireUnchanged(tx, { kind: "order", id: orderId }, seen);
    await tx.update(giftOrder).set(head).where(eq(giftOrder.id, orderId));
    before = {
      order,
      items: await tx.delete(giftItem).where(eq(giftItem.giftOrderId, orderId)).returning(),
      wrapping: await tx.delete(giftWrap).where(eq(giftWrap.giftOrderId, orderId)).returning(),
    };
  }
  const named = await namesNow(tx, { items, wrapping });
  const giftOrderId = orderId;
  await tx.insert(giftItem).values(named.items.map((i) => ({ ...i, giftOrderId })));
  if (named.wrapping.length > 0) await tx.insert(giftWrap).values(named.wrapping.map((w) => ({ ...w, giftOrderId })));
  return { orderId, before };
}

/** Holds an order for this transaction. @throws Refused when it is gone or packed */
export async function unpacked(tx: Tx, id: number): Promise<typeof giftOrder.$inferSelect> {
  const [row] = await tx.select().from(giftOrder).where(eq(giftOrder.id, id)).for("no key update");
  if (!row) throw Refused.one("", "That order isn't here any more.");
  if (row.packedActId !== null) throw Refused.one("", "This order is packed. Take the packing back first to change it.");
  return row;
}

export const aboutOrder = (orderId: number) => [{ kind: "order" as const, id: orderId, changes: true }];

/** Keeps an order as it is written. @throws Refused once it is packed; EditedMeanwhile */
export const saveGiftOrder = defineAct({
  kind: "saveGift",
  run: async (tx, input: GiftIn, { seen }) => {
    const written = await writeOrder(tx, input, seen);
    return {
      path: `/gifts/${written.orderId}`,
      summary: `Saved the order for ${input.customer}`,
      about: aboutOrder(written.orderId),
      leaves: written,
    };
  },
  leaves: object({
    orderId: undoId(),
    before: object({
      order: leftRow(giftOrder),
      items: array().of(leftRow(giftItem)).required(),
      wrapping: array().of(leftRow(giftWrap)).required(),
    }).nullable(),
  }),
  back: async (tx, { orderId, before }, { undoes }) => {
    await requireNoLaterActs(
      tx,
      { kind: "order", id: orderId },
      undoes,
      ["saveGift", "packOrder"],
      "The order has been saved or packed since.",
    );
    if (!before)
      await requireNeverMoved(
        tx,
        "giftOrderId",
        [orderId],
        "The order has been packed before, so the books name it for good. Change it by hand.",
      );
    await tx.delete(giftItem).where(eq(giftItem.giftOrderId, orderId));
    await tx.delete(giftWrap).where(eq(giftWrap.giftOrderId, orderId));
    if (!before) {
      await tx.delete(giftOrder).where(eq(giftOrder.id, orderId));
      return "/gifts";
    }
    const { id: _own, ...was } = before.order;
    await tx.update(giftOrder).set(was).where(eq(giftOrder.id, orderId));
    if (before.items.length > 0) await tx.insert(giftItem).overridingSystemValue().values(before.items);
    if (before.wrapping.length > 0) await tx.insert(giftWrap).overridingSystemValue().values(before.wrapping);
    return undefined;
  },
});
