/**
 * A workshop of five years, and one a hundredth its size: is the shelf as quick as on the first day?
 *
 * Rows are written by the hundred thousand straight into the tables, through the ledger's own triggers, so that balances are what they
 * would be; which material is low or to be used first is spread as in a workroom that is looked after.
 */
import { WORKSHOPS } from "#core/workshop";
import { openDb, type OpenDb } from "#db/client";
import type { Workshops } from "#db/workshops";
import { sql } from "drizzle-orm";
import { migrate } from "drizzle-orm/node-postgres/migrator";
import { today } from "#db/clock";
import pg from "pg";
import { freePort } from "../postgres.ts";
import { serve } from "../server/serve.ts";
import { fetcher, HEAD, lineOf, measure, type Asked, type Row } from "./measure.ts";

const LOTS = 15;
/** Of each material's lots, the newest still have something on hand. */
const LIVE = 2;
const DRAWS = 44;
const LIVE_DRAWS = 20;
const KINDS = ["oil", "wax", "hardButter", "softButter", "herb", "essentialOil", "powder", "container", "label", "infusedOil"];

/** Fills a migrated, empty database with a workshop of so many materials, fifteen lots each and about 620 movements. */
async function fill(url: string, materials: number): Promise<void> {
  const db = openDb(url, undefined, { patient: true });
  const day = today();
  const lots = materials * LOTS;
  const batches = materials * 10;
  // Written out, since PostgreSQL would take a parameter of unknown type for text.
  const n = (x: number) => sql.raw(String(x));
  const kinds = sql.raw(`(array[${KINDS.map((k) => `'${k}'`).join(", ")}])`);
  await db.execute(sql`
    insert into material (name, kind, densities, reorder_by, reorder_at, keeps_sealed)
    select 'Material ' || lpad(i::text, 4, '0'), ${kinds}[1 + i % ${n(KINDS.length)}], '{"liquid": 920}', case when i > 4 and i % 2 = 0 then 'use' else 'hand' end,
      case when i <= 4 then 100000 else 10000 end, 18 from generate_series(1, ${n(materials)}) i`);
  await db.execute(sql`insert into recipe (name, code) values ('Balm', 'BA')`);
  await db.execute(
    sql`insert into recipe_version (recipe_id, n, day, name, type, total, loss_bp, keeps_months, batch_minutes) values (1, 1, ${day}::date - 1800, 'Balm', 'balm', 100000, 0, 12, 60)`,
  );
  await db.execute(sql`update recipe set version_id = 1`);
  await db.execute(sql`insert into product (recipe_id, label, fill_text, fill) values (1, '50 g', '50 g', 50000)`);
  // Purchases of five lines each, then batches, each with its act, over five years.
  await db.execute(sql`
    insert into act (kind, day, summary, path) select 'receive', ${day}::date - 1800 + (i * 1790 / ${n(lots / 5)})::int, 'Received 5 lots', '/shelf' from generate_series(1, ${n(lots / 5)}) i`);
  await db.execute(sql`
    insert into act (kind, day, summary, path) select 'pour', ${day}::date - 1790 + (i * 1790 / ${n(batches)})::int, 'Poured 20 × Balm', '/bench' from generate_series(1, ${n(batches)}) i`);
  await db.execute(sql`
    insert into purchase (act_id, supplier, day, postage, tax, discount) select a.id, 'Supplier ' || (a.id % 12), a.day, 0, 0, 0 from act a where a.kind = 'receive' order by a.id`);
  await db.execute(sql`
    insert into batch (recipe_id, version_id, day, planned_mg, poured_act_id, leftover, minutes, hourly, overhead_hourly)
    select 1, 1, a.day, 1000000, a.id, 0, 60, 0, 0 from act a where a.kind = 'pour' order by a.id`);
  await db.execute(sql`
    insert into batch_size (batch_id, product_id, position, label, fill, unit_minutes_hundredths, planned, units)
    select b.id, 1, 0, '50 g', 50000, 100, 20, 20 from batch b`);
  // Lot n is of material n mod m: the oldest first, the last rounds still on hand.
  await db.execute(sql`
    insert into lot (number, material_id, name, arrived, best_before, best_by)
    select 'L' || lpad(i::text, 6, '0'), 1 + (i - 1) % ${n(materials)}, 'Material ' || lpad((1 + (i - 1) % ${n(materials)})::text, 4, '0'), p.day,
      case when i > ${n(lots - materials * LIVE)} then ${day}::date + 20 + (i * 37 % 700) else p.day + 500 end, 'printed'
    from generate_series(1, ${n(lots)}) i join purchase p on p.id = 1 + (i - 1) / 5`);
  await db.execute(sql`
    insert into purchase_line (purchase_id, material_id, name, lot_id, arrived_act_id, packs, pack_size, qty, price, landed)
    select 1 + (l.id - 1) / 5, l.material_id, l.name, l.id, 1 + (l.id - 1) / 5, 1, '88 g', 88000, 8800000, 8800000 from lot l order by l.id`);
  await db.execute(sql`
    insert into movement (act_id, lot_id, qty, value, reason) select arrived_act_id, lot_id, 88000, 8800000, 'received' from purchase_line order by id`);
  await db.execute(sql`
    insert into movement (act_id, lot_id, qty, value, reason, batch_id)
    select b.poured_act_id, l.id, -2000, -200000, 'used', b.id
    from lot l cross join lateral generate_series(1, case when l.id > ${n(lots - materials * LIVE)} then ${n(LIVE_DRAWS)} else ${n(DRAWS)} end) d
      join batch b on b.id = 1 + ((l.id::bigint * ${n(batches)} / ${n(lots)}) + d * 7) % ${n(batches)}`);
  // One lot in fifty is to be used first.
  await db.execute(sql`update lot set best_before = ${day}::date + 30 where id > ${n(lots - materials * LIVE)} and id % 50 = 1`);
  await db.execute(sql.raw("vacuum analyze"));
  await db.close();
}

