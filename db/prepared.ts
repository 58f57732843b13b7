/**
 * Statements that pages ask again and again, built once per connection pool and planned once per connection: putting one together takes longer
 * than most of them run.
 */
import { sql, type Placeholder } from "drizzle-orm";
import type { Reads } from "./client.ts";

const kept = new WeakMap<Reads, Map<string, unknown>>();

/** What a statement is asked with, by name; lists go as one value (`anyOf`). */
type Given = Record<string, number | string | readonly number[] | readonly string[]>;

/**
 * Asks the statement of that name, built at its first use with a place for each thing given.
 * @param name unique to the statement; another one for each shape it can have
 * @example runPrepared(db, "parts_of_jar", { id }, (at) => db.select().from(jarPart).where(eq(jarPart.jarId, at.id)))
 */
export function runPrepared<V extends Given, R>(
  db: Reads,
  name: string,
  given: V,
  build: (at: { readonly [K in keyof V]: Placeholder }) => { prepare: (name: string) => { execute: (given: V) => Promise<R> } },
): Promise<R> {
  let own = kept.get(db);
  if (!own) kept.set(db, (own = new Map<string, unknown>()));
  let statement = own.get(name) as { execute: (given: V) => Promise<R> } | undefined;
  if (!statement) {
    const places = Object.fromEntries(Object.keys(given).map((key) => [key, sql.placeholder(key)])) as Record<keyof V, Placeholder>;
    own.set(name, (statement = build(places).prepare(name)));
  }
  return statement.execute(given);
}
