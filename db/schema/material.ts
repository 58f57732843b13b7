/** Materials: what the workroom keeps, with the facts that turn a measure into grams. */
import type { Densities } from "#core/measure/mass";
import type { KindId } from "#core/material/kinds";
import { sql } from "drizzle-orm";
import { integer, jsonb, pgTable, real, text, uniqueIndex } from "drizzle-orm/pg-core";
import { baseColumn, mgColumn } from "./columns.ts";

export const material = pgTable(
  "material",
  {
    id: integer().primaryKey().generatedAlwaysAsIdentity(),
    name: text().notNull(),
    kind: text().$type<KindId>().notNull(),
    inci: text().notNull().default(""),
    densities: jsonb().$type<Densities>().notNull().default({}),
    dropsPerMl: real(),
    pieceMg: mgColumn(),
    /** Below this much on hand it is time to buy; null for "don't remind me". */
    reorderAt: baseColumn(),
    allergen: text().notNull().default(""),
    note: text().notNull().default(""),
  },
  (t) => [uniqueIndex("material_name").on(sql`lower(${t.name})`)],
);
