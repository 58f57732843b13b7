/** Databases and houses for tests, made for one run and removed after it. */
import { mkdirSync, mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { openBackups } from "#db/backups/backups";
import { openDb } from "#db/client";
import { readText, rowsOf } from "#db/columnsOf";
import { sql } from "drizzle-orm";
import { startCluster } from "../cluster/cluster.ts";
import { openHouse } from "../database.ts";
import { startDevices, type Devices } from "../devices.ts";
import { DATA, freePort } from "../places.ts";
import { serve } from "../server/serve.ts";

const undo: (() => unknown)[] = [];

/** Removes all that was made, the newest first. */
export async function removeAll(): Promise<void> {
  for (const u of undo.splice(0).reverse()) await u();
}

/** A folder for what the tools report. */
export function reportsFolder(): string {
  mkdirSync(DATA, { recursive: true });
  const reports = mkdtempSync(join(DATA, "reports-"));
  undo.push(() => rmSync(reports, { recursive: true, force: true }));
  return reports;
}

/** The server that `DATABASE_URL` names, or a throw-away one. @returns its address */
export async function testServer(): Promise<string> {
  return process.env.DATABASE_URL ?? (await throwAwayCluster());
}

async function throwAwayCluster(): Promise<string> {
  console.log("\nStarting a throw-away database …");
  const cluster = await startCluster(join(DATA, `test-${process.pid}`), true);
  undo.push(cluster.stop);
  return cluster.database();
}

/** A new database on a server, so that one that was there already is never touched. */
async function throwAwayDatabase(server: string, n: number): Promise<string> {
  const name = `zelbin_test_${process.pid}_${n}`;
  const admin = openDb(server);
  await admin.execute(sql.raw(`create database ${name}`));
  undo.push(async () => {
    const all = await rowsOf(
      admin,
      { name: readText },
      sql`select datname as name from pg_database where datname = ${name} or starts_with(datname, ${`${name}_own`})`,
    );
    for (const one of all) await admin.execute(sql`drop database ${sql.identifier(one.name)} with (force)`);
    await admin.close();
  });
  return server.replace(/\/[^/?]*(\?|$)/, `/${name}$1`);
}

/** A house for journeys, with its own database and demo. */
export async function throwAwayHouse(server: string, n: number): Promise<{ url: string; database: string; devices: Devices }> {
  const database = await throwAwayDatabase(server, n);
  const house = await openHouse(database);
  undo.push(house.close);
  const devices = startDevices();
  undo.push(devices.stop);
  const home = mkdtempSync(join(tmpdir(), "zelbin-backups-"));
  undo.push(() => rmSync(home, { recursive: true, force: true }));
  const backups = await openBackups({ home, workshops: house, byThemselves: false });
  undo.push(backups.close);
  const site = await serve(house, await freePort(), { bench: devices, backups });
  undo.push(site.close);
  return { url: site.url, database, devices };
}
