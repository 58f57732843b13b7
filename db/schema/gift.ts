/** Gift orders: who for, by when, what is in them and how they are wrapped. */
import { date, index, integer, text } from "drizzle-orm/pg-core";
import { act } from "./act.ts";
import { microsColumn } from "./columns.ts";
import { material } from "./material.ts";
import { product } from "./recipe.ts";
import { ours } from "./ours.ts";

export const giftOrder = ours.table(
  "gift_order",
  {
    id: integer().primaryKey().generatedAlwaysAsIdentity(),
    customer: text().notNull(),
    due: date({ mode: "string" }).notNull(),
    extra: microsColumn().notNull(),
    discountBp: integer().notNull(),
    wrapMinutes: integer().notNull(),
    note: text().notNull().default(""),
    /** Set while packed; taken back by undo. */
    packedActId: integer().references(() => act.id),
    /** Of an order from before the books: the day it was handed over. What was in it is in no lot. */
    handedOver: date({ mode: "string" }),
    /** What an hour of wrapping was worth on the day it was packed. */
    hourly: microsColumn(),
  },
  (t) => [index("gift_order_due").on(t.due)],
);

export const giftItem = ours.table(
  "gift_item",
  {
    id: integer().primaryKey().generatedAlwaysAsIdentity(),
    giftOrderId: integer()
      .notNull()
      .references(() => giftOrder.id),
    productId: integer()
      .notNull()
      .references(() => product.id),
    /** What it was called when the order was last written or packed. */
    name: text().notNull(),
    units: integer().notNull(),
    price: microsColumn().notNull(),
  },
  (t) => [index("gift_item_order").on(t.giftOrderId)],
);

export const giftWrap = ours.table(
  "gift_wrap",
  {
    id: integer().primaryKey().generatedAlwaysAsIdentity(),
    giftOrderId: integer()
      .notNull()
      .references(() => giftOrder.id),
    materialId: integer()
      .notNull()
      .references(() => material.id),
    name: text().notNull(),
    pieces: integer().notNull(),
  },
  (t) => [index("gift_wrap_order").on(t.giftOrderId)],
);
