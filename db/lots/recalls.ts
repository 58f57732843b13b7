/** Recalls, read: all there were, and one with everything it reaches by now. */
import { and, asc, desc, eq, isNotNull, sql } from "drizzle-orm";
import { alias } from "drizzle-orm/pg-core";
import type { Reads } from "../client.ts";
import { jsonRows } from "../columnsOf.ts";
import { LISTED_AT_MOST } from "../lists.ts";
import { runPrepared } from "../prepared.ts";
import { act, lot, recall, recallLot, recallTold } from "../schema.ts";
import { reachOf } from "./reach.ts";

const begun = alias(act, "begun");
const closed = alias(act, "closed");

const columns = {
  id: recall.id,
  rehearsal: recall.rehearsal,
  reason: recall.reason,
  toDo: recall.toDo,
  came: recall.came,
  day: begun.day,
  begunAt: begun.at,
  who: begun.who,
  closedAt: closed.at,
  starts: jsonRows(
    sql`(select coalesce(json_agg(json_build_object('number', l.number, 'name', l.name, 'label', l.label) order by l.id), '[]')
    from ${recallLot} s join ${lot} l on l.id = s.lot_id where s.recall_id = ${recall.id} and s.start)`,
    { number: lot.number, name: lot.name, label: lot.label },
  ),
};

const recalls = (db: Reads) =>
  db
    .select(columns)
    .from(recall)
    .innerJoin(begun, eq(begun.id, recall.begunActId))
    .leftJoin(closed, eq(closed.id, recall.closedActId))
    .$dynamic();

/** Every recall and rehearsal, those going on first, then the newest. */
export const listRecalls = (db: Reads) =>
  runPrepared(db, "recalls", {}, () =>
    recalls(db)
      .where(isNotNull(recall.begunActId))
      .orderBy(sql`${recall.closedActId} is not null`, desc(recall.id))
      .limit(LISTED_AT_MOST),
  );

/** The lots it began with. */
export const startsOf = async (db: Reads, id: number): Promise<number[]> =>
  (
    await runPrepared(db, "recall_starts", { id }, (at) =>
      db
        .select({ lotId: recallLot.lotId })
        .from(recallLot)
        .where(and(eq(recallLot.recallId, at.id), recallLot.start))
        .orderBy(asc(recallLot.lotId)),
    )
  ).map((r) => r.lotId);

/** The lots it put on hold. */
export const heldOf = async (db: Reads, id: number): Promise<number[]> =>
  (
    await db
      .select({ lotId: recallLot.lotId })
      .from(recallLot)
      .where(and(eq(recallLot.recallId, id), recallLot.held))
  ).map((r) => r.lotId);

/** Who was told, and what came back. */
export const peopleTold = (db: Reads, id: number) =>
  runPrepared(db, "recall_told", { id }, (at) =>
    db
      .select({ contactId: recallTold.contactId, toldOn: recallTold.toldOn, back: recallTold.back, note: recallTold.note })
      .from(recallTold)
      .where(eq(recallTold.recallId, at.id)),
  );

/** One recall with everything it reaches by now; null where it isn't, or was taken back. */
export async function readRecall(db: Reads, id: number) {
  const [row] = await runPrepared(db, "recall", { id }, (at) => recalls(db).where(and(eq(recall.id, at.id), isNotNull(recall.begunActId))));
  if (!row) return null;
  const [told, starts] = await Promise.all([peopleTold(db, id), startsOf(db, id)]);
  return { recall: row, told, startIds: starts, reach: await reachOf(db, starts) };
}

export type RecallSheet = NonNullable<Awaited<ReturnType<typeof readRecall>>>;
