/** Market days: what was taken along, what became of it, and what the day cost. */
import { boolean, date, index, integer, text, unique } from "drizzle-orm/pg-core";
import { act } from "./act.ts";
import { microsColumn } from "./columns.ts";
import { product } from "./recipe.ts";
import { lot } from "./stock.ts";
import { ours } from "./ours.ts";

export const marketDay = ours.table(
  "market_day",
  {
    id: integer().primaryKey().generatedAlwaysAsIdentity(),
    name: text().notNull(),
    day: date({ mode: "string" }).notNull(),
    stallFee: microsColumn().notNull(),
    travel: microsColumn().notNull(),
    byCard: microsColumn().notNull(),
    cardFeeBp: integer().notNull(),
    minutes: integer().notNull(),
    note: text().notNull().default(""),
    /** Set while closed; taken back by undo. */
    closedActId: integer().references(() => act.id),
    /** Of a day from before the books: it has past sales and no lines, and what was sold on it is in no lot. */
    beforeBooks: boolean().notNull().default(false),
  },
  (t) => [index("market_day_day").on(t.day)],
);

export const marketLine = ours.table(
  "market_line",
  {
    id: integer().primaryKey().generatedAlwaysAsIdentity(),
    marketDayId: integer()
      .notNull()
      .references(() => marketDay.id),
    lotId: integer()
      .notNull()
      .references(() => lot.id),
    taken: integer().notNull(),
    sold: integer().notNull(),
    given: integer().notNull(),
    damaged: integer().notNull(),
    price: microsColumn().notNull(),
  },
  (t) => [unique("market_line_lot").on(t.marketDayId, t.lotId)],
);

/** What was sold on a market day from before the books: by product, or of the whole day where nobody noted more. */
export const pastSale = ours.table(
  "past_sale",
  {
    id: integer().primaryKey().generatedAlwaysAsIdentity(),
    marketDayId: integer()
      .notNull()
      .references(() => marketDay.id),
    /** Null for what isn't told by product, or is none any more. */
    productId: integer().references(() => product.id),
    /** What it is called in the list it came from. */
    name: text().notNull(),
    units: integer().notNull(),
    /** Of all of them. */
    takings: microsColumn().notNull(),
  },
  (t) => [index("past_sale_day").on(t.marketDayId), index("past_sale_product").on(t.productId)],
);
