/** What a page sends of a batch again, since no answer came, counts once. */
import type { Db } from "../client.ts";
import { batchSent } from "../schema.ts";
import { standing } from "./standing.ts";

/**
 * Does something at the bench in one transaction with its key; what has been done under that key isn't done again.
 * @param key made by the page; without one it is simply done
 * @throws Refused by what is done, and then its key is free again
 */
export async function once(db: Db, batchId: number, key: string | undefined, work: (db: Db) => Promise<void>): Promise<void> {
  if (key === undefined) return work(db);
  await db.transaction(async (tx) => {
    // Held first: of two that come at once the second finds the first one's key.
    await standing(tx, batchId);
    const fresh = await tx.insert(batchSent).values({ batchId, key }).onConflictDoNothing().returning({ key: batchSent.key });
    // What is done opens a transaction of its own, which stands or falls with this one.
    if (fresh.length > 0) await work(tx);
  });
}
