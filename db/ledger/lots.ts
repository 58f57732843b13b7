/**
 * Lots and movements: the one place that reads balances for a draw and writes the ledger.
 */
import { micros, minus, type Base, type Micros } from "#core/measure/exact";
import { Refused } from "#core/refused";
import { COSTS_AGAIN, FOUND } from "#core/ledger/reasons";
import type { KindId } from "#core/material/kinds";
import { drawValue, type Lot } from "#core/stock/lots";
import { mayUse, type Use } from "#core/stock/use";
import { sayFullDay, type Day } from "#core/when";
import { costOf, type UnitCost } from "#core/measure/money";
import { and, asc, eq, gt, isNotNull, isNull, notInArray, type Placeholder, sql, type SQL, type SQLWrapper } from "drizzle-orm";
import { unionAll } from "drizzle-orm/pg-core";
import { isOnHold, sqlNumber, sqlText } from "../columnsOf.ts";
import { notReversed, isEffective } from "./effective.ts";
import type { Reads, Tx } from "../client.ts";
import { runPrepared } from "../prepared.ts";
import { anyOf } from "../pieces.ts";
import { lot, material, movement, purchase, purchaseLine, actInEffect } from "../schema.ts";
import { literals } from "../schema/columns.ts";
import { bare } from "../schema/ours.ts";

/** Whether there is any of it. Written out and not given: the indexes of what is on hand are of just this, and a cached plan can use them. */
export const hasStock = sql`${lot.onHand} > 0`;

/** A lot as the core takes it. */
export const lotColumns = {
  id: lot.id,
  number: lot.number,
  of: sqlNumber(sql`coalesce(${lot.materialId}, ${lot.productId})`),
  onHand: lot.onHand,
  value: lot.value,
  arrived: lot.arrived,
  bestBefore: lot.bestBefore,
  hold: isOnHold,
  costKnown: lot.costKnown,
  scentMostPpm: lot.scentMostPpm,
  dryness: lot.dryness,
  dropsPerMl: lot.dropsPerMl,
};

const onHand = (db: Reads) => db.select(lotColumns).from(lot).$dynamic();

/** Lots with something on hand of these materials; of all when none are named. */
export async function lotsOfMaterials(db: Reads, ids?: readonly number[]): Promise<Lot[]> {
  if (!ids) return runPrepared(db, "material_lots", {}, () => onHand(db).where(and(isNotNull(lot.materialId), hasStock)));
  if (ids.length === 0) return [];
  return runPrepared(db, "lots_of_materials", { ids }, (at) => onHand(db).where(and(anyOf(lot.materialId, at.ids), hasStock)));
}

/** Lots with something on hand of these products; of all when none are named. */
export async function lotsOfProducts(db: Reads, ids?: readonly number[]): Promise<Lot[]> {
  if (!ids) return runPrepared(db, "product_lots", {}, () => onHand(db).where(and(isNotNull(lot.productId), hasStock)));
  if (ids.length === 0) return [];
  return runPrepared(db, "lots_of_products", { ids }, (at) => onHand(db).where(and(anyOf(lot.productId, at.ids), hasStock)));
}

/**
 * What a movement comes to after everything that corrected it: whatever reads what something cost reads this, and never the movement alone.
 * @example db.select({ value: afterCorrections("value") }).from(movement)
 */
export const afterCorrections = <K extends "qty" | "value">(column: K): SQL<K extends "value" ? Micros : number> =>
  // In a statement of one table the builder leaves its name away, and the column would be the inner one's.
  sql`(${sql.raw(`"movement"."${column}"`)} + coalesce((select sum(${sql.raw(`r.${column}`)}) from ${movement} r where r.restates = ${sql.raw('"movement"."id"')}), 0))`.mapWith(
    movement[column],
  ) as SQL<K extends "value" ? Micros : number>;

