/** A workshop kept by the version before this one comes along whole: receipts, reminders, and what was used. */
import { cpSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { randomBytes } from "node:crypto";
import { sql } from "drizzle-orm";
import { migrate } from "drizzle-orm/node-postgres/migrator";
import { gunzipSync } from "node:zlib";
import { afterEach, expect, it } from "vitest";
import { openDb, type OpenDb } from "./client.ts";
import { aText, rowsOf } from "./columnsOf.ts";
import { bringUpToDate } from "./migrating.ts";
import { takeBack } from "./act/takeBack.ts";
import { finishedCost } from "#core/batch/result";
import { dayResult } from "#core/market/day";
import { eq } from "drizzle-orm";
import { readBook } from "./act/book.ts";
import { batchResult } from "./bench/result.ts";
import { readBatch } from "./bench/read.ts";
import { listCabinet } from "./cabinet/cabinet.ts";
import { packedLots } from "./gifts/pack.ts";
import { readJar } from "./jars/read.ts";
import { listMarketDays } from "./markets/markets.ts";
import { CONTACT_KINDS } from "#core/contact";
import { contactsOf } from "./contacts.ts";
import { listGiftOrders } from "./gifts/gifts.ts";
import { costRecipes } from "./recipe/costs.ts";
import { jar, lot } from "./schema.ts";
import { readSettings } from "./settings.ts";
import { refused } from "./test/workshop.ts";
import { againCosts } from "./ledger/lots.ts";
import { traceLot } from "./lots/trace.ts";
import { monthlyUse } from "./shelf/buying.ts";
import { listMaterials } from "./shelf/materials.ts";
import { listReceipts, readReceipt } from "./shelf/receipts.ts";
import { expectLedgerTrue } from "./test/fresh.ts";

let db: OpenDb;
let drop: () => Promise<void>;

/** A database of its own, filled as an earlier Zelbin left it, in public, and brought up to date from there. */
async function broughtUpToDate(fill: (before: OpenDb) => Promise<unknown>): Promise<void> {
  const server = process.env.DATABASE_URL!;
  const name = `old_${randomBytes(5).toString("hex")}`;
  const url = server.replace(/\/[^/]*$/, `/${name}`);
  const admin = openDb(server);
  await admin.execute(sql.raw(`create database ${name}`));
  const before = openDb(url, undefined, { patient: true, schema: "public" });
  await fill(before);
  await before.close();
  await bringUpToDate(url);
  db = openDb(url);
  drop = async () => {
    await db.close();
    const all = await rowsOf(admin, { name: aText }, sql`select datname as name from pg_database where starts_with(datname, ${name})`);
    for (const one of all) await admin.execute(sql.raw(`drop database ${one.name} with (force)`));
    await admin.close();
  };
}
const packed = (file: string): string => gunzipSync(readFileSync(file)).toString("utf8");

/** The first two migrations, as the version before this one had them. */
function firstSteps(): string {
  const folder = mkdtempSync(join(tmpdir(), "zelbin-before-"));
  cpSync("db/migrations", folder, { recursive: true });
  const journal = join(folder, "meta/_journal.json");
  const all = JSON.parse(readFileSync(journal, "utf8")) as { entries: { idx: number }[] };
  writeFileSync(journal, JSON.stringify({ ...all, entries: all.entries.filter((e) => e.idx < 2) }));
  return folder;
}

const oldest = (): Promise<void> =>
  broughtUpToDate(async (before) => {
    const folder = firstSteps();
    await migrate(before, { migrationsFolder: folder });
    rmSync(folder, { recursive: true });
    for (const text of [
      `insert into settings (id, data) values (1, '{"workshop": "Old room", "currency": "SEK", "school": "average"}')`,
      `insert into material (name, kind, densities, reorder_at) values ('Oil', 'oil', '{"liquid": 920}', 500000), ('Wax', 'wax', '{}', null)`,
      `insert into act (kind, day, summary, path) values ('receive', '2026-03-01', 'Received', '/shelf'), ('pour', '2026-03-20', 'Poured', '/bench/1')`,
      `insert into lot (number, material_id, arrived) values ('R1', 1, '2026-03-01'), ('R2', 2, '2026-03-01')`,
      `insert into purchase (act_id, supplier, day, postage) values (1, 'Mill', '2026-03-01', 2000000)`,
      `insert into purchase_line (purchase_id, lot_id, packs, pack_size, qty, price, landed) values (1, 1, 1, '1 kg', 1000000, 10000000, 11000000), (1, 2, 1, '1 kg', 1000000, 10000000, 11000000)`,
      `insert into movement (act_id, lot_id, qty, value, reason) values (1, 1, 1000000, 11000000, 'received'), (1, 2, 1000000, 11000000, 'received')`,
      `insert into recipe (name, code, type, total, loss_bp, keeps_months, batch_minutes, unit_minutes_hundredths) values ('Balm', 'BA', 'balm', 100000, 0, 12, 60, 100)`,
      `insert into product (recipe_id, fill) values (1, 50000)`,
      `insert into lot (number, product_id, arrived) values ('BA1', 1, '2026-03-20')`,
      `insert into batch (recipe_id, product_id, day, planned_mg, planned_units, poured_act_id, lot_id, units, leftover, minutes, hourly, overhead_hourly) values (1, 1, '2026-03-20', 100000, 2, 2, 3, 2, 0, 60, 0, 0)`,
      `insert into movement (act_id, lot_id, qty, value, reason, batch_id) values (2, 1, -80000, -880000, 'used', 1), (2, 2, -20000, -220000, 'used', 1), (2, 3, 2, 1100000, 'filled', 1)`,
    ])
      await before.execute(sql.raw(text));
  });
afterEach(() => drop());

it("receipts know their materials and count as arrived, and cost what they did", async () => {
  await oldest();
  expect(await listReceipts(db)).toMatchObject([{ supplier: "Mill", lines: 2, toCome: 0, paid: 22_000_000 }]);
  const r = (await readReceipt(db, 1))!;
  expect(r.receipt).toMatchObject({ tax: 0, discount: 0, spreadBy: "value", currency: "", rate: 1_000_000 });
  expect(r.lines.map((l) => [l.material, l.lot?.number])).toEqual([
    ["Oil", "R1"],
    ["Wax", "R2"],
  ]);
  expect((await againCosts(db)).get(1)).toEqual({ value: 11_000_000, per: 1_000_000 });
});

it("a reminder that was set stays set by hand, and the rest stay silent", async () => {
  await oldest();
  expect((await listMaterials(db)).map((m) => [m.name, m.reorderBy, m.reorderAt])).toEqual([
    ["Oil", "hand", 500_000],
    ["Wax", "never", null],
  ]);
});

it("what was used before is known, tins lead back as before, and an old act can be taken back", async () => {
  await oldest();
  const use = await monthlyUse(db, "2026-05-01", [1, 2]);
  expect([use.get(1), use.get(2)]).toEqual([
    [{ materialId: 1, month: "2026-03-01", used: 80_000 }],
    [{ materialId: 2, month: "2026-03-01", used: 20_000 }],
  ]);
  expect((await traceLot(db, 3)).back.map((s) => s.lot.number).sort()).toEqual(["R1", "R2"]);
  await expectLedgerTrue(db);
  await takeBack(db, 2, { day: "2026-05-01" });
  expect((await traceLot(db, 3)).back).toEqual([]);
  await expectLedgerTrue(db);
});

/** The demo workshop as the version before this one kept it, with the figures that version showed. */
interface Before {
  lots: { number: string; onHand: number; value: number; bestBefore: string | null }[];
  batches: { id: number; units: number | null; result: { yield: number; lost: number; perUnit: unknown } | null }[];
  days: { id: number; name: string; takings: number; stockCost: number; profit: number; perHour: number | null }[];
  orders: { id: number; packed: { number: string; qty: number; value: number }[] }[];
  cabinet: { number: string; name: string; materials: number; full: number }[];
  receipts: { id: number; paid: number }[];
  jars: { number: string; value: number; bottles: { number: string; value: number }[] }[];
  recipes: { name: string; batch: number; units: number; perUnit: unknown }[];
}

it("a copy of the demo from before versions and sizes: every figure is as it was", async () => {
  await broughtUpToDate((before) => before.execute(sql.raw(packed("db/test/demoBefore.sql.gz"))));
  const was = JSON.parse(packed("db/test/demoBefore.json.gz")) as Before;

  const lots = await db.select().from(lot).orderBy(lot.id);
  expect(lots.map(({ number, onHand, value }) => ({ number, onHand, value }))).toEqual(
    was.lots.map(({ number, onHand, value }) => ({ number, onHand, value })),
  );
  // Best-before is as it was, but where nobody had printed one: there the material's keeping time says it now.
  const dated = lots.filter((l, i) => l.bestBefore !== was.lots[i]!.bestBefore);
  expect(dated.every((l) => l.printed === null && l.bestBy === "keeping" && l.onHand > 0)).toBe(true);

  for (const b of was.batches) {
    const read = (await readBatch(db, b.id))!;
    const now = await batchResult(db, read.batch);
    expect(now && { ...now, perUnit: now.perUnit[0] }).toEqual(b.result);
    expect(read.sizes.map((s) => s.units)).toEqual([b.units]);
  }
  for (const d of await listMarketDays(db)) {
    const { id, name, ...figures } = was.days.find((x) => x.id === d.id)!;
    expect([d.name, dayResult({ ...d, hours: d.minutes / 60 })]).toEqual([name, figures]);
  }
  for (const o of was.orders)
    expect((await packedLots(db, o.id)).map(({ number, qty, value }) => ({ number, qty, value }))).toEqual(o.packed);
  // Everybody the books name is met: once each, whatever the case, with all that names them.
  const known = (await Promise.all(CONTACT_KINDS.map((k) => contactsOf(db, k)))).flat();
  expect(known.reduce((n, c) => n + c.times, 0)).toBe(was.receipts.length + was.days.length + (await listGiftOrders(db)).length);
  expect(new Set(known.map((c) => c.name.toLowerCase())).size).toBe(known.length);
  expect((await listCabinet(db)).map((l) => ({ number: l.number, name: l.name, ...finishedCost(l, l) }))).toEqual(was.cabinet);
  expect((await listReceipts(db)).map(({ id, paid }) => ({ id, paid }))).toEqual(was.receipts.map(({ id, paid }) => ({ id, paid })));
  for (const j of was.jars) {
    const [row] = await db.select({ id: jar.id }).from(jar).where(eq(jar.number, j.number));
    const read = (await readJar(db, row!.id))!;
    expect([read.value, read.bottles.map((b) => b.value)]).toEqual([j.value, j.bottles.map((b) => b.value)]);
  }
  const costed = await costRecipes(db, await readSettings(db), "2026-11-25");
  for (const r of was.recipes) {
    const { cost } = costed.find((c) => c.recipe.name === r.name)!.sizes[0]!;
    const usable = dated.every((l) => l.bestBefore! >= "2026-11-25");
    if (usable)
      expect({ batch: cost.batch, units: cost.units, perUnit: cost.perUnit }).toEqual({
        batch: r.batch,
        units: r.units,
        perUnit: r.perUnit,
      });
  }
  await expectLedgerTrue(db);
});

it("acts of the version before are in the book, about their records, and can still be taken back", async () => {
  await broughtUpToDate((before) => before.execute(sql.raw(packed("db/test/demoBefore.sql.gz"))));
  const packedOrder = (await readBook(db, { kind: "packOrder" }, 1))[0]!;
  await takeBack(db, packedOrder.id, { day: "2026-11-25" });
  expect(await readBook(db, { about: { kind: "recipe", id: 1 } })).not.toHaveLength(0);
  // Its tins were on the way to no market and are free again; the batch it came from is blocked by what was sold of it.
  const poured = (await readBook(db, { kind: "pour" }, 50)).at(-1)!;
  const [why] = await refused(takeBack(db, poured.id, { day: "2026-11-25" }));
  expect(why!.say).toContain("has been used or counted since");
  expect(why!.see!.length).toBeGreaterThan(0);
  await expectLedgerTrue(db);
});
