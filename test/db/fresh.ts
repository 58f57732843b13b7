/** A database of its own for a test file, migrated, in the cluster that DATABASE_URL names; dropped afterwards. */
import { randomBytes } from "node:crypto";
import { sql } from "drizzle-orm";
import { micros } from "#core/measure/exact";
import { expect } from "vitest";
import { openDb, type OpenDb } from "#db/client";
import { ledgerFaults } from "#db/ledger/faults";
import { addressOf, serverOfTests, TEMPLATE } from "./template.ts";

export async function freshDb(): Promise<{ db: OpenDb; drop: () => Promise<void> }> {
  const server = serverOfTests();
  const name = `test_${randomBytes(6).toString("hex")}`;
  const admin = openDb(server);
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
