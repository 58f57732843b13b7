/** One lot's whole history: what it came from, what it went into, down to market days and orders. */
import { slipsOf } from "#core/lot/check";
import { contentsOf } from "#core/lot/contents";
import { trace, type Link } from "#core/lot/trace";
import { FOUND, TURNED } from "#core/ledger/reasons";
import { and, asc, eq, sql, type Placeholder, type SQL } from "drizzle-orm";
import { readNumber, isOnHold, rowsOf, sqlTextOrNull } from "../columnsOf.ts";
import { isEffective } from "../ledger/effective.ts";
import type { Reads } from "../client.ts";
import { anyOf, anywhere } from "../pieces.ts";
import { runPrepared } from "../prepared.ts";
import {
  act,
  batch,
  batchSize,
  giftOrder,
  jar,
  lot,
  marketDay,
  material,
  movement,
  product,
  purchase,
  purchaseLine,
  recipe,
  recipeVersion,
} from "../schema.ts";

/** Lots named with what they are of, by id. */
export const namedLots = (db: Reads) =>
  db
    .select({
      id: lot.id,
      number: lot.number,
      onHand: lot.onHand,
      bestBefore: lot.bestBefore,
      arrived: lot.arrived,
      value: lot.value,
      supplierLot: lot.supplierLot,
      costKnown: lot.costKnown,
      holdReason: lot.holdReason,
      scentMostPpm: lot.scentMostPpm,
      hold: isOnHold,
      materialId: lot.materialId,
      productId: lot.productId,
      kind: material.kind,
      /** What it was called when it came to be, and what that is called now where it is another name. */
      name: lot.name,
      label: lot.label,
      fill: lot.fill,
      calledNow: sqlTextOrNull(sql`nullif(coalesce(${material.name}, ${recipe.name}), ${lot.name})`),
      bestBy: lot.bestBy,
      supplier: purchase.supplier,
    })
    .from(lot)
    .leftJoin(material, eq(material.id, lot.materialId))
    .leftJoin(product, eq(product.id, lot.productId))
    .leftJoin(recipe, eq(recipe.id, product.recipeId))
    .leftJoin(purchaseLine, eq(purchaseLine.lotId, lot.id))
    .leftJoin(purchase, eq(purchase.id, purchaseLine.purchaseId))
    .$dynamic();

export type NamedLot = Awaited<ReturnType<typeof namedLots>>[number];

/** Lots by id, in no order. */
export const lotsNamed = (db: Reads, ids: readonly number[]): Promise<NamedLot[]> =>
  runPrepared(db, "lots_named", { ids }, (at) => namedLots(db).where(anyOf(lot.id, at.ids)));

/** What lots went into, and that into what, as part of a recursive statement. @param start the lots it begins with, each beside a null */
const forth = (start: SQL): SQL => sql`forth(id, out_of) as (
      ${start}
      union select k.to_lot, forth.id from forth cross join lateral (select to_lot from lot_link where from_lot = forth.id group by 1) k
    )`;

/** Every link forward from some lots, in the order the lots came to be. */
export const descendantLinks = (db: Reads, lotIds: readonly number[]): Promise<Link[]> =>
  rowsOf(
    db,
    { from: readNumber, to: readNumber },
    sql`with recursive ${forth(sql`select unnest(${sql.param([...lotIds])}::int[]), null::int`)}
    select out_of as "from", id as "to" from forth where out_of is not null order by 1, 2`,
  );

/**
 * Links of every lot that can be reached from one, in both directions. A batch joins what was used in it to what was filled, a jar
 * what was steeped in it to the bottles strained, a blend its oils to what they became, as long as that act is in effect. In the order the lots came to be.
 * Each step asks for the links of one lot, grouped: joined plainly, every step would read the whole ledger, and without a word of how few they
 * are room for millions would be made.
 */
async function linksAround(db: Reads, lotId: number): Promise<Link[]> {
  return rowsOf(
    db,
    { from: readNumber, to: readNumber },
    sql`
    with recursive back(id, went_into) as (
      select ${lotId}::int, null::int
      union select k.from_lot, back.id from back cross join lateral (select from_lot from lot_link where to_lot = back.id group by 1) k
    ), ${forth(sql`select ${lotId}::int, null::int`)}
    select id as "from", went_into as "to" from back where went_into is not null
    union select out_of, id from forth where out_of is not null
    order by 1, 2`,
  );
}

