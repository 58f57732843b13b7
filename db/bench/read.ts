/** Batches: the bench, one sheet, and what was made before. */
import { and, asc, desc, eq, getTableColumns, gt, inArray, or, sql } from "drizzle-orm";
import { aFlag, aNumber, aText, flag, jsonRows, number, orNone, rowsOf } from "../columnsOf.ts";
import type { Reads } from "../client.ts";
import { LISTED_AT_MOST } from "../lists.ts";
import { lotColumns } from "../ledger/lots.ts";
import { batch, batchSize, batchTake, lot, product, recipe, recipeVersion } from "../schema.ts";

/** A size as the bench lists it; without a lot until it is poured. */
const listedSize = {
  label: batchSize.label,
  planned: batchSize.planned,
  units: batchSize.units,
  number: orNone(aText),
  onHand: orNone(aNumber),
  bestBefore: lot.bestBefore,
  hold: aFlag,
};

/** Batches, open ones first, then newest. */
export const listBatches = (db: Reads, most = LISTED_AT_MOST) =>
  db
    .select({
      id: batch.id,
      day: batch.day,
      recipe: recipeVersion.name,
      type: recipeVersion.type,
      version: recipeVersion.n,
      plannedMg: batch.plannedMg,
      poured: flag(sql`${batch.pouredActId} is not null`),
      cleared: flag(sql`${batch.clearedActId} is not null`),
      sizes: jsonRows(
        sql`(select coalesce(json_agg(json_build_object('label', s.label, 'planned', s.planned, 'units', s.units,
        'number', l.number, 'onHand', l.on_hand, 'bestBefore', l.best_before, 'hold', l.hold_reason is not null) order by s.position), '[]')
        from ${batchSize} s left join ${lot} l on l.id = s.lot_id where s.batch_id = ${batch.id})`,
        listedSize,
      ),
      lines: number(sql`(select count(*)::int from ${batchTake} t where t.batch_id = ${batch.id})`),
      weighed: number(sql`(select count(*)::int from ${batchTake} t where t.batch_id = ${batch.id} and t.weighed is not null)`),
    })
    .from(batch)
    .innerJoin(recipeVersion, eq(recipeVersion.id, batch.versionId))
    .orderBy(sql`${batch.pouredActId} is null and ${batch.clearedActId} is null desc`, desc(batch.day), desc(batch.id))
    .limit(most);

/** How many of each size were set out of each recipe the last time, the newest batch first. */
export const lastSetOut = (db: Reads) =>
  rowsOf(
    db,
    { recipeId: aNumber, productId: aNumber, units: aNumber },
    sql`
    select l.recipe_id as "recipeId", s.product_id as "productId", s.planned as units
    from (select distinct on (b.recipe_id) b.recipe_id, b.id from ${batch} b order by b.recipe_id, b.id desc) l
    join ${batchSize} s on s.batch_id = l.id where s.planned > 0 order by l.id desc, s.position`,
  );

/** One batch with its sizes and weigh lines in sheet order, by the version it is made from. */
export async function readBatch(db: Reads, id: number) {
  const [row] = await db
    .select({
      batch,
      recipe: { ...getTableColumns(recipeVersion), id: recipe.id },
      current: flag(sql`${recipe.versionId} = ${batch.versionId}`),
    })
    .from(batch)
    .innerJoin(recipe, eq(recipe.id, batch.recipeId))
    .innerJoin(recipeVersion, eq(recipeVersion.id, batch.versionId))
    .where(eq(batch.id, id));
  if (!row) return null;
  const [sizes, others, takes] = await Promise.all([
    db
      .select({ size: batchSize, lot, containerId: product.containerId })
      .from(batchSize)
      .innerJoin(product, eq(product.id, batchSize.productId))
      .leftJoin(lot, eq(lot.id, batchSize.lotId))
      .where(eq(batchSize.batchId, id))
      .orderBy(asc(batchSize.position)),
    db
      .select({ productId: product.id, label: product.label, fill: product.fill, containerId: product.containerId })
      .from(product)
      .where(
        and(
          eq(product.recipeId, row.recipe.id),
          eq(product.retired, false),
          sql`not exists (select 1 from ${batchSize} s where s.batch_id = ${id} and s.product_id = ${sql.raw('"product"."id"')})`,
        ),
      )
      .orderBy(asc(product.position)),
    db
      .select({
        position: batchTake.position,
        materialId: batchTake.materialId,
        material: batchTake.name,
        lotId: batchTake.lotId,
        planned: batchTake.planned,
        weighed: batchTake.weighed,
      })
      .from(batchTake)
      .where(eq(batchTake.batchId, id))
      .orderBy(asc(batchTake.position), asc(batchTake.id)),
  ]);
  const lots = await db
    .select(lotColumns)
    .from(lot)
    .where(
      or(
        inArray(
          lot.id,
          takes.map((t) => t.lotId),
        ),
        row.batch.pouredActId !== null
          ? undefined
          : and(
              gt(lot.onHand, 0),
              inArray(
                lot.materialId,
                takes.map((t) => t.materialId),
              ),
            ),
      ),
    )
    .orderBy(asc(lot.bestBefore), asc(lot.arrived));
  return { ...row, sizes: sizes.map(({ size, ...rest }) => ({ ...size, ...rest })), others, takes, lots };
}

/** A batch with everything its sheet shows. */
export type BatchSheet = NonNullable<Awaited<ReturnType<typeof readBatch>>>;
