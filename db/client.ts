/**
 * The connection to PostgreSQL. Everything in db/ takes the `Db` it works on, so that tests and scripts can bring their own.
 */
import { drizzle } from "drizzle-orm/node-postgres";
import type { Logger } from "drizzle-orm/logger";
import pg from "pg";
import * as schema from "./schema.ts";

/** Opens a pool; `close` ends it. @param url a postgres:// address */
export function openDb(url: string, logger?: Logger) {
  // Statements are prepared once and their plans kept: planning anew takes longer than most of them run, and compiling always does.
  const pool = new pg.Pool({ connectionString: url, max: 10, options: "-c plan_cache_mode=force_generic_plan -c jit=off" });
  // An idle connection that the server drops is replaced at the next query; without a listener it would end the process.
  pool.on("error", (e) => console.error(`database connection lost: ${e.message}`));
  const db = drizzle(pool, { schema, casing: "snake_case", logger });
  return Object.assign(db, { close: () => pool.end() });
}

export type OpenDb = ReturnType<typeof openDb>;
export type Db = Omit<OpenDb, "close" | "$client">;
/** A transaction, or the database itself where only reading is done. */
export type Tx = Parameters<Parameters<Db["transaction"]>[0]>[0];
export type Reads = Db | Tx;
