/**
 * Acts: everything a person did that changed something, one row and one transaction each.
 *
 * `token` makes a form that is posted twice count once. `undoes` points at the act this one took back.
 */
import { date, integer, jsonb, pgTable, text, timestamp, uuid, type AnyPgColumn } from "drizzle-orm/pg-core";

export const act = pgTable("act", {
  id: integer().primaryKey().generatedAlwaysAsIdentity(),
  kind: text().notNull(),
  day: date({ mode: "string" }).notNull(),
  at: timestamp({ withTimezone: true }).notNull().defaultNow(),
  token: uuid().unique(),
  summary: text().notNull().default(""),
  /** Where the application goes to show what came of it. */
  path: text().notNull().default("/"),
  /** What it replaced, where taking it back must put that in place again. */
  before: jsonb(),
  undoes: integer()
    .unique()
    .references((): AnyPgColumn => act.id),
});
