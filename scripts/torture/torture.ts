/** Every part of the torture after the other, with its figures printed. */
import { sql } from "drizzle-orm";
import fc from "fast-check";
import { openDb } from "#db/client";
import { ledgerFaults } from "#db/ledger/faults";
import { bringUpToDate } from "#db/migrating";
import type { Found, InDatabase, Turns } from "./found.ts";
import { books } from "./books.ts";
import { fullDisk } from "./fullDisk.ts";
import { hostile } from "./hostile.ts";
import { imports } from "./imports.ts";
import { Keeper } from "./keeper.ts";
import { kills } from "./kills.ts";
import { leaving } from "./leaving.ts";
import { rivals } from "./rivals.ts";

const databasesOf =
  (server: string): InDatabase =>
  async (work) => {
    const name = `torture_${process.pid}`;
    const admin = openDb(server);
    const url = server.replace(/\/[^/?]*(\?|$)/, `/${name}$1`);
    await admin.execute(sql`drop database if exists ${sql.identifier(name)} with (force)`);
    await admin.execute(sql`create database ${sql.identifier(name)}`);
    try {
      await bringUpToDate(url);
      return await work(url);
    } finally {
      await admin.execute(sql`drop database if exists ${sql.identifier(name)} with (force)`);
      await admin.close();
    }
  };

/** A first start that is killed in making the cluster, in its steps or in its demo is begun again by the next. */
async function cutStarts(keeper: Keeper, { seed, times }: Turns): Promise<Found> {
  const after = fc.sample(fc.integer({ min: 400, max: 5000 }), { seed, numRuns: 2 * times });
  for (const ms of after) await keeper.cutOff(ms);
  await keeper.start();
  const db = openDb(keeper.open.database);
  const faults = await ledgerFaults(db);
  await db.close();
  return { figures: { "cut off after, ms": after.join(", ") }, faults };
}

/** @param server a database server to make databases on @returns how many parts held, and how many didn't */
export async function torture(server: string, turns: Turns): Promise<{ held: number; broke: number }> {
  const count = { held: 0, broke: 0 };
  const part = async (name: string, work: () => Promise<Found>): Promise<void> => {
    const began = performance.now();
    let found: Found;
    try {
      found = await work();
    } catch (e) {
      found = { figures: {}, faults: [e instanceof Error ? (e.stack ?? e.message) : String(e)] };
    }
    const { figures, faults } = found;
    console.log(`\n${name}, ${((performance.now() - began) / 1000).toFixed(0)} s`);
    for (const [say, n] of Object.entries(figures)) console.log(`  ${say.padEnd(44)}${n}`);
    for (const f of faults.slice(0, 40)) console.log(`  ✘ ${f.slice(0, 600)}`);
    if (faults.length > 0) count.broke++;
    else count.held++;
  };
  const inDatabase = databasesOf(server);
  await part("Rivals", () => rivals(inDatabase, turns));
  await part("Long lists", () => inDatabase((url) => imports(url, turns)));
  await part("Books that leave and come back", () => inDatabase((url) => leaving(url, turns)));
  await part("Where the books stand", () => books(server));
  const keeper = new Keeper(`torture-${process.pid}`);
  try {
    await part("First starts, cut off", () => cutStarts(keeper, turns));
    await part("Hostile posts and gets", () => hostile(keeper, turns));
    await part("Kills", () => kills(keeper, turns));
    await part("A full disk", () => fullDisk(keeper));
  } finally {
    await keeper.remove();
  }
  console.log(`\nSeed ${turns.seed}: npm run torture -- --seed ${turns.seed} --times ${turns.times} does the same again.`);
  return count;
}
