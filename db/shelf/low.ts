/**
 * What is on hand of each material, what is still to come, and the point below which it is time to buy: one piece of SQL for Today, the
 * shelf and the shopping list. The rule is that of core/stock/reorder, and a test holds the two together.
 */
import { COUNTED_KINDS } from "#core/material/kinds";
import { LEARN_DAYS } from "#core/stock/reorder";
import { sql, type SQL } from "drizzle-orm";
import type { Reads } from "../client.ts";
import { sqlNumber } from "../columnsOf.ts";
import { anyOf } from "../pieces.ts";
import { runPrepared } from "../prepared.ts";

const counted = sql.raw(COUNTED_KINDS.map((k) => `'${k}'`).join(", "));

/** "weight" or "count", of a kind column. @example measuredOf(sql`m.kind`) */
export const measuredOf = (column: SQL): SQL => sql`case when ${column} in (${counted}) then 'count' else 'weight' end`;

/** Bought and still to come, by material. */
const coming = sql`(select pl.material_id, sum(pl.qty)::float8 as coming from purchase_line pl join purchase p on p.id = pl.purchase_id
  where pl.lot_id is null and not exists (select 1 from act u where u.undoes = p.act_id) group by 1)`;

/** What is still to come of these materials. */
export async function comingOf(db: Reads, materials: readonly number[]): Promise<Map<number, number>> {
  const rows = await runPrepared(db, "coming_of", { materials }, (at) =>
    db
      .select({ of: sqlNumber(sql`material_id`), coming: sqlNumber(sql`coming`) })
      .from(sql`${coming} c`)
      .where(anyOf(sql`material_id`, at.materials)),
  );
  return new Map(rows.map((r) => [r.of, r.coming]));
}

/**
 * A row for each material that isn't put away: id, name, kind, on_hand, usable (neither on hold nor past its day), coming, point (null
 * where nobody wants reminding).
 * @param today a parameter or placeholder of a day
 */
export const stockLevels = (today: unknown): SQL => sql`(
  select m.id, m.name, m.kind, coalesce(h.on_hand, 0) as on_hand, coalesce(h.usable, 0) as usable, coalesce(h.value, 0) as value, coalesce(c.coming, 0) as coming,
    case when m.reorder_by = 'hand' then m.reorder_at
      when m.reorder_by = 'use' and u.days >= 14
      then ceil(greatest(u.used, 0) / u.days * 2 * (select coalesce((data ->> 'leadDays')::int, 14) from settings where id = 1)) end as point
  from material m
  left join (select material_id, sum(on_hand) as on_hand, sum(value) as value,
    sum(on_hand) filter (where hold_reason is null and (best_before is null or best_before >= ${today}::date)) as usable from lot where on_hand > 0 and material_id is not null group by 1) h
    on h.material_id = m.id
  left join ${coming} c on c.material_id = m.id
  left join (select material_id, sum(used) as used, ${today}::date - min(month) as days from material_use
    where month >= date_trunc('month', ${today}::date - ${sql.raw(String(LEARN_DAYS))})::date and month <= ${today}::date and used <> 0 group by 1) u
    on u.material_id = m.id
  where not m.retired)`;
