/** Bringing a database up to date: copied first, all or nothing, never backwards, and each failure in words. */
import { sql } from "drizzle-orm";
import { randomBytes } from "node:crypto";
import { cpSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { afterEach, beforeEach, expect, it } from "vitest";
import { openDb, type OpenDb } from "./client.ts";
import { readText, rowsOf } from "./columnsOf.ts";
import { bringUpToDate } from "./migrating.ts";
import { databaseOutage } from "./outage.ts";

let admin: OpenDb;
let name: string;
let url: string;
let folder: string;
let steps: number;

/** One more step, as the next version of Zelbin would bring. */
function nextStep(tag: string, statement: string): void {
  const at = join(folder, "meta/_journal.json");
  const journal = JSON.parse(readFileSync(at, "utf8")) as {
    entries: { idx: number; version: string; when: number; tag: string; breakpoints: boolean }[];
  };
  const last = journal.entries.at(-1)!;
  journal.entries.push({ ...last, idx: last.idx + 1, when: last.when + ++steps, tag });
  writeFileSync(at, JSON.stringify(journal));
  writeFileSync(join(folder, `${tag}.sql`), statement);
}
const on = async <T>(at: string, work: (db: OpenDb) => Promise<T>): Promise<T> => {
  const db = openDb(at);
  try {
    return await work(db);
  } finally {
    await db.close();
  }
};
const copies = async () =>
  (
    await rowsOf(
      admin,
      { name: readText },
      sql`select datname as name from pg_database where starts_with(datname, ${`${name}_before_`}) order by 1`,
    )
  ).map((r) => r.name);

beforeEach(async () => {
  admin = openDb(process.env.DATABASE_URL!);
  name = `step_${randomBytes(4).toString("hex")}`;
  url = process.env.DATABASE_URL!.replace(/\/[^/]*$/, `/${name}`);
  await admin.execute(sql.raw(`create database ${name}`));
  folder = mkdtempSync(join(tmpdir(), "steps-"));
  cpSync("db/migrations", folder, { recursive: true });
  steps = 0;
  await bringUpToDate(url, { folder });
});
afterEach(async () => {
  rmSync(folder, { recursive: true });
  for (const n of [name, ...(await copies())]) await admin.execute(sql.raw(`drop database if exists ${n} with (force)`));
  await admin.close();
});

it("copies what is there before a step, keeps the last two copies, and does nothing where nothing is to be done", async () => {
  await bringUpToDate(url, { folder });
  expect(await copies()).toEqual([]);
  for (const n of [1, 2, 3]) {
    nextStep(`900${n}_more`, `create table more_${n} (n integer)`);
    await bringUpToDate(url, { folder });
  }
  expect(await copies()).toEqual([`${name}_before_9002`, `${name}_before_9003`]);
  const copied = process.env.DATABASE_URL!.replace(/\/[^/]*$/, `/${name}_before_9003`);
  await on(copied, async (db) => {
    await db.execute(sql`select * from more_2`);
    await expect(db.execute(sql`select * from more_3`)).rejects.toThrow();
  });
});

it("a step that fails says which and why and leaves everything as it was; one that can't be copied isn't begun", async () => {
  nextStep("9001_fine", "create table more (n integer)");
  nextStep("9002_breaks", "alter table nobody add column n integer");
  await expect(bringUpToDate(url, { folder })).rejects.toThrow(
    new RegExp(`step 9002_breaks: relation "nobody" does not exist. It is as it was before, and the copy ${name}_before_9001 is kept`),
  );
  await on(url, async (db) => {
    await expect(db.execute(sql`select * from more`)).rejects.toThrow();
    // Somebody has it open: it can't be copied.
    await db.execute(sql`select 1`);
    await expect(bringUpToDate(url, { folder })).rejects.toThrow(/is copied, and that failed: .*being accessed.* nothing was changed/);
  });
});

it("a database that a newer Zelbin kept is left alone", async () => {
  nextStep("9001_newer", "create table newer (n integer)");
  await bringUpToDate(url, { folder });
  await expect(bringUpToDate(url)).rejects.toThrow("kept by a newer Zelbin than this one");
});

it("tells a database that is away, or has no room, from a fault of ours", async () => {
  await expect(openDb("postgres://nobody@127.0.0.1:1/none").execute(sql`select 1`)).rejects.toSatisfy(
    (e) => databaseOutage(e)?.kind === "away",
  );
  const lost = admin.transaction(async (tx) => {
    const [{ pid }] = (await tx.execute(sql`select pg_backend_pid() as pid`)).rows as [{ pid: number }];
    await admin.execute(sql`select pg_terminate_backend(${pid})`);
    await tx.execute(sql`select 1`);
  });
  await expect(lost).rejects.toSatisfy((e) => databaseOutage(e)?.kind === "away");
  // And it goes on by itself.
  await admin.execute(sql`select 1`);
  expect(databaseOutage(Object.assign(new Error("x"), { cause: Object.assign(new Error("y"), { code: "53100" }) }))).toMatchObject({
    status: 507,
  });
  await expect(admin.execute(sql`select 1 from nobody`)).rejects.toSatisfy((e) => databaseOutage(e) === null);
});
