/** Recipes, and products: a recipe in one size with its packaging. */
import type { Form } from "#core/measure/mass";
import type { RecipeType } from "#core/recipe/types";
import { sql } from "drizzle-orm";
import { boolean, index, integer, pgTable, text, unique, uniqueIndex } from "drizzle-orm/pg-core";
import { mgColumn, microsColumn } from "./columns.ts";
import { material } from "./material.ts";

export const recipe = pgTable(
  "recipe",
  {
    id: integer().primaryKey().generatedAlwaysAsIdentity(),
    name: text().notNull(),
    /** A few letters for its lot numbers. */
    code: text().notNull(),
    type: text().$type<RecipeType>().notNull(),
    /** Batch weight that parts and per cent are taken of; null when the lines say it. */
    makes: mgColumn(),
    /** The batch it was last saved with, in milligrams. */
    total: mgColumn().notNull(),
    lossBp: integer().notNull(),
    keepsMonths: integer().notNull(),
    batchMinutes: integer().notNull(),
    unitMinutesHundredths: integer().notNull(),
    method: text().notNull().default(""),
  },
  (t) => [uniqueIndex("recipe_name").on(sql`lower(${t.name})`), uniqueIndex("recipe_code").on(t.code)],
);

export const recipeLine = pgTable(
  "recipe_line",
  {
    id: integer().primaryKey().generatedAlwaysAsIdentity(),
    recipeId: integer()
      .notNull()
      .references(() => recipe.id),
    position: integer().notNull(),
    materialId: integer()
      .notNull()
      .references(() => material.id),
    /** As typed. */
    entered: text().notNull(),
    form: text().$type<Form>().notNull(),
    weight: mgColumn().notNull(),
  },
  (t) => [index("recipe_line_recipe").on(t.recipeId, t.position)],
);

/** Sizes that lots were made in stay; `current` is the one the recipe sheet shows. */
export const product = pgTable(
  "product",
  {
    id: integer().primaryKey().generatedAlwaysAsIdentity(),
    recipeId: integer()
      .notNull()
      .references(() => recipe.id),
    fill: mgColumn().notNull(),
    current: boolean().notNull().default(true),
    ownPrice: microsColumn(),
  },
  (t) => [unique("product_size").on(t.recipeId, t.fill)],
);

export const productPackaging = pgTable(
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
