/**
 * The two workshops of a house, each with its own database: the demo's, and the maker's own once it is begun, beside it or elsewhere.
 *
 * What is done in one never reaches the other. A database says itself which it is (`workshop`), in a row written once all of it is there, so
 * that a start that was cut off is begun again and the demo's reset can't be pointed at anything else.
 */
import { Refused } from "#core/refused";
import type { Manifest } from "#core/archive/manifest";
import type { ServedKind, WorkshopKind } from "#core/workshop";
import { sql } from "drizzle-orm";
import type { Logger } from "drizzle-orm/logger";
import { openDb, type Db, type OpenDb } from "../client.ts";
import { bringUpToDate } from "../migrating.ts";
import { arriving, dropLookedAt, keptAt, keptBeside, takePlace, toLookAt } from "../archive/putIn.ts";
import type { Archive } from "../archive/unzip.ts";
import type { Watch } from "../archive/write.ts";
import { databaseIn, hasDatabase, makeDatabase } from "../databases.ts";
import { emptyOurs, NotOurs } from "../ownership.ts";
import { act, backgroundRequest, workshop } from "../schema.ts";

export interface Workshops {
  /** The database of one; null where there is none of one's own yet, or nothing is looked at. Waits while it is being made or reset. */
  of: (kind: ServedKind) => Promise<OpenDb | null>;
  /** Makes an empty workshop of one's own, unless there is one. @throws Refused where the server allows no further database */
  begin: () => Promise<void>;
  /** The demo as it was on the first day. */
  resetDemo: () => Promise<void>;
  /**
   * Puts what an archive holds in the place of one's own workshop, whether there is one or not. One's own stays open until it has all been read.
   * @param moment of the name under which the books that were there are kept
   * @returns that name; null where there were none
   * @throws Refused beside `archive` where the archive isn't taken, and all is as it was
   */
  putInPlace: (archive: Archive, moment: string, watch: Watch) => Promise<string | null>;
  /** The names of books that others took the place of, newest first. */
  kept: () => Promise<string[]>;
  /** Puts some of those back in their place; what is there now is kept in turn. @returns its name @throws Refused where they aren't there */
  goBack: (name: string, moment: string) => Promise<string | null>;
  /** Opens an archive beside one's own, to be looked at and not written to, in the place of what was looked at before. @throws Refused */
  look: (archive: Archive, watch: Watch) => Promise<void>;
  /** What is looked at; null where nothing is. */
  lookedAt: () => Manifest | null;
  /** Closes and drops it. */
  endLook: () => Promise<void>;
  /** The address of one's own database; null where there is none. */
  address: () => Promise<string | null>;
  /** Where the maker's own books are, or would be. */
  where: Where;
  close: () => Promise<void>;
}

/** Where one's own workshop is. */
export interface OwnPlace {
  /** Its database; null where none was begun. */
  find: () => Promise<string | null>;
  /** Makes it, unless it is there. @throws Refused where that isn't allowed */
  make: () => Promise<string>;
  /** Where it is or would be, its server started. */
  address: () => Promise<string>;
  where: Where;
}

/** A place to be found: what it is, and its name to be copied. */
export interface Where {
  what: string;
  name: string;
}

export interface Making {
  /** Fills an empty demo. */
  loadDemo: (db: Db) => Promise<void>;
  /** Unless it is beside the demo's, on the same server. */
  own?: OwnPlace;
  /** Done with one's own before it is brought up to date. @param url of its database */
  beforeSteps?: (url: string) => Promise<void>;
  logger?: Logger;
}

const OWN = "_own";

/** Where one's own workshop is, beside the demo's. @example ownAddress("postgres://a@h/zelbin") // "postgres://a@h/zelbin_own" */
export function ownAddress(demo: string): string {
  const url = new URL(demo);
  url.pathname += OWN;
  return url.href;
}

/** Opens a database as one of the two, brought up to date; an empty one becomes it. @throws Error when it is the other */
export async function openWorkshop(url: string, kind: WorkshopKind, making: Making): Promise<OpenDb> {
  const { beforeSteps } = making;
  await bringUpToDate(url, kind === "own" && beforeSteps ? { before: () => beforeSteps(url) } : {});
  const db = openDb(url, making.logger);
  try {
    const [is] = await db.select({ kind: workshop.kind }).from(workshop);
    if (is && is.kind !== kind)
      throw new Error(`The database ${databaseIn(url)} is ${is.kind === "own" ? "a workshop of your own" : "the demo's"}.`);
    if (!is) {
      const [begun] = await db.select({ id: act.id }).from(act).limit(1);
      if (begun) {
        if (kind === "own") throw new Error(`The database ${databaseIn(url)} has acts in it, and nothing says whose they are.`);
        // The demo was being loaded when it was cut off.
        await emptyOurs(db, databaseIn(url));
        await bringUpToDate(url);
      }
      if (kind === "demo") await making.loadDemo(db);
      await db.insert(workshop).values({ kind }).onConflictDoNothing();
    }
    // No page repeats what is older than a day.
    await db.delete(backgroundRequest).where(sql`${backgroundRequest.at} < now() - interval '30 days'`);
    return db;
  } catch (e) {
    await db.close();
    throw e;
  }
}

