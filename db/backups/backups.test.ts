/** Backups by the service that makes them: written while others write, checked, saved so many, and put back; each failure is reported and changes nothing. */
import { Refused } from "#core/refused";
import { sql } from "drizzle-orm";
import { randomBytes } from "node:crypto";
import { createReadStream } from "node:fs";
import { mkdir, mkdtemp, readdir, rm, stat, truncate, utimes, writeFile } from "node:fs/promises";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { setTimeout as pause } from "node:timers/promises";
import { afterEach, beforeEach, expect, it, vi } from "vitest";
import { loaded } from "#test/db/archives";
import { expectLedgerTrue } from "#test/db/fresh";
import { addressOf, serverOfTests } from "#test/db/template";
import { openDb, type OpenDb } from "../client.ts";
import { listMaterials } from "../shelf/materials.ts";
import { moveOut } from "../shelf/lots.ts";
import { receive } from "../shelf/receipts/receive.ts";
import { saveMaterial } from "../shelf/keepMaterial.ts";
import { openArchive } from "../archive/unzip.ts";
import { bringToStep, knownSteps, stepOf } from "../migrating.ts";
import { workshop } from "../schema.ts";
import { openWorkshop, openWorkshops, type Workshops } from "../workshops/workshops.ts";
import { backUpBefore, openBackups, type Backups } from "./backups.ts";
import { euro } from "#test/db/fresh";

const DAY = "2026-05-04";
let admin: OpenDb;
let name: string;
let home: string;
let house: Workshops;
let backups: Backups;

const own = async (): Promise<OpenDb> => (await house.of("own"))!;
const add = async (what: string): Promise<unknown> => saveMaterial(await own(), { name: what, kind: "oil" }, { day: DAY });
const names = async (): Promise<string[]> => (await listMaterials(await own())).map((m) => m.name);
const said = async () => (await backups.state()).ended;
const backUp = async () => {
  backups.begin();
  await backups.settled();
  return said();
};
const refusal = async (work: Promise<unknown>): Promise<string> => {
  const e: unknown = await work.then(
    () => null,
    (thrown: unknown) => thrown,
  );
  expect(e).toBeInstanceOf(Refused);
  return (e as Refused).message;
};

beforeEach(async () => {
  admin = openDb(serverOfTests());
  name = `house_${randomBytes(5).toString("hex")}`;
  home = await mkdtemp(join(tmpdir(), "zelbin-backups-"));
  await admin.execute(sql.raw(`create database ${name}`));
  house = await openWorkshops(addressOf(serverOfTests(), name), { loadDemo: () => Promise.resolve() });
  backups = await openBackups({ home, workshops: house, byThemselves: false });
});
afterEach(async () => {
  await backups.close();
  await house.close();
  const { rows } = await admin.execute(sql`select datname from pg_database where starts_with(datname, ${name})`);
  for (const { datname } of rows) await admin.execute(sql.raw(`drop database ${String(datname)} with (force)`));
  await admin.close();
  await rm(home, { recursive: true });
});

const filesIn = (folder: string) => readdir(join(home, folder));
const databases = async (): Promise<number> =>
  Number((await admin.execute(sql`select count(*)::int as n from pg_database where starts_with(datname, ${name})`)).rows[0]!.n);

it("makes one, and none where nothing has changed since; what is in it is what the books were", async () => {
  expect(await backUp()).toEqual({ what: "backup", ok: false, say: "There is no workshop of your own to back up yet." });
  await house.begin();
  await add("Olive oil");
  const first = await backUp();
  expect(first).toEqual({ what: "backup", ok: true, name: expect.stringMatching(/^zelbin-backup-[\d-]+\.zip$/) as string });
  expect(await backUp()).toEqual({ what: "backup", ok: true, name: null });
  expect(await filesIn("backups")).toEqual([(first as { name: string }).name]);
  const [made] = await backups.list();
  expect(made!.manifest!.newest[0]!.what).toContain("Olive oil");
  expect(await backups.state()).toMatchObject({ work: null, trouble: null, made: made!.made, byDefault: true });
  // What it was read back into is gone.
  expect(await databases()).toBe(2);
});