async function workshop(server: string, name: string, materials: number, heard: Asked[]): Promise<OpenDb> {
  const admin = openDb(server);
  await admin.execute(sql.raw(`create database ${name}`));
  await admin.close();
  const db = openDb(addressOf(server, name), { logQuery: (q, params) => heard.push({ sql: q, params }) });
  await migrate(db, { migrationsFolder: "db/migrations" });
  const start = performance.now();
  await fill(addressOf(server, name), materials);
  const { rows } = await db.execute<{ lots: string; moves: string }>(
    sql`select (select count(*) from lot) as lots, (select count(*) from movement) as moves`,
  );
  console.log(
    `  ${materials} materials, ${Number(rows[0]!.lots).toLocaleString("en-GB")} lots, ${Number(rows[0]!.moves).toLocaleString("en-GB")} movements (written in ${((performance.now() - start) / 1000).toFixed(0)} s)`,
  );
  return db;
}

const addressOf = (server: string, name: string): string => server.replace(/\/[^/]*$/, `/${name}`);

const PAGES = [
  ["Shelf", "/shelf"],
  ["One board", "/shelf?board=oil"],
  ["One material", "/shelf/1"],
  ["Its history", "/shelf/1/history"],
  ["Shopping list", "/shelf/shopping"],
  ["Today", "/"],
  ["Jars", "/jars"],
  ["Receipts", "/shelf/receipts"],
] as const;

/** A house with this one workshop. */
const onlyDemo = (db: OpenDb): Workshops => ({
  of: (kind) => Promise.resolve(kind === "demo" ? db : null),
  begin: () => Promise.reject(new Error("not here")),
  resetDemo: () => Promise.reject(new Error("not here")),
  close: db.close,
});

/** Prints the shelf's pages at full size, and how much longer each takes than at a hundredth of it.  */
export async function benchBig(server: string): Promise<void> {
  console.log("\nA workshop of five years, and one a hundredth its size:");
  const heard: Asked[] = [];
  const sizes: { db: OpenDb; client: pg.Client; fetchPage: (path: string) => Promise<string>; close: () => Promise<void> }[] = [];
  for (const [name, materials] of [
    ["bench_small", 4],
    ["bench_big", 400],
  ] as const) {
    const db = await workshop(server, name, materials, heard);
    const client = new pg.Client({ connectionString: addressOf(server, name) });
    await client.connect();
    const site = await serve(onlyDemo(db), await freePort());
    sizes.push({ db, client, fetchPage: fetcher(site.url + WORKSHOPS.demo.home), close: site.close });
  }
  const at = ({ client, fetchPage }: (typeof sizes)[number], name: string, path: string): Promise<Row> =>
    measure(name, path, fetchPage, heard, client);
  console.log(`\n${HEAD}   big / small`);
  for (const [name, path] of PAGES) {
    const small = await at(sizes[0]!, name, path);
    const big = await at(sizes[1]!, name, path);
    console.log(`${lineOf(big)}   ${(big.page / small.page).toFixed(2).padStart(9)}  (${small.page.toFixed(1)} ms small)`);
  }
  console.log(
    "Wanted of Shelf, One material, Its history, Shopping list: page / sum at most 2, no query over 30 ms, big / small at most 1.3.",
  );
  for (const { db, client, close } of sizes) {
    await close();
    await client.end();
    await db.close();
  }
}
