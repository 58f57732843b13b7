/**
 * Where the books stand, and what one slip may do to them: a second start, a reset beside an open one, a killed one, files that are missing,
 * books that an earlier Zelbin stored elsewhere, and a database that is somebody else's. Done to the very programs a user starts.
 */
import { openDb } from "#db/client";
import { addressOf } from "#test/db/template";
import { material } from "#db/schema";
import { saveMaterial } from "#db/shelf/keepMaterial";
import { openWorkshop, ownAddress } from "#db/workshops/workshops";
import { sql } from "drizzle-orm";
import { spawn, type ChildProcess } from "node:child_process";
import { existsSync, mkdirSync, readdirSync, readFileSync, realpathSync, renameSync, rmSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { startCluster, type Cluster } from "../cluster/cluster.ts";
import { DATA, freePort } from "../places.ts";
import type { Found } from "./found.ts";

/** What `npm start` runs, as it was built. */
const START = "build/start/start.js";
const RESET = "scripts/demo-reset.ts";
const DAY = "2026-05-04";
const MINE = "Own oil, never lost";

interface Run {
  child: ChildProcess;
  said: () => string;
  ended: Promise<number | null>;
  /** Its address, once it is open; null where it ended before. */
  open: Promise<string | null>;
}

function run(script: string, env: Record<string, string>, ...args: string[]): Run {
  const { DATABASE_URL: _url, PORT: _port, ...rest } = process.env;
  const child = spawn(process.execPath, [...(script === START ? [script] : ["--import", "tsx", script]), ...args], {
    stdio: ["ignore", "pipe", "pipe"],
    env: { ...rest, NODE_ENV: "production", ...env },
  });
  let said = "";
  const ended = new Promise<number | null>((done) => child.on("close", done));
  const open = new Promise<string | null>((done) => {
    for (const out of [child.stdout, child.stderr])
      out.on("data", (d: Buffer) => {
        said += d.toString();
        const url = /open at (\S+)[\s\S]*Ctrl-C closes/.exec(said)?.[1];
        if (url) done(url);
      });
    void ended.then(() => done(null));
  });
  return { child, said: () => said, ended, open };
}

/** A house of `npm start` in separate folders. */
class House {
  readonly folder = join(DATA, `books-${process.pid}`);
  readonly faults: string[] = [];
  readonly env: Record<string, string> = { ZELBIN_DEMO: join(this.folder, "demo"), ZELBIN_BOOKS: join(this.folder, "books") };
  readonly demo = join(this.folder, "demo", "cluster");
  readonly books = join(this.folder, "books", "cluster");

  holds(what: string, ok: boolean, said = ""): void {
    if (!ok) this.faults.push(`${what}${said ? `: ${said.slice(-400)}` : ""}`);
  }

  async start(env: Record<string, string> = {}): Promise<Run> {
    const started = run(START, { ...this.env, PORT: String(await freePort()), ...env });
    if ((await started.open) === null) throw new Error(`It didn't start: ${started.said()}`);
    return started;
  }

  async stop({ child, ended }: Run, signal: NodeJS.Signals = "SIGTERM"): Promise<void> {
    child.kill(signal);
    await ended;
  }

  async answers(of: Run): Promise<boolean> {
    const page = await fetch(`${await of.open}/demo`).catch(() => null);
    return page?.ok ?? false;
  }

  /** Starts it, and looks that it ends by itself with these words. */
  async refuses(what: string, words: RegExp, script = START, env: Record<string, string> = {}): Promise<void> {
    const args = script === RESET ? ["--yes"] : [];
    const no = run(script, { ...this.env, PORT: String(await freePort()), ...env }, ...args);
    if ((await no.open) !== null) await this.stop(no);
    this.holds(what, (await no.ended) === 1 && words.test(no.said()), no.said());
  }

  async inCluster<T>(dir: string, work: (cluster: Cluster) => Promise<T>): Promise<T> {
    const cluster = await startCluster(dir);
    try {
      return await work(cluster);
    } finally {
      cluster.stop();
    }
  }

  /** Whether the books hold what was put there. */
  async minesIsThere(): Promise<boolean> {
    return this.inCluster(this.books, async (cluster) => {
      const db = openDb(cluster.at("zelbin"));
      const names = await db.select({ name: material.name }).from(material);
      await db.close();
      return names.some((m) => m.name === MINE);
    });
  }

  remove(): void {
    for (const dir of [this.demo, this.books]) if (existsSync(dir)) rmSync(realpathSync(dir), { recursive: true, force: true });
    rmSync(this.folder, { recursive: true, force: true });
  }
}

/** As an earlier Zelbin left it: one's own as a database beside the demo's. */
const keptBeforeBesideTheDemo = (h: House): Promise<void> =>
  h.inCluster(h.demo, async (cluster) => {
    await cluster.database("zelbin_own");
    const own = await openWorkshop(ownAddress(cluster.at("zelbin")), "own", { loadDemo: () => Promise.resolve() });
    await saveMaterial(own, { name: MINE, kind: "oil" }, { day: DAY });
    await own.close();
  });

async function twice(h: House): Promise<void> {
  const first = await h.start();
  await h.refuses("a second start is refused", /open in another Zelbin already \(process \d+/);
  await h.refuses("so is a reset", /open in another Zelbin already/, RESET);
  h.holds("neither stops the first", await h.answers(first));
  const clone = { ZELBIN_DEMO: join(h.folder, "clone") };
  await h.refuses("so is a start from another clone, on the same books", /open in another Zelbin already/, START, clone);
  h.holds("which goes on", await h.answers(first));
  await h.stop(first, "SIGKILL");
  const next = await h.start();
  h.holds("after a kill the next takes over", await h.answers(next));
  await h.stop(next);
}

async function moved(h: House): Promise<void> {
  await keptBeforeBesideTheDemo(h);
  const first = await h.start();
  h.holds("it says that the books have moved", /Your own workshop has moved to/.test(first.said()), first.said());
  h.holds("and where they are", first.said().includes(h.env.ZELBIN_BOOKS!), first.said());
  await h.stop(first);
  h.holds("they hold what they held", await h.minesIsThere());
  const kept = await h.inCluster(h.demo, async (cluster) => {
    const db = openDb(cluster.at("zelbin_own_moved"));
    const n = await db.$count(material);
    await db.close();
    return n;
  });
  h.holds("the old ones are kept", kept === 1);
  const again = await h.start();
  h.holds("they move once", !/moved/.test(again.said()), again.said());
  await h.stop(again);
  await keptBeforeBesideTheDemo(h);
  const two = await h.start();
  h.holds("of two neither is written over", /and another, from before/.test(two.said()), two.said());
  await h.stop(two);
  h.holds("nor lost", await h.minesIsThere());
}

/** Every file of a folder by its name and size. */
const filesOf = (dir: string): string =>
  readdirSync(dir, { recursive: true, encoding: "utf8" })
    .filter((f) => !f.includes("pg_") && !f.endsWith(".log"))
    .sort()
    .join("\n");

async function damaged(h: House): Promise<void> {
  const home = realpathSync(h.books);
  for (const [what, file, words] of [
    ["a lost PG_VERSION", join(home, "PG_VERSION"), /PG_VERSION is missing/],
    ["a lost password", `${h.books}.password`, /password of the database in .* is missing/],
    ["a lost folder", home, /that stood in .* is gone/],
  ] as const) {
    const before = filesOf(home);
    renameSync(file, `${file}.away`);
    await h.refuses(`${what} is named`, words);
    renameSync(`${file}.away`, file);
    h.holds(`${what} changes nothing`, filesOf(home) === before);
  }
  h.holds("put right, the books are there", await h.minesIsThere());
  const other = join(h.folder, "other", "cluster");
  mkdirSync(other, { recursive: true });
  writeFileSync(join(other, "letters.txt"), "mine");
  await h.refuses("a folder with something else in it is left alone", /isn't empty and holds no whole database/, START, {
    ZELBIN_BOOKS: join(h.folder, "other"),
  });
  h.holds("and what is in it stays", readFileSync(join(other, "letters.txt"), "utf8") === "mine");
}

/** @param server a database server to make databases on */
async function foreign(h: House, server: string): Promise<void> {
  const [theirs, empty] = [`books_theirs_${process.pid}`, `books_empty_${process.pid}`];
  const admin = openDb(server);
  for (const name of [theirs, empty]) await admin.execute(sql`create database ${sql.identifier(name)}`);
  const other = openDb(addressOf(server, theirs), undefined, { patient: true, schema: "public" });
  try {
    await other.execute(sql`create table hives (n integer)`);
    const at = { DATABASE_URL: addressOf(server, theirs) };
    await h.refuses("a start on another's database", /holds something else already \(public\.hives\)/, START, at);
    await h.refuses("a reset of another's database", /holds something else already/, RESET, at);
    h.holds("its table is there", (await other.execute(sql`select n from hives`)).rows.length === 0);
    const free = { DATABASE_URL: addressOf(server, empty) };
    const one = await h.start(free);
    const two = await h.start(free);
    h.holds("two may have one server's database open", (await h.answers(one)) && (await h.answers(two)));
    await h.refuses("but nobody resets it under them", /open in another Zelbin already/, RESET, free);
    await Promise.all([h.stop(one), h.stop(two)]);
    const reset = run(RESET, free, "--yes");
    h.holds("closed, it is reset", (await reset.ended) === 0, reset.said());
  } finally {
    await other.close();
    for (const name of [theirs, empty]) await admin.execute(sql`drop database if exists ${sql.identifier(name)} with (force)`);
    await admin.close();
  }
}

export async function books(server: string): Promise<Found> {
  const h = new House();
  try {
    const first = await h.start();
    await h.stop(first);
    await moved(h);
    await twice(h);
    await damaged(h);
    await foreign(h, server);
  } finally {
    h.remove();
  }
  return { figures: {}, faults: h.faults };
}