/** The newest cost of each material that tells what having it again costs. @param some materials, or all @param until a day, or today's books whole */
function newestCosts(db: Reads, some?: Placeholder, until?: Placeholder) {
  const among = (column: SQLWrapper) => some && anyOf(column, some);
  const by = (day: SQLWrapper) => until && sql`${day} <= ${until}::date`;
  const bought = db
    .select({
      of: sqlNumber(sql`${purchaseLine.materialId}`).as("of"),
      value: sql`${purchaseLine.landed}`.mapWith(purchaseLine.landed).as("value"),
      per: sqlNumber(sql`${purchaseLine.qty}`).as("per"),
      day: sqlText(sql`${purchase.day}`).as("day"),
      act: sqlNumber(sql`${purchase.actId}`).as("act"),
      row: sqlNumber(sql`${purchaseLine.id}`).as("row"),
      place: sqlNumber(sql`0`).as("place"),
    })
    .from(purchaseLine)
    .innerJoin(purchase, eq(purchase.id, purchaseLine.purchaseId))
    .where(and(notReversed(purchase.actId), gt(purchaseLine.price, micros(0)), among(purchaseLine.materialId), by(purchase.day)));
  const made = db
    .select({
      of: sqlNumber(sql`${lot.materialId}`).as("of"),
      value: afterCorrections("value").as("value"),
      per: sqlNumber(afterCorrections("qty")).as("per"),
      day: sqlText(sql`${actInEffect.day}`).as("day"),
      act: sqlNumber(sql`${movement.actId}`).as("act"),
      row: sqlNumber(sql`${movement.id}`).as("row"),
      place: sqlNumber(sql`(${movement.reason} = 'opening')::int`).as("place"),
    })
    .from(movement)
    .innerJoin(lot, eq(lot.id, movement.lotId))
    .innerJoin(actInEffect, eq(actInEffect.id, movement.actId))
    .where(
      and(
        sql`${movement.reason} in ${literals(COSTS_AGAIN)} and ${movement.qty} > 0 and ${lot.costKnown} <> 'none'`,
        // Finished goods from before the books came so too.
        isNotNull(lot.materialId),
        among(lot.materialId),
        by(actInEffect.day),
      ),
    );
  const all = unionAll(bought, made).as("all_costs");
  return db
    .selectDistinctOn([all.of])
    .from(all)
    .where(sql`${all.per} > 0 and (${all.place} = 0 or ${all.value} > 0)`)
    .orderBy(all.of, all.place, sql`${all.day} desc`, sql`${all.act} desc`, sql`${all.row} desc`);
}

const costsById = (rows: readonly { of: number; value: Micros; per: number }[]): Map<number, UnitCost> =>
  new Map(rows.map((r) => [r.of, { value: micros(r.value), per: r.per }]));

/**
 * What having a material again costs: its newest purchase as landed, or, where it is made here, its newest straining, blend or
 * harvest; whichever is later; with all that corrected it since. What was there before the books began counts where nothing else does. What
 * was taken back doesn't count, nor what came for nothing: a sample doesn't say what the next one costs.
 * @param ids all materials when absent
 */
export async function replacementCosts(db: Reads, ids?: readonly number[]): Promise<Map<number, UnitCost>> {
  if (ids?.length === 0) return new Map();
  return costsById(
    await (ids
      ? runPrepared(db, "again_costs_of", { ids }, (at) => newestCosts(db, at.ids))
      : runPrepared(db, "again_costs", {}, () => newestCosts(db))),
  );
}

/** The same of all materials as it was at the end of a day. */
export const replacementCostsOn = async (db: Reads, day: Day): Promise<Map<number, UnitCost>> =>
  costsById(await runPrepared(db, "again_costs_on", { day }, (at) => newestCosts(db, undefined, at.day)));

/** A lot held for an act, with what decides whether it may be used. */
export interface LockedLot extends Lot {
  /** Null for finished units. */
  kind: KindId | null;
  /** What the material is called now; what a finished lot was called when it was poured. */
  name: string;
  holdReason: string | null;
}

