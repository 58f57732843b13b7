/** Harvests: a picking, its drying log, and the herb lot it became. */
import { DRYING_METHODS, HERB_VALUES } from "#core/infusion/drying";
import { boolean, date, index, integer, real, text } from "drizzle-orm/pg-core";
import { act } from "./act.ts";
import { mgColumn, microsColumn, wordColumn } from "./columns.ts";
import { material } from "./material.ts";
import { lot } from "./stock.ts";
import { ours } from "./ours.ts";

export const harvest = ours.table(
  "harvest",
  {
    id: integer().primaryKey().generatedAlwaysAsIdentity(),
    materialId: integer()
      .notNull()
      .references(() => material.id),
    /** What the herb was called. */
    name: text().notNull(),
    /** The act that noted the picking; null for pickings from before that was recorded. */
    pickedActId: integer().references(() => act.id),
    picked: date({ mode: "string" }).notNull(),
    place: text().notNull().default(""),
    fresh: mgColumn().notNull(),
    method: wordColumn(DRYING_METHODS).notNull(),
    celsius: real(),
    /** Picking, garbling and tending, for a value by hours. */
    minutes: integer().notNull().default(0),
    note: text().notNull().default(""),
    dry: mgColumn(),
    snaps: boolean(),
    valuedBy: wordColumn(HERB_VALUES),
    value: microsColumn(),
    lotId: integer().references(() => lot.id),
    /** Set while it is put on the shelf; taken back by undo. */
    driedActId: integer().references(() => act.id),
  },
  (t) => [index("harvest_material").on(t.materialId), index("harvest_lot").on(t.lotId)],
);

export const harvestCheck = ours.table(
  "harvest_check",
  {
    id: integer().primaryKey().generatedAlwaysAsIdentity(),
    harvestId: integer()
      .notNull()
      .references(() => harvest.id),
    day: date({ mode: "string" }).notNull(),
    weight: mgColumn().notNull(),
    celsius: real(),
    note: text().notNull().default(""),
  },
  (t) => [index("harvest_check_harvest").on(t.harvestId)],
);
