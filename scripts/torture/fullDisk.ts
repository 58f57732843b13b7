/**
 * A disk that fills up under the server: writers are told so, nothing acknowledged is lost, and it goes on by itself once there is room.
 */
import { openDb } from "#db/client";
import { databaseOutage } from "#db/outage";
import { material } from "#db/schema";
import { receiveMany } from "#db/shelf/receipts/receive";
import { DAY } from "#test/db/jar";
import { sql } from "drizzle-orm";
import { spawnSync } from "node:child_process";
import { closeSync, mkdirSync, openSync, renameSync, rmSync, writeSync } from "node:fs";
import { join } from "node:path";
import type { Found } from "./found.ts";
import { longList } from "./imports.ts";
import type { Keeper } from "./keeper.ts";
import { pause, write } from "./writing.ts";

const WINDOWS = 4;
/** Room on the small disk beside what is on it. */
const ROOM_MB = 80;
const FULL_MS = 8000;
const BACK_WITHIN_MS = 60_000;

const runs = (command: string, ...args: string[]): { ok: boolean; out: string } => {
  const { status, stdout } = spawnSync(command, args, { encoding: "utf8" });
  return { ok: status === 0, out: stdout };
};

/** Writes until there is no room for a single byte more. */
function fill(file: string): void {
  const to = openSync(file, "w");
  for (let size = 1_000_000; size >= 1; size = Math.floor(size / 10))
    try {
      for (;;) writeSync(to, Buffer.alloc(size));
    } catch {
      // As much as went in is in; smaller pieces fill the rest.
    }
  closeSync(to);
}

/** Moves a stopped cluster onto a separate disk, in memory. @returns whether this machine allows it */
function ontoASmallDisk(home: string): boolean {
  const was = `${home}.was`;
  const mb = Number(runs("du", "-sm", home).out.split("\t")[0]) + ROOM_MB;
  renameSync(home, was);
  mkdirSync(home);
  const mounted = runs("mount", "-t", "tmpfs", "-o", `size=${mb}m,mode=700`, "tmpfs", home).ok;
  if (mounted) runs("cp", "-a", `${was}/.`, home);
  else renameSync(was, home);
  return mounted;
}

/** Moves it back to where it was, as it is now. */
function offTheSmallDisk(home: string): void {
  const was = `${home}.was`;
  rmSync(was, { recursive: true });
  runs("cp", "-a", home, was);
  // Unmounted at once, even while in use.
  runs("umount", "-l", home);
  rmSync(home, { recursive: true });
  renameSync(was, home);
}

/** Puts lists as long as are taken in on the shelf until one doesn't go any more. @returns what was said then */
async function putUntilFull(keeper: Keeper): Promise<unknown> {
  const db = openDb(keeper.open.database);
  try {
    const [any] = await db.select({ id: material.id }).from(material).limit(1);
    for (;;) await receiveMany(db, { add: [], receipts: longList(any!.id, 20_000) }, { day: DAY });
  } catch (e) {
    return e;
  } finally {
    await db.close().catch(() => undefined);
  }
}

/** Writes into the database's log until that has no room either, which it can't go on without. @returns whether it came to that */
async function fillTheLog(keeper: Keeper): Promise<boolean> {
  const db = openDb(keeper.open.database);
  try {
    for (let mb = 0; mb < 100; mb++) await db.execute(sql`select pg_logical_emit_message(false, 'full', repeat('x', 1000000))`);
    return false;
  } catch {
    return true;
  } finally {
    await db.close().catch(() => undefined);
  }
}

/** @param keeper of a house that is open */
export async function fullDisk(keeper: Keeper): Promise<Found> {
  await keeper.stop();
  const { home } = keeper;
  if (!ontoASmallDisk(home)) {
    await keeper.start();
    return { figures: { "not tried": "this machine lets no small disk be made" }, faults: [] };
  }
  try {
    await keeper.start();
    const writing = await write(keeper, WINDOWS);
    await pause(1000);
    fill(join(home, "filler"));
    const end = await putUntilFull(keeper);
    await pause(FULL_MS / 2);
    const down = await fillTheLog(keeper);
    await pause(FULL_MS);
    const whenFull = writing.acknowledged.length;
    const said = [...writing.refusals.keys()];
    rmSync(join(home, "filler"));
    const began = performance.now();
    while (writing.acknowledged.length < whenFull + 2 * WINDOWS && performance.now() - began < BACK_WITHIN_MS) await pause(100);
    const back = performance.now() - began;
    const { acknowledged, lost, faults } = await writing.stop();
    if (!databaseOutage(end)) faults.push(`a long list was refused for another reason: ${String(end)}`);
    if (down && said.at(-1) !== 507) faults.push("it was not said that the disk is full");
    for (const [status, words] of writing.refusals)
      if (status !== 503 && status !== 507) faults.push(`${status} on a full disk: ${words.slice(0, 200)}`);
    return {
      figures: {
        "a long list was told": databaseOutage(end)?.kind ?? "nothing",
        "its log was full too": down ? "yes" : "no",
        "who wrote was answered": said.join(", "),
        "acknowledged acts": acknowledged,
        "of them lost": lost,
        "went on after, ms": Math.round(back),
      },
      faults,
    };
  } finally {
    await keeper.stop();
    offTheSmallDisk(home);
  }
}
