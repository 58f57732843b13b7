/** The workshop that the request at hand is for: its database, the house it is in, and what is on its bench. */
import { AsyncLocalStorage } from "node:async_hooks";
import { createContext, type MiddlewareFunction } from "react-router";
import { SERVED, type ServedKind } from "#core/workshop";
import { openDb, type Db } from "#db/client";
import type { Backups } from "#db/backups/backups";
import type { Workshops } from "#db/workshops/workshops";
import type { Bench } from "#devices/wire";

export interface Serving {
  kind: ServedKind;
  db: Db;
  house: Workshops;
  /** The scale and the thermometer on the bench; none where none is started. */
  bench: Bench | null;
  /** The backups of one's own; null where none are made. */
  backups: Backups | null;
}

/** What the web server gives with every request (`pages.server.ts`); null in development. */
export const servingContext = createContext<Serving | null>(null);

const atHand = new AsyncLocalStorage<Serving>();

/** Middleware of the root: whatever a loader or an action calls, however deep, finds the workshop of its request. */
export const serveWorkshop: MiddlewareFunction<Response> = ({ context }, next) => {
  const open = context.get(servingContext);
  return open ? atHand.run(open, next) : next();
};

let only: Partial<Serving> = {};

/** Every request from now on is for this one: for tests, which call loaders and actions without a web server. */
export const serveOnly = (open: Partial<Serving>): void => void (only = open);

/** @returns what the web server gave with the request at hand; nothing in development, what a test gave in tests */
export const serving = (): Partial<Serving> => atHand.getStore() ?? only;

let developed: Db | undefined;

/** @throws Error in development without DATABASE_URL */
export function db(): Db {
  const open = serving().db ?? developed;
  if (open) return open;
  if (!process.env.DATABASE_URL) throw new Error("Set DATABASE_URL, or use npm start, which brings its own database.");
  return (developed = openDb(process.env.DATABASE_URL));
}

/** The base path of the workshop at hand. */
export const home = (): string => {
  const { kind } = serving();
  return kind ? SERVED[kind].home : "/";
};

/** What the scale and the thermometer show now; null for one that isn't there. */
export const benchShows = () => {
  const { bench } = serving();
  return { scale: bench?.scale.now() ?? null, thermometer: bench?.thermometer.now() ?? null };
};
