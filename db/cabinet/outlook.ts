/** How fast what is in the cabinet sells, and what of it isn't for a summer stall. */
import { paceOf, PACE_DAYS } from "#core/cabinet/pace";
import { isWhipped } from "#core/batch/planning/whip";
import { notForSummer } from "#core/cabinet/summer";
import { groupBy } from "#core/collect";
import { setsBy } from "#core/firmness/solids";
import { SALES } from "#core/ledger/reasons";
import { addDays, type Day } from "#core/when";
import { asc, eq, sql } from "drizzle-orm";
import { isEffective } from "../ledger/effective.ts";
import type { Db } from "../client.ts";
import { readNumber, rowsOf } from "../columnsOf.ts";
import { hasStock } from "../ledger/lots.ts";
import { cachedUntilWrite } from "../cache.ts";
import { firmnessLearned } from "../recipe/firmness.ts";
import { act, batch, batchSize, lot, material, movement, recipeLine, recipeVersion } from "../schema.ts";

/** Units a day of each product there is some of; null where it is too early to say. */
async function paces(db: Db, today: Day): Promise<Map<number, number | null>> {
  const rows = await rowsOf(
    db,
    { of: readNumber, since: lot.arrived, sold: readNumber },
    sql`with gone as (
        select m.lot_id, -sum(m.qty) as units from ${act} a join ${movement} m on m.act_id = a.id
        where a.day > ${addDays(today, -PACE_DAYS)} and m.reason in ${SALES} and m.restates is null and ${isEffective(sql`a.id`)} group by 1),
      -- What was sold of goods from before the books is known since they came into them, whenever they were made.
      before_books as (
        select m.lot_id, a.day, ${isEffective(sql`a.id`)} as counts from ${movement} m join ${act} a on a.id = m.act_id where m.reason = 'opening')
      select l.product_id as of, min(coalesce(b.day, l.arrived))::text as since, coalesce(sum(g.units), 0)::float8 as sold
      from ${lot} l left join gone g on g.lot_id = l.id left join before_books b on b.lot_id = l.id
      where l.product_id is not null and b.counts is distinct from false
      group by 1 having bool_or(l.on_hand > 0)`,
  );
  return new Map(rows.map((r) => [r.of, paceOf(r.sold, r.since, today)]));
}

/** Why a product isn't for a summer stall, by the newest of what there is of it. */
async function summers(db: Db): Promise<Map<number, string>> {
  const { constants } = await firmnessLearned(db);
  const { kind, libraryKey, meltFrom, meltTo, makeup } = material;
  const rows = await db
    .select({
      of: batchSize.productId,
      batchId: batch.id,
      type: recipeVersion.type,
      overrunBp: recipeVersion.overrunBp,
      weight: recipeLine.weight,
      kind,
      libraryKey,
      meltFrom,
      meltTo,
      makeup,
    })
    .from(lot)
    .innerJoin(batchSize, eq(batchSize.lotId, lot.id))
    .innerJoin(batch, eq(batch.id, batchSize.batchId))
    .innerJoin(recipeVersion, eq(recipeVersion.id, batch.versionId))
    .innerJoin(recipeLine, eq(recipeLine.versionId, recipeVersion.id))
    .innerJoin(material, eq(material.id, recipeLine.materialId))
    .where(hasStock)
    .orderBy(asc(batch.id), asc(recipeLine.position));
  const said = new Map<number, string>();
  for (const [of, all] of groupBy(rows, (r) => r.of)) {
    const newest = all.filter((r) => r.batchId === all.at(-1)!.batchId);
    const why = notForSummer(
      isWhipped(newest[0]!),
      newest.map((l) => ({ weight: l.weight, sets: setsBy(l) })),
      constants,
    );
    if (why) said.set(of, why);
  }
  return said;
}

/** What the cabinet says of its products besides where their units are, worked out again once anything was written. @param db not a transaction */
export const cabinetOutlook = (db: Db, today: Day) =>
  cachedUntilWrite(db, "cabinet outlook", today, async () => ({ paces: await paces(db, today), summers: await summers(db) }));