it("puts the books back to it and back again, to the row, and keeps what was there both times", async () => {
  await house.begin();
  await add("Olive oil");
  await backUp();
  await add("Coconut oil");
  const file = (await backups.list())[0]!.name;
  await backups.restore({ name: file });
  await backups.settled();
  const end = await said();
  expect(end).toMatchObject({ what: "restore", ok: true });
  expect(await names()).toEqual(["Olive oil"]);
  const { kept } = end as { kept: string };
  expect(await house.kept()).toEqual([kept]);
  await add("Hemp oil");
  const keptNow = await backups.goBack(kept);
  expect(await names()).toEqual(["Coconut oil", "Olive oil"]);
  expect(await house.kept()).toEqual([keptNow]);
  expect(await refusal(backups.goBack(kept))).toContain("There are no books called");
  expect(await names()).toEqual(["Coconut oil", "Olive oil"]);
});

it("opens one to be looked at, which nothing can be written to, and drops it once that is done with", async () => {
  const namesIn = async (db: OpenDb | null): Promise<string[]> => (await listMaterials(db!)).map((m) => m.name);
  await house.begin();
  await add("Olive oil");
  await backUp();
  await add("Coconut oil");
  const [made] = await backups.list();
  await backups.look({ name: made!.name });
  await backups.settled();
  expect(await said()).toEqual({ what: "look", ok: true });
  const looked = await house.of("look");
  expect(await namesIn(looked)).toEqual(["Olive oil"]);
  expect(house.lookedAt()!.newest[0]!.what).toContain("Olive oil");
  const written: unknown = await saveMaterial(looked!, { name: "Hemp oil", kind: "oil" }, { day: DAY }).catch((e: unknown) => e);
  expect(String((written as Error).cause ?? written)).toContain("read-only transaction");
  await expect(looked!.execute(sql`update material set name = 'Hemp oil'`)).rejects.toThrow();
  expect(await names()).toEqual(["Coconut oil", "Olive oil"]);
  expect(await databases()).toBe(3);
  // Another takes its place.
  await backUp();
  await backups.look({ name: (await backups.list())[0]!.name });
  await backups.settled();
  expect(await namesIn(await house.of("look"))).toEqual(["Coconut oil", "Olive oil"]);
  expect(await databases()).toBe(3);
  expect(await names()).toEqual(["Coconut oil", "Olive oil"]);
  await house.endLook();
  expect([await house.of("look"), house.lookedAt(), await databases()]).toEqual([null, null, 2]);
  expect(await refusal(backups.look({ name: "zelbin-backup-none.zip" }))).toContain("There is no backup called");
});

it("what a killed Zelbin had open to be looked at is dropped by the next, and what another has open isn't", async () => {
  await house.begin();
  await add("Olive oil");
  const end = await backUp();
  const archive = await openArchive(join(home, "backups", (end as { name: string }).name));
  const address = addressOf(serverOfTests(), name);
  const start = () => openWorkshops(address, { loadDemo: () => Promise.resolve() });
  const killed = await start();
  await killed.look(archive, {});
  archive.close();
  await listMaterials((await killed.of("look"))!);
  await (await start()).close();
  expect(await databases()).toBe(3);
  for (const kind of ["look", "own", "demo"] as const) await (await killed.of(kind))!.close();
  await (await start()).close();
  expect(await databases()).toBe(2);
});

