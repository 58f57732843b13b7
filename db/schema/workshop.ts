/** What this database is: the demo's or the maker's own. One row, written once it is all there. */
import { WORKSHOPS } from "#core/workshop";
import { sql } from "drizzle-orm";
import { check, integer, timestamp } from "drizzle-orm/pg-core";
import { wordColumn } from "./columns.ts";
import { ours } from "./ours.ts";

export const workshop = ours.table(
  "workshop",
  {
    id: integer().primaryKey().default(1),
    kind: wordColumn(WORKSHOPS).notNull(),
    since: timestamp({ withTimezone: true }).notNull().defaultNow(),
  },
  (t) => [check("one_workshop", sql`${t.id} = 1`)],
);
