/** The databases of one server: what is there, what each says of itself, and those that are made or named beside another. */
import { Refused } from "#core/refused";
import { sql } from "drizzle-orm";
import { openDb, type Db, type OpenDb, type Reads } from "./client.ts";
import { readBoolean, readText, rowsOf } from "./columnsOf.ts";

/** The name of the database in an address. @example databaseIn("postgres://a@h/zelbin") // "zelbin" */
export const databaseIn = (url: string): string => decodeURIComponent(new URL(url).pathname.slice(1));

/** The address of another database on the same server. @example besideAt("postgres://a@h/zelbin", "other") // "postgres://a@h/other" */
export function besideAt(url: string, name: string): string {
  const there = new URL(url);
  there.pathname = `/${encodeURIComponent(name)}`;
  return there.href;
}

/** Does patient work on a database, which is closed afterwards. @param schema in which names are looked up; ours by default */
export async function withDb<T>(url: string, how: { schema?: string }, work: (db: OpenDb) => Promise<T>): Promise<T> {
  const db = openDb(url, undefined, { patient: true, ...how });
  try {
    return await work(db);
  } finally {
    await db.close();
  }
}

/** Does work on the server of a database, connected to the one that is always there: what is copied or renamed may not be open. */
export const onServerOf = <T>(url: string, work: (db: OpenDb) => Promise<T>): Promise<T> => withDb(besideAt(url, "postgres"), {}, work);

export async function hasDatabase(db: Reads, name: string): Promise<boolean> {
  const [found] = await rowsOf(db, { any: readBoolean }, sql`select exists (select 1 from pg_database where datname = ${name}) as any`);
  return found!.any;
}

/** PostgreSQL cuts longer names off, and two that are cut alike would be one. */
const LONGEST_NAME = 63;

/** A name for a database that belongs to another. @example nameBeside("zelbin", "_kept") // "zelbin_kept" */
export const nameBeside = (name: string, ending: string): string => name.slice(0, LONGEST_NAME - ending.length) + ending;

/** Such a name that nothing has yet: what has the plain one may be anybody's. */
export async function freeNameBeside(db: Reads, name: string, ending: string): Promise<string> {
  for (let n = 1; ; n++) {
    const wanted = nameBeside(name, n > 1 ? `${ending}_${n}` : ending);
    if (!(await hasDatabase(db, wanted))) return wanted;
  }
}

/** A name or a text in a statement that takes no parameters. */
const quoted = (text: string, by: string): string => by + text.replaceAll(by, by + by) + by;

/** Says of a database what it is. */
export async function commentOn(db: Reads, name: string, what: string): Promise<void> {
  await db.execute(sql.raw(`comment on database ${quoted(name, '"')} is ${quoted(what, "'")}`));
}

/** The databases that say so of themselves, or begin so, the newest first. */
export async function databasesThatSay(db: Reads, what: string): Promise<string[]> {
  const rows = await rowsOf(
    db,
    { name: readText },
    sql`select datname as name from pg_database where starts_with(shobj_description(oid, 'pg_database'), ${what}) order by oid desc`,
  );
  return rows.map((r) => r.name);
}

/** Makes an empty database, unless it is there. @throws Refused where the server doesn't let us */
export async function makeDatabase(db: Db, name: string): Promise<void> {
  if (await hasDatabase(db, name)) return;
  try {
    await db.execute(sql`create database ${sql.identifier(name)}`);
  } catch (e) {
    const { code } = ((e instanceof Error && e.cause) || e) as { code?: unknown };
    // Another was quicker.
    if (code === "42P04") return;
    if (code === "42501")
      throw Refused.one(
        "",
        `This database server doesn't let Zelbin make another database. Whoever runs it can make an empty one called “${name}”, owned by the same user; then press again.`,
      );
    throw e;
  }
}
