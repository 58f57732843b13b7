/** Materials on the shelf: listing, one sheet, adding and changing. */
import { kind } from "#core/material/kinds";
import { Refused } from "#core/refused";
import { asc, eq, sql } from "drizzle-orm";
import { perform, type Doing, type Done } from "../act.ts";
import type { Db, Reads } from "../client.ts";
import { prepared } from "../prepared.ts";
import { reweighRecipes } from "../recipe/reweigh.ts";
import { act, lot, material, movement, purchase, purchaseLine } from "../schema.ts";

export type MaterialRow = typeof material.$inferSelect;

/** Every material; the interface sorts and groups. */
export const listMaterials = (db: Reads): Promise<MaterialRow[]> =>
  prepared(db, "materials", () => db.select().from(material).orderBy(asc(material.name))).execute();

/** One material with all its lots, used-up ones too, and what each cost. */
export async function readMaterial(db: Reads, id: number) {
  const [row] = await db.select().from(material).where(eq(material.id, id));
  if (!row) return null;
  const lots = await db
    .select({
      id: lot.id,
      number: lot.number,
      of: sql<number>`${lot.materialId}`,
      onHand: lot.onHand,
      value: lot.value,
      arrived: lot.arrived,
      bestBefore: lot.bestBefore,
      hold: sql<boolean>`${lot.holdReason} is not null`,
      holdReason: lot.holdReason,
      supplierLot: lot.supplierLot,
      supplier: purchase.supplier,
      packs: purchaseLine.packs,
      packSize: purchaseLine.packSize,
      bought: purchaseLine.qty,
      landed: purchaseLine.landed,
    })
    .from(lot)
    .leftJoin(purchaseLine, eq(purchaseLine.lotId, lot.id))
    .leftJoin(purchase, eq(purchase.id, purchaseLine.purchaseId))
    .where(eq(lot.materialId, id));
  return { material: row, lots };
}

/** What went in and out of a material's lots, newest first. */
export const materialMovements = (db: Reads, id: number, limit = 40) =>
  db
    .select({
      id: movement.id,
      day: act.day,
      number: lot.number,
      qty: movement.qty,
      reason: movement.reason,
      note: movement.note,
      summary: act.summary,
      path: act.path,
    })
    .from(movement)
    .innerJoin(lot, eq(lot.id, movement.lotId))
    .innerJoin(act, eq(act.id, movement.actId))
    .where(eq(lot.materialId, id))
    .orderBy(sql`${movement.id} desc`)
    .limit(limit);

export type MaterialIn = Omit<typeof material.$inferInsert, "id">;

/**
 * Adds a material, or changes one when `id` is given: recipes that use it are weighed again in the same act.
 * @throws Refused for a name that is taken, or facts that a recipe could no longer be weighed by
 */
export function saveMaterial(db: Db, input: MaterialIn, doing: Doing, id?: number): Promise<Done> {
  return perform(db, "saveMaterial", doing, async (tx) => {
    const [same] = await tx
      .select({ id: material.id })
      .from(material)
      .where(sql`lower(${material.name}) = lower(${input.name})`);
    const taken = () => Refused.one("name", `There is already a material called ${input.name}.`);
    if (same && same.id !== id) throw taken();
    if (id !== undefined) {
      const [held] = await tx
        .select({ kind: material.kind })
        .from(material)
        .innerJoin(lot, eq(lot.materialId, material.id))
        .where(eq(material.id, id))
        .limit(1);
      if (held && kind(held.kind).measured !== kind(input.kind).measured)
        throw Refused.one("kind", "It has lots already, so it can't change between weighed and counted.");
    }
    const [row] =
      id === undefined
        ? await tx.insert(material).values(input).onConflictDoNothing().returning({ id: material.id })
        : await tx.update(material).set(input).where(eq(material.id, id)).returning({ id: material.id });
    if (!row) throw taken();
    if (id !== undefined) await reweighRecipes(tx, id);
    return { path: `/shelf/${row.id}`, summary: `Kept ${input.name}` };
  });
}
