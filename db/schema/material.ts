/** Materials: what the workroom keeps, with the facts that turn a measure into grams. */
import { isDensities } from "#core/measure/mass";
import { areCautions } from "#core/material/cautions";
import { KINDS } from "#core/material/kinds";
import { isMakeup } from "#core/material/makeup";
import { KEPT, REORDER_BY } from "#core/material/facts";
import { SCENT_NOTES, SKIN_FEELS, SMELLS } from "#core/material/senses";
import { sql } from "drizzle-orm";
import { boolean, date, index, integer, primaryKey, real, text, uniqueIndex, type AnyPgColumn } from "drizzle-orm/pg-core";
import { baseColumn, jsonColumn, mgColumn, wordColumn } from "./columns.ts";
import { ours } from "./ours.ts";

export const material = ours.table(
  "material",
  {
    id: integer().primaryKey().generatedAlwaysAsIdentity(),
    name: text().notNull(),
    kind: wordColumn(KINDS).notNull(),
    inci: text().notNull().default(""),
    densities: jsonColumn(isDensities).notNull().default({}),
    dropsPerMl: real(),
    pieceMg: mgColumn(),
    /** Whether to remind, and by what: a point set by hand, or one learned from use. */
    reorderBy: wordColumn(REORDER_BY).notNull().default("never"),
    /** Below this much on hand it is time to buy; where it is learned, the last one worked out. */
    reorderAt: baseColumn(),
    allergen: text().notNull().default(""),
    note: text().notNull().default(""),
    botanical: text().notNull().default(""),
    /** Melting range in °C. */
    meltFrom: real(),
    meltTo: real(),
    /** Months it keeps, unopened and once opened. */
    keepsSealed: integer(),
    keepsOpened: integer(),
    vegan: wordColumn(["", "yes", "no"]).notNull().default(""),
    refined: wordColumn(["", "refined", "unrefined"]).notNull().default(""),
    kept: wordColumn(KEPT).notNull().default(""),
    /** A scent's place in a blend; how a fat feels on the skin, and whether it smells of itself. */
    scentNote: wordColumn(SCENT_NOTES).notNull().default(""),
    feel: wordColumn(SKIN_FEELS).notNull().default(""),
    smell: wordColumn(SMELLS).notNull().default(""),
    cautions: jsonColumn(areCautions).notNull().default([]),
    /** The entry of the starter library it came from, so that its figures can be told from the maker's own. */
    libraryKey: text(),
    /** Of a base what it is made of. */
    makeup: jsonColumn(isMakeup).notNull().default([]),
    /** The maker's own figure for a herb: grams of oil a gram of it holds back. */
    oilKept: real(),
    /** Containers: what they hold, what they are made of, which lid fits. */
    brimMl: real(),
    usableMl: real(),
    innerMm: real(),
    fillMm: real(),
    emptyMg: mgColumn(),
    madeOf: text().notNull().default(""),
    lidId: integer().references((): AnyPgColumn => material.id),
    /** Put away: no longer offered, its history stays. */
    retired: boolean().notNull().default(false),
  },
  (t) => [uniqueIndex("material_name").on(sql`lower(${t.name})`)],
);

/** What was used of a material in a month, net of what was taken back; maintained by the ledger's own trigger. */
export const materialUse = ours.table(
  "material_use",
  {
    materialId: integer()
      .notNull()
      .references(() => material.id),
    month: date({ mode: "string" }).notNull(),
    used: baseColumn().notNull(),
  },
  (t) => [primaryKey({ columns: [t.materialId, t.month] }), index("material_use_month").on(t.month)],
);
