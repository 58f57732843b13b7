/** A workshop kept by the version before this one comes along whole: receipts, reminders, and what was used. */
import { cpSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { randomBytes } from "node:crypto";
import { sql } from "drizzle-orm";
import { migrate } from "drizzle-orm/node-postgres/migrator";
import { gunzipSync } from "node:zlib";
import { afterEach, expect, it } from "vitest";
import { openDb, type OpenDb } from "#db/client";
import { readText, rowsOf } from "#db/columnsOf";
import { bringUpToDate } from "#db/migrating";
import { reverseAct } from "#db/acts/reverse";
import { finishedCost } from "#core/batch/finishing/result";
import { dayResult } from "#core/market/day";
import type { KindId } from "#core/material/kinds";
import { mg } from "#core/measure/exact";
import type { Densities } from "#core/measure/mass";
import { batchDensity, type Density } from "#core/recipe/sizes";
import { eq } from "drizzle-orm";
import { readBook } from "#db/acts/book";
import { batchResult } from "#db/bench/finishing/result";
import { readBatch } from "#db/bench/read";
import { listCabinet } from "#db/cabinet/cabinet";
import { packedLots } from "#db/gifts/pack";
import { readJar } from "#db/jars/read";
import { listMarketDays } from "#db/markets/markets";
import { CONTACT_KINDS } from "#core/contact";
import { contactsOf } from "#db/contacts/contacts";
import { listGiftOrders } from "#db/gifts/gifts";
import { costRecipes } from "#db/recipe/costs";
import { firmnessTestsOf } from "#db/recipe/firmness";
import { jar, lot, product } from "#db/schema";
import { readSettings } from "#db/settings/settings";
import { refused } from "./workshop.ts";
import { replacementCosts } from "#db/ledger/lots";
import { traceLot } from "#db/lots/trace";
import { monthlyUse } from "#db/shelf/buying";
import { listMaterials } from "#db/shelf/materials";
import { listReceipts, readReceipt } from "#db/shelf/receipts/receipts";
import { expectLedgerTrue } from "./fresh.ts";

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
    const all = await rowsOf(admin, { name: readText }, sql`select datname as name from pg_database where starts_with(datname, ${name})`);
    for (const one of all) await admin.execute(sql.raw(`drop database ${one.name} with (force)`));
    await admin.close();
  };
}
const packed = (file: string): string => gunzipSync(readFileSync(file)).toString("utf8");

/** The first migrations, as an earlier version had them. */
function firstSteps(many = 2): string {
  const folder = mkdtempSync(join(tmpdir(), "zelbin-before-"));
  cpSync("db/migrations", folder, { recursive: true });
  const journal = join(folder, "meta/_journal.json");
  const all = JSON.parse(readFileSync(journal, "utf8")) as { entries: { idx: number }[] };
  writeFileSync(journal, JSON.stringify({ ...all, entries: all.entries.filter((e) => e.idx < many) }));
  return folder;
}

/** @param then what that workshop did with a version in between, having so many migrations */
const oldest = (then?: { steps: number; does: string }): Promise<void> =>
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
    if (!then) return;
    const later = firstSteps(then.steps);
    await migrate(before, { migrationsFolder: later });
    rmSync(later, { recursive: true });
    await before.execute(sql.raw(then.does));
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
  expect((await replacementCosts(db)).get(1)).toEqual({ value: 11_000_000, per: 1_000_000 });
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
  await reverseAct(db, 2, { day: "2026-05-01" });
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

it("what was felt to drag, when that was a word for how hard a pot is, teaches nothing harder than a bar", async () => {
  await oldest({
    steps: 11,
    does: `insert into firmness_test (version_id, day, celsius, feel, note) values (1, '2026-04-01', 20, 'drags', 'On the arm.'), (1, '2026-04-02', 20, 'scoops', '')`,
  });
  expect((await firmnessTestsOf(db, 1)).map((t) => [t.feel, t.note])).toEqual([
    ["scoops", ""],
    ["bar", "On the arm. It drags."],
  ]);
});

