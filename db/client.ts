/**
 * The connection to PostgreSQL. Everything in db/ takes the `Db` it works on, so that tests and scripts can bring their own.
 */
import { isObject } from "#core/objects";
import { createHash } from "node:crypto";
import { drizzle } from "drizzle-orm/node-postgres";
import type { Logger } from "drizzle-orm/logger";
import pg from "pg";
import { databaseOutage } from "./outage.ts";
import * as schema from "./schema.ts";
import { OURS } from "./schema/ours.ts";

/**
 * What every connection is opened with. Statements are prepared once and their plans cached: planning again takes longer than most of them run, and
 * compiling always does. Nothing that hangs holds what others wait for.
 */
export const CLIENT_OPTIONS = [
  `search_path=${OURS}`,
  "plan_cache_mode=force_generic_plan",
  "jit=off",
  // All of it is in memory: a row looked up costs little more than one read on the way.
  "random_page_cost=1.1",
  "statement_timeout=60s",
  "lock_timeout=60s",
  "idle_in_transaction_session_timeout=60s",
]
  .map((o) => `-c ${o}`)
  .join(" ");

/**
 * So many statements have their plans cached on a connection, and only those asked this often, and no longer than this: a list of changing length is
 * another one each time, and rows written by the thousand make a statement as long as a book.
 */
const MOST_PLANNED = 500;
const LONGEST_PLANNED = 10_000;
const PLANNED_FROM = 3;
const planned = new Map<string, string>();
/** How often the others were asked lately. */
const asked = new Map<string, number>();

/** The name a statement is prepared under; none while it was asked for only now and then. */
function plannedAs(text: string): string | undefined {
  const name = planned.get(text);
  if (name !== undefined || text.length > LONGEST_PLANNED || planned.size >= MOST_PLANNED) return name;
  const times = (asked.get(text) ?? 0) + 1;
  if (times < PLANNED_FROM) {
    if (asked.size >= MOST_PLANNED) asked.clear();
    asked.set(text, times);
    return undefined;
  }
  asked.delete(text);
  const fresh = createHash("md5").update(text).digest("hex");
  planned.set(text, fresh);
  return fresh;
}

/** Prepares whatever is asked again and again, so that it is planned once for each connection. */
class Planning extends pg.Client {
  // The driver's own signatures are many; whatever is asked goes on as it came.
  override query = ((what: unknown, ...rest: unknown[]) => {
    const config = isObject(what) && typeof what.text === "string" && what.name === undefined ? what : null;
    const name = config && plannedAs(config.text as string);
    return (super.query as (...all: unknown[]) => unknown)(name ? { ...config, name } : what, ...rest);
  }) as pg.Client["query"];
}

/** How long a new connection may take before the database counts as away. */
const CONNECT_MS = 5000;

/** An address without the options it names, which go to the server before ours: of two alike the last counts. */
function withOptions(url: string, ours: string): { connectionString: string; options: string } {
  const at = new URL(url);
  const theirs = at.searchParams.get("options");
  at.searchParams.delete("options");
  return { connectionString: at.href, options: [theirs, ours].filter(Boolean).join(" ") };
}

/**
 * Opens a pool; `close` ends it.
 * @param url a postgres:// address
 * @param patient for work on a whole database, which takes as long as it takes
 * @param schema in which patient work looks names up
 * @param readOnly PostgreSQL itself refuses whatever would change something
 */
export function openDb(url: string, logger?: Logger, { patient = false, schema: path = OURS, readOnly = false } = {}) {
  const options = [patient ? `-c search_path=${path}` : CLIENT_OPTIONS, ...(readOnly ? ["-c default_transaction_read_only=on"] : [])];
  const pool = new pg.Pool({
    ...withOptions(url, options.join(" ")),
    max: 10,
    ...(patient ? {} : { Client: Planning }),
    connectionTimeoutMillis: CONNECT_MS,
  });
  let closing = false;
  // An idle connection that the server drops is replaced at the next query; without a listener it would end the process.
  pool.on("error", (e) => {
    if (!closing) console.error(`database connection lost: ${e.message}`);
  });
  // So would one that is lost in the middle of its work, though the query at hand is told of it.
  pool.on("connect", (client) => client.on("error", () => undefined));
  const how = { schema, casing: "snake_case", logger } as const;
  const db = drizzle(pool, how);
  const on = new WeakMap<pg.PoolClient, typeof db>();
  /** As Drizzle's own, but a connection that is lost while the transaction is begun or taken back is let go of as well, not only one lost in it. */
  const transaction: typeof db.transaction = async (work, config) => {
    const client = await pool.connect();
    let bound = on.get(client);
    if (!bound) on.set(client, (bound = drizzle(client, how) as unknown as typeof db));
    let lost = false;
    try {
      return await bound.transaction(work, config);
    } catch (e) {
      lost = databaseOutage(e)?.kind === "away";
      throw e;
    } finally {
      client.release(lost);
    }
  };
  const close = (): Promise<void> => {
    closing = true;
    return pool.end();
  };
  return Object.assign(db, { transaction, close });
}

export type OpenDb = ReturnType<typeof openDb>;
export type Db = Omit<OpenDb, "close" | "$client">;
/** A transaction, or the database itself where only reading is done. */
export type Tx = Parameters<Parameters<Db["transaction"]>[0]>[0];
export type Reads = Db | Tx;
