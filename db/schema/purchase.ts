/** Purchases: receipts with their lines, what is still to come, offers seen, and scans of receipts. */
import { SPREADS } from "#core/stock/receipt";
import { customType, date, index, integer, text, timestamp, type AnyPgColumn } from "drizzle-orm/pg-core";
import { act } from "./act.ts";
import { batch } from "./batch.ts";
import { baseColumn, microsColumn, wordColumn } from "./columns.ts";
import { jar } from "./jar.ts";
import { material } from "./material.ts";
import { lot } from "./stock.ts";
import { ours } from "./ours.ts";

/** Amounts are in the receipt's own currency; `rate` turns them into the workshop's, in millionths. */
export const purchase = ours.table(
  "purchase",
  {
    id: integer().primaryKey().generatedAlwaysAsIdentity(),
    actId: integer()
      .notNull()
      .references(() => act.id),
    supplier: text().notNull(),
    day: date({ mode: "string" }).notNull(),
    postage: microsColumn().notNull(),
    tax: microsColumn().notNull(),
    discount: microsColumn().notNull(),
    spreadBy: wordColumn(SPREADS).notNull().default("value"),
    currency: text().notNull().default(""),
    rate: integer().notNull().default(1_000_000),
    note: text().notNull().default(""),
  },
  (t) => [index("purchase_day").on(t.day)],
);

/** A line that has arrived has a lot; one without is still to come. */
export const purchaseLine = ours.table(
  "purchase_line",
  {
    id: integer().primaryKey().generatedAlwaysAsIdentity(),
    purchaseId: integer()
      .notNull()
      .references(() => purchase.id),
    materialId: integer()
      .notNull()
      .references(() => material.id),
    /** What the material was called on the receipt's day. */
    name: text().notNull(),
    lotId: integer()
      .unique()
      .references(() => lot.id),
    /** The act it arrived by: the receipt's own, or a later delivery's. */
    arrivedActId: integer().references(() => act.id),
    packs: integer().notNull(),
    packSize: text().notNull(),
    qty: baseColumn().notNull(),
    price: microsColumn().notNull(),
    /** In the workshop's currency, with its shares of postage, tax and discount. */
    landed: microsColumn().notNull(),
  },
  (t) => [
    index("purchase_line_purchase").on(t.purchaseId),
    index("purchase_line_material").on(t.materialId),
    index("purchase_line_act").on(t.arrivedActId),
  ],
);

/** A price seen at a supplier's, to compare with what was paid. */
export const offer = ours.table(
  "offer",
  {
    id: integer().primaryKey().generatedAlwaysAsIdentity(),
    materialId: integer()
      .notNull()
      .references(() => material.id),
    supplier: text().notNull(),
    packSize: text().notNull(),
    qty: baseColumn().notNull(),
    price: microsColumn().notNull(),
    postage: microsColumn().notNull(),
    seen: date({ mode: "string" }).notNull(),
  },
  (t) => [index("offer_material").on(t.materialId)],
);

const bytea = customType<{ data: Buffer }>({ dataType: () => "bytea" });

/** A scan or photo of a receipt, a jar or a batch. */
export const attachment = ours.table(
  "attachment",
  {
    id: integer().primaryKey().generatedAlwaysAsIdentity(),
    purchaseId: integer().references(() => purchase.id),
    jarId: integer().references(() => jar.id),
    batchId: integer().references((): AnyPgColumn => batch.id),
    name: text().notNull(),
    mime: text().notNull(),
    bytes: bytea().notNull(),
    /** Set once it is taken off. */
    droppedActId: integer().references(() => act.id),
    at: timestamp({ withTimezone: true }).notNull().defaultNow(),
  },
  (t) => [index("attachment_purchase").on(t.purchaseId), index("attachment_jar").on(t.jarId), index("attachment_batch").on(t.batchId)],
);
