/** The application's database: the one its server was started with, or DATABASE_URL in development. */
import { openDb, type Db } from "#db/client";

declare global {
  var zelbinDb: ReturnType<typeof openDb> | undefined;
}

/** @throws Error when neither is there */
export function db(): Db {
  if (!globalThis.zelbinDb) {
    if (!process.env.DATABASE_URL) throw new Error("Set DATABASE_URL, or use npm start, which brings its own database.");
    globalThis.zelbinDb = openDb(process.env.DATABASE_URL);
  }
  return globalThis.zelbinDb;
}
