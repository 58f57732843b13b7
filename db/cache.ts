/**
 * Caches an answer until anything is committed.
 *
 * What every page asks (how much waits at each station, what is low) follows from the whole shelf and changes only with a write.
 * PostgreSQL's own snapshot says exactly whether anything was committed since: while it is the same, so is the answer. Not for transactions.
 */
import { sql } from "drizzle-orm";
import { sqlText } from "./columnsOf.ts";
import type { Reads } from "./client.ts";
import { runPrepared } from "./prepared.ts";

interface Kept {
  at: string;
  given: string;
  answer: Promise<unknown>;
}
const kept = new WeakMap<Reads, Map<string, Kept>>();

const asked = new WeakMap<Reads, Promise<string>>();

/** What is committed by now. All that is asked in the same moment, before any of it is on its way, is asked once. */
function snapshotOf(db: Reads): Promise<string> {
  let now = asked.get(db);
  if (!now) {
    now = runPrepared(db, "snapshot", {}, () =>
      db.select({ at: sqlText(sql`pg_current_snapshot()::text`) }).from(sql`(select 1) one`),
    ).then((rows) => rows[0]!.at);
    asked.set(db, now);
    queueMicrotask(() => asked.delete(db));
  }
  return now;
}

/**
 * The answer under that name, worked out again only when something was written since.
 * @param given everything the answer depends on besides the database, such as the day
 * @param db not a transaction: its own writes wouldn't show in its snapshot
 * @example cachedUntilWrite(db, "waiting counts", day, () => countWaiting(db, day))
 */
export async function cachedUntilWrite<T>(db: Reads, name: string, given: string, work: () => Promise<T>): Promise<T> {
  const at = await snapshotOf(db);
  let own = kept.get(db);
  if (!own) kept.set(db, (own = new Map<string, Kept>()));
  const before = own.get(name);
  if (before?.at === at && before.given === given) return before.answer as Promise<T>;
  // The promise is cached, so that all who wait share one statement.
  const answer = Promise.resolve(work());
  own.set(name, { at, given, answer });
  // A failure is not cached.
  answer.catch(() => own.delete(name));
  return answer;
}
