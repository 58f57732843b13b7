/** The week ahead: everything that has its day in it. */
import { addDays, type Day } from "#core/when";
import { WEEK_DAYS } from "#core/work";
import { sql } from "drizzle-orm";
import type { Reads } from "../client.ts";
import { readNumber, readText, orNone, rowsOf } from "../columnsOf.ts";
import { oneOf } from "../schema/columns.ts";

const KINDS = ["order", "market", "best", "latest", "lotDay"] as const;

export interface Fixed {
  day: Day;
  kind: (typeof KINDS)[number];
  id: number;
  name: string;
  number: string | null;
}

/** More of one kind on one day than this is a number. */
const MOST = 60;

/** Orders due, markets, jars at their best or to be strained at last, and lots that come to their day. */
export const weekAhead = (db: Reads, today: Day): Promise<Fixed[]> => {
  const until = addDays(today, WEEK_DAYS - 1);
  const within = (column: string) => sql`${sql.raw(column)} between ${today}::date and ${until}::date`;
  return rowsOf(
    db,
    { day: readText, kind: oneOf(KINDS), id: readNumber, name: readText, number: orNone(readText) },
    sql`
    select g.due::text as day, 'order' as kind, g.id, g.customer as name, null::text as number from gift_order g where g.packed_act_id is null and ${within("g.due")}
    union all select d.day::text, 'market', d.id, d.name, null from market_day d where d.closed_act_id is null and ${within("d.day")}
    union all select j.best::text, 'best', j.id, j.name, j.number from jar j
      where j.filled_act_id is not null and j.strained_act_id is null and j.spoiled_act_id is null and ${within("j.best")}
    union all select j.latest::text, 'latest', j.id, j.name, j.number from jar j
      where j.filled_act_id is not null and j.strained_act_id is null and j.spoiled_act_id is null and ${within("j.latest")}
    union all select l.best_before::text, 'lotDay', l.id,
        l.name || case when l.label = '' then '' else ', ' || l.label end, l.number
      from lot l where l.on_hand > 0 and l.hold_reason is null and ${within("l.best_before")}
    order by 1, 2, 4 limit ${MOST * WEEK_DAYS}`,
  );
};
