/** Market days: what was taken along, what became of it, and what the day cost. */
import { date, index, integer, text, unique } from "drizzle-orm/pg-core";
import { act } from "./act.ts";
import { microsColumn } from "./columns.ts";
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
