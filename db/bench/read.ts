/** Batches: the bench, one sheet, and what was made before. */
import { and, asc, desc, eq, getTableColumns, isNull, or, sql, type Placeholder } from "drizzle-orm";
import { readBoolean, readNumber, readText, sqlBoolean, jsonRows, sqlNumber, orNone } from "../columnsOf.ts";
import type { Reads } from "../client.ts";
import { LISTED_AT_MOST } from "../lists.ts";
import { hasStock, lotColumns } from "../ledger/lots.ts";
import { anyOf } from "../pieces.ts";
import { runPrepared } from "../prepared.ts";
import { batch, batchSize, batchTake, lot, product, recipe, recipeLine, recipeVersion } from "../schema.ts";

/** A size as the bench lists it; without a lot until it is poured. */
const listedSize = {
  label: batchSize.label,
  planned: batchSize.planned,
  units: batchSize.units,
  number: orNone(readText),
  onHand: orNone(readNumber),
  bestBefore: lot.bestBefore,
  hold: readBoolean,
};

/** Batches, open ones first, then newest. */
export const listBatches = (db: Reads, most = LISTED_AT_MOST) => runPrepared(db, "batches", { most }, (at) => batches(db, at.most));

const batches = (db: Reads, most: Placeholder) =>
  db
    .select({
      id: batch.id,
      day: batch.day,
      recipe: recipeVersion.name,
      type: recipeVersion.type,
      version: recipeVersion.n,
      plannedMg: batch.plannedMg,
      poured: sqlBoolean(sql`${batch.pouredActId} is not null`),
      cleared: sqlBoolean(sql`${batch.clearedActId} is not null`),
      spoiled: sqlBoolean(sql`${batch.spoiledActId} is not null`),
      why: batch.spoiledWhy,
      sizes: jsonRows(
        sql`(select coalesce(json_agg(json_build_object('label', s.label, 'planned', s.planned, 'units', s.units,
        'number', l.number, 'onHand', l.on_hand, 'bestBefore', l.best_before, 'hold', l.hold_reason is not null) order by s.position), '[]')
        from ${batchSize} s left join ${lot} l on l.id = s.lot_id where s.batch_id = ${batch.id})`,
        listedSize,
      ),
      lines: sqlNumber(sql`(select count(*)::int from ${batchTake} t where t.batch_id = ${batch.id})`),
      weighed: sqlNumber(sql`(select count(*)::int from ${batchTake} t where t.batch_id = ${batch.id} and t.weighed is not null)`),
    })
    .from(batch)
    .innerJoin(recipeVersion, eq(recipeVersion.id, batch.versionId))
    .orderBy(sql`${batch.pouredActId} is null and ${batch.clearedActId} is null desc`, desc(batch.day), desc(batch.id))
    .limit(most);

/** The recipe of the newest batch; null while there is none. */
export async function lastRecipeSetOut(db: Reads): Promise<number | null> {
  const [row] = await runPrepared(db, "last_recipe_set_out", {}, () =>
    db.select({ recipeId: batch.recipeId }).from(batch).orderBy(desc(batch.id)).limit(1),
  );
  return row?.recipeId ?? null;
}

/** How many of each size of a recipe were set out for the last batch of it that was poured: one that was cleared off, or is still on the bench, does not count. */
export const lastSetOut = (db: Reads, recipeId: number) =>
  runPrepared(db, "last_set_out", { recipeId }, (at) =>
    db
      // What was parted off was meant to be of the size it was taken from.
      .select({
        productId: batchSize.productId,
        units: sqlNumber(
          sql`${batchSize.planned} + (select coalesce(sum(p.planned), 0) from ${batchSize} p where p.part_of = ${sql.raw('"batch_size"."id"')})`,
        ),
      })
      .from(batchSize)
      .where(
        and(
          isNull(batchSize.partOf),
          sql`(${batchSize.planned} > 0 or exists (select 1 from ${batchSize} p where p.part_of = ${sql.raw('"batch_size"."id"')}))`,
          sql`${batchSize.batchId} = (select b.id from ${batch} b where b.recipe_id = ${at.recipeId} and b.poured_act_id is not null order by b.day desc, b.id desc limit 1)`,
        ),
      )
      .orderBy(asc(batchSize.position)),
  );

