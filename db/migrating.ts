/**
 * Bringing a database up to date: what is in it is copied beside it first, a step that fails says which and why, and one that is newer than this
 * Zelbin, or isn't Zelbin's, is left alone.
 */
import { sql } from "drizzle-orm";
import { readMigrationFiles } from "drizzle-orm/migrator";
import { migrate } from "drizzle-orm/node-postgres/migrator";
import { cpSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { readBoolean, readNumber, rowsOf } from "./columnsOf.ts";
import type { Reads } from "./client.ts";
import { commentOn, databaseIn, databasesThatSay, freeNameBeside, onServerOf, withDb } from "./databases.ts";
import { makeOurs, STEPS_TAKEN } from "./ownership.ts";
import { OURS } from "./schema/ours.ts";

const FOLDER = "db/migrations";
/** How many copies of a database are left in place. */
const KEPT = 2;

interface Step {
  at: number;
  name: string;
}

interface Journal {
  entries: { when: number; tag: string }[];
}
const journalOf = (folder: string): Journal => JSON.parse(readFileSync(`${folder}/meta/_journal.json`, "utf8")) as Journal;
const steps = (folder: string): Step[] => journalOf(folder).entries.map((e) => ({ at: e.when, name: e.tag }));

/** The names of all steps this Zelbin knows, in their order. */
export const knownSteps = (): string[] => steps(FOLDER).map((s) => s.name);

/** When the newest step was made that a database has; 0 for an empty one. */
async function newestIn(db: Reads): Promise<number> {
  const table = sql`${sql.identifier(STEPS_TAKEN.schema)}.${sql.identifier(STEPS_TAKEN.table)}`;
  const [there] = await rowsOf(
    db,
    { any: readBoolean },
    sql`select to_regclass(${`${STEPS_TAKEN.schema}.${STEPS_TAKEN.table}`}) is not null as any`,
  );
  if (!there!.any) return 0;
  const [row] = await rowsOf(db, { at: readNumber }, sql`select coalesce(max(created_at), 0)::float8 as at from ${table}`);
  return row!.at;
}

/** The name of the newest step that a database has taken. @throws Error where it has taken none, or one that isn't known here */
export async function stepOf(db: Reads): Promise<string> {
  const newest = await newestIn(db);
  const step = steps(FOLDER).find((s) => s.at === newest);
  if (!step) throw new Error(`The newest step of this database, of ${new Date(newest).toISOString()}, isn't known here.`);
  return step.name;
}

/** What a copy says of itself; only what says so is ever dropped. */
const copyMark = (name: string, before = ""): string => `A copy by Zelbin of ${name}, before ${before}`;

/** Copies a database beside it, which takes that nobody is in it, and drops the oldest of our own copies of it. @returns the name of the copy */
const copy = (url: string, before: string): Promise<string> =>
  onServerOf(url, async (db) => {
    const name = databaseIn(url);
    const to = await freeNameBeside(db, name, `_before_${before.slice(0, 4)}`);
    await db.execute(sql`create database ${sql.identifier(to)} template ${sql.identifier(name)}`);
    await commentOn(db, to, copyMark(name, before));
    for (const old of (await databasesThatSay(db, copyMark(name))).slice(KEPT)) await db.execute(sql`drop database ${sql.identifier(old)}`);
    return to;
  });

const whyOf = (e: unknown): string => {
  const cause = e instanceof Error && e.cause instanceof Error ? e.cause : e;
  return cause instanceof Error ? cause.message : String(cause);
};

/** The step that moved everything from public into a schema of our own: steps before it were written for public. */
const MOVED = "0025_a_schema_of_its_own";

/** Brings an empty database to a step and no further, as it was for the Zelbin of that time. @param step one of `knownSteps` */
export async function bringToStep(url: string, step: string): Promise<void> {
  if (step === knownSteps().at(-1)) {
    await bringUpToDate(url);
    return;
  }
  const scratch = mkdtempSync(join(tmpdir(), "zelbin-steps-"));
  try {
    cpSync(FOLDER, scratch, { recursive: true, filter: (from) => !from.endsWith("_snapshot.json") });
    const journal = journalOf(FOLDER);
    const entries = journal.entries.slice(0, journal.entries.findIndex((e) => e.tag === step) + 1);
    writeFileSync(join(scratch, "meta", "_journal.json"), JSON.stringify({ ...journal, entries }));
    await bringUpToDate(url, { folder: scratch });
  } finally {
    rmSync(scratch, { recursive: true });
  }
}

interface Bringing {
  /** Of the steps, with their journal. */
  folder?: string;
  /** A database that nobody has opened yet needs no copy of what it was. */
  copied?: boolean;
  /** Done before the first step, where there are books and a step to take. */
  before?: () => Promise<void>;
}

/** @throws Error, in words, when it isn't Zelbin's, is newer than this Zelbin, can't be copied, or a step fails; nothing is changed then */
export async function bringUpToDate(url: string, { folder = FOLDER, copied: copying = true, before }: Bringing = {}): Promise<void> {
  const name = databaseIn(url);
  const all = steps(folder);
  const newest = await withDb(url, {}, async (db) => {
    await makeOurs(
      db,
      name,
      all.map((s) => s.at),
    );
    return newestIn(db);
  });
  if (newest > all.at(-1)!.at)
    throw new Error(
      `The database ${name} was kept by a newer Zelbin than this one. Start that one again, or bring this one up to date; nothing was changed.`,
    );
  const [next] = all.filter((s) => s.at > newest);
  if (!next) return;
  let copied = "";
  if (newest > 0 && copying) {
    await before?.();
    try {
      copied = await copy(url, next.name);
    } catch (e) {
      throw new Error(
        `Before the database ${name} is brought up to date it is copied, and that failed: ${whyOf(e)}. Close what else has it open and see that there is room on the disk, then start again; nothing was changed.`,
      );
    }
  }
  const schema = newest < all.find((s) => s.name === MOVED)!.at ? "public" : OURS;
  await withDb(url, { schema }, async (db) => {
    try {
      await migrate(db, { migrationsFolder: folder, migrationsSchema: STEPS_TAKEN.schema, migrationsTable: STEPS_TAKEN.table });
    } catch (e) {
      const failed = e instanceof Error && "query" in e ? stepWith(folder, String(e.query)) : null;
      throw new Error(
        `Bringing the database ${name} up to date failed${failed ? ` in the step ${failed}` : ""}: ${whyOf(e)}. It is as it was before${copied ? `, and the copy ${copied} is kept` : ""}. Keep this message, and go on with the Zelbin you had.`,
      );
    }
  });
}

/** The step that a statement belongs to. */
function stepWith(folder: string, statement: string): string | null {
  const files = readMigrationFiles({ migrationsFolder: folder });
  const at = files.find((f) => f.sql.some((s) => s.trim() === statement.trim()))?.folderMillis;
  return steps(folder).find((s) => s.at === at)?.name ?? null;
}