/** Standing movements of lots (nothing that was taken back), with where they went. */
const historyOf = (db: Reads, lotIds: readonly number[]) =>
  runPrepared(db, "history_of_lots", { lotIds }, (at) => historyRows(db, at.lotIds));

const historyRows = (db: Reads, lotIds: Placeholder) =>
  db
    .select({
      id: movement.id,
      actId: act.id,
      lotId: movement.lotId,
      day: act.day,
      qty: movement.qty,
      value: movement.value,
      reason: movement.reason,
      note: movement.note,
      batchId: movement.batchId,
      market: marketDay.name,
      marketDayId: marketDay.id,
      customer: giftOrder.customer,
      giftOrderId: giftOrder.id,
      jarId: movement.jarId,
      jar: jar.number,
      batchNumber: sqlTextOrNull(
        sql`(select string_agg(l.number, ', ' order by s.position) from ${batchSize} s join ${lot} l on l.id = s.lot_id where s.batch_id = ${movement.batchId} and s.units > 0)`,
      ),
    })
    .from(movement)
    .innerJoin(act, eq(act.id, movement.actId))
    .leftJoin(marketDay, eq(marketDay.id, movement.marketDayId))
    .leftJoin(giftOrder, eq(giftOrder.id, movement.giftOrderId))
    .leftJoin(jar, eq(jar.id, movement.jarId))
    .where(and(anyOf(movement.lotId, lotIds), isEffective(movement.actId)))
    .orderBy(asc(movement.id));

export type HistoryRow = Awaited<ReturnType<typeof historyOf>>[number];

/** Finds a lot by number, whatever the case or spaces; null when there is none. */
export async function findLot(db: Reads, number: string): Promise<NamedLot | null> {
  const [row] = await runPrepared(db, "lot_by_number", { number: number.replace(/\s+/g, "") }, (at) =>
    namedLots(db).where(sql`upper(${lot.number}) = upper(${at.number})`),
  );
  return row ?? null;
}

/** Lots by their numbers, in the order they came to be; a number that is none's is passed over. */
export const lotsNumbered = (db: Reads, numbers: readonly string[]): Promise<NamedLot[]> =>
  namedLots(db)
    .where(sql`upper(${lot.number}) = any(${sql.param(numbers.map((n) => n.replace(/\s+/g, "").toUpperCase()))}::text[])`)
    .orderBy(asc(lot.id));

/** Lots whose number or supplier's number starts or ends so, for when only part of it can be read; newest first. */
export const lotsLike = (db: Reads, part: string, limit = 40): Promise<NamedLot[]> =>
  runPrepared(db, "lots_like", { part, like: anywhere(part), limit }, (at) =>
    namedLots(db)
      .where(
        sql`upper(${lot.number}) like upper(${at.like}) or upper(${lot.supplierLot}) = upper(${at.part}) or ${lot.name} ilike ${at.like}`,
      )
      .orderBy(sql`${lot.id} desc`)
      .limit(at.limit),
  );

/** Lots whose number is the one typed with one slip in it: a character wrong, missing or too many, or two that changed places; newest first. */
export async function lotsNear(db: Reads, typed: string, limit = 10): Promise<NamedLot[]> {
  const meant = slipsOf(typed);
  if (meant.length === 0) return [];
  return namedLots(db)
    .where(sql`upper(${lot.number}) = any(${sql.param(meant)}::text[])`)
    .orderBy(sql`${lot.id} desc`)
    .limit(limit);
}

