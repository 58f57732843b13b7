/** What needs a hand today, and the small counts on the stations. */
import { METHOD_IDS, method } from "#core/infusion/methods";
import { SOON_DAYS } from "#core/stock/lots";
import { addDays, type Day } from "#core/when";
import { WORK, type WorkKind } from "#core/work";
import { sql, type SQL } from "drizzle-orm";
import { sqlNumber, sqlNumberOrNull, orSqlNull, sqlText, sqlTextOrNull } from "../columnsOf.ts";
import type { Reads } from "../client.ts";
import { openOrders, type NamedStep, type OrderState } from "../gifts/begin.ts";
import { cachedUntilWrite } from "../cache.ts";
import { notReversed } from "../ledger/effective.ts";
import { setsStill, uncheckedOn } from "../bench/finishing/notYetReleased.ts";
import { runPrepared } from "../prepared.ts";
import { oneOf } from "../schema/columns.ts";
import { measuredOf, stockLevels } from "../shelf/low.ts";

/** How far ahead Today looks. */
export const AHEAD_DAYS = 21;

const WAITS_AT = ["shelf", "jars", "bench", "cabinet", "prices", "markets", "gifts", "lots"] as const;

export interface Waiting {
  station: (typeof WAITS_AT)[number];
  kind: WorkKind;
  id: number;
  name: string;
  number: string | null;
  day: Day | null;
  amount: number | null;
  measured: "weight" | "count" | null;
  /** How many of its kind wait in all; only the first are listed. */
  total: number;
  /** Of an order that lacks something: what is to be begun for it, what presses most first. */
  steps?: readonly NamedStep[];
  /** The last day to begin it, where that is known better than by its kind. */
  begin?: Day;
}

/** More of a kind than this is a list to be opened, not read through. */
const LISTED = 25;

const today = sql.placeholder("today");
const soon = sql.placeholder("soon");
const ahead = sql.placeholder("ahead");
const shaken = sql.raw(
  METHOD_IDS.filter((m) => method(m).shaken)
    .map((m) => `'${m}'`)
    .join(", "),
);
/** A lot that waits for a hand, as what. */
const lotWaits = sql`case when l.hold_reason is not null then 'held' when l.best_before < ${today}::date then 'expired' else 'soon' end`;
const isWaiting = sql`l.on_hand > 0 and (l.best_before <= ${soon}::date or l.hold_reason is not null)`;
// There may be a thousand of them: they are counted and put in order before those that are listed are described.
const lots = sql`(select 'shelf' as station, ${lotWaits} as kind, m.id, m.name, l.number, l.best_before, l.on_hand, m.kind as of_kind
  from lot l join material m on m.id = l.material_id where ${isWaiting}) lots`;
/** What runs low: it takes the use of half a year of every material to know. */
const low = sql`(select 'shelf' as station, 'low' as kind, m.id, m.name, null as number, null as day, m.usable::float8 as amount, ${measuredOf(sql`m.kind`)} as measured
  from ${stockLevels(today)} m where m.usable + m.coming < m.point) low`;
const others = sql`(
  select 'cabinet' as station, ${lotWaits} as kind, l.id, l.name || ', ' || l.label as name, l.number, l.best_before::text as day, l.on_hand::float8 as amount, 'count' as measured
    from lot l where l.product_id is not null and ${isWaiting}
  union all
  select 'cabinet', case when ${setsStill} then 'outSetting' else 'outUnchecked' end, b.id, l.name || ', ' || l.label, l.number, l.arrived::text, gone.units, 'count'
    from lot l join batch_size s on s.lot_id = l.id join batch b on b.id = s.batch_id, lateral (
      select -sum(m.qty)::float8 as units from movement m
      where m.lot_id = l.id and coalesce(m.gift_order_id, m.market_day_id, m.back_from_order_id, m.back_from_day_id) is not null) gone
    where l.product_id is not null and gone.units > 0 and ${uncheckedOn(sql`${today}`)}
  union all
  select 'shelf', 'drying', h.id, h.name, null, h.picked::text, h.fresh::float8, 'weight' from harvest h
    where h.dried_act_id is null and (h.picked_act_id is null or exists (select 1 from standing_act sa where sa.id = h.picked_act_id))
  union all
  select 'jars', case when ${today}::date > j.latest then 'late' when ${today}::date >= j.best then 'ready' else 'shake' end, j.id, j.name, j.number, j.best::text, null, null
    from jar j where j.filled_act_id is not null and j.strained_act_id is null and j.spoiled_act_id is null and (j.best <= ${today}::date
      or j.method in (${shaken}) and coalesce((select max(e.day) from jar_event e where e.jar_id = j.id and e.kind = 'shaken'), j.day)
        + case when ${today}::date - j.day <= 14 then 1 else 3 end <= ${today}::date)
  union all
  select 'bench', 'open', b.id, v.name, null, b.day::text, (select sum(s.planned) from batch_size s where s.batch_id = b.id)::float8, 'count'
    from batch b join recipe_version v on v.id = b.version_id where b.poured_act_id is null and b.cleared_act_id is null
  union all
  select 'lots', 'recall', r.id, case when r.rehearsal then 'Rehearsal' else 'Recall' end || ': ' || r.reason, null, a.day::text, null, null
    from recall r join act a on a.id = r.begun_act_id where r.closed_act_id is null
  union all
  select 'prices', 'unpriced', p.id, r.name || ', ' || p.label, null, null, null, null
    from product p join recipe r on r.id = p.recipe_id where not p.retired and not r.retired
      and not exists (select 1 from price x where x.product_id = p.id and ${notReversed(sql`x.act_id`)})
  union all
  select 'markets', case when d.day <= ${today}::date then 'toClose' else 'comingUp' end, d.id, d.name, null, d.day::text, null, null
    from market_day d where d.closed_act_id is null and d.day <= ${ahead}::date
  union all
  select 'gifts', 'toPack', g.id, g.customer, null, g.due::text, (select coalesce(sum(i.units), 0) from gift_item i where i.gift_order_id = g.id)::float8, 'count'
    from gift_order g where g.packed_act_id is null and g.due <= ${ahead}::date
) others`;

