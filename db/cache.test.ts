/** Answers cached until something is written: exact about what changed, and never older than the database. */
import { act } from "./schema.ts";
import { expect, it } from "vitest";
import { cachedUntilWrite } from "./cache.ts";
import { waitingCounts } from "./today/today.ts";
import { saveMaterial } from "./shelf/keepMaterial.ts";
import { buy, DAY, db, eachTestHasAWorkshop, ids } from "#test/db/workshop";

eachTestHasAWorkshop();

/** Counts how often it is really worked out. */
const counter = () => {
  let runs = 0;
  const ask = (given = "") => cachedUntilWrite(db, "acts", given, async () => ({ run: ++runs, acts: await db.$count(act) }));
  return { ask, runs: () => runs };
};

it("is worked out once while nothing is written, and again after any act", async () => {
  const c = counter();
  // A snapshot is the whole server's: a test beside this one may write between two questions, but not between all of them.
  let [first, again] = [await c.ask(), await c.ask()];
  for (let n = 0; n < 100 && again !== first; n++) [first, again] = [again, await c.ask()];
  expect(again).toBe(first);
  const before = c.runs();
  await buy(ids.oil, 1000, 1);
  expect((await c.ask()).acts).toBe(first.acts + 1);
  expect(c.runs()).toBeGreaterThan(before);
});

it("a statement, which is asked anew by whoever waits for it, is asked once too", async () => {
  const ask = () => cachedUntilWrite(db, "an act", "", () => db.select({ id: act.id }).from(act).limit(1));
  let [first, again] = [await ask(), await ask()];
  for (let n = 0; n < 100 && again !== first; n++) [first, again] = [again, await ask()];
  expect(again).toBe(first);
});

it("depends on what it was given", async () => {
  const c = counter();
  await c.ask("Monday");
  await c.ask("Tuesday");
  expect(c.runs()).toBe(2);
});

it("is not fooled by a transaction that was open when it was asked", async () => {
  const c = counter();
  let commit = (): void => undefined;
  const open = new Promise<void>((done) => (commit = done));
  let began = (): void => undefined;
  const ready = new Promise<void>((done) => (began = done));
  const writing = db.transaction(async (tx) => {
    await tx.insert(act).values({ kind: "count", day: DAY });
    began();
    await open;
  });
  await ready;
  const before = await c.ask();
  // Another act begins and ends meanwhile, with a higher number than the one still open.
  await buy(ids.oil, 1000, 1);
  const between = await c.ask();
  expect(between.acts).toBe(before.acts + 1);
  commit();
  await writing;
  expect((await c.ask()).acts).toBe(before.acts + 2);
});

it("a rolled back act changes no answer, and a failed answer isn't kept", async () => {
  const c = counter();
  const { acts } = await c.ask();
  await expect(
    db.transaction(async (tx) => {
      await tx.insert(act).values({ kind: "count", day: DAY });
      throw new Error("power cut");
    }),
  ).rejects.toThrow("power cut");
  expect((await c.ask()).acts).toBe(acts);
  let broken = true;
  const ask = () => cachedUntilWrite(db, "fragile", "", () => (broken ? Promise.reject(new Error("no")) : Promise.resolve("yes")));
  await expect(ask()).rejects.toThrow("no");
  broken = false;
  expect(await ask()).toBe("yes");
});

it("the counts of the Line follow the day and every act", async () => {
  const shelf = async (day: string) => (await waitingCounts(db, day))["/shelf"] ?? 0;
  expect(await shelf(DAY)).toBe(0);
  await saveMaterial(db, { name: "Wax", kind: "wax", densities: {}, reorderBy: "hand", reorderAt: 9_000_000, id: ids.wax }, { day: DAY });
  expect(await shelf(DAY)).toBe(1);
  await buy(ids.oil, 1000, 1, "2026-08-01");
  expect(await shelf(DAY)).toBe(1);
  expect(await shelf("2026-07-01")).toBe(2);
  expect(await shelf("2026-08-02")).toBe(2);
  expect(await shelf(DAY)).toBe(1);
});