it("a size that was simply filled weighs what goes in hot; one that is whipped, or weighed in, weighs what it did", async () => {
  await oldest({
    steps: 25,
    does: `
      update material set densities = '{"block": 960, "melted": 860}' where id = 2;
      insert into recipe (name, code) values ('Whip', 'WH'), ('Secret', 'SE');
      insert into recipe_version (recipe_id, n, day, name, type, total, loss_bp, keeps_months, batch_minutes, overrun_bp)
        select id, 1, '2026-04-01', name, 'balm', 100000, 0, 12, 60, case name when 'Whip' then 2500 else 0 end from recipe where id > 1;
      update recipe r set version_id = v.id from recipe_version v where v.recipe_id = r.id and r.id > 1;
      insert into material (name, kind, densities) values ('Clay', 'powder', '{}'), ('Unknown', 'oil', '{}');
      insert into recipe_line (version_id, position, material_id, name, entered, form, weight)
        select r.version_id, m.id, m.id, m.name, '1 g', 'liquid', case m.name when 'Oil' then 80000 else 10000 end
        from recipe r join material m on m.name <> 'Unknown' or r.name = 'Secret';
      update product set fill_by = 'full', fill = 72800;
      insert into product (recipe_id, label, fill, fill_by) select id, 'full', 72800, 'full' from recipe where id > 1;
      insert into product (recipe_id, label, fill, fill_by) values (1, '60 mL', 72800, 'volume'), (1, '72.8 g', 72800, 'weight')`,
  });
  const of = (name: string, kind: KindId, densities: Densities, weight: number) => ({ name, kind, densities, weight: mg(weight) });
  const pot = batchDensity(
    [of("Oil", "oil", { liquid: 920 }, 80_000), of("Wax", "wax", { melted: 860 }, 10_000), of("Clay", "powder", {}, 10_000)],
    0,
  );
  const { cold, filled } = (pot as { value: Density }).value;
  const sizes = await db.select({ fill: product.fill }).from(product).orderBy(product.id);
  expect(sizes.map((s) => s.fill)).toEqual([Math.round((72_800 * filled) / cold), 72_800, 72_800, 72_800, 72_800]);
});

it("a copy of the demo from before versions and sizes: every figure is as it was", async () => {
  await broughtUpToDate((before) => before.execute(sql.raw(packed("test/db/demoBefore.sql.gz"))));
  const was = JSON.parse(packed("test/db/demoBefore.json.gz")) as Before;

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
  // What is known of a herb by now is known of the oil it was steeped in; shea is no allergen to be named any more.
  const materials = await listMaterials(db);
  expect(materials.find((m) => m.name === "Meadowsweet in sunflower oil")!.cautions).toContain("salicylate");
  expect(materials.filter((m) => m.libraryKey?.startsWith("shea")).map((m) => [m.allergen, m.cautions.includes("nut")])).toEqual([
    ["", false],
  ]);
  await expectLedgerTrue(db);
});

it("acts of the version before are in the book, about their records, and can still be taken back", async () => {
  await broughtUpToDate((before) => before.execute(sql.raw(packed("test/db/demoBefore.sql.gz"))));
  const packedOrder = (await readBook(db, { kind: "packOrder" }, 1))[0]!;
  await reverseAct(db, packedOrder.id, { day: "2026-11-25" });
  expect(await readBook(db, { about: { kind: "recipe", id: 1 } })).not.toHaveLength(0);
  // Its tins were on the way to no market and are free again; the batch it came from is blocked by what was sold of it.
  const poured = (await readBook(db, { kind: "pour" }, 50)).at(-1)!;
  const [why] = await refused(reverseAct(db, poured.id, { day: "2026-11-25" }));
  expect(why!.say).toContain("has been used or counted since");
  expect(why!.see!.length).toBeGreaterThan(0);
  await expectLedgerTrue(db);
});