it("opens an archive as the first books of a house, and refuses one that is damaged with all as it was", async () => {
  await house.begin();
  await add("Olive oil");
  await backUp();
  const file = (await backups.list())[0]!.name;
  const path = await backups.pathOf(file);
  const other = `${name}_other`;
  await admin.execute(sql.raw(`create database ${other}`));
  const elsewhere = await openWorkshops(addressOf(serverOfTests(), other), { loadDemo: () => Promise.resolve() });
  try {
    const there = await openBackups({ home: join(home, "elsewhere"), workshops: elsewhere, byThemselves: false });
    const { id, manifest } = await there.takeIn(createReadStream(path));
    expect(manifest.newest[0]!.what).toContain("Olive oil");
    expect(await there.takenIn(id)).toEqual(manifest);
    expect(await elsewhere.of("own")).toBeNull();
    await there.restore({ id });
    await there.settled();
    expect((await there.state()).ended).toEqual({ what: "restore", ok: true, kept: null });
    expect((await listMaterials((await elsewhere.of("own"))!)).map((m) => m.name)).toEqual(["Olive oil"]);
    expect(await there.takenIn(id)).toBeNull();
  } finally {
    await elsewhere.close();
  }
  // As it comes and as it is read through it says how far it is; stopped at either, nothing of it is kept.
  const { size } = await stat(path);
  const shares: number[] = [];
  await backups.takeIn(createReadStream(path), { size, onShare: (share) => void shares.push(share) });
  expect(shares).toEqual([...shares].sort((x, y) => x - y));
  expect([shares[0]! <= 0.5, shares.includes(0.5), shares.at(-1)]).toEqual([true, true, 1]);
  for (const at of [0.1, 0.6]) {
    const onShare = (share: number): void => {
      if (share >= at) throw Refused.one("", `Stopped at ${at}.`);
    };
    expect(await refusal(backups.takeIn(createReadStream(path), { size, onShare }))).toBe(`Stopped at ${at}.`);
    expect(await readdir(join(home, "incoming"))).toEqual([]);
  }
  const gone = new AbortController();
  const left = backups.takeIn(createReadStream(path), { signal: gone.signal, onShare: () => gone.abort() });
  await expect(left).rejects.toThrow();
  expect(await readdir(join(home, "incoming"))).toEqual([]);
  await truncate(path, 3000);
  expect(await refusal(backups.takeIn(createReadStream(path)))).toContain("isn't a whole zip file");
  expect((await backups.list())[0]!.manifest).toBeNull();
  await backups.restore({ name: file });
  await backups.settled();
  expect(await said()).toMatchObject({ what: "restore", ok: false });
  expect(await names()).toEqual(["Olive oil"]);
  expect(await refusal(backups.restore({ id: "../../etc/passwd" }))).toContain("Choose the archive again");
  expect(await refusal(backups.restore({ name: "../backups.json" }))).toContain("There is no backup called");
});

it("says what is wrong with a folder, and remembers the one that was chosen", async () => {
  await house.begin();
  expect(await refusal(backups.choose("stick"))).toContain("Write the whole way to the folder");
  expect(await refusal(backups.choose(join(home, "stick")))).toContain("isn't there");
  await writeFile(join(home, "stick"), "");
  expect(await refusal(backups.choose(join(home, "stick")))).toContain("is a file");
  await rm(join(home, "stick"));
  await mkdir(join(home, "stick"));
  await backups.choose(`  ${join(home, "stick")}/ `);
  const again = await openBackups({ home, workshops: house, byThemselves: false });
  expect(await again.state()).toMatchObject({ folder: join(home, "stick"), byDefault: false, made: null, lookedAt: null });
  await rm(join(home, "stick"), { recursive: true });
  expect(await backUp()).toMatchObject({ ok: false, say: expect.stringContaining("isn't there") as string });
  expect((await backups.state()).trouble).toContain(join(home, "stick"));
  await mkdir(join(home, "stick"));
  await backUp();
  expect((await backups.state()).trouble).toBeNull();
  expect(await filesIn("stick")).toHaveLength(1);
});

it("leaves others' files alone, removes what was cut off, and saves no more than it says", async () => {
  await house.begin();
  const folder = join(home, "backups");
  await mkdir(folder);
  const cutOff = join(folder, "zelbin-backup-2026-01-01-101010.zip.part");
  for (const file of ["notes.zip", "zelbin-backup-mine.zip"]) await writeFile(join(folder, file), "mine");
  await writeFile(cutOff, "half");
  await utimes(cutOff, 1, 1);
  for (let i = 10; i < 50; i++) await writeFile(join(folder, `zelbin-backup-2020-02-03-1010${i}.zip`), "old");
  await backUp();
  const left = await readdir(folder);
  expect(left).toEqual(expect.arrayContaining(["notes.zip", "zelbin-backup-mine.zip", "zelbin-backup-2020-02-03-101049.zip"]));
  expect(left).not.toContain("zelbin-backup-2020-02-03-101010.zip");
  expect(left.filter((f) => f.endsWith(".part"))).toEqual([]);
  expect(left).toHaveLength(2 + 8);
});

