/** A migrated database to copy from, made once before the tests: copying is much quicker than migrating again for every test. */
import { sql } from "drizzle-orm";
import { openDb } from "#db/client";
import { bringUpToDate } from "#db/migrating";

export const TEMPLATE = "zelbin_template";

export const addressOf = (server: string, name: string): string => server.replace(/\/[^/]*$/, `/${name}`);

export function serverOfTests(): string {
  const server = process.env.DATABASE_URL;
  if (!server) throw new Error("Run these through npm test: they need DATABASE_URL.");
  return server;
}

export default async function setup(): Promise<void> {
  const server = serverOfTests();
  const admin = openDb(server);
  await admin.execute(sql.raw(`drop database if exists ${TEMPLATE}`));
  await admin.execute(sql.raw(`create database ${TEMPLATE}`));
  await admin.close();
  await bringUpToDate(addressOf(server, TEMPLATE));
}
