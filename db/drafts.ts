/**
 * Unfinished sheets, saved as they are typed. They are no acts: the book doesn't know them, and they move nothing.
 *
 * A draft belongs to the one act its sheet will do. Once that is in the book it is gone, in the same transaction; what is sent after it,
 * typed a moment before, is not saved any more.
 */
import { and, desc, eq, sql } from "drizzle-orm";
import type { Db, Reads, Tx } from "./client.ts";
import { readBoolean, rowsOf } from "./columnsOf.ts";
import { runPrepared } from "./prepared.ts";
import { act, draft } from "./schema.ts";

export interface DraftIn {
  /** The page it is on, and which of the page's sheets it is. */
  path: string;
  sheet: string;
  title: string;
  token: string;
  seen: number | null;
  values: Record<string, unknown>;
}

export type Draft = typeof draft.$inferSelect;

/** Serializes a sheet's act and the saving of its draft, so that neither overtakes the other. */
export const holdSheet = (tx: Tx, token: string) => tx.execute(sql`select pg_advisory_xact_lock(hashtextextended(${token}, 7))`);

/** Saves what is on a sheet; nothing once its act is done. @returns whether it was saved */
export const keepDraft = (db: Db, d: DraftIn): Promise<boolean> =>
  db.transaction(async (tx) => {
    await holdSheet(tx, d.token);
    const [done] = await rowsOf(tx, { any: readBoolean }, sql`select exists (select 1 from ${act} where token = ${d.token}) as any`);
    if (done!.any) return false;
    const { title, token, seen, values } = d;
    await tx
      .insert(draft)
      .values(d)
      .onConflictDoUpdate({ target: [draft.path, draft.sheet], set: { title, token, seen, values, keptAt: sql`now()` } });
    return true;
  });

/** Throws a sheet's draft away. */
export const dropDraft = async (db: Db, path: string, sheet: string): Promise<void> => {
  await db.delete(draft).where(and(eq(draft.path, path), eq(draft.sheet, sheet)));
};

/** What is unfinished on a page. */
export const draftsOn = (db: Reads, path: string): Promise<Draft[]> =>
  runPrepared(db, "drafts_on", { path }, (at) => db.select().from(draft).where(eq(draft.path, at.path)));

/** Everything that is unfinished, the newest first. */
export const listDrafts = (db: Reads): Promise<Pick<Draft, "id" | "path" | "sheet" | "title" | "keptAt">[]> =>
  runPrepared(db, "all_drafts", {}, () =>
    db
      .select({ id: draft.id, path: draft.path, sheet: draft.sheet, title: draft.title, keptAt: draft.keptAt })
      .from(draft)
      .orderBy(desc(draft.keptAt))
      .limit(50),
  );
