/** Chosen prices: a row for each decision, the newest one counts. */
import { CHANNELS } from "#core/pricing/pricingMethods";
import { index, integer } from "drizzle-orm/pg-core";
import { act } from "./act.ts";
import { microsColumn, wordColumn } from "./columns.ts";
import { product } from "./recipe.ts";
import { ours } from "./ours.ts";

export const price = ours.table(
  "price",
  {
    id: integer().primaryKey().generatedAlwaysAsIdentity(),
    actId: integer()
      .notNull()
      .references(() => act.id),
    productId: integer()
      .notNull()
      .references(() => product.id),
    channel: wordColumn(CHANNELS).notNull(),
    price: microsColumn().notNull(),
  },
  (t) => [index("price_product").on(t.productId, t.channel, t.id)],
);
