/**
 * Bringing a database up to date: what is in it is copied beside it first, a step that fails says which and why, and one that is newer than this
 * Zelbin is left alone.
 */
import { sql } from "drizzle-orm";
import { readMigrationFiles } from "drizzle-orm/migrator";
import { migrate } from "drizzle-orm/node-postgres/migrator";
import { readFileSync } from "node:fs";
import { aFlag, aNumber, aText, rowsOf } from "./columnsOf.ts";
import { openDb, type Db } from "./client.ts";

const FOLDER = "db/migrations";
const PATIENT = { patient: true };
/** Copies of a database that are kept. */
const KEPT = 2;

interface Step {
  at: number;
  name: string;
}

const steps = (folder: string): Step[] => {
  const { entries } = JSON.parse(readFileSync(`${folder}/meta/_journal.json`, "utf8")) as { entries: { when: number; tag: string }[] };
  return entries.map((e) => ({ at: e.when, name: e.tag }));
};

/** When the newest step was made that a database has; 0 for an empty one. */
async function newestIn(db: Db): Promise<number> {
  const [there] = await rowsOf(db, { any: aFlag }, sql`select to_regclass('drizzle.__drizzle_migrations') is not null as any`);
  if (!there!.any) return 0;
  const [row] = await rowsOf(db, { at: aNumber }, sql`select coalesce(max(created_at), 0)::float8 as at from drizzle.__drizzle_migrations`);
  return row!.at;
}

const nameIn = (url: string): string => decodeURIComponent(new URL(url).pathname.slice(1));
const copyOf = (name: string, before: string): string => `${name}_before_${before.slice(0, 4)}`.slice(0, 63);

/** Copies a database beside it, which takes that nobody is in it. @returns the name of the copy */
async function copy(url: string, before: string): Promise<string> {
  const name = nameIn(url);
  const to = copyOf(name, before);
  const server = new URL(url);
  server.pathname = "/postgres";
  const db = openDb(server.href, undefined, PATIENT);
  try {
    await db.execute(sql`drop database if exists ${sql.identifier(to)}`);
    await db.execute(sql`create database ${sql.identifier(to)} template ${sql.identifier(name)}`);
    const old = await rowsOf(
      db,
      { name: aText },
      sql`select datname as name from pg_database where datname like ${`${name.replace(/[_%]/g, "\\$&")}\\_before\\_%`} order by datname desc offset ${KEPT}`,
    );
    for (const o of old) await db.execute(sql`drop database ${sql.identifier(o.name)}`);
    return to;
  } finally {
    await db.close();
  }
}

const whyOf = (e: unknown): string => {
  const cause = e instanceof Error && e.cause instanceof Error ? e.cause : e;
  return cause instanceof Error ? cause.message : String(cause);
};

/** @param folder of the steps, with their journal @throws Error, in words, when it is newer than this Zelbin, can't be copied, or a step fails; nothing is changed then */
export async function bringUpToDate(url: string, folder = FOLDER): Promise<void> {
  const all = steps(folder);
  let db = openDb(url, undefined, PATIENT);
  try {
    const newest = await newestIn(db);
    const known = all.at(-1)!.at;
    if (newest > known)
      throw new Error(
        `The database ${nameIn(url)} was kept by a newer Zelbin than this one. Start that one again, or bring this one up to date; nothing was changed.`,
      );
    const open = all.filter((s) => s.at > newest);
    if (open.length === 0) return;
    let copied = "";
    if (newest > 0) {
      await db.close();
      try {
        copied = await copy(url, open[0]!.name);
      } catch (e) {
        throw new Error(
          `Before the database ${nameIn(url)} is brought up to date it is copied, and that failed: ${whyOf(e)}. Close what else has it open and see that there is room on the disk, then start again; nothing was changed.`,
        );
      } finally {
        db = openDb(url, undefined, PATIENT);
      }
    }
    try {
      await migrate(db, { migrationsFolder: folder });
    } catch (e) {
      const failed = e instanceof Error && "query" in e ? stepWith(folder, String(e.query)) : null;
      throw new Error(
        `Bringing the database ${nameIn(url)} up to date failed${failed ? ` in the step ${failed}` : ""}: ${whyOf(e)}. It is as it was before${copied ? `, and the copy ${copied} is kept` : ""}. Keep this message, and go on with the Zelbin you had.`,
      );
    }
  } finally {
    await db.close();
  }
}

/** The step that a statement belongs to. */
function stepWith(folder: string, statement: string): string | null {
  const files = readMigrationFiles({ migrationsFolder: folder });
  const at = files.find((f) => f.sql.some((s) => s.trim() === statement.trim()))?.folderMillis;
  return steps(folder).find((s) => s.at === at)?.name ?? null;
}
