/** A database of its own for a test file, migrated, in the cluster that DATABASE_URL names; dropped afterwards. */
import { randomBytes } from "node:crypto";
import { sql } from "drizzle-orm";
import { migrate } from "drizzle-orm/node-postgres/migrator";
import { micros } from "#core/measure/exact";
import { expect } from "vitest";
import { openDb, type OpenDb } from "../client.ts";
import { ledgerFaults } from "../ledger/faults.ts";

const TEMPLATE = "zelbin_template";

/** A migrated database to copy from, made once for a cluster: copying is much quicker than migrating anew for every test. */
async function template(admin: OpenDb, server: string): Promise<void> {
  const { rows } = await admin.execute(sql`select 1 from pg_database where datname = ${TEMPLATE}`);
  if (rows.length > 0) return;
  await admin.execute(sql.raw(`create database ${TEMPLATE}_new`));
  const db = openDb(addressOf(server, `${TEMPLATE}_new`));
  await migrate(db, { migrationsFolder: "db/migrations" });
  await db.close();
  await admin.execute(sql.raw(`alter database ${TEMPLATE}_new rename to ${TEMPLATE}`));
}

const addressOf = (server: string, name: string): string => server.replace(/\/[^/]*$/, `/${name}`);

export async function freshDb(): Promise<{ db: OpenDb; drop: () => Promise<void> }> {
  const server = process.env.DATABASE_URL;
  if (!server) throw new Error("Run these through npm test: they need DATABASE_URL.");
  const name = `test_${randomBytes(6).toString("hex")}`;
  const admin = openDb(server);
  await template(admin, server);
  await admin.execute(sql.raw(`create database ${name} template ${TEMPLATE}`));
  const db = openDb(addressOf(server, name));
  return {
    db,
    drop: async () => {
      await db.close();
      await admin.execute(sql.raw(`drop database ${name} with (force)`));
      await admin.close();
    },
  };
}

export const euro = (n: number) => micros(Math.round(n * 100) * 10_000);

/** The books are true. */
export const expectLedgerTrue = async (db: OpenDb): Promise<void> => expect(await ledgerFaults(db)).toEqual([]);
