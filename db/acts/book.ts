/** The book of acts: reading and searching what was done, of the whole workshop, of a station, or of one record. */
import { ACTS_SAID, type ActKind, type Subject } from "#core/act/kinds";
import type { Day } from "#core/when";
import { and, asc, desc, eq, gte, lt, lte, or, sql, type Placeholder, type SQL, type SQLWrapper } from "drizzle-orm";
import { alias } from "drizzle-orm/pg-core";
import { readText, sqlBoolean, sqlNumber, orNone, rowsOf, sqlTextOrNull } from "../columnsOf.ts";
import type { Reads } from "../client.ts";
import { hasAll, wordsOf } from "../pieces.ts";
import { runPrepared } from "../prepared.ts";
import { act, actSubject, lot, movement } from "../schema.ts";
import { whyIrreversible } from "./reverse.ts";

const undoing = alias(act, "undoing");

const columns = {
  id: act.id,
  kind: act.kind,
  day: act.day,
  at: act.at,
  who: act.who,
  summary: act.summary,
  path: act.path,
  undoes: act.undoes,
  undoneBy: undoing.id,
};

const rows = (db: Reads) => db.select(columns).from(act).leftJoin(undoing, eq(undoing.undoes, act.id)).$dynamic();

export type BookRow = Awaited<ReturnType<typeof rows>>[number];

/** Whether an act can be taken back by a press: of a kind that can, and standing. */
export const reversible = (a: Pick<BookRow, "kind" | "undoneBy">): boolean => a.undoneBy === null && whyIrreversible(a.kind) === null;

/** What an act did, for the note that says so, and whether it can still be taken back. */
export async function whatWasDone(db: Reads, actId: number): Promise<{ id: number; summary: string; undoable: boolean } | null> {
  const [row] = await rows(db).where(eq(act.id, actId));
  return row ? { id: row.id, summary: row.summary, undoable: reversible(row) } : null;
}

export interface BookQuery {
  /** Words to find in what the book says, in any order. */
  find?: string;
  station?: string;
  kind?: ActKind | null;
  from?: Day | null;
  to?: Day | null;
  /** Acts about this record; a lot's with everything that moved it. */
  about?: Subject | null;
  /** Without acts that were taken back, nor the taking back of them. */
  standing?: boolean;
  /** Only acts older than this one, for the next page. */
  before?: number | null;
}

/** Acts about a record: those that say so, and for a lot everything that moved it. */
function aboutRecord(of: Subject["kind"], kind: Placeholder | string, id: Placeholder | number): SQL {
  const said = sql`select s.act_id from ${actSubject} s where s.kind = ${kind} and s.subject_id = ${id}`;
  return of === "lot"
    ? sql`${act.id} in (${said} union select m.act_id from ${movement} m where m.lot_id = ${id})`
    : sql`${act.id} in (${said})`;
}

/** A page of the book, newest first. */
export async function readBook(db: Reads, q: BookQuery, size = 50): Promise<BookRow[]> {
  const kinds = q.kind ? [q.kind] : q.station ? stationKinds(q.station) : null;
  const { from, to, about, standing, before } = q;
  const words = wordsOf(q.find ?? "");
  const asked = { words: words.length > 0, kinds, from, to, about, standing, before };
  // A statement for each way of asking.
  const shape = Object.entries(asked).flatMap(([what, given]) => (given ? [what === "about" && about?.kind === "lot" ? "lot" : what] : []));
  const given = {
    ...{ words, kinds: kinds ?? [], from: from ?? "", to: to ?? "", before: before ?? 0, size },
    ...{ kind: about?.kind ?? "", id: about?.id ?? 0 },
  };
  return runPrepared(db, ["book", ...shape].join("_"), given, (at) =>
    rows(db)
      .where(
        and(
          asked.words ? hasAll(act.summary, at.words) : undefined,
          kinds ? sql`${act.kind} = any(${at.kinds}::text[])` : undefined,
          from ? gte(act.day, at.from) : undefined,
          to ? lte(act.day, at.to) : undefined,
          about ? aboutRecord(about.kind, at.kind, at.id) : undefined,
          standing ? sql`${act.undoes} is null and ${undoing.id} is null` : undefined,
          before ? lt(act.id, at.before) : undefined,
        ),
      )
      .orderBy(desc(act.id))
      .limit(at.size),
  );
}

const stationKinds = (station: string): ActKind[] =>
  (Object.entries(ACTS_SAID) as [ActKind, { station: string }][]).filter(([, a]) => a.station === station).map(([k]) => k);

