/**
 * Reads what has a day, from a while ago on, with how often and when it was changed. An order or a market day that was reversed is deleted; its
 * acts are still in the book, and tell a calendar that has it that it is off.
 */
import { ABOUTS, aboutsOf, type CalendarKind, type Dated } from "#core/calendar/entries";
import { addDays, type Day } from "#core/when";
import { sql, type SQL } from "drizzle-orm";
import type { Reads } from "../client.ts";
import { orNone, readBoolean, readNumber, readText, rowsOf } from "../columnsOf.ts";
import { oneOf } from "../schema/columns.ts";
import { measuredOf } from "../shelf/low.ts";

/** A year of what was, so that a calendar that begins late has it too. */
const BACK_DAYS = 365;
/** How long a calendar is told of what is off: as long as it may not have been opened. */
const GONE_DAYS = 90;

const STATES = ["stands", "done", "off"] as const;

/** How many acts changed a record, and when the newest did. @param kind of its acts' subject */
const byActs = (kind: string, id: SQL): SQL => sql`
  cross join lateral (select count(*) as changes, max(a.at) as changed from act_subject s join act a on a.id = s.act_id
    where s.kind = ${kind} and s.subject_id = ${id} and s.changes) c`;

/** The columns that most kinds have nothing in. */
const nothing = sql`null::timestamptz as from_at, null::float8 as minutes`;
const noGoods = sql`'' as goods`;
const noAmount = sql`null::float8 as amount, false as weighed`;
const noSpan = sql`null::text as earliest, null::text as latest`;

const orders = (since: Day): SQL => sql`
  select 'order' as about, 'order-' || g.id as key, g.id, g.customer as name, null::text as number, g.due::text as day, ${nothing},
    case when g.packed_act_id is null then 'stands' else 'done' end as state,
    coalesce((select string_agg(i.units || ' × ' || case when g.packed_act_id is not null then i.name else r.name || ', ' || p.label end, ', ' order by i.id)
      from gift_item i join product p on p.id = i.product_id join recipe r on r.id = p.recipe_id where i.gift_order_id = g.id), '') as goods,
    ${noAmount}, ${noSpan}, c.changes, c.changed
  from gift_order g ${byActs("order", sql`g.id`)} where g.due >= ${since}::date`;

const markets = (since: Day): SQL => sql`
  select 'market', 'market-' || d.id, d.id, d.name, null, d.day::text, ${nothing},
    case when d.closed_act_id is null then 'stands' else 'done' end, ${noGoods},
    (select sum(l.taken)::float8 from market_line l where l.market_day_id = d.id), false, ${noSpan}, c.changes, c.changed
  from market_day d ${byActs("market", sql`d.id`)} where d.day >= ${since}::date`;

/** A jar's best day, and its last: neither any longer once it was strained or written off before it. */
const jars = (since: Day, about: "best" | "latest"): SQL => {
  const day = about === "best" ? sql`j.best` : sql`j.latest`;
  return sql`
  select ${about}, ${about} || '-' || j.id, j.id, j.name, j.number, ${day}::text, ${nothing},
    case when j.filled_act_id is null or e.day < ${day} then 'off' when e.day is not null then 'done' else 'stands' end,
    ${noGoods}, ${noAmount}, j.earliest::text, j.latest::text, c.changes, c.changed
  from jar j left join act e on e.id = coalesce(j.strained_act_id, j.spoiled_act_id) ${byActs("jar", sql`j.id`)}
  where ${day} >= ${since}::date`;
};

/** Lots with something left, and those that were used up before their day not long ago. */
const lots = (since: Day, gone: Day, today: Day): SQL => sql`
  select 'lotDay', 'lot-' || l.id, l.id, l.name || case when l.label = '' then '' else ', ' || l.label end, l.number, l.best_before::text, ${nothing},
    case when l.on_hand > 0 then 'stands' else 'off' end, ${noGoods},
    case when l.on_hand > 0 then l.on_hand::float8 end, l.material_id is not null and ${measuredOf(sql`m.kind`)} = 'weight', ${noSpan},
    c.changes, c.changed
  from lot l left join material m on m.id = l.material_id
  cross join lateral (select count(*) as changes, max(a.at) as changed, max(a.day) as day from movement v join act a on a.id = v.act_id where v.lot_id = l.id) c
  where l.best_before >= ${since}::date and (l.on_hand > 0 or (l.best_before >= ${today}::date and c.day >= ${gone}::date))`;

