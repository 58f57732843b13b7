/** A database that isn't ours, or holds more than what is ours: nothing of another hand's is ever changed or dropped. */
import { sql } from "drizzle-orm";
import { migrate } from "drizzle-orm/node-postgres/migrator";
import { randomBytes } from "node:crypto";
import { cpSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { afterEach, beforeEach, expect, it } from "vitest";
import { openDb, type Db, type OpenDb } from "./client.ts";
import { readBoolean, readText, rowsOf } from "./columnsOf.ts";
import { bringUpToDate } from "./migrating.ts";
import { material } from "./schema.ts";
import { saveMaterial } from "./shelf/keepMaterial.ts";
import { addressOf } from "#test/db/template";
import { refused } from "#test/db/workshop";
import { openWorkshops, ownAddress } from "./workshops/workshops.ts";

const SERVER = process.env.DATABASE_URL!;
let admin: OpenDb;
let name: string;
let url: string;

const on = async <T>(at: string, work: (db: OpenDb) => Promise<T>): Promise<T> => {
  const db = openDb(at, undefined, { patient: true, schema: "public" });
  try {
    return await work(db);
  } finally {
    await db.close();
  }
};
const theirs = (db: Db) => db.execute(sql`create table ledger_of_bees (n integer); insert into ledger_of_bees values (7)`);
const theirsIsThere = async (at: string): Promise<void> =>
  expect((await on(at, (db) => db.execute(sql`select n from public.ledger_of_bees`))).rows).toEqual([{ n: 7 }]);
const schemas = (at: string) =>
  on(at, async (db) =>
    (await rowsOf(db, { name: readText }, sql`select nspname as name from pg_namespace where nspname !~ '^pg_' order by 1`)).map(
      (r) => r.name,
    ),
  );
const loadDemo = async (db: Db): Promise<void> => {
  await saveMaterial(db, { name: "Demo oil", kind: "oil" }, { day: "2026-05-04" });
};

beforeEach(async () => {
  admin = openDb(SERVER);
  name = `whose_${randomBytes(5).toString("hex")}`;
  url = addressOf(SERVER, name);
  await admin.execute(sql.raw(`create database ${name}`));
});
afterEach(async () => {
  const all = await rowsOf(admin, { name: readText }, sql`select datname as name from pg_database where starts_with(datname, ${name})`);
  for (const one of all) await admin.execute(sql.raw(`drop database ${one.name} with (force)`));
  await admin.close();
});

it("a database with another application's tables is refused in words, and nothing in it is changed", async () => {
  await on(url, theirs);
  await expect(openWorkshops(url, { loadDemo })).rejects.toThrow(
    `The database ${name} holds something else already (public.ledger_of_bees). Zelbin needs a database to itself`,
  );
  await theirsIsThere(url);
  expect(await schemas(url)).toEqual(["information_schema", "public"]);
  // So is one with functions or types alone, and one whose schema has our name and isn't marked as ours.
  for (const other of [
    "create function f() returns int language sql as 'select 1'",
    "create schema zelbin; create table zelbin.act (id integer)",
  ]) {
    await admin.execute(sql.raw(`drop database ${name}`));
    await admin.execute(sql.raw(`create database ${name}`));
    await on(url, (db) => db.execute(sql.raw(other)));
    await expect(bringUpToDate(url)).rejects.toThrow("holds something else already");
  }
});

it("what another hand puts beside a workshop outlives every reset; what rests on a workshop's tables stops one", async () => {
  const house = await openWorkshops(url, { loadDemo });
  await on(url, theirs);
  await house.resetDemo();
  await theirsIsThere(url);
  await on(url, (db) => db.execute(sql`create view stock_of_mine as select id from zelbin.material`));
  await expect(house.resetDemo()).rejects.toThrow("public.stock_of_mine is not Zelbin's and would go with it");
  await on(url, (db) => db.execute(sql`drop view stock_of_mine; create table zelbin.notes_of_mine (n integer)`));
  await expect(house.resetDemo()).rejects.toThrow("zelbin.notes_of_mine is not Zelbin's");
  // The demo is still there for the next who asks.
  expect(await (await house.of("demo"))!.$count(material)).toBe(1);
  await house.close();
});

it("where one's own would stand is something else's: begin says so, and leaves it", async () => {
  await admin.execute(sql.raw(`create database ${name}_own`));
  const house = await openWorkshops(url, { loadDemo }).catch((e: unknown) => e);
  // An empty one is taken, as it always was.
  expect(house).not.toBeInstanceOf(Error);
  await (house as Awaited<ReturnType<typeof openWorkshops>>).close();
  await admin.execute(sql.raw(`drop database ${name}_own`));
  const again = await openWorkshops(url, { loadDemo });
  await admin.execute(sql.raw(`create database ${name}_own`));
  await on(ownAddress(url), theirs);
  expect((await refused(again.begin()))[0]!.say).toContain("holds something else already (public.ledger_of_bees)");
  await theirsIsThere(ownAddress(url));
  await again.close();
});

it("a workshop that an earlier Zelbin kept among another's tables moves into its own schema, and leaves theirs", async () => {
  const folder = mkdtempSync(join(tmpdir(), "steps-"));
  cpSync("db/migrations", folder, { recursive: true });
  const journal = join(folder, "meta/_journal.json");
  const all = JSON.parse(readFileSync(journal, "utf8")) as { entries: { idx: number }[] };
  writeFileSync(journal, JSON.stringify({ ...all, entries: all.entries.filter((e) => e.idx < 20) }));
  await on(url, async (db) => {
    await theirs(db);
    await migrate(db, { migrationsFolder: folder });
    await db.execute(sql`insert into material (name, kind, densities) values ('Kept oil', 'oil', '{}')`);
  });
  rmSync(folder, { recursive: true });
  await bringUpToDate(url);
  await theirsIsThere(url);
  expect(await schemas(url)).toEqual(["information_schema", "public", "zelbin"]);
  const db = openDb(url);
  expect(await db.select({ name: material.name }).from(material)).toEqual([{ name: "Kept oil" }]);
  // Its functions find their tables there: what is bought is counted.
  await saveMaterial(db, { name: "New oil", kind: "oil" }, { day: "2026-05-04" });
  await db.close();
  // Nothing is left to do, so that nothing is copied.
  await bringUpToDate(url);
});

it("of databases that are called like a copy only our own copies are ever dropped", async () => {
  await bringUpToDate(url);
  const folder = mkdtempSync(join(tmpdir(), "steps-"));
  cpSync("db/migrations", folder, { recursive: true });
  const journal = join(folder, "meta/_journal.json");
  for (const n of ["9001", "9002", "9003", "9004"]) await admin.execute(sql.raw(`create database ${name}_before_${n}`));
  await on(`${url}_before_9001`, theirs);
  for (const [i, n] of ["9001", "9002", "9003"].entries()) {
    const all = JSON.parse(readFileSync(journal, "utf8")) as { entries: { idx: number; when: number; tag: string }[] };
    const last = all.entries.at(-1)!;
    all.entries.push({ ...last, idx: last.idx + 1, when: last.when + 1, tag: `${n}_more` });
    writeFileSync(journal, JSON.stringify(all));
    writeFileSync(join(folder, `${n}_more.sql`), `create table more_${i} (n integer)`);
    await bringUpToDate(url, { folder });
  }
  rmSync(folder, { recursive: true });
  const copies = await rowsOf(
    admin,
    { name: readText, ours: readBoolean },
    sql`select datname as name, shobj_description(oid, 'pg_database') is not null as ours from pg_database where starts_with(datname, ${`${name}_before`}) order by 1`,
  );
  expect(copies.map((c) => [c.name.replace(`${name}_before_`, ""), c.ours])).toEqual([
    ["9001", false],
    ["9002", false],
    ["9002_2", true],
    ["9003", false],
    ["9003_2", true],
    ["9004", false],
  ]);
  await theirsIsThere(`${url}_before_9001`);
});
