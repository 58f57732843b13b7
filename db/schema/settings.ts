/** The workshop's own choices; one row. */
import { isSettings } from "#core/settings/settings";
import { integer } from "drizzle-orm/pg-core";
import { jsonColumn } from "./columns.ts";
import { ours } from "./ours.ts";

export const settings = ours.table("settings", {
  id: integer().primaryKey(),
  data: jsonColumn(isSettings).notNull(),
});
