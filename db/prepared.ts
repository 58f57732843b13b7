/**
 * Statements that every page asks again and again, built once per connection pool and planned once per connection.
 */
import type { Reads } from "./client.ts";

const kept = new WeakMap<Reads, Map<string, unknown>>();

/**
 * The prepared statement of that name, built at its first use.
 * @param name unique to the statement
 * @example prepared(db, "materials", () => db.select().from(material)).execute()
 */
export function prepared<P>(db: Reads, name: string, build: () => { prepare: (name: string) => P }): P {
  let own = kept.get(db);
  if (!own) kept.set(db, (own = new Map<string, unknown>()));
  let statement = own.get(name) as P | undefined;
  if (!statement) own.set(name, (statement = build().prepare(name)));
  return statement;
}
