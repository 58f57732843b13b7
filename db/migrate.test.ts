/** A workshop kept by the version before this one comes along whole: receipts, reminders, and what was used. */
import { cpSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { randomBytes } from "node:crypto";
import { sql } from "drizzle-orm";
import { migrate } from "drizzle-orm/node-postgres/migrator";
import { afterEach, beforeEach, expect, it } from "vitest";
import { openDb, type OpenDb } from "./client.ts";
import { takeBack } from "./act/takeBack.ts";
import { againCosts } from "./ledger/lots.ts";
import { traceLot } from "./lots/trace.ts";
import { monthlyUse } from "./shelf/buying.ts";
import { listMaterials } from "./shelf/materials.ts";
import { listReceipts, readReceipt } from "./shelf/receipts.ts";
import { expectLedgerTrue } from "./test/fresh.ts";

let db: OpenDb;
let drop: () => Promise<void>;

/** The first two migrations, as the version before this one had them. */
function before(): string {
  const folder = mkdtempSync(join(tmpdir(), "zelbin-before-"));
  cpSync("db/migrations", folder, { recursive: true });
  const journal = join(folder, "meta/_journal.json");
  const all = JSON.parse(readFileSync(journal, "utf8")) as { entries: { idx: number }[] };
  writeFileSync(journal, JSON.stringify({ ...all, entries: all.entries.filter((e) => e.idx < 2) }));
  return folder;
}

beforeEach(async () => {
  const server = process.env.DATABASE_URL!;
  const name = `old_${randomBytes(5).toString("hex")}`;
  const admin = openDb(server);
  await admin.execute(sql.raw(`create database ${name}`));
  db = openDb(server.replace(/\/[^/]*$/, `/${name}`));
  drop = async () => {
    await db.close();
    await admin.execute(sql.raw(`drop database ${name} with (force)`));
    await admin.close();
  };
  const folder = before();
  await migrate(db, { migrationsFolder: folder });
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
    await db.execute(sql.raw(text));
  await migrate(db, { migrationsFolder: "db/migrations" });
});
afterEach(() => drop());

it("receipts know their materials and count as arrived, and cost what they did", async () => {
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
  expect((await listMaterials(db)).map((m) => [m.name, m.reorderBy, m.reorderAt])).toEqual([
    ["Oil", "hand", 500_000],
    ["Wax", "never", null],
  ]);
});

it("what was used before is known, tins lead back as before, and an old act can be taken back", async () => {
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
