/**
 * A workshop of one's own that an earlier Zelbin stored in its own folder, beside the demo, moves once to the folder of the user's books: copied
 * whole, compared table by table, and only then opened there. The old one stays where it was, under another name, and is never dropped.
 */
import { mkdtempSync, rmSync } from "node:fs";
import { dirname, join } from "node:path";
import pg from "pg";
import { isBegun } from "./make.ts";
import { runClients } from "./program.ts";
import type { Cluster } from "./cluster.ts";

/** Called so beside the demo by an earlier Zelbin; and once it has moved. */
const OLD = "zelbin_own";
const MOVED = "zelbin_own_moved";
const NEW = "zelbin";
const ARRIVING = "zelbin_arriving";

async function on<T>(url: string, work: (client: pg.Client) => Promise<T>): Promise<T> {
  const client = new pg.Client({ connectionString: url });
  await client.connect();
  try {
    return await work(client);
  } finally {
    await client.end();
  }
}

/** What a server's catalogue tells of a database. */
const saidOf = (server: string, name: string): Promise<string | null> =>
  on(server, async (c) => {
    const { rows } = await c.query<{ said: string | null }>(
      "select shobj_description(oid, 'pg_database') as said from pg_database where datname = $1",
      [name],
    );
    return rows[0]?.said ?? null;
  });

const say = (server: string, name: string, what: string): Promise<unknown> =>
  on(server, (c) => c.query(`comment on database ${pg.escapeIdentifier(name)} is ${pg.escapeLiteral(what)}`));

const rename = (server: string, from: string, to: string): Promise<unknown> =>
  on(server, (c) => c.query(`alter database ${pg.escapeIdentifier(from)} rename to ${pg.escapeIdentifier(to)}`));

/** Every table with its rows counted and summed up by what is in them, so that two databases that say the same hold the same. */
const contents = (url: string): Promise<string[]> =>
  on(url, async (c) => {
    const { rows: tables } = await c.query<{ name: string }>(
      "select format('%I.%I', schemaname, tablename) as name from pg_tables where schemaname !~ '^pg_' and schemaname <> 'information_schema' order by 1",
    );
    const found: string[] = [];
    for (const { name } of tables) {
      const { rows } = await c.query<{ n: string; sum: string }>(
        `select count(*) as n, coalesce(sum(hashtextextended(t::text, 0)::numeric), 0)::text as sum from ${name} t`,
      );
      found.push(`${name} ${rows[0]!.n} ${rows[0]!.sum}`);
    }
    return found;
  });

/** Copies a database into another, empty one. @throws Error saying which half failed */
function copy(from: string, to: string, beside: string): void {
  const scratch = mkdtempSync(join(beside, "moving-"));
  const file = join(scratch, "books.dump");
  try {
    for (const [program, url, args] of [
      ["pg_dump", from, ["--format=custom", `--file=${file}`]],
      ["pg_restore", to, ["--exit-on-error", "--single-transaction", file]],
    ] as const) {
      const { ok, out } = runClients(program, url, [...args]);
      if (!ok) throw new Error(out.trim());
    }
  } finally {
    rmSync(scratch, { recursive: true });
  }
}

/**
 * Moves it where there is one beside the demo and none in the books' folder yet.
 * @param books starts the cluster of that folder, making it where there is none
 * @param at that cluster's folder
 * @returns the message to print; null where there was nothing to move
 * @throws Error where it couldn't be copied true; the old one is as it was then
 */
export async function moveBooks(demo: Cluster, demoAt: string, books: () => Promise<Cluster>, at: string): Promise<string | null> {
  const server = demo.at("postgres");
  if (!(await demo.has(OLD))) return null;
  const mark = `Moved here by Zelbin from ${demoAt}`;
  const done = `Your own workshop has moved to ${dirname(at)}, where every clone finds it. What stood in ${demoAt} is kept there as ${MOVED}.`;
  const begun = isBegun(at);
  const cluster = await books();
  const there = cluster.at("postgres");
  const finish = async (): Promise<string> => {
    const name = (await demo.has(MOVED)) ? `${MOVED}_${Date.now()}` : MOVED;
    await say(server, OLD, `Moved by Zelbin to ${at}; kept as it was`);
    await rename(server, OLD, name);
    // From now on another one beside the demo is another workshop.
    await say(there, NEW, `${mark}, whole`);
    return done;
  };
  if (begun && (await cluster.has(NEW))) {
    // Cut off between the two last steps of the move.
    if ((await saidOf(there, NEW)) === mark) return finish();
    return `There is a workshop of your own in ${dirname(at)}, and another, from before, in ${demoAt}. The first is opened; the other is left as it is. To open that one instead, start with ZELBIN_BOOKS naming an empty folder: it moves there.`;
  }
  // What a move that was cut off left half-way.
  if ((await saidOf(there, ARRIVING)) === mark) await on(there, (c) => c.query(`drop database ${ARRIVING}`));
  await on(there, (c) => c.query(`create database ${ARRIVING}`));
  await say(there, ARRIVING, mark);
  try {
    copy(demo.at(OLD), cluster.at(ARRIVING), dirname(at));
    const [was, is] = [await contents(demo.at(OLD)), await contents(cluster.at(ARRIVING))];
    const other = was.filter((t) => !is.includes(t));
    if (other.length > 0 || was.length !== is.length) throw new Error(`${other.join(", ") || "a table"} came out otherwise`);
  } catch (e) {
    throw new Error(
      `Your own workshop couldn't be moved to ${dirname(at)}: ${e instanceof Error ? e.message : String(e)}\nIt stands untouched in ${demoAt}, and the next start tries again.`,
    );
  }
  await rename(there, ARRIVING, NEW);
  return finish();
}
