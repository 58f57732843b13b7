/**
 * The PostgreSQL schema that holds every table of Zelbin's: a database may hold other things beside it, and none of them is touched.
 *
 * Every connection looks names up in it alone (`search_path` in db/client.ts), so that functions and views of the migrations find their tables.
 */
import { getTableName } from "drizzle-orm";
import { alias, pgSchema, type PgTable } from "drizzle-orm/pg-core";

export const OURS = "zelbin";
export const ours = pgSchema(OURS);

/** A table by its name alone, as PostgreSQL wants it in `for update of`. @example query.for("no key update", { of: bare(lot) }) */
export const bare = <T extends PgTable>(table: T) => alias(table, getTableName(table));
