/** Requests that a page sends in the background: one that is repeated, because no answer came, counts once. */
import type { Db } from "./client.ts";
import { backgroundRequest } from "./schema.ts";

/**
 * Does some work and remembers its key in the same transaction; does nothing where the key is known already.
 * @param key made by the page; without one the work is simply done
 * @returns what the work returns; undefined where it was done before
 * @throws Refused by the work, and then the key is free again
 * @example await once(db, key, (db) => weighOne(db, line)) // the second time nothing is weighed
 */
export async function once<T>(db: Db, key: string | undefined, work: (db: Db) => Promise<T>): Promise<T | undefined> {
  if (key === undefined) return work(db);
  return db.transaction(async (tx) => {
    // Of two that come at the same moment the second waits here for the first.
    const fresh = await tx.insert(backgroundRequest).values({ key }).onConflictDoNothing().returning({ key: backgroundRequest.key });
    // The work opens a transaction within this one, which is committed or rolled back with it.
    return fresh.length > 0 ? work(tx) : undefined;
  });
}
