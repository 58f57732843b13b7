/** The workshop whose page is being served: its database, and the house it is in. */
import { WORKSHOPS, type WorkshopKind } from "#core/workshop";
import { openDb, type Db } from "#db/client";
import type { Workshops } from "#db/workshops";
import type { Bench } from "#devices/wire";

export interface Serving {
  kind: WorkshopKind;
  db: Db;
  house: Workshops;
  /** The scale and the thermometer on the bench; none where none is started. */
  bench: Bench | null;
}

declare global {
  /** Set by the server: which workshop the request at hand is for. */
  var zelbinServing: (() => Serving | undefined) | undefined;
  /** In development, in tests and in scripts: the one there is. */
  var zelbinDb: ReturnType<typeof openDb> | undefined;
}

export const serving = (): Serving | undefined => globalThis.zelbinServing?.();

/** @throws Error when there is none, nor DATABASE_URL */
export function db(): Db {
  const open = serving();
  if (open) return open.db;
  if (!globalThis.zelbinDb) {
    if (!process.env.DATABASE_URL) throw new Error("Set DATABASE_URL, or use npm start, which brings its own database.");
    globalThis.zelbinDb = openDb(process.env.DATABASE_URL);
  }
  return globalThis.zelbinDb;
}

/** The base path of the workshop at hand. */
export const home = (): string => {
  const open = serving();
  return open ? WORKSHOPS[open.kind].home : "/";
};

/** What the scale and the thermometer show now; null for one that isn't there. */
export const benchShows = () => {
  const bench = serving()?.bench;
  return { scale: bench?.scale.now() ?? null, thermometer: bench?.thermometer.now() ?? null };
};
