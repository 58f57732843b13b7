/** Finished lots that better wait: they still set, or nobody has checked them since they were poured. */
import { sayFullDay, type Day } from "#core/when";
import { sql, type SQL } from "drizzle-orm";
import { isEffective } from "../../ledger/effective.ts";
import type { Reads } from "../../client.ts";
import { readBoolean, readNumber, readText, rowsOf } from "../../columnsOf.ts";
import { anyOf } from "../../pieces.ts";
import { batch, batchCheck, batchEvent, batchSize, lot } from "../../schema.ts";

/** After so many days unchecked a lot isn't mentioned any more: it has been sold unchecked often enough. */
const FRESH_DAYS = 14;

/** Whether a batch `b` still sets. */
export const setsStill = sql`exists (select 1 from ${batchEvent} e where e.batch_id = b.id and e.kind = 'set' and e.ended_at is null and e.struck_at is null)`;

/** Whether a lot `l` of a batch `b` was poured lately, and nobody has checked it since. */
export const uncheckedOn = (
  today: SQL,
): SQL => sql`b.poured_act_id is not null and l.arrived > ${today}::date - ${sql.raw(String(FRESH_DAYS))}
  and not exists (select 1 from ${batchCheck} c where c.batch_id = b.id and ${isEffective(sql`c.act_id`)})`;

/** Why some of these lots better wait, in words, by lot; nothing of those that needn't. */
export async function notYetReleased(db: Reads, lotIds: readonly number[], today: Day): Promise<Map<number, string>> {
  if (lotIds.length === 0) return new Map();
  const rows = await rowsOf(
    db,
    { id: readNumber, sets: readBoolean, arrived: readText },
    sql`select l.id, l.arrived::text as arrived, ${setsStill} as sets
    from ${lot} l join ${batchSize} s on s.lot_id = l.id join ${batch} b on b.id = s.batch_id
    where ${anyOf(sql`l.id`, lotIds)} and ${uncheckedOn(sql`${today}`)}`,
  );
  return new Map(rows.map((r) => [r.id, r.sets ? "still sets" : `was poured on ${sayFullDay(r.arrived)} and nobody has checked it since`]));
}
