/** Batches on the bench: what was set out, weighed and poured. */
import { sql } from "drizzle-orm";
import { date, index, integer, pgTable, text } from "drizzle-orm/pg-core";
import { act } from "./act.ts";
import { mgColumn, microsColumn } from "./columns.ts";
import { material } from "./material.ts";
import { product, recipe } from "./recipe.ts";
import { lot } from "./stock.ts";

export const batch = pgTable(
  "batch",
  {
    id: integer().primaryKey().generatedAlwaysAsIdentity(),
    recipeId: integer()
      .notNull()
      .references(() => recipe.id),
    productId: integer()
      .notNull()
      .references(() => product.id),
    /** Day it was set out, then day it was poured. */
    day: date({ mode: "string" }).notNull(),
    plannedMg: mgColumn().notNull(),
    plannedUnits: integer().notNull(),
    /** Set while poured; taken back by undo. */
    pouredActId: integer().references(() => act.id),
    lotId: integer(),
    units: integer(),
    leftover: mgColumn(),
    minutes: integer(),
    hourly: microsColumn(),
    overheadHourly: microsColumn(),
    /** Cleared off the bench without pouring. */
    clearedActId: integer().references(() => act.id),
    note: text().notNull().default(""),
  },
  (t) => [
    index("batch_lot").on(t.lotId),
    index("batch_recipe").on(t.recipeId),
    index("batch_open")
      .on(t.id)
      .where(sql`${t.pouredActId} is null and ${t.clearedActId} is null`),
  ],
);

export const batchTake = pgTable(
  "batch_take",
  {
    id: integer().primaryKey().generatedAlwaysAsIdentity(),
    batchId: integer()
      .notNull()
      .references(() => batch.id),
    position: integer().notNull(),
    materialId: integer()
      .notNull()
      .references(() => material.id),
    lotId: integer()
      .notNull()
      .references(() => lot.id),
    planned: mgColumn().notNull(),
    weighed: mgColumn(),
  },
  (t) => [index("batch_take_batch").on(t.batchId, t.position)],
);