/** The newest acts about a record, for its own sheet. */
export const actsAbout = (db: Reads, { kind, id }: Subject, size = 12): Promise<BookRow[]> =>
  runPrepared(db, kind === "lot" ? "acts_about_lot" : "acts_about", { kind, id, size }, (at) =>
    rows(db)
      .where(aboutRecord(kind, at.kind, at.id))
      .orderBy(desc(act.id))
      .limit(at.size),
  );

/** What a record an act is about is called now; null when it is gone, or has no name. */
const calledOf = (kind: SQLWrapper | string, id: SQLWrapper | number) =>
  sqlTextOrNull(sql`case ${kind}
  when 'material' then (select m.name from material m where m.id = ${id})
  when 'lot' then (select l.number from lot l where l.id = ${id})
  when 'receipt' then (select p.supplier from purchase p where p.id = ${id})
  when 'harvest' then (select h.name from harvest h where h.id = ${id})
  when 'jar' then (select j.number from jar j where j.id = ${id})
  when 'recipe' then (select r.name from recipe r where r.id = ${id})
  when 'product' then (select r.name || ', ' || p.label from product p join recipe r on r.id = p.recipe_id where p.id = ${id})
  when 'batch' then (select v.name from batch b join recipe_version v on v.id = b.version_id where b.id = ${id})
  when 'market' then (select d.name from market_day d where d.id = ${id})
  when 'order' then (select o.customer from gift_order o where o.id = ${id})
  when 'contact' then (select c.name from contact c where c.id = ${id}) end`);

/** What a record is called now; null when it is gone, or has no name. @example nameOf(db, { kind: "jar", id: 4 }) // "J26103-1" */
export async function nameOf(db: Reads, { kind, id }: Subject): Promise<string | null> {
  const [found] = await rowsOf(db, { called: orNone(readText) }, sql`select ${calledOf(sql`${kind}::text`, id)} as called`);
  return found!.called;
}

/** One act with what it did: the records it was about, what it moved, and what it corrected or was corrected by. */
export async function readAct(db: Reads, id: number) {
  const [row] = await db
    .select({ ...columns, seen: act.seen, token: sqlBoolean(sql`${act.token} is not null`) })
    .from(act)
    .leftJoin(undoing, eq(undoing.undoes, act.id))
    .where(eq(act.id, id));
  if (!row) return null;
  const [about, moved, others] = await Promise.all([
    db
      .select({
        kind: actSubject.kind,
        id: actSubject.subjectId,
        changes: actSubject.changes,
        called: calledOf(actSubject.kind, actSubject.subjectId),
      })
      .from(actSubject)
      .where(eq(actSubject.actId, id)),
    db
      .select({
        id: movement.id,
        lotId: lot.id,
        number: lot.number,
        name: lot.name,
        label: lot.label,
        kind: sqlTextOrNull(sql`(select m.kind from material m where m.id = ${lot.materialId})`),
        qty: movement.qty,
        value: movement.value,
        reason: movement.reason,
        note: movement.note,
      })
      .from(movement)
      .innerJoin(lot, eq(lot.id, movement.lotId))
      .where(eq(movement.actId, id))
      .orderBy(asc(movement.id))
      .limit(500),
    db
      .select({ id: act.id, summary: act.summary })
      .from(act)
      .where(or(eq(act.id, row.undoes ?? 0), eq(act.id, row.undoneBy ?? 0), eq(act.id, row.seen ?? 0))),
  ]);
  return { act: row, about, moved, others, never: whyIrreversible(row.kind) };
}

export interface Restatements {
  actId: number;
  day: Day;
  summary: string;
  /** More or less than it was believed to cost. */
  by: number;
}

/**
 * By how much, when and why what a settled record cost was corrected since.
 * @param of the column of the ledger that names the record
 */
export async function restatementsSince(
  db: Reads,
  of: "batchId" | "marketDayId" | "giftOrderId" | "jarId",
  id: number,
): Promise<Restatements[]> {
  const base = alias(movement, "base");
  return runPrepared(db, `put_right_${of}`, { id }, (at) =>
    db
      .select({ actId: act.id, day: act.day, summary: act.summary, by: sqlNumber(sql`-sum(${movement.value})`) })
      .from(movement)
      .innerJoin(base, eq(base.id, movement.restates))
      .innerJoin(act, eq(act.id, movement.actId))
      .where(and(eq(movement[of], at.id), eq(movement.reason, "restated"), lt(base.qty, 0)))
      .groupBy(act.id)
      .having(sql`abs(sum(${movement.value})) >= 5000`)
      .orderBy(asc(act.id)),
  );
}
