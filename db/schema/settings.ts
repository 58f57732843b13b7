/** The workshop's own choices; one row. */
import type { Settings } from "#core/settings";
import { integer, jsonb, pgTable } from "drizzle-orm/pg-core";

export const settings = pgTable("settings", {
  id: integer().primaryKey(),
  data: jsonb().$type<Settings>().notNull(),
});
