/** Optimistic lock: refuses to save over a newer version of a record than was on the sheet, so that both can be shown. */
import type { Subject } from "#core/act/kinds";
import { EditedMeanwhile } from "#core/refused";
import { and, desc, eq, gt, sql } from "drizzle-orm";
import { sqlNumber } from "../columnsOf.ts";
import type { Reads, Tx } from "../client.ts";
import { runPrepared } from "../prepared.ts";
import { act, actSubject } from "../schema.ts";

/** The newest act that changed a record; 0 when none ever did. @example versionOf(db, { kind: "recipe", id: 4 }) */
export async function versionOf(db: Reads, subject: Subject): Promise<number> {
  const { kind, id } = subject;
  const [row] = await runPrepared(db, "version_of", { kind, id }, (at) =>
    db
      .select({ newest: sqlNumber(sql`coalesce(max(${actSubject.actId}), 0)`) })
      .from(actSubject)
      .where(and(eq(actSubject.kind, at.kind), eq(actSubject.subjectId, at.id), eq(actSubject.changes, true))),
  );
  return row!.newest;
}

/**
 * Call once the record is locked. A sheet that says nothing of what it saw (a script) passes.
 * @throws EditedMeanwhile when another act changed the record since
 */
export async function requireUnchanged(tx: Tx, subject: Subject, seen: number | null): Promise<void> {
  if (seen === null) return;
  const [newer] = await tx
    .select({ actId: act.id, summary: act.summary, who: act.who, at: act.at })
    .from(actSubject)
    .innerJoin(act, eq(act.id, actSubject.actId))
    .where(
      and(
        eq(actSubject.kind, subject.kind),
        eq(actSubject.subjectId, subject.id),
        eq(actSubject.changes, true),
        gt(actSubject.actId, seen),
      ),
    )
    .orderBy(desc(act.id))
    .limit(1);
  if (newer) throw new EditedMeanwhile({ ...newer, at: newer.at.toISOString() });
}
