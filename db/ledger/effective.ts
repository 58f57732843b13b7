/** SQL conditions for acts in effect, neither reversed nor a reversal: the view standing_act. */
import type { ActKind, Subject } from "#core/act/kinds";
import { Refused } from "#core/refused";
import { and, asc, desc, eq, gt, inArray, sql, type SQL, type SQLWrapper } from "drizzle-orm";
import { sqlBoolean } from "../columnsOf.ts";
import type { Tx } from "../client.ts";
import { act, actSubject, actInEffect, movement } from "../schema.ts";

/** Whether the act of that id is in effect. @example db.select().from(purchase).where(isEffective(purchase.actId)) */
export const isEffective = (actId: SQLWrapper): SQL<boolean> =>
  sqlBoolean(sql`exists (select 1 from ${actInEffect} sa where sa.id = ${actId})`);

/**
 * The same of a record that an act which does something left, and no taking back: only whether that act was taken back is left to be asked,
 * and hardly any was. @example db.select().from(purchase).where(notReversed(purchase.actId))
 */
export const notReversed = (actId: SQLWrapper): SQL<boolean> =>
  sqlBoolean(sql`not exists (select 1 from ${act} u where u.undoes = ${actId})`);

/** Where an act is read in the book. */
export const inBook = (a: { id: number; summary: string }) => ({ to: `/book/${a.id}`, name: a.summary });

/** Some records by their ids, for `Subjects`. @example { kind: "order", among: theseIds([1, 2]) } */
export const theseIds = (ids: readonly number[]): SQL => sql`(select unnest(${sql.param([...ids])}::int[]))`;

/** All the records of a kind that a query names. */
export interface Subjects {
  kind: Subject["kind"];
  among: SQLWrapper;
}

/**
 * Acts of some kinds about a record that came after one and are in effect.
 * @example await laterActs(tx, { kind: "receipt", id: 7 }, actId, ["arrive", "correct"])
 */
export const laterActs = (tx: Tx, subject: Subject | Subjects, after: number, kinds: readonly ActKind[]) =>
  tx
    .select({ id: actInEffect.id, summary: actInEffect.summary })
    .from(actSubject)
    .innerJoin(actInEffect, eq(actInEffect.id, actSubject.actId))
    .where(
      and(
        eq(actSubject.kind, subject.kind),
        "id" in subject ? eq(actSubject.subjectId, subject.id) : inArray(actSubject.subjectId, subject.among),
        gt(actInEffect.id, after),
        inArray(actInEffect.kind, [...kinds]),
      ),
    )
    .orderBy(asc(actInEffect.id));

/**
 * A record that the ledger has ever named is never deleted, whatever was taken back since.
 * @param of the column of the ledger that names it
 * @throws Refused, naming the newest act that moved something for it
 */
export async function requireNeverMoved(tx: Tx, of: "giftOrderId" | "marketDayId", ids: readonly number[], why: string): Promise<void> {
  const [last] = await tx
    .select({ id: act.id, summary: act.summary })
    .from(movement)
    .innerJoin(act, eq(act.id, movement.actId))
    .where(inArray(movement[of], [...ids]))
    .orderBy(desc(movement.id))
    .limit(1);
  if (last) throw Refused.one("", why, [inBook(last)]);
}

/** @throws Refused, naming them, when such acts came after */
export async function requireNoLaterActs(
  tx: Tx,
  subject: Subject | Subjects,
  after: number,
  kinds: readonly ActKind[],
  why: string,
): Promise<void> {
  const later = await laterActs(tx, subject, after, kinds);
  if (later.length > 0) throw Refused.one("", `${why} Take that back first.`, later.slice(-5).map(inBook));
}
