/** What needs a hand today, and the small counts on the stations. */
import { kind, KIND_IDS } from "#core/material/kinds";
import { SOON_DAYS } from "#core/stock/lots";
import { addDays, type Day } from "#core/when";
import { sql } from "drizzle-orm";
import type { Reads } from "./client.ts";
import { prepared } from "./prepared.ts";

/** How far ahead Today looks. */
export const AHEAD_DAYS = 21;

export interface Waiting {
  station: "shelf" | "bench" | "cabinet" | "prices" | "markets" | "gifts";
  kind: "expired" | "soon" | "low" | "open" | "unpriced" | "toClose" | "comingUp" | "toPack";
  id: number;
  name: string;
  number: string | null;
  day: Day | null;
  amount: number | null;
  measured: "weight" | "count" | null;
}

const today = sql.placeholder("today");
const soon = sql.placeholder("soon");
const ahead = sql.placeholder("ahead");
const counted = sql.raw(
  KIND_IDS.filter((k) => kind(k).measured === "count")
    .map((k) => `'${k}'`)
    .join(", "),
);
const measured = sql`case when m.kind in (${counted}) then 'count' else 'weight' end`;
const waiting = sql`(
  select 'shelf' as station, case when l.best_before < ${today}::date then 'expired' else 'soon' end as kind, m.id, m.name, l.number, l.best_before::text as day, l.on_hand::float8 as amount, ${measured} as measured
    from lot l join material m on m.id = l.material_id where l.on_hand > 0 and l.best_before <= ${soon}::date
  union all
  select 'cabinet', case when l.best_before < ${today}::date then 'expired' else 'soon' end, l.id, r.name, l.number, l.best_before::text, l.on_hand, 'count'
    from lot l join product p on p.id = l.product_id join recipe r on r.id = p.recipe_id where l.on_hand > 0 and l.best_before <= ${soon}::date
  union all
  select 'shelf', 'low', m.id, m.name, null, null, coalesce(sum(l.on_hand), 0)::float8, ${measured}
    from material m left join lot l on l.material_id = m.id and l.on_hand > 0 where m.reorder_at is not null group by m.id having coalesce(sum(l.on_hand), 0) < m.reorder_at
  union all
  select 'bench', 'open', b.id, r.name, null, b.day::text, b.planned_units, 'count'
    from batch b join recipe r on r.id = b.recipe_id where b.poured_act_id is null and b.cleared_act_id is null
  union all
  select 'prices', 'unpriced', p.id, r.name, null, null, null, null
    from product p join recipe r on r.id = p.recipe_id where p.current and not exists (select 1 from price x where x.product_id = p.id)
  union all
  select 'markets', case when d.day <= ${today}::date then 'toClose' else 'comingUp' end, d.id, d.name, null, d.day::text, null, null
    from market_day d where d.closed_act_id is null and d.day <= ${ahead}::date
  union all
  select 'gifts', 'toPack', g.id, g.customer, null, g.due::text, (select coalesce(sum(i.units), 0) from gift_item i where i.gift_order_id = g.id)::float8, 'count'
    from gift_order g where g.packed_act_id is null and g.due <= ${ahead}::date
) waiting`;

/** One query for everything that waits, so that every page can show the counts at little cost. */
export async function whatWaits(db: Reads, day: Day): Promise<Waiting[]> {
  const column = <K extends keyof Waiting>(name: K) => sql<Waiting[K]>`${sql.identifier(name)}`;
  const statement = prepared(db, "what_waits", () =>
    db
      .select({
        station: column("station"),
        kind: column("kind"),
        id: column("id"),
        name: column("name"),
        number: column("number"),
        day: column("day"),
        amount: column("amount"),
        measured: column("measured"),
      })
      .from(waiting)
      .orderBy(sql`day nulls last, name`),
  );
  return statement.execute({ today: day, soon: addDays(day, SOON_DAYS), ahead: addDays(day, AHEAD_DAYS) });
}
