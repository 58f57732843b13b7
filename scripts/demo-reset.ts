/** `npm run demo:reset`: throws away what is in the database and loads the demo workshop again, after asking. */
import { sql } from "drizzle-orm";
import { join } from "node:path";
import { createInterface } from "node:readline/promises";
import { openDb } from "#db/client";
import { claim } from "./claim.ts";
import { prepareDb } from "./database.ts";
import { DATA, startCluster } from "./postgres.ts";

const yes = process.argv.includes("--yes");
if (!yes) {
  if (!process.stdin.isTTY) {
    console.error("This throws away everything that was entered. Run it in a terminal, or with --yes.");
    process.exit(1);
  }
  const ask = createInterface({ input: process.stdin, output: process.stdout });
  const where = process.env.DATABASE_URL ? ` in the database ${new URL(process.env.DATABASE_URL).pathname.slice(1)} of DATABASE_URL` : "";
  const answer = await ask.question(`This throws away everything${where} and loads the demo workshop. Type yes to go on: `);
  ask.close();
  if (answer.trim().toLowerCase() !== "yes") {
    console.log("Nothing was changed.");
    process.exit(0);
  }
}

let release = (): void => {};
try {
  const own = process.env.DATABASE_URL ? null : ((release = claim()), await startCluster(join(DATA, "cluster")));
  const url = process.env.DATABASE_URL ?? own!.url;
  const old = openDb(url);
  await old.execute(sql`drop schema if exists public cascade`);
  await old.execute(sql`drop schema if exists drizzle cascade`);
  await old.execute(sql`create schema public`);
  await old.close();
  const db = await prepareDb(url);
  await db.close();
  own?.stop();
  console.log("The demo workshop is as it was on the first day.");
} catch (e) {
  console.error(e instanceof Error ? e.message : e);
  process.exitCode = 1;
} finally {
  release();
}
