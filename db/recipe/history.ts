/** What became of a recipe: its versions, and the batches made of each. */
import { and, desc, eq, sql, type Placeholder } from "drizzle-orm";
import { notReversed } from "../ledger/effective.ts";
import type { Reads } from "../client.ts";
import { readNumber, readText, sqlBoolean, jsonRows, orNone } from "../columnsOf.ts";
import { LISTED_AT_MOST } from "../lists.ts";
import { runPrepared } from "../prepared.ts";
import { batch, batchSize, lot, recipeVersion } from "../schema.ts";

/** The versions of a recipe that were not taken back, newest first, with how often each was poured. */
export const versionsOf = (db: Reads, recipeId: number) => runPrepared(db, "versions_of", { recipeId }, (at) => versions(db, at.recipeId));

const versions = (db: Reads, recipeId: Placeholder) =>
  db
    .select({
      id: recipeVersion.id,
      n: recipeVersion.n,
      day: recipeVersion.day,
      note: recipeVersion.note,
      name: recipeVersion.name,
      total: recipeVersion.total,
      batches:
        sql`(select count(*) from ${batch} b where b.version_id = ${sql.raw('"recipe_version"."id"')} and b.poured_act_id is not null)`.mapWith(
          Number,
        ),
    })
    .from(recipeVersion)
    .where(and(eq(recipeVersion.recipeId, recipeId), sql`(${recipeVersion.actId} is null or ${notReversed(recipeVersion.actId)})`))
    .orderBy(desc(recipeVersion.n));

/** A size that came of a batch: how many, and the lot they are. */
const cameOf = { label: batchSize.label, units: orNone(readNumber), number: orNone(readText) };

/** The batches of a recipe, newest first, with the version each was made from and how it turned out. */
export const batchesOf = (db: Reads, recipeId: number, most = LISTED_AT_MOST) =>
  runPrepared(db, "batches_of_recipe", { recipeId, most }, (at) =>
    db
      .select({
        id: batch.id,
        day: batch.day,
        n: recipeVersion.n,
        note: batch.note,
        plannedMg: batch.plannedMg,
        leftover: batch.leftover,
        poured: sqlBoolean(sql`${batch.pouredActId} is not null`),
        sizes: jsonRows(
          sql`(select coalesce(json_agg(json_build_object('label', s.label, 'units', s.units, 'number', l.number) order by s.position), '[]')
          from ${batchSize} s left join ${lot} l on l.id = s.lot_id where s.batch_id = ${batch.id})`,
          cameOf,
        ),
      })
      .from(batch)
      .innerJoin(recipeVersion, eq(recipeVersion.id, batch.versionId))
      .where(and(eq(batch.recipeId, at.recipeId), sql`${batch.clearedActId} is null`))
      .orderBy(desc(batch.day), desc(batch.id))
      .limit(at.most),
  );
