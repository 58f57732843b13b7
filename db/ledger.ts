/**
 * Lots and movements: the one place that reads balances for a draw and writes the ledger.
 */
import { micros, type Base, type Micros } from "#core/measure/exact";
import { Refused } from "#core/refused";
import { drawValue, type Lot } from "#core/stock/lots";
import { costOf, type UnitCost } from "#core/measure/money";
import { and, eq, gt, inArray, sql, type SQLWrapper } from "drizzle-orm";
import { unionAll } from "drizzle-orm/pg-core";
import type { Reads, Tx } from "./client.ts";
import { prepared } from "./prepared.ts";
import { act, lot, movement, purchase, purchaseLine } from "./schema.ts";

const columns = {
  id: lot.id,
  number: lot.number,
  of: sql<number>`coalesce(${lot.materialId}, ${lot.productId})`,
  onHand: lot.onHand,
  value: lot.value,
  arrived: lot.arrived,
  bestBefore: lot.bestBefore,
  hold: sql<boolean>`${lot.holdReason} is not null`,
};

const onHand = (db: Reads) => db.select(columns).from(lot).$dynamic();
const among = (ids: readonly number[]) => [...new Set(ids)];

/** Lots with something on hand of these materials; of all when none are named. */
export async function lotsOfMaterials(db: Reads, ids?: readonly number[]): Promise<Lot[]> {
  if (!ids)
    return prepared(db, "material_lots", () => onHand(db).where(sql`${lot.materialId} is not null and ${lot.onHand} > 0`)).execute();
  return ids.length === 0 ? [] : onHand(db).where(and(inArray(lot.materialId, among(ids)), gt(lot.onHand, 0)));
}

/** Lots with something on hand of these products; of all when none are named. */
export async function lotsOfProducts(db: Reads, ids?: readonly number[]): Promise<Lot[]> {
  if (!ids) return prepared(db, "product_lots", () => onHand(db).where(sql`${lot.productId} is not null and ${lot.onHand} > 0`)).execute();
  return ids.length === 0 ? [] : onHand(db).where(and(inArray(lot.productId, among(ids)), gt(lot.onHand, 0)));
}

const standing = (actId: SQLWrapper) => sql`not exists (select 1 from ${act} u where u.undoes = ${actId})`;

/**
 * What having a material again costs: its newest purchase as landed, or, where it is made here, its newest straining, blend or
 * harvest; whichever is later. What was taken back doesn't count.
 * @param ids all materials when absent
 */
export async function againCosts(db: Reads, ids?: readonly number[]): Promise<Map<number, UnitCost>> {
  if (ids?.length === 0) return new Map();
  const newest = (some: boolean) => {
    const among = (column: SQLWrapper) => (some ? sql`${column} = any(${sql.placeholder("ids")}::int[])` : undefined);
    const bought = db
      .select({
        of: sql<number>`${purchaseLine.materialId}`.as("of"),
        value: sql<Micros>`${purchaseLine.landed}`.mapWith(Number).as("value"),
        per: sql<number>`${purchaseLine.qty}`.mapWith(Number).as("per"),
        day: sql<string>`${purchase.day}`.as("day"),
        row: sql<number>`${purchaseLine.id}`.as("row"),
      })
      .from(purchaseLine)
      .innerJoin(purchase, eq(purchase.id, purchaseLine.purchaseId))
      .where(and(standing(purchase.actId), among(purchaseLine.materialId)));
    const made = db
      .select({
        of: sql<number>`${lot.materialId}`.as("of"),
        value: sql<Micros>`${movement.value}`.mapWith(Number).as("value"),
        per: sql<number>`${movement.qty}`.mapWith(Number).as("per"),
        day: sql<string>`${act.day}`.as("day"),
        row: sql<number>`${movement.id}`.as("row"),
      })
      .from(movement)
      .innerJoin(lot, eq(lot.id, movement.lotId))
      .innerJoin(act, eq(act.id, movement.actId))
      .where(
        and(
          sql`${movement.reason} in ('strained', 'blended', 'harvested') and ${movement.qty} > 0`,
          standing(movement.actId),
          among(lot.materialId),
        ),
      );
    const all = unionAll(bought, made).as("all_costs");
    return db
      .selectDistinctOn([all.of])
      .from(all)
      .orderBy(all.of, sql`${all.day} desc`, sql`${all.row} desc`);
  };
  const rows = await (ids
    ? prepared(db, "again_costs_of", () => newest(true)).execute({ ids: `{${[...new Set(ids)].join(",")}}` })
    : prepared(db, "again_costs", () => newest(false)).execute());
  return new Map(rows.map((r) => [r.of, { value: micros(Number(r.value)), per: Number(r.per) }]));
}

/** Locks lots for this transaction, always in the same order so that two windows can't wait on each other. */
export async function lockLots(tx: Tx, ids: readonly number[]): Promise<Map<number, Lot>> {
  if (ids.length === 0) return new Map();
  const rows = await tx
    .select(columns)
    .from(lot)
    .where(inArray(lot.id, [...new Set(ids)]))
    .orderBy(lot.id)
    .for("update");
  return new Map(rows.map((r) => [r.id, r]));
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
  return { ...rest, lotId, qty: -amount, value: micros(-value || 0) };
}

/** What a lot cost when it came in, per base unit; from its first movement. */
export async function unitCostOfLot(tx: Reads, lotId: number): Promise<UnitCost | null> {
  const [first] = await tx
    .select({ value: movement.value, per: movement.qty })
    .from(movement)
    .where(eq(movement.lotId, lotId))
    .orderBy(movement.id)
    .limit(1);
  return first ?? null;
}

/** Value of an amount found on top of what the books say: at what the lot cost. */
export const foundValue = (amount: Base, cost: UnitCost | null) => (cost ? costOf(amount, cost) : micros(0));
