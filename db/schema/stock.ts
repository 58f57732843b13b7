/**
 * Lots, and the ledger of everything that went in and out of them.
 *
 * `movement` is append-only, and `lot.onHand` and `lot.value` are its running sums: a trigger keeps them, a second one lets
 * nothing else touch them, and a check keeps them from going below zero (migration 0001).
 */
import type { Dryness } from "#core/infusion/dryness";
import type { BestBy } from "#core/stock/bestBy";
import type { Reason } from "#core/stock/reasons";
import { sql } from "drizzle-orm";
import { check, date, index, integer, pgTable, text, type AnyPgColumn } from "drizzle-orm/pg-core";
import { act } from "./act.ts";
import { baseColumn, mgColumn, microsColumn } from "./columns.ts";
import { batch } from "./batch.ts";
import { giftOrder } from "./gift.ts";
import { jar } from "./jar.ts";
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
    /** What it was called when it came to be, and how a finished one is filled: these stay. */
    name: text().notNull(),
    label: text().notNull().default(""),
    fill: mgColumn(),
    supplierLot: text().notNull().default(""),
    arrived: date({ mode: "string" }).notNull(),
    /** What stands on it, or was worked out when it was made; null where nobody said. */
    printed: date({ mode: "string" }),
    opened: date({ mode: "string" }),
    /** The day that counts, and what it follows from: printed, else the material's keeping time; sooner once opened. */
    bestBefore: date({ mode: "string" }),
    bestBy: text().$type<BestBy>().notNull().default(""),
    /** Herbs: whether it is dry enough to infuse, and the year it grew. */
    dryness: text().$type<Dryness>().notNull().default(""),
    grown: integer(),
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
      .on(t.materialId)
      .where(sql`${t.onHand} > 0`),
    index("lot_best_before")
      .on(t.bestBefore)
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
    jarId: integer().references(() => jar.id),
    /** The one lot it went into, where the rest of the batch didn't: a size's own packaging. */
    intoLotId: integer().references(() => lot.id),
    /** The movement whose value this one puts right. */
    restates: integer().references((): AnyPgColumn => movement.id),
  },
  (t) => [
    index("movement_lot").on(t.lotId, t.id),
    index("movement_act").on(t.actId),
    index("movement_batch").on(t.batchId),
    index("movement_market").on(t.marketDayId),
    index("movement_gift").on(t.giftOrderId),
    index("movement_jar").on(t.jarId),
    index("movement_restates").on(t.restates),
    index("movement_made")
      .on(t.lotId)
      .where(sql`${t.reason} in ('strained', 'blended', 'harvested')`),
  ],
);

/** Everyone waiting for a count: what a stock-take has noted so far, until it is posted as one act. */
export const stockCount = pgTable("stock_count", {
  lotId: integer()
    .primaryKey()
    .references(() => lot.id),
  expected: baseColumn().notNull(),
  counted: baseColumn().notNull(),
  note: text().notNull().default(""),
});
