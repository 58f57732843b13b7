/** What the books are now, as the manifest of an archive says it of then: to be set beside each other. */
import { sql } from "drizzle-orm";
import type { Reads } from "../client.ts";
import { readNumber, readText, rowsOf } from "../columnsOf.ts";
import { recordKinds, tableOf, type RecordKind } from "./kinds.ts";

export interface BooksNow {
  /** Rows of each kind of record, by its name. */
  rows: Map<string, number>;
  /** The newest acts, newest first. */
  newest: { id: number; day: string; what: string }[];
}

export const booksNow = async (db: Reads): Promise<BooksNow> => ({
  rows: await countRows(db, await recordKinds(db)),
  newest: await newestActs(db),
});

/** How many rows there are of each kind. */
export async function countRows(db: Reads, kinds: readonly RecordKind[]): Promise<Map<string, number>> {
  const counts = new Map<string, number>();
  for (const { name } of kinds) {
    const [row] = await rowsOf(db, { n: readNumber }, sql`select count(*) as n from ${tableOf(name)}`);
    counts.set(name, row!.n);
  }
  return counts;
}

/** The newest acts, newest first. */
export const newestActs = (db: Reads): Promise<BooksNow["newest"]> =>
  rowsOf(
    db,
    { id: readNumber, day: readText, what: readText },
    sql`select id, day::text as day, left(summary, 400) as what from act order by id desc limit 5`,
  );