/** Everything one lot came from and went into. */
export async function traceLot(db: Reads, lotId: number) {
  const links = await linksAround(db, lotId);
  const back = trace(lotId, links, "back");
  const forward = trace(lotId, links, "forward");
  const ids = [lotId, ...back.map((s) => s.lot), ...forward.map((s) => s.lot)];
  const [named, history, made, strained, inLot] = await Promise.all([
    lotsNamed(db, ids),
    historyOf(db, [lotId, ...forward.map((s) => s.lot)]),
    runPrepared(db, "pours_of_lots", { ids }, (at) =>
      db
        .select({ lotId: batchSize.lotId, batchId: batch.id, day: batch.day, name: recipeVersion.name })
        .from(batchSize)
        .innerJoin(batch, eq(batch.id, batchSize.batchId))
        .innerJoin(recipeVersion, eq(recipeVersion.id, batch.versionId))
        .where(anyOf(batchSize.lotId, at.ids)),
    ),
    runPrepared(db, "jars_of_lots", { ids }, (at) =>
      db
        .select({ lotId: movement.lotId, jarId: jar.id, number: jar.number, name: jar.name })
        .from(movement)
        .innerJoin(jar, eq(jar.strainedActId, movement.actId))
        .where(and(anyOf(movement.lotId, at.ids), eq(movement.reason, "strained"))),
    ),
    amountsIn(db, ids),
  ]);
  const lots = new Map(named.map((l) => [l.id, l]));
  const stepped = (steps: typeof back) => steps.map((s) => ({ ...s, lot: lots.get(s.lot)! }));
  const whole = new Map((await madeOf(db, ids)).map((m) => [m.id, m.qty]));
  const contents = [...contentsOf(lotId, inLot, whole)].map(([of, qty]) => ({ of, qty: Math.round(qty) }));
  return { contents, lot: lots.get(lotId)!, back: stepped(back), forward: stepped(forward), links, history, made, strained, inLot };
}

/** How much of each lot there was in all, with what put that right since. */
const madeOf = (db: Reads, ids: readonly number[]) =>
  rowsOf(
    db,
    { id: readNumber, qty: readNumber },
    sql`select b.lot_id as id, sum(m.qty)::float8 as qty from movement m join movement b on b.id = coalesce(m.restates, m.id)
    where ${anyOf(sql`m.lot_id`, ids)} and b.qty > 0 and b.reason not in ${[...FOUND, "undone"]} and ${isEffective(sql`b.act_id`)} group by 1`,
  );

/**
 * How much of one lot is in another. Of a pot that filled several sizes each has its share by weight, of a jar each bottle; a size's own packaging
 * is all its own.
 */
const amountsIn = (db: Reads, ids: readonly number[]) =>
  rowsOf(
    db,
    { from: readNumber, to: readNumber, qty: readNumber },
    sql`
    select ing.lot_id as "from", made.lot_id as "to",
      round(-sum(ing.qty * case when ing.into_lot_id is not null then 1 else s.units::numeric * s.fill / pot.filled end)) as qty
      from movement made join batch b on b.poured_act_id = made.act_id join batch_size s on s.batch_id = b.id and s.lot_id = made.lot_id
      join lateral (select sum(x.units::numeric * x.fill) as filled from batch_size x where x.batch_id = b.id) pot on true
      join movement ing on ing.act_id = made.act_id and ing.reason = 'used' and (ing.into_lot_id is null or ing.into_lot_id = made.lot_id)
      where ${anyOf(sql`made.lot_id`, ids)} and made.reason = 'filled' and pot.filled > 0 group by 1, 2
    union all
    select ing.lot_id, made.lot_id, round(-sum(ing.qty) * made.qty / pot.weighed) from movement made
      join lateral (select -sum(x.qty) as weighed from movement x where x.act_id = made.act_id and x.reason = 'used' and x.into_lot_id is null) pot on true
      join movement ing on ing.act_id = made.act_id and ing.reason = 'used' and ing.into_lot_id is null
      where ${anyOf(sql`made.lot_id`, ids)} and made.reason = 'leftOver' and ${isEffective(sql`made.act_id`)} group by 1, 2, made.qty, pot.weighed
    union all
    select p.lot_id, made.lot_id, round(sum(p.qty) * made.qty / jar.strained) from movement made join jar j on j.strained_act_id = made.act_id
      join lateral (select sum(x.qty) as strained from movement x where x.act_id = made.act_id and x.reason = 'strained') jar on true
      join jar_part p on p.jar_id = j.id
      where ${anyOf(sql`made.lot_id`, ids)} and made.reason = 'strained' and jar.strained > 0 group by 1, 2, made.qty, jar.strained
    union all
    select ing.lot_id, made.lot_id, -ing.qty from movement made join movement ing on ing.act_id = made.act_id and ing.reason = made.reason and ing.qty < 0
      where ${anyOf(sql`made.lot_id`, ids)} and made.reason in ${TURNED} and made.qty > 0 and ${isEffective(sql`made.act_id`)}`,
  );
