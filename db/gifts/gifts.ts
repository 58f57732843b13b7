/** Gift orders: writing them, and packing them out of finished lots. */
import type { Micros } from "#core/measure/exact";
import { Refused } from "#core/refused";
import { planTakes, type Lot } from "#core/stock/lots";
import { counted, wordList } from "#core/words";
import type { Day } from "#core/when";
import { asc, eq, inArray, sql } from "drizzle-orm";
import { perform, type Doing, type Done } from "../act.ts";
import type { Db, Reads, Tx } from "../client.ts";
import { draw, lockLots, lotsOfMaterials, lotsOfProducts, type NewMovement } from "../ledger.ts";
import { giftItem, giftOrder, giftWrap, lot, material, movement, product, recipe } from "../schema.ts";

export interface GiftIn {
  customer: string;
  due: Day;
  extra: Micros;
  discountBp: number;
  wrapMinutes: number;
  note: string;
  items: readonly { productId: number; units: number; price: Micros }[];
  wrapping: readonly { materialId: number; pieces: number }[];
}

/** Gift orders, unpacked and soonest due first, with what is in them. */
export async function listGiftOrders(db: Reads, ids?: readonly number[], limit = 60) {
  const orders = await db
    .select()
    .from(giftOrder)
    .where(ids ? inArray(giftOrder.id, [...ids]) : undefined)
    .orderBy(
      sql`${giftOrder.packedActId} is not null`,
      sql`case when ${giftOrder.packedActId} is null then ${giftOrder.due} end`,
      sql`${giftOrder.due} desc`,
    )
    .limit(limit);
  if (orders.length === 0) return [];
  const orderIds = orders.map((o) => o.id);
  const items = await db
    .select({
      id: giftItem.id,
      orderId: giftItem.giftOrderId,
      productId: giftItem.productId,
      name: recipe.name,
      fill: product.fill,
      units: giftItem.units,
      price: giftItem.price,
    })
    .from(giftItem)
    .innerJoin(product, eq(product.id, giftItem.productId))
    .innerJoin(recipe, eq(recipe.id, product.recipeId))
    .where(inArray(giftItem.giftOrderId, orderIds))
    .orderBy(asc(giftItem.id));
  const wraps = await db
    .select({
      id: giftWrap.id,
      orderId: giftWrap.giftOrderId,
      materialId: giftWrap.materialId,
      name: material.name,
      pieces: giftWrap.pieces,
    })
    .from(giftWrap)
    .innerJoin(material, eq(material.id, giftWrap.materialId))
    .where(inArray(giftWrap.giftOrderId, orderIds))
    .orderBy(asc(giftWrap.id));
  return orders.map((o) => ({ ...o, items: items.filter((i) => i.orderId === o.id), wrapping: wraps.filter((w) => w.orderId === o.id) }));
}

/** Lots that a packed order took, with how much. */
export const packedLots = (db: Reads, orderId: number) =>
  db
    .select({
      lotId: lot.id,
      number: lot.number,
      bestBefore: lot.bestBefore,
      onHand: lot.onHand,
      productId: lot.productId,
      materialId: lot.materialId,
      qty: sql`-sum(${movement.qty})`.mapWith(Number),
      value: sql`-sum(${movement.value})`.mapWith(Number),
    })
    .from(movement)
    .innerJoin(giftOrder, eq(giftOrder.packedActId, movement.actId))
    .innerJoin(lot, eq(lot.id, movement.lotId))
    .where(eq(giftOrder.id, orderId))
    .groupBy(lot.id)
    .orderBy(asc(lot.id));

/** Writes an order's sheet: a new one, or over an unpacked one. */
async function writeOrder(tx: Tx, input: GiftIn, id?: number): Promise<number> {
  const { items, wrapping, ...head } = input;
  let giftOrderId = id;
  if (giftOrderId === undefined) {
    const [row] = await tx.insert(giftOrder).values(head).returning({ id: giftOrder.id });
    giftOrderId = row!.id;
  } else {
    await unpacked(tx, giftOrderId);
    await tx.update(giftOrder).set(head).where(eq(giftOrder.id, giftOrderId));
    await tx.delete(giftItem).where(eq(giftItem.giftOrderId, giftOrderId));
    await tx.delete(giftWrap).where(eq(giftWrap.giftOrderId, giftOrderId));
  }
  const orderId = giftOrderId;
  await tx.insert(giftItem).values(items.map((i) => ({ ...i, giftOrderId: orderId })));
  if (wrapping.length > 0) await tx.insert(giftWrap).values(wrapping.map((w) => ({ ...w, giftOrderId: orderId })));
  return orderId;
}

