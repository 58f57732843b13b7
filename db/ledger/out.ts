/** Finished units that are with somebody, as the ledger has them: what came back rests on what had gone out. */
import { unitsOut } from "#core/cabinet/out";
import { groupBy } from "#core/collect";
import { Refused } from "#core/refused";
import { sql } from "drizzle-orm";
import { stands } from "../act/standing.ts";
import { aNumber, rowsOf } from "../columnsOf.ts";
import type { Reads, Tx } from "../client.ts";
import { anyOf } from "../pieces.ts";
import { movement } from "../schema.ts";
import { oneOf } from "../schema/columns.ts";
import { REASONS } from "#core/stock/reasons";

/** What stands of the comings and goings of these lots, by lot and reason. */
export const outOf = (db: Reads, lotIds: readonly number[]) =>
  rowsOf(
    db,
    { lotId: aNumber, reason: oneOf(REASONS), qty: aNumber },
    sql`select m.lot_id as "lotId", m.reason, sum(m.qty)::float8 as qty from ${movement} m
    where ${anyOf(sql`m.lot_id`, lotIds)} and m.restates is null and m.reason <> 'undone' and ${stands(sql`m.act_id`)} group by 1, 2`,
  );

/**
 * Before goods go back to where they went out from: some of them may have come back already.
 * @throws Refused where more of a lot came back than went out
 */
export async function noneCameBackOf(tx: Tx, lotIds: readonly number[]): Promise<void> {
  if (lotIds.length === 0) return;
  const rows = await outOf(tx, lotIds);
  const returned = new Set(rows.flatMap((r) => (r.reason === "cameBack" ? [r.lotId] : [])));
  for (const [lotId, own] of groupBy(rows, (r) => r.lotId))
    if (returned.has(lotId) && unitsOut(own) < 0)
      throw Refused.one("", "Some of what went out by it has come back since, by an act of its own. Take that back first.");
}