it("is of one moment of the books, however many write meanwhile", async () => {
  await house.begin();
  const db = await own();
  await add("Olive oil");
  const line = { materialId: 1, supplierLot: "", packs: 1, packSize: "1 kg", qty: 1_000_000, price: euro(9), bestBefore: null };
  await receive(db, { supplier: "Mill", day: DAY, postage: euro(0), lines: [line] }, { day: DAY });
  let over = false;
  let written = 0;
  const aWindow = async (): Promise<void> => {
    while (!over) {
      await moveOut(db, { lotId: 1, amount: 7, reason: "wasted", note: "" }, { day: DAY });
      written++;
    }
  };
  const windows = Array.from({ length: 8 }, aWindow);
  const ends = [];
  for (let n = 0; n < 2; n++) ends.push(await backUp());
  over = true;
  await Promise.all(windows);
  expect(written).toBeGreaterThan(20);
  expect(ends).toEqual([0, 1].map(() => expect.objectContaining({ ok: true }) as unknown));
  for (const { name: file } of await backups.list())
    await loaded(await backups.pathOf(file), async (then) => {
      await expectLedgerTrue(then);
      const { rows } = await then.execute(
        sql`select (select 1000000 - on_hand from lot where id = 1)::int as gone, (select count(*) from act where kind = 'moveOut')::int as acts`,
      );
      expect(rows[0]!.gone).toBe(7 * Number(rows[0]!.acts));
    });
});

it("makes one of the books as they are before they are brought up to date; where it can't, it says so and goes on", async () => {
  const before = knownSteps().at(-2)!;
  const url = addressOf(serverOfTests(), `${name}_own`);
  await admin.execute(sql.raw(`create database ${name}_own`));
  await bringToStep(url, before);
  const db = openDb(url);
  await db.insert(workshop).values({ kind: "own" });
  await db.execute(sql`insert into act (kind, day, summary) values ('saveSettings', ${DAY}, 'Saved the settings of then')`);
  await db.close();
  const loadDemo = () => Promise.resolve();
  const opened = await openWorkshop(url, "own", { loadDemo, beforeSteps: (of) => backUpBefore(home, of) });
  expect(await stepOf(opened)).toBe(knownSteps().at(-1));
  await opened.close();
  const [made] = await backups.list();
  expect(made!.manifest).toMatchObject({ step: before, newest: [{ what: "Saved the settings of then" }] });
  await loaded(await backups.pathOf(made!.name), async (then) => expect(await stepOf(then)).toBe(knownSteps().at(-1)));

  const said = vi.spyOn(console, "error").mockImplementation(() => undefined);
  await writeFile(join(home, "file"), "");
  await backUpBefore(join(home, "file"), url);
  expect(said.mock.calls.flat().join()).toContain("No backup was made before your books are brought up to date");
  said.mockRestore();
});

it("makes them by itself where it is due, and only then", async () => {
  await house.begin();
  await add("Olive oil");
  const open = async () => {
    const one = await openBackups({ home, workshops: house, byThemselves: true });
    await expect.poll(async () => (await one.state()).work).toBeNull();
    await pause(300);
    await one.settled();
    await one.close();
  };
  await open();
  expect(await filesIn("backups")).toHaveLength(1);
  await add("Coconut oil");
  // Within the hour.
  await open();
  expect(await filesIn("backups")).toHaveLength(1);
  await writeFile(join(home, "backups.json"), JSON.stringify({ lookedAt: "2026-01-01T00:00:00" }));
  await open();
  expect(await filesIn("backups")).toHaveLength(2);
});

it("can be stopped, with nothing left of it", async () => {
  await house.begin();
  await add("Olive oil");
  backups.begin();
  expect(await refusal(backups.restore({ id: crypto.randomUUID() }))).toContain("Wait until that is done, or stop it");
  backups.stop();
  await backups.settled();
  expect(await said()).toEqual({ what: "backup", ok: false, say: "Stopped. Nothing was changed." });
  expect(await filesIn("backups")).toEqual([]);
  expect(await databases()).toBe(2);
  expect((await backups.state()).trouble).toBeNull();
});