/** One's own as a database beside the demo's, on the same server. @param demo tells which databases there are, and makes one */
function besideDemo(url: string, demo: () => Promise<Db>): OwnPlace {
  const own = ownAddress(url);
  const name = databaseIn(own);
  return {
    find: async () => ((await hasDatabase(await demo(), name)) ? own : null),
    make: async () => {
      await makeDatabase(await demo(), name);
      return own;
    },
    address: () => Promise.resolve(own),
    where: { what: `the database on ${new URL(url).host} called`, name },
  };
}

/**
 * Opens both workshops of a house.
 * @param url the demo's database; it must be there, and may be empty
 */
export async function openWorkshops(url: string, making: Making): Promise<Workshops> {
  const openDemo = (): Promise<OpenDb> => openWorkshop(url, "demo", making);
  const openOwn = (own: string): Promise<OpenDb> => openWorkshop(own, "own", making);
  let demo = openDemo();
  await demo;
  const place = making.own ?? besideDemo(url, () => demo);
  const found = await place.find();
  let own: Promise<OpenDb> | null = found === null ? null : openOwn(found);
  await own;

  const resetDemo = async (): Promise<void> => {
    const old = demo;
    demo = (async () => {
      const before = await old;
      await before.close();
      const db = openDb(url);
      await emptyOurs(db, databaseIn(url)).finally(() => db.close());
      return openDemo();
    })();
    try {
      await demo;
    } catch (e) {
      // Whatever was left is begun again by the next who asks.
      demo = openDemo();
      demo.catch(() => {});
      throw e;
    }
  };
  /** Another database takes the place of one's own; requests for it wait meanwhile. */
  const swap = async (there: string, other: string, moment: string): Promise<string | null> => {
    const before = own;
    const swapped = (async () => {
      await (await before)?.close();
      return takePlace(there, other, moment);
    })();
    // Where nothing was put there, what was there before is opened again; where there was nothing, there is nothing.
    own = before ? swapped.catch(() => null).then(() => openOwn(there)) : swapped.then(() => openOwn(there));
    own.catch(() => undefined);
    try {
      const kept = await swapped;
      await own;
      return kept;
    } catch (e) {
      if (!before) own = null;
      throw e;
    }
  };

  let looked: { db: OpenDb; url: string; manifest: Manifest } | null = null;
  const endLook = async (): Promise<void> => {
    const old = looked;
    looked = null;
    if (!old) return;
    await old.db.close();
    await dropLookedAt(await place.address(), old.url);
  };
  // A Zelbin that was killed left it behind.
  if (found !== null) await dropLookedAt(await place.address());

  // One at a time: a second press waits for the first.
  let resetting: Promise<void> | null = null;

  return {
    of: async (kind) => (kind === "demo" ? demo : kind === "own" ? own : (looked?.db ?? null)),
    begin: async () => {
      own ??= place.make().then(openOwn);
      try {
        await own;
      } catch (e) {
        own = null;
        throw e instanceof NotOurs ? Refused.one("", e.message) : e;
      }
    },
    putInPlace: async (archive, moment, watch) => {
      const there = await place.address();
      return arriving(there, archive, "own", watch, (arrived) => swap(there, arrived, moment));
    },
    kept: async () => ((await own) ? keptBeside(await place.address()) : []),
    goBack: async (name, moment) => {
      const there = await place.address();
      return swap(there, await keptAt(there, name), moment);
    },
    look: async (archive, watch) => {
      const url = await toLookAt(await place.address(), archive, watch);
      await endLook();
      looked = { db: openDb(url, making.logger, { readOnly: true }), url, manifest: archive.manifest };
    },
    lookedAt: () => looked?.manifest ?? null,
    endLook,
    address: async () => ((await own) ? place.address() : null),
    resetDemo: () => (resetting ??= resetDemo().finally(() => (resetting = null))),
    where: place.where,
    close: async () => {
      await endLook();
      for (const one of [demo, own]) await (await one)?.close();
    },
  };
}
