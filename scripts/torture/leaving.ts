/**
 * Backups and restores killed at every tenth of their way: the last good backup stays good, what was being written never passes for one, and one's own
 * books are the old ones or the new ones, whole.
 */
import { openArchive } from "#db/archive/unzip";
import { madeAt } from "#db/backups/folder";
import { openDb } from "#db/client";
import { ledgerFaults } from "#db/ledger/faults";
import { material } from "#db/schema";
import { saveMaterial } from "#db/shelf/keepMaterial";
import { openWorkshops, ownAddress } from "#db/workshops/workshops";
import { sql } from "drizzle-orm";
import { spawn } from "node:child_process";
import { once } from "node:events";
import { mkdtempSync, readdirSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import type { Found, Turns } from "./found.ts";
import { aWorld } from "./world.ts";
import { pause } from "./writing.ts";

const CHILD = "scripts/torture/leavingChild.ts";
const DAY = "2026-05-04";

type What = "backup" | "restore";

/** Does it in a separate process, killed so long after it began, or run to its end where no time is given. @returns how long it took, and its code */
async function inAProgram(args: readonly string[], killAfter?: number): Promise<{ took: number; code: number | null }> {
  const child = spawn(process.execPath, ["--import", "tsx", CHILD, ...args], { stdio: ["ignore", "pipe", "inherit"] });
  const ended = once(child, "exit") as Promise<[number | null]>;
  await Promise.race([once(child.stdout, "data"), ended]);
  const began = performance.now();
  let took = 0;
  child.stdout.once("data", () => (took = performance.now() - began));
  if (killAfter !== undefined) {
    await pause(killAfter);
    child.kill("SIGKILL");
  }
  const [code] = await ended;
  return { took, code };
}

/** @param url of a demo's database that is there and empty; one's own is made beside it */
export async function leaving(url: string, { times }: Turns): Promise<Found> {
  const home = mkdtempSync(join(tmpdir(), "zelbin-leaving-"));
  const faults: string[] = [];
  const folder = join(home, "backups");
  const good = (): string[] => readdirSync(folder).filter((name) => madeAt(name) !== null);
  const run = (what: What, file: string, killAfter?: number) => inAProgram([url, home, what, file], killAfter);
  const inOwn = async <T>(work: (db: ReturnType<typeof openDb>) => Promise<T>): Promise<T> => {
    const db = openDb(ownAddress(url));
    try {
      return await work(db);
    } finally {
      await db.close();
    }
  };
  const change = (n: number): Promise<unknown> => inOwn((db) => saveMaterial(db, { name: `Oil ${n}`, kind: "oil" }, { day: DAY }));
  const names = (): Promise<string> =>
    inOwn(async (db) => (await db.select({ name: material.name }).from(material).orderBy(material.name)).map((m) => m.name).join(", "));
  const tenths = Array.from({ length: 9 }, (_, i) => (i + 1) / 10).filter((_, i) => times > 1 || i % 2 === 0);
  try {
    const house = await openWorkshops(url, { loadDemo: () => Promise.resolve() });
    await house.begin();
    await aWorld((await house.of("own"))!);
    await house.close();

    const whole = await run("backup", "");
    if (whole.code !== 0) faults.push("the first backup wasn't made");
    for (const [n, tenth] of tenths.entries()) {
      await change(n);
      const before = good();
      await run("backup", "", whole.took * tenth);
      const left = good();
      for (const name of before) if (!left.includes(name)) faults.push(`${name} is gone after a kill at ${tenth}`);
      for (const name of left)
        (await openArchive(join(folder, name)).catch((e: unknown) => void faults.push(`${name}: ${String(e)}`)))?.close();
    }
    await change(100);
    if ((await run("backup", "")).code !== 0) faults.push("no backup is made after the kills");
    const [oldest] = good().toSorted();
    const newer = await names();

    const back = await run("restore", oldest!);
    if (back.code !== 0) faults.push("the first restore didn't go");
    const older = await names();
    if (older === newer) faults.push("a restore changed nothing");
    let came = 0;
    for (const tenth of tenths) {
      await change(200);
      const now = await names();
      await run("restore", oldest!, back.took * tenth);
      // The next start: whatever was half-way is no workshop.
      const again = await openWorkshops(url, { loadDemo: () => Promise.resolve() });
      if (!(await again.of("own"))) faults.push(`no books after a kill at ${tenth}`);
      await again.close();
      const then = await names();
      if (then === older) came++;
      else if (then !== now) faults.push(`other books after a kill at ${tenth}: ${then}`);
      faults.push(...(await inOwn(ledgerFaults)));
      if (then !== older && (await run("restore", oldest!)).code !== 0) faults.push(`no restore after a kill at ${tenth}`);
    }
    const admin = openDb(url);
    const { rows } = await admin.execute(
      sql`select datname from pg_database where starts_with(shobj_description(oid, 'pg_database'), 'An archive being read by Zelbin')`,
    );
    await admin.close();
    if (rows.length > 0) faults.push(`databases left behind: ${JSON.stringify(rows)}`);
    return {
      figures: { "backups killed on their way": tenths.length, "restores killed": tenths.length, "of them done by then": came },
      faults,
    };
  } finally {
    rmSync(home, { recursive: true, force: true });
    const admin = openDb(url);
    const own = new URL(ownAddress(url)).pathname.slice(1);
    const { rows } = await admin.execute(sql`select datname from pg_database where starts_with(datname, ${own})`);
    for (const { datname } of rows) await admin.execute(sql`drop database ${sql.identifier(String(datname))} with (force)`);
    await admin.close();
  }
}
