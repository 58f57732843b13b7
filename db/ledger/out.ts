/** Finished units that are with somebody, as the ledger has them: a return depends on what had gone out. */
import { unitsOut } from "#core/cabinet/out";
import { groupBy } from "#core/collect";
import { Refused } from "#core/refused";
import { sql } from "drizzle-orm";
import { isEffective } from "./effective.ts";
import { readNumber, readText, orNone, rowsOf } from "../columnsOf.ts";
import type { Reads, Tx } from "../client.ts";
import { anyOf } from "../pieces.ts";
import { movement } from "../schema.ts";
import { oneOf } from "../schema/columns.ts";
import { MAY_COME_BACK, REASONS } from "#core/ledger/reasons";

/** Movements in effect of these lots, summed by lot and reason. */
export const outOf = (db: Reads, lotIds: readonly number[]) =>
  rowsOf(
    db,
    { lotId: readNumber, reason: oneOf(REASONS), qty: readNumber },
    sql`select m.lot_id as "lotId", m.reason, sum(m.qty)::float8 as qty from ${movement} m
    where ${anyOf(sql`m.lot_id`, lotIds)} and m.restates is null and m.reason <> 'undone' and ${isEffective(sql`m.act_id`)} group by 1, 2`,
  );

/** Somebody who has some of a lot: an order or a market day, or the person it was handed to, with how many are still out. */
export interface OutAt {
  orderId: number | null;
  dayId: number | null;
  /** The customer, or the market; nothing where it was handed out. */
  name: string | null;
  day: string | null;
  units: number;
}

/** Where the units of a lot are that may come back, as the books have it; what came back of nobody named is off the whole. */
export const outAt = (db: Reads, lotId: number): Promise<OutAt[]> =>
  rowsOf(
    db,
    { orderId: orNone(readNumber), dayId: orNone(readNumber), name: orNone(readText), day: orNone(readText), units: readNumber },
    sql`select g.id as "orderId", d.id as "dayId", coalesce(g.customer, d.name) as name, coalesce(g.due, d.day)::text as day, -sum(m.qty)::float8 as units
    from ${movement} m left join gift_order g on g.id = coalesce(m.gift_order_id, m.back_from_order_id)
      left join market_day d on d.id = coalesce(m.market_day_id, m.back_from_day_id)
    where m.lot_id = ${lotId} and m.restates is null and m.reason in ${[...MAY_COME_BACK, "cameBack"]} and ${isEffective(sql`m.act_id`)}
    group by g.id, d.id having sum(m.qty) < 0 order by max(m.id) desc`,
  );

/**
 * Before goods go back to where they went out from: some of them may have come back already.
 * @throws Refused where more of a lot came back than went out
 */
export async function requireNoReturns(tx: Tx, lotIds: readonly number[]): Promise<void> {
  if (lotIds.length === 0) return;
  const rows = await outOf(tx, lotIds);
  const returned = new Set(rows.flatMap((r) => (r.reason === "cameBack" ? [r.lotId] : [])));
  for (const [lotId, own] of groupBy(rows, (r) => r.lotId))
    if (returned.has(lotId) && unitsOut(own) < 0)
      throw Refused.one("", "Some of what went out by it has come back since, by another act. Take that back first.");
}
