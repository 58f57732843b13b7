/**
 * One Zelbin at a time on a database: a lock of the database server's own, held by a session. It ends with the process that holds it, however
 * that ends, so that nothing is left behind to be mistaken for a Zelbin that runs.
 */
import { setTimeout as pause } from "node:timers/promises";
import pg from "pg";

/** Told apart from every other lock on the server ("zelb" in letters). */
const KIND = 0x7a656c62;
/** One that was killed lets go as soon as the server sees that its connection is gone. */
const LET_GO_MS = 3000;
const BETWEEN_MS = 200;

/** Another Zelbin has it. */
export class InUse extends Error {
  constructor(what: string, who: string) {
    super(`${what} is open in another Zelbin already${who ? ` (${who})` : ""}. Stop that one first, with Ctrl-C in its window.`);
  }
}

export interface Held {
  /** False once another has it, after the server had gone. */
  isOurs: () => boolean;
  /** Lets go of it. */
  release: () => Promise<void>;
  /** Keeps it to the server's end, and then no longer looks for it. */
  untilItEnds: () => void;
}

export interface Holding {
  /** Any database of the server; one that nothing else needs to itself. */
  server: string;
  /** What is held, and what it is called when another has it. */
  name: string;
  say: string;
  /** With others who hold it so too. */
  shared?: boolean;
}

async function take({ server, name, say, shared }: Holding): Promise<pg.Client> {
  const client = new pg.Client({ connectionString: server, application_name: `process ${process.pid} in ${process.cwd()}`.slice(0, 63) });
  client.on("error", () => undefined);
  await client.connect();
  try {
    const lock = `pg_try_advisory_lock${shared ? "_shared" : ""}($1, hashtext($2))`;
    const until = Date.now() + LET_GO_MS;
    do {
      const { rows } = await client.query<{ ours: boolean }>(`select ${lock} as ours`, [KIND, name]);
      if (rows[0]!.ours) return client;
      await pause(BETWEEN_MS);
    } while (Date.now() < until);
    const { rows } = await client.query<{ who: string }>(
      `select a.application_name as who from pg_locks l join pg_stat_activity a on a.pid = l.pid
       where l.locktype = 'advisory' and l.granted and l.classid::bigint = $1 and l.objid::bigint = hashtext($2)::bigint & 4294967295 limit 1`,
      [KIND, name],
    );
    throw new InUse(say, rows[0]?.who ?? "");
  } catch (e) {
    await client.end();
    throw e;
  }
}

/**
 * Holds a database until it is released. Where the server goes and comes back, it is held again.
 * @throws InUse when another has it
 */
export async function hold(what: Holding): Promise<Held> {
  let released = false;
  let ours = true;
  let client: pg.Client;
  const keep = (fresh: pg.Client): void => {
    client = fresh;
    client.once("end", () => void again());
  };
  const again = async (): Promise<void> => {
    while (!released)
      try {
        await pause(BETWEEN_MS, undefined, { ref: false });
        keep(await take(what));
        return;
      } catch (e) {
        if (!(e instanceof InUse)) continue;
        ours = false;
        console.error(`${e.message} It was opened there while the database was away; this one stops.`);
        process.kill(process.pid, "SIGTERM");
        return;
      }
  };
  keep(await take(what));
  return {
    isOurs: () => ours,
    untilItEnds: () => {
      released = true;
    },
    release: async () => {
      released = true;
      await client.end().catch(() => undefined);
    },
  };
}
