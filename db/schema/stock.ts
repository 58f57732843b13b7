/**
 * Lots, and what a stock-take has noted of them. `lot.onHand` and `lot.value` are the running sums of the ledger (`movement.ts`): a trigger
 * keeps them, a second one lets nothing else touch them, and a check keeps them from going below zero (migration 0001).
 */
import { DRYNESS } from "#core/material/dryness";
import { COST_KNOWN } from "#core/stock/costKnown";
import { BEST_BY } from "#core/stock/bestBy";
import { HELD_BY } from "#core/stock/holds";
import { sql } from "drizzle-orm";
import { check, date, index, integer, real, text, unique } from "drizzle-orm/pg-core";
import { baseColumn, mgColumn, microsColumn, wordColumn } from "./columns.ts";
import { material } from "./material.ts";
import { product } from "./recipe.ts";
import { ours } from "./ours.ts";

export const lot = ours.table(
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
    /** What is on it, or was worked out when it was made; null where nobody said. */
    printed: date({ mode: "string" }),
    opened: date({ mode: "string" }),
    /** The day that counts, and what it follows from: printed, else the material's keeping time; sooner once opened. */
    bestBefore: date({ mode: "string" }),
    bestBy: wordColumn(BEST_BY).notNull().default(""),
    /** Herbs: whether it is dry enough to infuse, and the year it grew. */
    dryness: wordColumn(DRYNESS).notNull().default(""),
    grown: integer(),
    /** Drops to the millilitre that fall from this bottle; null while nobody said. */
    dropsPerMl: real(),
    /** All it is on hold for, in words; maintained by a trigger from `lot_hold`, and never written otherwise. */
    holdReason: text(),
    /** A scent: the most of it a product may hold by the supplier's paper for this lot, in millionths; null where it isn't written down. */
    scentMostPpm: integer(),
    /** What was there before the books began may have a cost that was guessed, or none. */
    costKnown: wordColumn(COST_KNOWN).notNull().default("paid"),
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
    // A number is found in whatever case it is typed.
    index("lot_number_in_capitals").on(sql`upper(${t.number})`),
    index("lot_on_hand")
      .on(t.materialId)
      .where(sql`${t.onHand} > 0`),
    // The cabinet is a few of all that was ever made.
    index("lot_in_cabinet")
      .on(t.productId)
      .where(sql`${t.onHand} > 0 and ${t.productId} is not null`),
    index("lot_best_before")
      .on(t.bestBefore)
      .where(sql`${t.onHand} > 0`),
  ],
);

/** What a lot is on hold for: each reason by itself. */
export const lotHold = ours.table(
  "lot_hold",
  {
    id: integer().primaryKey().generatedAlwaysAsIdentity(),
    lotId: integer()
      .notNull()
      .references(() => lot.id),
    by: wordColumn(HELD_BY).notNull(),
    /** The batch, recall or jar it is held for; 0 where somebody did by hand. */
    source: integer().notNull().default(0),
    reason: text().notNull(),
  },
  (t) => [unique("lot_hold_once").on(t.lotId, t.by, t.source), index("lot_hold_source").on(t.by, t.source)],
);

/** Everyone waiting for a count: what a stock-take has noted so far, until it is posted as one act. */
export const stockCount = ours.table("stock_count", {
  lotId: integer()
    .primaryKey()
    .references(() => lot.id),
  expected: baseColumn().notNull(),
  counted: baseColumn().notNull(),
  note: text().notNull().default(""),
});