/** What a version of a recipe is made of, by number, in its order. */
export const materialsOfVersion = async (db: Reads, versionId: number): Promise<number[]> =>
  (
    await runPrepared(db, "materials_of_version", { versionId }, (at) =>
      db.select({ id: recipeLine.materialId }).from(recipeLine).where(eq(recipeLine.versionId, at.versionId)).orderBy(asc(recipeLine.id)),
    )
  ).map((l) => l.id);

/** One batch with its sizes and weigh lines in sheet order, by the version it is made from. */
export async function readBatch(db: Reads, id: number) {
  const [row] = await runPrepared(db, "batch", { id }, (at) =>
    db
      .select({
        batch,
        recipe: { ...getTableColumns(recipeVersion), id: recipe.id },
        current: sqlBoolean(sql`${recipe.versionId} = ${batch.versionId}`),
      })
      .from(batch)
      .innerJoin(recipe, eq(recipe.id, batch.recipeId))
      .innerJoin(recipeVersion, eq(recipeVersion.id, batch.versionId))
      .where(eq(batch.id, at.id)),
  );
  if (!row) return null;
  const [sizes, others, takes] = await Promise.all([
    runPrepared(db, "sizes_of_batch", { id }, (at) =>
      db
        .select({ size: batchSize, lot, containerId: product.containerId })
        .from(batchSize)
        .innerJoin(product, eq(product.id, batchSize.productId))
        .leftJoin(lot, eq(lot.id, batchSize.lotId))
        .where(eq(batchSize.batchId, at.id))
        .orderBy(asc(batchSize.position)),
    ),
    runPrepared(db, "other_sizes", { id, recipeId: row.recipe.id }, (at) =>
      db
        .select({ productId: product.id, label: product.label, fill: product.fill, containerId: product.containerId })
        .from(product)
        .where(
          and(
            eq(product.recipeId, at.recipeId),
            eq(product.retired, false),
            eq(product.variant, ""),
            sql`not exists (select 1 from ${batchSize} s where s.batch_id = ${at.id} and s.product_id = ${sql.raw('"product"."id"')})`,
          ),
        )
        .orderBy(asc(product.position)),
    ),
    runPrepared(db, "takes_of_batch", { id }, (at) =>
      db
        .select({
          position: batchTake.position,
          materialId: batchTake.materialId,
          material: batchTake.name,
          sizeId: batchTake.sizeId,
          lotId: batchTake.lotId,
          planned: batchTake.planned,
          weighed: batchTake.weighed,
          weighedAt: batchTake.weighedAt,
          weighedBy: batchTake.weighedBy,
        })
        .from(batchTake)
        .where(eq(batchTake.batchId, at.id))
        .orderBy(asc(batchTake.position), asc(batchTake.id)),
    ),
  ]);
  // Until it is poured any lot of a material can still take the place of the one that was planned.
  const materials = row.batch.pouredActId === null ? takes.map((t) => t.materialId) : [];
  const lots = await runPrepared(db, "lots_of_batch", { taken: takes.map((t) => t.lotId), materials }, (at) =>
    db
      .select(lotColumns)
      .from(lot)
      .where(or(anyOf(lot.id, at.taken), and(hasStock, anyOf(lot.materialId, at.materials))))
      .orderBy(asc(lot.bestBefore), asc(lot.arrived)),
  );
  return { ...row, sizes: sizes.map(({ size, ...rest }) => ({ ...size, ...rest })), others, takes, lots };
}

/** A batch with everything its sheet shows. */
export type BatchSheet = NonNullable<Awaited<ReturnType<typeof readBatch>>>;
