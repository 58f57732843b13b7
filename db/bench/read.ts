/** Batches: the bench, one sheet, and what was made before. */
import { asc, desc, eq, inArray, sql } from "drizzle-orm";
import type { Reads } from "../client.ts";
import { batch, batchTake, lot, material, product, recipe } from "../schema.ts";

/** Batches, open ones first, then newest. */
export const listBatches = (db: Reads, limit = 60) =>
  db
    .select({
      id: batch.id,
      day: batch.day,
      recipe: recipe.name,
      type: recipe.type,
      fill: product.fill,
      plannedMg: batch.plannedMg,
      plannedUnits: batch.plannedUnits,
      units: batch.units,
      poured: sql<boolean>`${batch.pouredActId} is not null`,
      cleared: sql<boolean>`${batch.clearedActId} is not null`,
      number: lot.number,
      bestBefore: lot.bestBefore,
      onHand: lot.onHand,
      hold: sql<boolean>`${lot.holdReason} is not null`,
      lines: sql<number>`(select count(*)::int from ${batchTake} t where t.batch_id = ${batch.id})`,
      weighed: sql<number>`(select count(*)::int from ${batchTake} t where t.batch_id = ${batch.id} and t.weighed is not null)`,
    })
    .from(batch)
    .innerJoin(product, eq(product.id, batch.productId))
    .innerJoin(recipe, eq(recipe.id, batch.recipeId))
    .leftJoin(lot, eq(lot.id, batch.lotId))
    .orderBy(sql`${batch.pouredActId} is null and ${batch.clearedActId} is null desc`, desc(batch.day), desc(batch.id))
    .limit(limit);

/** One batch with its weigh lines in sheet order. */
export async function readBatch(db: Reads, id: number) {
  const [row] = await db
    .select({ batch, recipe, fill: product.fill, lot })
    .from(batch)
    .innerJoin(recipe, eq(recipe.id, batch.recipeId))
    .innerJoin(product, eq(product.id, batch.productId))
    .leftJoin(lot, eq(lot.id, batch.lotId))
    .where(eq(batch.id, id));
  if (!row) return null;
  const takes = await db
    .select({
      position: batchTake.position,
      materialId: batchTake.materialId,
      material: material.name,
      lotId: batchTake.lotId,
      planned: batchTake.planned,
      weighed: batchTake.weighed,
    })
    .from(batchTake)
    .innerJoin(material, eq(material.id, batchTake.materialId))
    .where(eq(batchTake.batchId, id))
    .orderBy(asc(batchTake.position), asc(batchTake.id));
  const lots = await db
    .select({
      id: lot.id,
      of: sql<number>`${lot.materialId}`,
      number: lot.number,
      onHand: lot.onHand,
      value: lot.value,
      arrived: lot.arrived,
      bestBefore: lot.bestBefore,
      hold: sql<boolean>`${lot.holdReason} is not null`,
    })
    .from(lot)
    .where(
      inArray(
        lot.materialId,
        takes.map((t) => t.materialId),
      ),
    )
    .orderBy(asc(lot.bestBefore), asc(lot.arrived));
  return { ...row, takes, lots };
}
