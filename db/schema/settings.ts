/** The workshop's own choices; one row. */
import { isSettings } from "#core/settings";
import { integer, pgTable } from "drizzle-orm/pg-core";
import { jsonColumn } from "./columns.ts";

export const settings = pgTable("settings", {
  id: integer().primaryKey(),
  data: jsonColumn(isSettings).notNull(),
});
