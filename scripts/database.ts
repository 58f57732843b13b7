/** Bringing a database up to date, and filling it with the demo workshop when it is empty. */
import { loadDemo } from "#demo/load";
import { openDb, type OpenDb } from "#db/client";
import { act } from "#db/schema";
import { migrate } from "drizzle-orm/node-postgres/migrator";
import type { Logger } from "drizzle-orm/logger";
import { today } from "#db/clock";

/** Opens a database, migrated and never empty. */
export async function prepareDb(url: string, logger?: Logger): Promise<OpenDb> {
  const db = openDb(url, logger);
  await migrate(db, { migrationsFolder: "db/migrations" });
  const [any] = await db.select({ id: act.id }).from(act).limit(1);
  if (!any) {
    console.log("Loading the demo workshop …");
    await loadDemo(db, today());
  }
  return db;
}
