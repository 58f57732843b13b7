/** Reads what a recall reaches: every lot some lots are in by now, where all of it went, and what is half made with it. */
import { reached, type Went } from "#core/lot/reach";
import { traceFrom } from "#core/lot/trace";
import { REASONS } from "#core/ledger/reasons";
import { and, asc, eq, gt, isNotNull, isNull, sql } from "drizzle-orm";
import { onTheBench } from "../bench/planning/standing.ts";
import { isEffective } from "../ledger/effective.ts";
import type { Reads } from "../client.ts";
import { readNumber, readText, orNone, rowsOf } from "../columnsOf.ts";
import { anyOf } from "../pieces.ts";
import { runPrepared } from "../prepared.ts";
import { batch, batchSize, batchTake, contact, jar, jarPart, lot, marketDay, marketLine, recipeVersion } from "../schema.ts";
import { oneOf } from "../schema/columns.ts";
import { descendantLinks, lotsNamed, namedLots } from "./trace.ts";

/** Where all of these lots went, by movements in effect. Somebody with another name by now is still the same one. */
const wentOut = (db: Reads, lotIds: readonly number[]): Promise<Went[]> =>
  rowsOf(
    db,
    {
      lotId: readNumber,
      reason: oneOf(REASONS),
      qty: readNumber,
      day: readText,
      note: readText,
      orderId: orNone(readNumber),
      marketDayId: orNone(readNumber),
      contactId: orNone(readNumber),
    },
    // What put a movement right since, the day it was taken back included, counts with the movement itself.
    sql`
    select b.lot_id as "lotId", b.reason, sum(m.qty) as qty, a.day::text as day, b.note, g.id as "orderId", d.id as "marketDayId",
      n.contact_id as "contactId"
    from movement m join movement b on b.id = coalesce(m.restates, m.id) join act a on a.id = b.act_id
      left join gift_order g on g.id = coalesce(b.gift_order_id, b.back_from_order_id)
      left join market_day d on d.id = coalesce(b.market_day_id, b.back_from_day_id)
      left join contact_name n on n.kind = case when g.id is not null then 'customer' else 'market' end
        and n.called = lower(btrim(coalesce(g.customer, d.name)))
    where ${anyOf(sql`m.lot_id`, lotIds)} and ${isEffective(sql`b.act_id`)}
    group by b.lot_id, b.reason, a.day, b.note, g.id, d.id, n.contact_id having sum(m.qty) <> 0
    order by a.day, b.lot_id, b.reason`,
  );

/** Jars that still steep with some of these lots in them. */
const jarsWith = (db: Reads, lotIds: readonly number[]) =>
  runPrepared(db, "jars_reached", { lotIds }, (at) =>
    db
      .selectDistinct({ id: jar.id, number: jar.number, name: jar.name, lotId: jarPart.lotId })
      .from(jarPart)
      .innerJoin(jar, eq(jar.id, jarPart.jarId))
      .where(and(anyOf(jarPart.lotId, at.lotIds), isNotNull(jar.filledActId), isNull(jar.strainedActId), isNull(jar.spoiledActId)))
      .orderBy(asc(jar.id)),
  );

/** Batches on the bench that are to be made with some of them. */
const batchesWith = (db: Reads, lotIds: readonly number[]) =>
  runPrepared(db, "batches_reached", { lotIds }, (at) =>
    db
      .selectDistinct({ id: batch.id, name: recipeVersion.name, lotId: batchTake.lotId })
      .from(batchTake)
      .innerJoin(batch, eq(batch.id, batchTake.batchId))
      .innerJoin(recipeVersion, eq(recipeVersion.id, batch.versionId))
      .where(and(anyOf(batchTake.lotId, at.lotIds), onTheBench))
      .orderBy(asc(batch.id)),
  );

/** What of them is along at a market day that isn't closed. */
const alongWith = (db: Reads, lotIds: readonly number[]) =>
  runPrepared(db, "along_reached", { lotIds }, (at) =>
    db
      .select({ lotId: marketLine.lotId, taken: marketLine.taken, dayId: marketDay.id, name: marketDay.name, day: marketDay.day })
      .from(marketLine)
      .innerJoin(marketDay, eq(marketDay.id, marketLine.marketDayId))
      .where(and(anyOf(marketLine.lotId, at.lotIds), isNull(marketDay.closedActId), gt(marketLine.taken, 0)))
      .orderBy(asc(marketDay.day)),
  );

const holdersNamed = (db: Reads, ids: readonly number[]) =>
  runPrepared(db, "holders_named", { ids }, (at) =>
    db.select({ id: contact.id, name: contact.name, reach: contact.reach }).from(contact).where(anyOf(contact.id, at.ids)),
  );

/** Everything some lots reach: themselves first, then what they are in, nearest first. */
export async function reachOf(db: Reads, starts: readonly number[]) {
  const ids = [...starts, ...traceFrom(starts, await descendantLinks(db, starts), "forward").map((s) => s.lot)];
  // One after the other: an act asks on its own connection, which answers one question at a time.
  const byId = new Map((await lotsNamed(db, ids)).map((l) => [l.id, l]));
  const lots = ids.flatMap((id) => byId.get(id) ?? []);
  const { accounts, people, markets, others } = reached(ids, await wentOut(db, ids));
  const [jars, batches, along] = [await jarsWith(db, ids), await batchesWith(db, ids), await alongWith(db, ids)];
  const who = new Map(
    (
      await holdersNamed(
        db,
        [...people, ...markets].map((h) => h.contactId),
      )
    ).map((c) => [c.id, c]),
  );
  const named = (all: typeof people) =>
    all.map((h) => ({ ...h, ...who.get(h.contactId)! })).sort((a, b) => b.units - a.units || a.name.localeCompare(b.name));
  return { lots, accounts, people: named(people), markets: named(markets), others, jars, batches, along };
}

export type Reach = Awaited<ReturnType<typeof reachOf>>;

/** Lots that are likely meant too: of the same supplier's lot, or poured from the same pot. */
export const alsoMeant = (db: Reads, lotId: number) =>
  runPrepared(db, "also_meant", { lotId }, (at) =>
    namedLots(db)
      .where(
        sql`${lot.id} <> ${at.lotId}::int and (${lot.id} in (select o.id from lot l join lot o on o.material_id = l.material_id and upper(o.supplier_lot) = upper(l.supplier_lot)
          where l.id = ${at.lotId}::int and l.supplier_lot <> '')
        or ${lot.id} in (select o.lot_id from ${batchSize} s join ${batchSize} o on o.batch_id = s.batch_id where s.lot_id = ${at.lotId}::int and o.units > 0))`,
      )
      .orderBy(asc(lot.id)),
  );

/** Those of them that are finished units. */
export const finishedOf = (reach: Pick<Reach, "lots">): number[] => reach.lots.flatMap((l) => (l.productId === null ? [] : [l.id]));
