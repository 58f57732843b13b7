/** What must be true of the books at any moment, checked in the database itself: for tests, and for anybody who doubts. */
import { sql, type SQL } from "drizzle-orm";
import type { Reads } from "../client.ts";

/** What holds, with a query for whatever breaks it. */
const HOLDS: readonly (readonly [holds: string, broken: SQL])[] = [
  [
    "on hand and value are the sums of the ledger, never below zero, and an empty lot is worth nothing",
    sql`
    select l.id from lot l left join movement m on m.lot_id = l.id
    group by l.id having l.on_hand <> coalesce(sum(m.qty), 0) or l.value <> coalesce(sum(m.value), 0) or l.on_hand < 0 or l.value < 0 or (l.on_hand = 0 and l.value <> 0)`,
  ],
  [
    "pouring neither makes nor loses value",
    sql`select a.id from act a join movement m on m.act_id = a.id where a.kind = 'pour' group by a.id having sum(m.value) <> 0`,
  ],
  [
    "the books are what they would be had nothing been done that was taken back",
    sql`
    select l.number from lot l left join (
      select m.lot_id, sum(m.qty) as qty, sum(m.value) as value
      from movement m join movement b on b.id = coalesce(m.restates, m.id) join standing_act a on a.id = b.act_id
      where b.restates is null group by m.lot_id) s on s.lot_id = l.id
    where l.on_hand <> coalesce(s.qty, 0) or l.value <> coalesce(s.value, 0)`,
  ],
  [
    "a batch, a blend and what was melted down are worth what went into them, whatever was restated since",
    sql`
    with made as (
      select m.act_id, m.id from movement m join act a on a.id = m.act_id
      where a.kind in ('pour', 'blend', 'meltDown') and exists (select 1 from standing_act sa where sa.id = a.id))
    select made.act_id from made join movement m on m.id = made.id or m.restates = made.id group by made.act_id having sum(m.value) <> 0`,
  ],
  [
    "all that went into a jar falls on the bottles strained from it",
    sql`
    select j.id from jar j where j.strained_act_id is not null and
      (select coalesce(sum(m.value), 0) from movement m where m.jar_id = j.id and m.lot_id in (select p.lot_id from jar_part p where p.jar_id = j.id))
      + (select coalesce(sum(m.value), 0) from movement s join movement m on m.id = s.id or m.restates = s.id where s.act_id = j.strained_act_id and s.reason = 'strained') <> 0`,
  ],
  ["every lot has its number", sql`select id from lot where starts_with(number, '~')`],
  [
    "no lot is made of itself",
    sql`
    with recursive walk(start, at) as (
      select from_lot, to_lot from lot_link union select w.start, k.to_lot from walk w join lot_link k on k.from_lot = w.at)
    select start from walk where start = at`,
  ],
  [
    "use per month adds up to what the ledger says was used in it, as if what was taken back had never been",
    sql`
    with real as (
      select v.material_id, v.month, sum(v.used) as used from movement_use v join movement m on m.id = v.id join movement b on b.id = coalesce(m.restates, m.id)
      where exists (select 1 from standing_act sa where sa.id = b.act_id) group by 1, 2)
    select coalesce(r.material_id, k.material_id), coalesce(r.month, k.month) from real r full join material_use k using (material_id, month)
    where coalesce(r.used, 0) <> coalesce(k.used, 0)`,
  ],
];

/** What of that doesn't hold, each with the rows that break it; nothing where the books are true. @example ledgerFaults(db) */
export async function ledgerFaults(db: Reads): Promise<string[]> {
  const faults: string[] = [];
  for (const [holds, broken] of HOLDS) {
    const { rows } = await db.execute(broken);
    if (rows.length > 0) faults.push(`not so: ${holds}: ${JSON.stringify(rows.slice(0, 5))}`);
  }
  return faults;
}
