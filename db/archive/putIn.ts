/**
 * Databases that an archive is loaded into, beside the one it is for: one to take its place, or one only to see that the archive is good. Each
 * says of itself what it is, so that what a cut-off left behind is known by the next, and nothing else is ever dropped.
 */
import type { Manifest } from "#core/archive/manifest";
import { Refused } from "#core/refused";
import type { WorkshopKind } from "#core/workshop";
import { sql } from "drizzle-orm";
import { createHash, randomBytes } from "node:crypto";
import type { Db } from "../client.ts";
import { readText, rowsOf } from "../columnsOf.ts";
import {
  besideAt,
  commentOn,
  databaseIn,
  databasesThatSay,
  freeNameBeside,
  hasDatabase,
  makeDatabase,
  nameBeside,
  onServerOf,
  withDb,
} from "../databases.ts";
import { loadArchive, type Loading } from "./load.ts";
import type { Archive } from "./unzip.ts";
import { writeArchive, type Watch } from "./write.ts";

/** What a database that an archive is being loaded into says of itself. */
const ARRIVING = "An archive being read by Zelbin for ";

/** What a database says of itself that an archive took the place of. */
const KEPT = "Kept by Zelbin as it was when another took the place of ";

/** What a database says of itself that an archive was loaded into to be looked at. */
const LOOKED_AT = "A backup opened by Zelbin to look at, of ";

const dropArriving = (db: Db, of: string, only?: string): Promise<void> => dropWhatSays(db, ARRIVING + of, only);

/** Drops the databases with such a comment that nobody has open. @param only the one of that name, open or not */
async function dropWhatSays(db: Db, said: string, only?: string): Promise<void> {
  const left = await rowsOf(
    db,
    { name: readText },
    sql`select datname as name from pg_database d where shobj_description(oid, 'pg_database') = ${said} and
      ${only === undefined ? sql`not exists (select from pg_stat_activity s where s.datid = d.oid)` : sql`datname = ${only}`}`,
  );
  for (const { name } of left) await db.execute(sql`drop database if exists ${sql.identifier(name)} with (force)`);
}

/**
 * Loads an archive into a database beside another, whether that one is there or not.
 * @param url of the one it is for
 * @param use what becomes of it, given its address; unless it was renamed meanwhile it is dropped afterwards
 * @throws Refused beside `archive` where the archive isn't taken
 */
export async function arriving<T>(
  url: string,
  archive: Archive,
  as: WorkshopKind,
  how: Loading,
  use: (arrived: string) => Promise<T>,
): Promise<T> {
  const of = databaseIn(url);
  const name = nameBeside(of, `_arriving_${randomBytes(4).toString("hex")}`);
  await onServerOf(url, async (db) => {
    await dropArriving(db, of);
    await makeDatabase(db, name);
    await commentOn(db, name, ARRIVING + of);
  });
  try {
    await loadArchive(besideAt(url, name), archive, as, how);
    return await use(besideAt(url, name));
  } finally {
    await onServerOf(url, (db) => dropArriving(db, of, name));
  }
}

/**
 * Puts a database that arrived in the place of another, which is kept under another name; both at once, or neither.
 * @param moment a word of when, for the name of the one that is kept
 * @returns the name under which the old one is kept; null where there was none
 * @throws Error of PostgreSQL's where somebody else has either open
 */
export const takePlace = (url: string, arrived: string, moment: string): Promise<string | null> =>
  onServerOf(url, async (db) => {
    const name = databaseIn(url);
    const from = databaseIn(arrived);
    const kept = (await hasDatabase(db, name)) ? await freeNameBeside(db, name, `_kept_${moment}`) : null;
    await db.transaction(async (tx) => {
      if (kept !== null) {
        await tx.execute(sql`alter database ${sql.identifier(name)} rename to ${sql.identifier(kept)}`);
        await commentOn(tx, kept, KEPT + name);
      }
      await tx.execute(sql`alter database ${sql.identifier(from)} rename to ${sql.identifier(name)}`);
      await commentOn(tx, name, "");
    });
    return kept;
  });

/**
 * Loads an archive into a database beside another, to be looked at until `dropLookedAt`.
 * @param url of the one it is beside, whether that is there or not
 * @returns its address
 * @throws Refused beside `archive` where the archive isn't taken
 */
export const toLookAt = (url: string, archive: Archive, watch: Watch): Promise<string> =>
  arriving(url, archive, "own", watch, (arrived) =>
    onServerOf(url, async (db) => {
      const name = await freeNameBeside(db, databaseIn(url), "_looked_at");
      await db.transaction(async (tx) => {
        await tx.execute(sql`alter database ${sql.identifier(databaseIn(arrived))} rename to ${sql.identifier(name)}`);
        await commentOn(tx, name, LOOKED_AT + databaseIn(url));
      });
      return besideAt(url, name);
    }),
  );

/** Drops what was looked at beside a database: one by its address, or all that nobody has open. */
export const dropLookedAt = (url: string, only?: string): Promise<void> =>
  onServerOf(url, (db) => dropWhatSays(db, LOOKED_AT + databaseIn(url), only && databaseIn(only)));

/** The names of what was kept when another took its place, newest first. */
export const keptBeside = (url: string): Promise<string[]> => onServerOf(url, (db) => databasesThatSay(db, KEPT + databaseIn(url)));

/** The address of one of those. @throws Refused where it isn't there any more */
export async function keptAt(url: string, name: string): Promise<string> {
  if (!(await keptBeside(url)).includes(name)) throw Refused.one("", `There are no books called ${name} beside yours any more.`);
  return besideAt(url, name);
}

/** The digest of all that an archive holds of a database: the same books have the same. */
const digestOf = (url: string): Promise<string> =>
  withDb(url, {}, async (db) => {
    const sum = createHash("sha256");
    await writeArchive(db, sum);
    return sum.digest("hex");
  });

/**
 * Whether an archive gives the books it was written from: loaded into a database to be thrown away, which must hold and come out as the same file
 * again.
 * @param sha256 of the archive's file
 * @throws Refused beside `archive`, or Error, where it doesn't
 */
export const checkArchive = (url: string, archive: Archive, sha256: string, watch: Watch): Promise<Manifest> =>
  arriving(url, archive, "own", { ...watch, asItWas: true }, async (arrived) => {
    if ((await digestOf(arrived)) !== sha256) throw new Error("read back, it wasn't the same");
    return archive.manifest;
  });