/** Compared letter by letter: these words are our own, and so is how a day is written. */
const kindOfWork = sql`station collate "C", kind collate "C"`;

/** How many there are of a kind, and the place of each among them by its day. */
const placed = (day: SQL): SQL => sql`count(*) over (partition by ${kindOfWork}) as total,
  row_number() over (partition by ${kindOfWork} order by ${day} nulls last, name, id) as place`;
const first = sql.raw(`place <= ${LISTED}`);

const days = (day: Day) => ({ today: day, soon: addDays(day, SOON_DAYS), ahead: addDays(day, AHEAD_DAYS) });

/** Orders that are due as far as Today looks ahead, and those due later of which something is to be begun by then. */
function ordersAhead(orders: readonly OrderState[], day: Day): { due: OrderState[]; later: OrderState[] } {
  const until = addDays(day, AHEAD_DAYS);
  return {
    due: orders.filter((o) => o.due <= until),
    later: orders.filter((o) => o.due > until && o.steps.some((s) => s.by <= until)),
  };
}

/**
 * Everything that waits, the first of each kind. An order is to be packed only when it can be; one that lacks something waits from three weeks
 * before the first of it has to be begun.
 */
export async function workItems(db: Reads, day: Day): Promise<Waiting[]> {
  const [rows, orders] = await Promise.all([listed(db, day), openOrders(db, day)]);
  const { due, later } = ordersAhead(orders, day);
  const begun: Waiting[] = later.map((o) => ({
    ...{ station: "gifts", kind: "toPack", id: o.orderId, name: o.customer, number: null },
    ...{ day: o.due, amount: o.wished, measured: "count", total: 0 },
  }));
  const toMake = new Map([...due, ...later].filter((o) => o.steps.length > 0).map((o) => [o.orderId, o.steps]));
  const toPack = due.length + later.length - toMake.size;
  return [...rows, ...begun].sort(bySoonest).map((w) => {
    if (w.kind !== "toPack") return w;
    const steps = toMake.get(w.id);
    return steps ? { ...w, kind: "toMake", total: toMake.size, steps, begin: steps[0]!.by } : { ...w, total: toPack };
  });
}

const shown = {
  station: sql`station`.mapWith(oneOf(WAITS_AT)),
  kind: sql`kind`.mapWith(oneOf(WORK)),
  id: sqlNumber(sql`id`),
  name: sqlText(sql`name`),
  number: sqlTextOrNull(sql`number`),
  day: sqlTextOrNull(sql`day`),
  amount: sqlNumberOrNull(sql`amount`),
  measured: orSqlNull(sql`measured`.mapWith(oneOf(["weight", "count"]))),
  total: sqlNumber(sql`total`),
};

const lotsListed = (db: Reads, day: Day): Promise<Waiting[]> =>
  runPrepared(db, "lots_wait", days(day), () =>
    db.select(shown).from(
      sql`(select station, kind, id, name, number, best_before::text as day, on_hand::float8 as amount, ${measuredOf(sql`of_kind`)} as measured, total
            from (select *, ${placed(sql`best_before`)} from ${lots}) placed where ${first}) listed`,
    ),
  );
const restListed = (db: Reads, name: string, of: SQL, day: Day): Promise<Waiting[]> =>
  runPrepared(db, name, days(day), () =>
    db
      .select(shown)
      .from(sql`(select *, ${placed(sql`day collate "C"`)} from ${of}) placed`)
      .where(first),
  );

/** After every day. */
const NO_DAY = "9999";
const bySoonest = (a: Waiting, b: Waiting): number => {
  const [x, y] = [a.day ?? NO_DAY, b.day ?? NO_DAY];
  return x < y ? -1 : x > y ? 1 : a.name.localeCompare(b.name) || a.id - b.id;
};

/** The first of each kind. Lots and what runs low are asked for beside the rest: there may be a thousand of them, and none waits for another. */
async function listed(db: Reads, day: Day): Promise<Waiting[]> {
  const [some, short, rest] = await Promise.all([
    lotsListed(db, day),
    restListed(db, "low_waits", low, day),
    restListed(db, "others_wait", others, day),
  ]);
  return [...some, ...short, ...rest];
}

/** How much waits at each station: what the Line shows on every page. */
export const waitingCounts = (db: Reads, day: Day): Promise<Record<string, number>> =>
  cachedUntilWrite(db, "waiting counts", day, () => countWaiting(db, day));

async function countWaiting(db: Reads, day: Day): Promise<Record<string, number>> {
  const early = ordersAhead(await openOrders(db, day), day).later.length;
  const counts = await runPrepared(db, "waiting_counts", days(day), () =>
    db
      .select({ station: sqlText(sql`station`), n: sqlNumber(sql`count(*)`) })
      .from(sql`(select station from ${lots} union all select station from ${low} union all select station from ${others}) waiting`)
      .groupBy(sql`station`),
  );
  const all = Object.fromEntries(counts.map((r) => [`/${r.station}`, r.n]));
  return early > 0 ? { ...all, "/gifts": (all["/gifts"] ?? 0) + early } : all;
}