/** Locks lots for this transaction, always in the same order so that two windows can't wait on each other. */
export async function lockLots(tx: Tx, ids: readonly number[]): Promise<Map<number, LockedLot>> {
  if (ids.length === 0) return new Map();
  const rows = await tx
    .select({
      ...lotColumns,
      kind: material.kind,
      name: sqlText(sql`coalesce(${material.name}, ${lot.name})`),
      holdReason: lot.holdReason,
    })
    .from(lot)
    .leftJoin(material, eq(material.id, lot.materialId))
    .where(anyOf(lot.id, ids))
    .orderBy(lot.id)
    .for("no key update", { of: bare(lot) });
  return new Map(rows.map((r) => [r.id, r]));
}

/** @throws Refused beside `field` when a lot is gone, of something else, not here yet, on hold or past its day */
export function requireUsable(lots: ReadonlyMap<number, LockedLot>, lotId: number, use: Use, day: Day, field: string): LockedLot {
  const found = lots.get(lotId);
  if (!found) throw Refused.one(field, "That lot isn't here any more.");
  if (day < found.arrived)
    throw Refused.one(field, `Lot ${found.number} came on ${sayFullDay(found.arrived)}: before that day there was none of it.`);
  const may = mayUse(found, use, day);
  if (!may.ok)
    throw Refused.one(field, may.problem.say, [{ to: `/lots/${encodeURIComponent(found.number)}`, name: `Lot ${found.number}` }]);
  return found;
}

export type NewMovement = typeof movement.$inferInsert;

/**
 * Draws from a locked lot in memory and gives the movement to write; call for each draw in turn, then insert them together.
 * @throws Refused naming what is on hand when the lot hasn't got that much
 */
export function draw(
  lots: ReadonlyMap<number, Lot>,
  lotId: number,
  amount: Base,
  field: string,
  show: (n: Base) => string,
  rest: Omit<NewMovement, "lotId" | "qty" | "value">,
): NewMovement {
  const from = lots.get(lotId);
  if (!from) throw Refused.one(field, "That lot isn't here any more.");
  if (amount > from.onHand)
    throw Refused.one(
      field,
      `Lot ${from.number} has ${show(from.onHand)}, ${show(amount - from.onHand)} less than this takes. Nothing was moved.`,
    );
  const value = drawValue(from, amount);
  from.onHand -= amount;
  from.value = micros(from.value - value);
  return { ...rest, lotId, qty: -amount, value: minus(value) };
}

/** What a lot cost when it came in, corrections included, per base unit; from the first movement of it in effect. */
export async function unitCostOfLot(tx: Reads, lotId: number): Promise<UnitCost | null> {
  const [first] = await tx
    .select({ value: afterCorrections("value"), per: afterCorrections("qty") })
    .from(movement)
    .where(
      and(
        eq(movement.lotId, lotId),
        gt(movement.qty, 0),
        isNull(movement.restates),
        notInArray(movement.reason, [...FOUND]),
        isEffective(movement.actId),
      ),
    )
    .orderBy(asc(movement.id))
    .limit(1);
  return first && first.per > 0 ? first : null;
}

/**
 * All that an act moved, with what was corrected of it since. Each of the two by its index; with an "or" between them the whole ledger would be read.
 * @example db.select().from(movement).where(movementsOf(batch.pouredActId))
 */
export const movementsOf = (
  actId: SQLWrapper | number,
): SQL => sql`${movement.id} in (select p.id from ${movement} p where p.act_id = ${actId} union all
  select r.id from ${movement} p join ${movement} r on r.restates = p.id where p.act_id = ${actId})`;

/** Value of an amount found on top of what the books say: at what the lot cost. */
export const surplusValue = (amount: Base, cost: UnitCost | null) => (cost ? costOf(amount, cost) : micros(0));