const heats: SQL = sql`
  select 'heat', 'heat-' || j.id || '-' || floor(extract(epoch from j.heat_on)), j.id, j.name, j.number,
    (j.heat_on + make_interval(mins => j.heat_minutes))::date::text, j.heat_on, j.heat_minutes, 'stands', ${noGoods}, ${noAmount}, ${noSpan}, c.changes, c.changed
  from jar j ${byActs("jar", sql`j.id`)}
  where j.heat_on is not null and j.heat_minutes is not null and j.filled_act_id is not null and j.strained_act_id is null and j.spoiled_act_id is null`;

/** Timers of the bench; once ended or struck out they are no longer so. */
const timers = (gone: Day): SQL => sql`
  select 'timer', 'timer-' || e.id, e.batch_id, v.name || case when e.note = '' then '' else ', ' || e.note end, null,
    (e.at + e.minutes * interval '1 minute')::date::text, e.at, e.minutes,
    case when e.struck_at is not null or e.ended_at < e.at + e.minutes * interval '1 minute' then 'off' when e.ended_at is not null then 'done' else 'stands' end,
    ${noGoods}, ${noAmount}, ${noSpan},
    1 + (e.ended_at is not null)::int + (e.struck_at is not null)::int, greatest(e.at, e.ended_at, e.struck_at)
  from batch_event e join batch b on b.id = e.batch_id join recipe_version v on v.id = b.version_id
  where e.kind = 'timer' and e.minutes is not null and e.at >= ${gone}::date`;

/** Orders and market days that were taken back: called what the act that wrote them called them. @param saved how its words begin */
const takenBack = (about: "order" | "market", table: SQL, saved: string, gone: Day): SQL => sql`
  select ${about}, ${about} || '-' || s.subject_id, s.subject_id, regexp_replace((array_agg(a.summary order by a.id) filter (where a.undoes is null))[1], ${saved}, ''), null,
    max(a.day)::text, ${nothing}, 'off', ${noGoods}, ${noAmount}, ${noSpan}, count(*), max(a.at)
  from act_subject s join act a on a.id = s.act_id
  where s.kind = ${about} and s.changes and not exists (select 1 from ${table} t where t.id = s.subject_id)
  group by s.subject_id having max(a.day) >= ${gone}::date`;

/** Soonest first. @param kinds at least one */
export async function datedOf(db: Reads, today: Day, kinds: readonly CalendarKind[]): Promise<Dated[]> {
  const since = addDays(today, -BACK_DAYS);
  const gone = addDays(today, -GONE_DAYS);
  const all = [
    orders(since),
    markets(since),
    jars(since, "best"),
    jars(since, "latest"),
    lots(gone, gone, today),
    heats,
    timers(gone),
    takenBack("order", sql`gift_order`, "^Saved the order for ", gone),
    takenBack("market", sql`market_day`, "^Saved ", gone),
  ];
  const rows = await rowsOf(
    db,
    {
      about: oneOf(ABOUTS),
      key: readText,
      id: readNumber,
      name: readText,
      number: orNone(readText),
      day: readText,
      from: orNone(readNumber),
      minutes: orNone(readNumber),
      state: oneOf(STATES),
      goods: readText,
      amount: orNone(readNumber),
      weighed: readBoolean,
      earliest: orNone(readText),
      latest: orNone(readText),
      changes: readNumber,
      changed: readNumber,
    },
    sql`select about, key, id, name, number, day, extract(epoch from from_at) * 1000 as "from", minutes, state, goods, amount, weighed, earliest, latest,
      changes, extract(epoch from changed) * 1000 as changed
    from (${sql.join(all, sql` union all `)}) x
    where about = any(${sql.param(aboutsOf(kinds))}::text[]) order by day, about, name, id`,
  );
  return rows.map((r) => ({ ...r, from: r.from === null ? null : new Date(r.from), changed: new Date(r.changed) }));
}

/** What tells these books from others, for as long as there are these: the moment of their first act; null while nothing was done. */
export async function nameOfBooks(db: Reads): Promise<string | null> {
  const [row] = await rowsOf(db, { at: orNone(readNumber) }, sql`select floor(extract(epoch from min(at)) * 1000) as at from act`);
  return row!.at === null ? null : row!.at.toString(36);
}
