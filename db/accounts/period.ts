/**
 * What the books know of a period's money. What was corrected since counts as it turned out, on the day it is about: a receipt of December that
 * was corrected in January is December's. Goods count from the day they arrived, a market day's from its day, everything else from its act's.
 */
import { REASONS, type Reason } from "#core/ledger/reasons";
import { flowOf, type Flow, type Moved, type Sale } from "#core/accounts/statement";
import { orderResult } from "#core/gift/order";
import { resultOf } from "#core/market/day";
import { KINDS } from "#core/material/kinds";
import { micros, type Micros } from "#core/measure/exact";
import { addDays, type Day } from "#core/when";
import { and, between, eq, isNotNull, sql, type SQL } from "drizzle-orm";
import { worthByCostingMethod } from "#core/stock/costingMethods";
import type { Period } from "#core/accounts/period";
import type { Reads } from "../client.ts";
import { orNone, readNumber, readText, rowsOf, sqlText } from "../columnsOf.ts";
import { listGiftOrders } from "../gifts/gifts.ts";
import { notReversed } from "../ledger/effective.ts";
import { replacementCostsOn } from "../ledger/lots.ts";
import { marketSums } from "../markets/markets.ts";
import { anyOf } from "../pieces.ts";
import { oneOf } from "../schema/columns.ts";
import { act, giftOrder, lot, movement, purchase, purchaseLine } from "../schema.ts";

const REASON_IDS = Object.keys(REASONS) as Reason[];
const ONLY_CORRECT: ReadonlySet<Reason> = new Set(["corrected", "restated", "undone"]);

const PACKAGING = sql.join(
  Object.entries(KINDS).flatMap(([id, k]) => (k.group === "packaging" ? [sql`${id}`] : [])),
  sql`, `,
);

/** Every movement with the reason, the part of the stock and the day of the movement it is about: a correction has those of what it corrects. */
const placed = sql`
  select m.value, m.qty, m.lot_id, a.id as act_id, a.summary, coalesce(b.reason, m.reason) as reason, coalesce(b.jar_id, m.jar_id) as jar_id,
    case when l.product_id is not null then 'finished' when t.kind in (${PACKAGING}) then 'packaging' else 'ingredient' end as stock,
    case when coalesce(b.reason, m.reason) = 'received' then l.arrived
      when d.id is not null and coalesce(b.reason, m.reason) in ('sold', 'tester', 'damaged') then d.day
      else a.day end as day
  from movement m
  left join movement b on b.id = m.restates
  join act a on a.id = coalesce(b.act_id, m.act_id)
  join lot l on l.id = m.lot_id
  left join material t on t.id = l.material_id
  left join market_day d on d.id = coalesce(b.market_day_id, m.market_day_id)`;

/** What movements come to, by reason and part of the stock, before the period and in it. */
export async function movedIn(db: Reads, { from, to }: Period): Promise<Moved[]> {
  const rows = await rowsOf(
    db,
    {
      stock: oneOf(["ingredient", "packaging", "finished"]),
      reason: oneOf(REASON_IDS),
      before: readNumber,
      within: readNumber,
    },
    sql`select stock, reason, coalesce(sum(value) filter (where day < ${from}::date), 0) as before,
      coalesce(sum(value) filter (where day >= ${from}::date), 0) as within
    from (${placed}) p where day <= ${to}::date group by stock, reason order by stock, reason`,
  );
  return rows.map((r) => ({ ...r, before: micros(r.before), within: micros(r.within) }));
}

/** A part of a line of the statement: what was done, or the jar it was done with, and what that came to. */
export interface PartOfFlow {
  path: string;
  day: Day;
  say: string;
  value: Micros;
}

/** What one line of the statement is made of, soonest first. Of a jar only what came to less than went in counts, once it steeps no more. */
export async function partsOfFlow(db: Reads, { from, to }: Period, flow: Flow): Promise<PartOfFlow[]> {
  const reasons = sql.param(REASON_IDS.filter((r) => !ONLY_CORRECT.has(r) && flowOf(r) === flow));
  const before = addDays(from, -1);
  const steeps = (day: Day): SQL =>
    sql`coalesce(-sum(p.value) filter (where p.day <= ${day}::date and (e.id is null or e.day > ${day}::date)), 0)`;
  const rows = await rowsOf(
    db,
    { path: readText, day: readText, say: readText, value: readNumber },
    sql`with p as (select * from (${placed}) p where p.reason = any(${reasons}::text[]) and p.day <= ${to}::date)
    select '/book/' || p.act_id as path, p.day::text as day, p.summary as say, sum(p.value) as value from p
      where p.day >= ${from}::date and p.jar_id is null group by p.act_id, p.day, p.summary having sum(p.value) <> 0
    union all
    select '/jars/' || j.id, max(p.day)::text, 'Jar ' || j.number || ': ' || j.name,
      coalesce(sum(p.value) filter (where p.day >= ${from}::date), 0) + ${steeps(to)} - ${steeps(before)} as value
    from p join jar j on j.id = p.jar_id left join act e on e.id = coalesce(j.strained_act_id, j.spoiled_act_id)
    where j.filled_act_id is not null group by j.id
    order by 2, 1`,
  );
  return rows.filter((r) => r.value !== 0).map((r) => ({ ...r, value: micros(r.value) }));
}