/** Keeps an order as it is written. @throws Refused once it is packed */
export function saveGiftOrder(db: Db, input: GiftIn, doing: Doing, id?: number): Promise<Done> {
  return perform(db, "saveGift", doing, async (tx) => {
    const orderId = await writeOrder(tx, input, id);
    return { path: `/gifts/${orderId}`, summary: `Kept the order for ${input.customer}` };
  });
}

/** Holds an order for this transaction. @throws Refused when it is gone or packed */
async function unpacked(tx: Tx, id: number): Promise<void> {
  const [row] = await tx.select().from(giftOrder).where(eq(giftOrder.id, id)).for("update");
  if (!row) throw Refused.one("", "That order isn't here any more.");
  if (row.packedActId !== null) throw Refused.one("", "This order is packed. Take the packing back first to change it.");
}

/**
 * Packs an order: finished units and wrapping leave their lots, use-first.
 * @param only finished lots chosen by hand, per product; a product without any is taken use-first
 * @param input the sheet as it stands, written in the same act; the order as kept when absent
 * @throws Refused naming everything that is missing; then nothing is moved, and nothing of the sheet is kept
 */
export function packGiftOrder(db: Db, id: number, only: ReadonlyMap<number, number>, doing: Doing, input?: GiftIn): Promise<Done> {
  return perform(db, "packOrder", doing, async (tx, actId) => {
    if (input) await writeOrder(tx, input, id);
    else await unpacked(tx, id);
    const [order] = await listGiftOrders(tx, [id]);
    const { items, wrapping: wraps, customer } = order!;
    const goods = await lotsOfProducts(
      tx,
      items.map((i) => i.productId),
    );
    const papers = await lotsOfMaterials(
      tx,
      wraps.map((w) => w.materialId),
    );
    const locked = await lockLots(
      tx,
      [...goods, ...papers].map((l) => l.id),
    );
    const now = (ls: Lot[]): Lot[] => ls.map((l) => locked.get(l.id)!);
    const chosen = now(goods).filter((l) => !only.has(l.of) || only.get(l.of) === l.id);
    const itemPlan = planTakes(
      items.map((i) => ({ of: i.productId, amount: i.units })),
      chosen,
      doing.day,
    );
    const wrapPlan = planTakes(
      wraps.map((w) => ({ of: w.materialId, amount: w.pieces })),
      now(papers),
      doing.day,
    );
    const missing = [
      ...itemPlan.flatMap((p, i) => (p.short ? [`${p.short} × ${items[i]!.name}`] : [])),
      ...wrapPlan.flatMap((p, i) => (p.short ? [`${p.short} × ${wraps[i]!.name}`] : [])),
    ];
    if (missing.length > 0) throw Refused.one("pack", `There is too little to pack it: ${wordList(missing)} missing. Nothing was moved.`);
    const units = (n: number): string => counted(n, "unit");
    const moves: NewMovement[] = [
      ...itemPlan.flatMap((p) =>
        p.takes.map((t) => draw(locked, t.lotId, t.amount, "pack", units, { actId, reason: "ordered" as const, giftOrderId: id })),
      ),
      ...wrapPlan.flatMap((p) =>
        p.takes.map((t) => draw(locked, t.lotId, t.amount, "pack", units, { actId, reason: "wrapped" as const, giftOrderId: id })),
      ),
    ];
    await tx.insert(movement).values(moves);
    await tx.update(giftOrder).set({ packedActId: actId }).where(eq(giftOrder.id, id));
    return { path: `/gifts/${id}`, summary: `Packed the order for ${customer}` };
  });
}
