/** Movements as they leave in a file: each with its act, its lot and whom it went to. */
import { and, asc, desc, eq, lt } from "drizzle-orm";
import type { Reads } from "../client.ts";
import { anyOf } from "../pieces.ts";
import { runPrepared } from "../prepared.ts";
import { act, giftOrder, jar, lot, marketDay, material, movement } from "../schema.ts";

const moved = (db: Reads) =>
  db
    .select({
      id: movement.id,
      actId: act.id,
      day: act.day,
      summary: act.summary,
      reason: movement.reason,
      /** What the lot was called when it came to be. */
      name: lot.name,
      label: lot.label,
      number: lot.number,
      /** Null for a product's lot. */
      kind: material.kind,
      qty: movement.qty,
      value: movement.value,
      batchId: movement.batchId,
      jar: jar.number,
      market: marketDay.name,
      customer: giftOrder.customer,
      note: movement.note,
    })
    .from(movement)
    .innerJoin(act, eq(act.id, movement.actId))
    .innerJoin(lot, eq(lot.id, movement.lotId))
    .leftJoin(material, eq(material.id, lot.materialId))
    .leftJoin(jar, eq(jar.id, movement.jarId))
    .leftJoin(marketDay, eq(marketDay.id, movement.marketDayId))
    .leftJoin(giftOrder, eq(giftOrder.id, movement.giftOrderId))
    .$dynamic();

export type Moved = Awaited<ReturnType<typeof moved>>[number];

/** What some acts moved: the newest act first, its movements in their order. */
export const movedByActs = (db: Reads, acts: readonly number[]): Promise<Moved[]> =>
  runPrepared(db, "moved_by_acts", { acts }, (at) =>
    moved(db).where(anyOf(movement.actId, at.acts)).orderBy(desc(movement.actId), asc(movement.id)),
  );

/** No movement has a number as high. */
const LAST_ID = 2_147_483_647;

/** What went in and out of a material, newest first. @param before only what is older than this movement */
export const movedOfMaterial = (db: Reads, id: number, size: number, before = LAST_ID): Promise<Moved[]> =>
  runPrepared(db, "moved_of_material", { id, size, before }, (at) =>
    moved(db)
      .where(and(eq(lot.materialId, at.id), lt(movement.id, at.before)))
      .orderBy(desc(movement.id))
      .limit(at.size),
  );