/** What was in jars that steeped at the end of a day: filled by then, neither strained nor written off by then. */
async function inJarsOn(db: Reads, day: Day): Promise<Micros> {
  const [row] = await rowsOf(
    db,
    { worth: readNumber },
    sql`select coalesce(-sum(p.value), 0) as worth from (${placed}) p join jar j on j.id = p.jar_id
      left join act e on e.id = coalesce(j.strained_act_id, j.spoiled_act_id)
    where p.day <= ${day}::date and j.filled_act_id is not null and (e.id is null or e.day > ${day}::date) and p.reason in ('infused', 'strained')`,
  );
  return micros(row!.worth);
}

export const inJars = async (db: Reads, { from, to }: Period): Promise<{ start: Micros; end: Micros }> => ({
  start: await inJarsOn(db, addDays(from, -1)),
  end: await inJarsOn(db, to),
});

/** How much more or less the materials there were at the end of a day would have cost to buy again then, than they did. */
export async function dearerOn(db: Reads, day: Day): Promise<Micros> {
  const held = await rowsOf(
    db,
    { id: readNumber, onHand: readNumber, value: readNumber },
    sql`select l.material_id as id, sum(p.qty) as "onHand", sum(p.value) as value from (${placed}) p join lot l on l.id = p.lot_id
    where l.material_id is not null and p.day <= ${day}::date group by 1`,
  );
  const worth = worthByCostingMethod(
    held.map((h) => ({ ...h, value: micros(h.value) })),
    await replacementCostsOn(db, day),
  );
  return micros(worth.again - worth.lot);
}

/** Receipts in effect of a period, each with what was paid for it in all, and how much of that is still to come. */
export const receiptsIn = (db: Reads, { from, to }: Period) =>
  db
    .select({
      id: purchase.id,
      day: purchase.day,
      supplier: purchase.supplier,
      paid: sql`sum(${purchaseLine.landed})`.mapWith(purchaseLine.landed),
      toCome: sql`coalesce(sum(${purchaseLine.landed}) filter (where ${purchaseLine.lotId} is null), 0)`.mapWith(purchaseLine.landed),
    })
    .from(purchase)
    .innerJoin(purchaseLine, eq(purchaseLine.purchaseId, purchase.id))
    .where(and(between(purchase.day, from, to), notReversed(purchase.actId)))
    .groupBy(purchase.id)
    .orderBy(purchase.day, purchase.id);

/** Market days that were closed, and orders that were packed, in a period. */
export async function salesIn(db: Reads, period: Period): Promise<Sale[]> {
  return [...(await marketsIn(db, period)), ...(await ordersIn(db, period))];
}

async function marketsIn(db: Reads, { from, to }: Period): Promise<Sale[]> {
  const days = (await marketSums(db)).filter((d) => d.closedActId !== null && d.day >= from && d.day <= to);
  return days.reverse().map((d) => {
    const { takings, cardFee } = resultOf({ ...d, hours: d.minutes / 60 });
    return {
      channel: "market",
      id: d.id,
      place: d.name,
      day: d.day,
      takings,
      stall: d.stallFee,
      travel: d.travel,
      card: cardFee,
      costKnown: d.costKnown,
    };
  });
}

/** Which of these orders goods went into whose cost nobody knows. */
async function withoutCost(db: Reads, ids: readonly number[]): Promise<Set<number | null>> {
  const rows = await db
    .selectDistinct({ id: movement.giftOrderId })
    .from(movement)
    .innerJoin(lot, and(eq(lot.id, movement.lotId), isNotNull(lot.productId), eq(lot.costKnown, "none")))
    .where(anyOf(movement.giftOrderId, ids));
  return new Set(rows.map((r) => r.id));
}

/** The day an order was packed, or handed over where that was before the books. */
const wentOut = sqlText(sql`coalesce(${giftOrder.handedOver}, ${act.day})::text`);

async function ordersIn(db: Reads, { from, to }: Period): Promise<Sale[]> {
  const packed = await db
    .select({ id: giftOrder.id, day: wentOut })
    .from(giftOrder)
    .innerJoin(act, eq(act.id, giftOrder.packedActId))
    .where(between(wentOut, from, to))
    .orderBy(wentOut, giftOrder.id);
  const ids = packed.map((p) => p.id);
  const costless = await withoutCost(db, ids);
  const orders = new Map((await listGiftOrders(db, ids)).map((o) => [o.id, o]));
  const none = micros(0);
  return packed.map(({ id, day }) => {
    const o = orders.get(id)!;
    const { price } = orderResult({ ...o, items: o.items.map((i) => ({ ...i, cost: none })), wrapping: [], wrapMinutes: 0, hourly: none });
    return {
      channel: "order",
      id,
      place: o.customer,
      day,
      takings: price,
      stall: none,
      travel: none,
      card: none,
      costKnown: o.handedOver === null && !costless.has(id),
    };
  });
}

/** The days the books begin and end with, what was sold before them in it; null while nothing was done. */
export async function spanOfBooks(db: Reads): Promise<Period | null> {
  const [row] = await rowsOf(
    db,
    { from: orNone(readText), to: orNone(readText) },
    sql`select least(min(day), (select min(d.day) from market_day d where d.before_books), (select min(g.handed_over) from gift_order g))::text as "from",
      max(day)::text as "to" from act`,
  );
  return row?.from && row.to ? { from: row.from, to: row.to } : null;
}
