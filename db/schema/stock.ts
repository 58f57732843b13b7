/**
 * Lots, and the ledger of everything that went in and out of them.
 *
 * `movement` is append-only, and `lot.onHand` and `lot.value` are its running sums: a trigger keeps them, a second one lets
 * nothing else touch them, and a check keeps them from going below zero (migration 0001).
 */
import type { Reason } from "#core/stock/reasons";
import { sql } from "drizzle-orm";
import { check, date, index, integer, pgTable, text } from "drizzle-orm/pg-core";
import { act } from "./act.ts";
import { baseColumn, microsColumn } from "./columns.ts";
import { batch } from "./batch.ts";
import { giftOrder } from "./gift.ts";
import { marketDay } from "./market.ts";
import { material } from "./material.ts";
import { product } from "./recipe.ts";

export const lot = pgTable(
  "lot",
  {
    id: integer().primaryKey().generatedAlwaysAsIdentity(),
    number: text().notNull().unique(),
    /** Exactly one of these two. */
    materialId: integer().references(() => material.id),
    productId: integer().references(() => product.id),
    supplierLot: text().notNull().default(""),
    arrived: date({ mode: "string" }).notNull(),
    bestBefore: date({ mode: "string" }),
    holdReason: text(),
    onHand: baseColumn().notNull().default(0),
    value: microsColumn()
      .notNull()
      .default(sql`0`),
  },
  (t) => [
    check("lot_of_one_thing", sql`(${t.materialId} is null) <> (${t.productId} is null)`),
    check("lot_never_negative", sql`${t.onHand} >= 0 and ${t.value} >= 0`),
    index("lot_material").on(t.materialId, t.arrived),
    index("lot_product").on(t.productId),
    index("lot_on_hand")
      .on(t.id)
      .where(sql`${t.onHand} > 0`),
  ],
);

export const movement = pgTable(
  "movement",
  {
    id: integer().primaryKey().generatedAlwaysAsIdentity(),
    actId: integer()
      .notNull()
      .references(() => act.id),
    lotId: integer()
      .notNull()
      .references(() => lot.id),
    qty: baseColumn().notNull(),
    value: microsColumn().notNull(),
    reason: text().$type<Reason>().notNull(),
    note: text().notNull().default(""),
    batchId: integer().references(() => batch.id),
    marketDayId: integer().references(() => marketDay.id),
    giftOrderId: integer().references(() => giftOrder.id),
  },
  (t) => [
    index("movement_lot").on(t.lotId, t.id),
    index("movement_act").on(t.actId),
    index("movement_batch").on(t.batchId),
    index("movement_market").on(t.marketDayId),
    index("movement_gift").on(t.giftOrderId),
  ],
);

export const purchase = pgTable("purchase", {
  id: integer().primaryKey().generatedAlwaysAsIdentity(),
  actId: integer()
    .notNull()
    .references(() => act.id),
  supplier: text().notNull(),
  day: date({ mode: "string" }).notNull(),
  postage: microsColumn().notNull(),
});

export const purchaseLine = pgTable(
  "purchase_line",
  {
    id: integer().primaryKey().generatedAlwaysAsIdentity(),
    purchaseId: integer()
      .notNull()
      .references(() => purchase.id),
    lotId: integer()
      .notNull()
      .unique()
      .references(() => lot.id),
    packs: integer().notNull(),
    packSize: text().notNull(),
    qty: baseColumn().notNull(),
    price: microsColumn().notNull(),
    /** Price with its share of the postage. */
    landed: microsColumn().notNull(),
  },
  (t) => [index("purchase_line_purchase").on(t.purchaseId)],
);
