/** Recipes as a row of versions, and products: a recipe in a container, with its fill, packaging and prices. */
import { FEELS } from "#core/firmness/words";
import { FORMS } from "#core/measure/mass";
import { areAnswers } from "#core/recipe/judge/judge";
import { FILL_BY } from "#core/recipe/sizes";
import { RECIPE_TYPES } from "#core/recipe/types";
import { FOR_WHOM, USED_ON_IDS } from "#core/scent/limits";
import { sql } from "drizzle-orm";
import { boolean, date, index, integer, real, text, unique, uniqueIndex, type AnyPgColumn } from "drizzle-orm/pg-core";
import { act } from "./act.ts";
import { jsonColumn, mgColumn, microsColumn, wordColumn } from "./columns.ts";
import { material } from "./material.ts";
import { ours } from "./ours.ts";

export const recipe = ours.table(
  "recipe",
  {
    id: integer().primaryKey().generatedAlwaysAsIdentity(),
    /** What it is called now; each version has its name of then. */
    name: text().notNull(),
    /** A few letters for its lot numbers. */
    code: text().notNull(),
    /** The version it is made by now; set as soon as there is one. */
    versionId: integer().references((): AnyPgColumn => recipeVersion.id),
    /** Put away: no longer made in any size; what there is of it is still sold, ordered and counted. */
    retired: boolean().notNull().default(false),
  },
  (t) => [uniqueIndex("recipe_name").on(sql`lower(${t.name})`), uniqueIndex("recipe_code").on(t.code)],
);

/** What is made, as it was written on its day. A version is never changed: a change is another version. */
export const recipeVersion = ours.table(
  "recipe_version",
  {
    id: integer().primaryKey().generatedAlwaysAsIdentity(),
    recipeId: integer()
      .notNull()
      .references(() => recipe.id),
    n: integer().notNull(),
    /** The act that wrote it; null for what was there before there were versions. */
    actId: integer().references(() => act.id),
    day: date({ mode: "string" }).notNull(),
    note: text().notNull().default(""),
    name: text().notNull(),
    type: wordColumn(RECIPE_TYPES).notNull(),
    /** Batch weight that parts and per cent are taken of; null when the lines say it. */
    makes: mgColumn(),
    /** What the lines come to, in milligrams. */
    total: mgColumn().notNull(),
    lossBp: integer().notNull(),
    keepsMonths: integer().notNull(),
    batchMinutes: integer().notNull(),
    /** Air whipped in, of the volume before, in basis points. */
    overrunBp: integer().notNull().default(0),
    method: text().notNull().default(""),
    /** Where on the body it goes; empty for where its kind of product usually does. */
    usedOn: wordColumn(["", ...USED_ON_IDS])
      .notNull()
      .default(""),
    forWhom: wordColumn(FOR_WHOM).notNull().default("anyone"),
    /** Answers to its judgements: a note by the key of each. */
    answers: jsonColumn(areAnswers).notNull().default({}),
  },
  (t) => [unique("recipe_version_n").on(t.recipeId, t.n)],
);

export const recipeLine = ours.table(
  "recipe_line",
  {
    id: integer().primaryKey().generatedAlwaysAsIdentity(),
    versionId: integer()
      .notNull()
      .references(() => recipeVersion.id),
    position: integer().notNull(),
    materialId: integer()
      .notNull()
      .references(() => material.id),
    /** What the material was called. */
    name: text().notNull(),
    /** As typed. */
    entered: text().notNull(),
    form: wordColumn(FORMS).notNull(),
    weight: mgColumn().notNull(),
  },
  (t) => [index("recipe_line_version").on(t.versionId, t.position), index("recipe_line_material").on(t.materialId)],
);

/** A spoon or finger test of a version, at some warmth: what the model of firmness learns from. */
export const firmnessTest = ours.table(
  "firmness_test",
  {
    id: integer().primaryKey().generatedAlwaysAsIdentity(),
    versionId: integer()
      .notNull()
      .references(() => recipeVersion.id),
    day: date({ mode: "string" }).notNull(),
    celsius: real().notNull(),
    feel: wordColumn(FEELS).notNull(),
    note: text().notNull().default(""),
  },
  (t) => [index("firmness_test_version").on(t.versionId)],
);

/** A size that something was made in has its fill for ever; another fill is another size. */
export const product = ours.table(
  "product",
  {
    id: integer().primaryKey().generatedAlwaysAsIdentity(),
    recipeId: integer()
      .notNull()
      .references(() => recipe.id),
    position: integer().notNull().default(0),
    /** How it is called after the recipe's name: "60 g", "2 fl oz", and of a variant "60 g, rose clay". */
    label: text().notNull(),
    /** What a part of the base is called that something was stirred into; empty where it is poured as it is. */
    variant: text().notNull().default(""),
    fillBy: wordColumn(FILL_BY).notNull().default("weight"),
    /** As typed; empty for a container that is simply filled. */
    fillText: text().notNull().default(""),
    /** What one unit weighs, worked out from the batch's density where it is filled by volume. */
    fill: mgColumn().notNull(),
    fillMl: real(),
    containerId: integer().references(() => material.id),
    unitMinutesHundredths: integer().notNull().default(0),
    ownPrice: microsColumn(),
    /** Put away: no longer made; what there is of it is still sold, ordered and counted. */
    retired: boolean().notNull().default(false),
  },
  (t) => [index("product_recipe").on(t.recipeId, t.position)],
);

/** What goes into a variant besides the base, as it was last planned. */
export const productAddition = ours.table(
  "product_addition",
  {
    id: integer().primaryKey().generatedAlwaysAsIdentity(),
    productId: integer()
      .notNull()
      .references(() => product.id),
    materialId: integer()
      .notNull()
      .references(() => material.id),
    /** Of all that is filled, in millionths. */
    ppm: integer().notNull(),
  },
  (t) => [index("product_addition_product").on(t.productId), index("product_addition_material").on(t.materialId)],
);

export const productPackaging = ours.table(
  "product_packaging",
  {
    id: integer().primaryKey().generatedAlwaysAsIdentity(),
    productId: integer()
      .notNull()
      .references(() => product.id),
    materialId: integer()
      .notNull()
      .references(() => material.id),
    pieces: integer().notNull(),
  },
  (t) => [index("product_packaging_product").on(t.productId)],
);
