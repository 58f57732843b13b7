/** Two workshops on one server: begun, kept apart, reset; cut off half-way and begun again. */
import { sql } from "drizzle-orm";
import { randomBytes } from "node:crypto";
import { afterEach, beforeEach, describe, expect, it } from "vitest";
import { openDb, type Db, type OpenDb } from "../client.ts";
import { material, workshop } from "../schema.ts";
import { saveMaterial } from "../shelf/keepMaterial.ts";
import { listMaterials } from "../shelf/materials.ts";
import { refused } from "#test/db/workshop";
import { openWorkshops, ownAddress, type Workshops } from "./workshops.ts";

const DAY = "2026-05-04";
let admin: OpenDb;
let url: string;
let name: string;
let houses: Workshops[];
let loads: number;
let cutOff: boolean;
/** A user of the server who may make no database. */
let guest: string | null;

/** A demo of one oil; or cut off in the middle of it. */
async function loadDemo(db: Db): Promise<void> {
  loads++;
  await saveMaterial(db, { name: "Demo oil", kind: "oil" }, { day: DAY });
  if (cutOff) throw new Error("killed");
}
async function house(at = url): Promise<Workshops> {
  const h = await openWorkshops(at, { loadDemo });
  houses.push(h);
  return h;
}
const names = async (h: Workshops, kind: "demo" | "own") => (await listMaterials((await h.of(kind))!)).map((m) => m.name);

beforeEach(async () => {
  admin = openDb(process.env.DATABASE_URL!);
  name = `house_${randomBytes(5).toString("hex")}`;
  await admin.execute(sql.raw(`create database ${name}`));
  url = process.env.DATABASE_URL!.replace(/\/[^/]*$/, `/${name}`);
  houses = [];
  loads = 0;
  cutOff = false;
  guest = null;
});
afterEach(async () => {
  for (const h of houses) await h.close();
  for (const n of [name, `${name}_own`]) await admin.execute(sql.raw(`drop database if exists ${n} with (force)`));
  if (guest) await admin.execute(sql.raw(`drop role ${guest}`));
  await admin.close();
});

describe("a house", () => {
  it("opens the demo; one's own is begun empty beside it, pressed twice or not, and is there at the next start", async () => {
    const first = await house();
    expect(await first.of("own")).toBeNull();
    await Promise.all([first.begin(), first.begin()]);
    await first.begin();
    expect(await names(first, "own")).toEqual([]);
    await saveMaterial((await first.of("own"))!, { name: "Mine", kind: "wax" }, { day: DAY });
    expect([await names(first, "demo"), await names(first, "own")]).toEqual([["Demo oil"], ["Mine"]]);
    const next = await house();
    expect([await names(next, "demo"), await names(next, "own")]).toEqual([["Demo oil"], ["Mine"]]);
    expect(loads).toBe(1);
  });

  it("resets the demo to its first day without touching one's own, twice at once too; who asks meanwhile waits", async () => {
    const h = await house();
    await h.begin();
    await saveMaterial((await h.of("own"))!, { name: "Mine", kind: "wax" }, { day: DAY });
    await saveMaterial((await h.of("demo"))!, { name: "Tried", kind: "wax" }, { day: DAY });
    const resets = [h.resetDemo(), h.resetDemo()];
    expect(await names(h, "demo")).toEqual(["Demo oil"]);
    await Promise.all(resets);
    expect([await names(h, "demo"), await names(h, "own"), loads]).toEqual([["Demo oil"], ["Mine"], 2]);
  });

  it("a reset that fails says so, and the demo is there again for the next who asks", async () => {
    const h = await house();
    cutOff = true;
    await expect(
      h.resetDemo().finally(() => {
        cutOff = false;
      }),
    ).rejects.toThrow("killed");
    await h.resetDemo();
    expect(await names(h, "demo")).toEqual(["Demo oil"]);
  });

  it("a first start that was cut off is begun again, whole", async () => {
    cutOff = true;
    await expect(openWorkshops(url, { loadDemo })).rejects.toThrow("killed");
    cutOff = false;
    expect(await names(await house(), "demo")).toEqual(["Demo oil"]);
    expect(loads).toBe(2);
  });

  it("never takes one's own for a demo, so that no reset can reach it", async () => {
    await (await house()).begin();
    await expect(openWorkshops(ownAddress(url), { loadDemo })).rejects.toThrow("a workshop of your own");
    const db = openDb(ownAddress(url));
    expect(await db.select({ kind: workshop.kind }).from(workshop)).toEqual([{ kind: "own" }]);
    await db.close();
  });

  it("where the server allows no further database, it says what can be done; made by another hand, it is taken", async () => {
    guest = `guest_${randomBytes(4).toString("hex")}`;
    await admin.execute(sql.raw(`create role ${guest} login password 'x' nocreatedb`));
    await admin.execute(sql.raw(`alter database ${name} owner to ${guest}`));
    const theirs = new URL(url);
    theirs.username = guest;
    theirs.password = "x";
    const h = await house(theirs.href);
    const no = await refused(h.begin());
    expect(no[0]!.say).toContain(`“${name}_own”`);
    expect(await h.of("own")).toBeNull();
    await admin.execute(sql.raw(`create database ${name}_own owner ${guest}`));
    await h.begin();
    const own = (await h.of("own"))!;
    expect(await own.$count(material)).toBe(0);
  });
});
