/** A database of its own for a test file, migrated, in the cluster that DATABASE_URL names; dropped afterwards. */
import { randomBytes } from "node:crypto";
import { sql } from "drizzle-orm";
import { migrate } from "drizzle-orm/node-postgres/migrator";
import { micros } from "#core/measure/exact";
import { expect } from "vitest";
import { openDb, type OpenDb } from "../client.ts";

const TEMPLATE = "zelbin_template";

/** A migrated database to copy from, made once for a cluster: copying is much quicker than migrating anew for every test. */
async function template(admin: OpenDb, server: string): Promise<void> {
  const { rows } = await admin.execute(sql`select 1 from pg_database where datname = ${TEMPLATE}`);
  if (rows.length > 0) return;
  await admin.execute(sql.raw(`create database ${TEMPLATE}_new`));
  const db = openDb(addressOf(server, `${TEMPLATE}_new`));
  await migrate(db, { migrationsFolder: "db/migrations" });
  await db.close();
  await admin.execute(sql.raw(`alter database ${TEMPLATE}_new rename to ${TEMPLATE}`));
}

const addressOf = (server: string, name: string): string => server.replace(/\/[^/]*$/, `/${name}`);

export async function freshDb(): Promise<{ db: OpenDb; drop: () => Promise<void> }> {
  const server = process.env.DATABASE_URL;
  if (!server) throw new Error("Run these through npm test: they need DATABASE_URL.");
  const name = `test_${randomBytes(6).toString("hex")}`;
  const admin = openDb(server);
  await template(admin, server);
  await admin.execute(sql.raw(`create database ${name} template ${TEMPLATE}`));
  const db = openDb(addressOf(server, name));
  return {
    db,
    drop: async () => {
      await db.close();
      await admin.execute(sql.raw(`drop database ${name} with (force)`));
      await admin.close();
    },
  };
}

export const euro = (n: number) => micros(Math.round(n * 100) * 10_000);

/** What must hold of the ledger at any moment. */
export async function expectLedgerTrue(db: OpenDb): Promise<void> {
  const wrong = await db.execute(sql`
    select l.id from lot l left join movement m on m.lot_id = l.id
    group by l.id having l.on_hand <> coalesce(sum(m.qty), 0) or l.value <> coalesce(sum(m.value), 0) or l.on_hand < 0 or l.value < 0 or (l.on_hand = 0 and l.value <> 0)`);
  expect(wrong.rows, "on hand and value are the sums of the ledger, never below zero, and an empty lot is worth nothing").toEqual([]);
  const lost = await db.execute(
    sql`select a.id from act a join movement m on m.act_id = a.id where a.kind = 'pour' group by a.id having sum(m.value) <> 0`,
  );
  expect(lost.rows, "pouring neither makes nor loses value").toEqual([]);
  const standing = await db.execute(sql`
    select l.number from lot l left join lateral (
      select coalesce(sum(m.qty), 0) as qty, coalesce(sum(m.value), 0) as value
      from movement m join movement b on b.id = coalesce(m.restates, m.id) join standing_act a on a.id = b.act_id
      where m.lot_id = l.id and b.restates is null) s on true
    where l.on_hand <> s.qty or l.value <> s.value`);
  expect(standing.rows, "the books are what they would be had nothing been done that was taken back").toEqual([]);
  const unbalanced = await db.execute(sql`
    with made as (
      select m.act_id, m.id from movement m join act a on a.id = m.act_id
      where a.kind in ('pour', 'blend') and exists (select 1 from standing_act sa where sa.id = a.id))
    select made.act_id from made join movement m on m.id = made.id or m.restates = made.id group by made.act_id having sum(m.value) <> 0`);
  expect(unbalanced.rows, "a batch and a blend are worth what went into them, whatever was restated since").toEqual([]);
  const spilt = await db.execute(sql`
    select j.id from jar j where j.strained_act_id is not null and
      (select coalesce(sum(m.value), 0) from movement m where m.jar_id = j.id and m.lot_id in (select p.lot_id from jar_part p where p.jar_id = j.id))
      + (select coalesce(sum(m.value), 0) from movement s join movement m on m.id = s.id or m.restates = s.id where s.act_id = j.strained_act_id and s.reason = 'strained') <> 0`);
  expect(spilt.rows, "all that went into a jar falls on the bottles strained from it").toEqual([]);
  const loops = await db.execute(sql`
    with recursive walk(start, at) as (
      select from_lot, to_lot from lot_link union select w.start, k.to_lot from walk w join lot_link k on k.from_lot = w.at)
    select start from walk where start = at`);
  expect(loops.rows, "no lot is made of itself").toEqual([]);
  const use = await db.execute(sql`
    with real as (
      select l.material_id, -sum(m.qty) as used from movement m join lot l on l.id = m.lot_id
      where l.material_id is not null and m.qty <> 0 and (m.batch_id is not null or m.gift_order_id is not null or m.jar_id is not null)
        and m.reason <> 'strained' and not (m.reason = 'undone' and m.jar_id is not null and m.qty < 0) group by 1),
    kept as (select material_id, sum(used) as used from material_use group by 1)
    select coalesce(r.material_id, k.material_id) from real r full join kept k using (material_id) where coalesce(r.used, 0) <> coalesce(k.used, 0)`);
  expect(use.rows, "use per month adds up to what the ledger says was used").toEqual([]);
}
