/** Putting lots on hold and freeing them: each reason is a separate row, removed by what put it there. */
import type { HeldBy } from "#core/stock/holds";
import { and, asc, eq } from "drizzle-orm";
import type { Reads, Tx } from "../client.ts";
import { anyOf, inChunks } from "../pieces.ts";
import { act, lotHold, recall } from "../schema.ts";

export interface Why {
  by: HeldBy;
  /** The batch, recall or jar; 0 by hand. */
  source: number;
}

/** Puts lots on hold, whatever else they are on hold for. @returns those that weren't yet for this */
export async function holdLots(tx: Tx, ids: readonly number[], { by, source, reason }: Why & { reason: string }): Promise<number[]> {
  const held: number[] = [];
  for (const piece of inChunks([...new Set(ids)].map((lotId) => ({ lotId, by, source, reason })))) {
    const rows = await tx.insert(lotHold).values(piece).onConflictDoNothing().returning({ id: lotHold.lotId });
    held.push(...rows.map((r) => r.id));
  }
  return held;
}

/** Lifts that one hold of some lots; what else they are on hold for stays. @returns those it was lifted from */
export async function freeLots(tx: Tx, ids: readonly number[], { by, source }: Why): Promise<number[]> {
  const rows = await tx
    .delete(lotHold)
    .where(and(anyOf(lotHold.lotId, ids), eq(lotHold.by, by), eq(lotHold.source, source)))
    .returning({ id: lotHold.lotId });
  return rows.map((r) => r.id);
}

/** All a lot is on hold for, the first first; of a recall, whether it is over. */
export const holdsOf = (db: Reads, lotId: number) =>
  db
    .select({
      ...{ id: lotHold.id, by: lotHold.by, source: lotHold.source, reason: lotHold.reason },
      closed: act.id,
    })
    .from(lotHold)
    .leftJoin(recall, and(eq(lotHold.by, "recall"), eq(recall.id, lotHold.source)))
    .leftJoin(act, eq(act.id, recall.closedActId))
    .where(eq(lotHold.lotId, lotId))
    .orderBy(asc(lotHold.id));

/** The recalls that have some lots on hold. */
export const recallsOver = (tx: Tx, ids: readonly number[]) =>
  tx
    .selectDistinct({ id: recall.id, reason: recall.reason })
    .from(lotHold)
    .innerJoin(recall, eq(recall.id, lotHold.source))
    .where(and(eq(lotHold.by, "recall"), anyOf(lotHold.lotId, ids)));
