/**
 * Doing, and taking back.
 *
 * `perform` runs one act as one transaction and makes a form that is posted twice count once. `undoAct` takes an act back by
 * adding opposite movements: the ledger keeps both.
 */
import { Refused } from "#core/refused";
import type { Day } from "#core/when";
import { eq, inArray, sql } from "drizzle-orm";
import { alias } from "drizzle-orm/pg-core";
import type { Db, Tx } from "./client.ts";
import { lockLots } from "./ledger.ts";
import { act, lot, movement } from "./schema.ts";
import { pathAfterUndo, reopen } from "./reopen.ts";

export interface Doing {
  /** From the form; absent in scripts. */
  token?: string;
  day: Day;
}

export interface Done {
  actId: number;
  /** Where to go to see what came of it. */
  path: string;
}

/** Kinds of act that a person can take back with one press. */
const UNDOABLE = new Set([
  ...["receive", "receiveFile", "arrive", "correct", "count", "stocktake", "moveOut", "open", "harvest"],
  ...["fillJar", "topUp", "strain", "spoil", "blend"],
  ...["pour", "takeOut", "closeMarket", "packOrder", "clearBatch"],
]);

const isDbError = (e: unknown): e is { code: string; constraint?: string } => typeof (e as { code?: unknown })?.code === "string";

/**
 * Runs `work` as one act in one transaction.
 * @returns the act; when its token was posted before, that earlier act, and `work` is not run
 * @throws Refused from `work`, or when another window took stock away meanwhile
 */
export async function perform(
  db: Db,
  kind: string,
  doing: Doing,
  work: (tx: Tx, actId: number) => Promise<{ path: string; summary: string; before?: unknown }>,
): Promise<Done> {
  try {
    return await db.transaction(async (tx) => {
      const [fresh] = await tx
        .insert(act)
        .values({ kind, day: doing.day, token: doing.token })
        .onConflictDoNothing({ target: act.token })
        .returning({ id: act.id });
      if (!fresh) {
        const [before] = await tx.select().from(act).where(eq(act.token, doing.token!));
        return { actId: before!.id, path: before!.path };
      }
      const result = await work(tx, fresh.id);
      await tx.update(act).set(result).where(eq(act.id, fresh.id));
      return { actId: fresh.id, path: result.path };
    });
  } catch (e) {
    const cause = e instanceof Error && e.cause ? e.cause : e;
    if (isDbError(cause) && cause.constraint === "lot_never_negative")
      throw Refused.one("", "Another window has just used that stock. Look again: nothing was moved.");
    if (isDbError(cause) && cause.code === "40P01")
      throw Refused.one("", "Two windows worked on the same lots at once. Try again: nothing was moved.");
    throw e;
  }
}

/** What an act did, for the note that says so, and whether it can still be taken back. */
export async function whatWasDone(db: Db, actId: number): Promise<{ id: number; summary: string; undoable: boolean } | null> {
  const undoing = alias(act, "undoing");
  const [row] = await db
    .select({ id: act.id, summary: act.summary, kind: act.kind, undoneBy: undoing.id })
    .from(act)
    .leftJoin(undoing, eq(undoing.undoes, act.id))
    .where(eq(act.id, actId));
  return row ? { id: row.id, summary: row.summary, undoable: UNDOABLE.has(row.kind) && row.undoneBy === null } : null;
}

/**
 * Takes an act back: every movement of it is met by its opposite, and the record it closed is open again.
 * @throws Refused when it was taken back before, or what it brought in has been used since
 */
export function undoAct(db: Db, actId: number, doing: Doing): Promise<Done> {
  return perform(db, "undo", doing, async (tx, undoId) => {
    const [was] = await tx.select().from(act).where(eq(act.id, actId)).for("update");
    if (!was || !UNDOABLE.has(was.kind)) throw Refused.one("", "That can't be taken back.");
    const [already] = await tx.select({ id: act.id }).from(act).where(eq(act.undoes, actId));
    if (already) throw Refused.one("", "That has been taken back already.");
    await tx.update(act).set({ undoes: actId }).where(eq(act.id, undoId));

    // A restatement of something that was taken back meanwhile went back with it, and must not do so twice.
    const own = await tx
      .select()
      .from(movement)
      .where(
        sql`${movement.actId} = ${actId} and not exists (select 1 from ${movement} o join ${act} u on u.undoes = o.act_id where o.id = ${movement.restates})`,
      );
    // What was restated of them since goes back with them.
    const later = own.length
      ? await tx
          .select()
          .from(movement)
          .where(
            inArray(
              movement.restates,
              own.map((m) => m.id),
            ),
          )
      : [];
    const moves = [...new Map([...own, ...later].map((m) => [m.id, m])).values()];
    const lots = await lockLots(
      tx,
      moves.map((m) => m.lotId),
    );
    const after = new Map([...lots].map(([id, l]) => [id, { onHand: l.onHand, value: l.value as number, number: l.number }]));
    for (const m of moves) {
      const l = after.get(m.lotId)!;
      l.onHand -= m.qty;
      l.value -= m.value;
    }
    for (const l of after.values())
      if (l.onHand < 0 || l.value < 0 || (l.onHand === 0 && l.value !== 0))
        throw Refused.one(
          "",
          `Lot ${l.number} has been used since, so this can't be taken back. Take back what used it first, or correct the count.`,
        );
    if (moves.length > 0)
      await tx.insert(movement).values(
        moves
          // What comes back in first, so that no lot goes below zero on the way.
          .sort((a, b) => a.qty - b.qty || a.value - b.value)
          .map(({ lotId, qty, value, batchId, marketDayId, giftOrderId, jarId, restates }) => ({
            actId: undoId,
            lotId,
            qty: -qty,
            value: (-value || 0) as typeof value,
            reason: "undone" as const,
            batchId,
            marketDayId,
            giftOrderId,
            jarId,
            restates,
          })),
      );
    await reopen(tx, was);
    return { path: pathAfterUndo(was), summary: `Took back: ${was.summary}` };
  });
}

/** Lot numbers in use that start with `head`; holds off other windows that are numbering until this transaction ends. */
export async function takenNumbers(tx: Tx, head: string): Promise<Set<string>> {
  await tx.execute(sql`select pg_advisory_xact_lock(hashtext('lot numbers'))`);
  const rows = await tx
    .select({ number: lot.number })
    .from(lot)
    .where(sql`starts_with(${lot.number}, ${head})`);
  return new Set(rows.map((r) => r.number));
}
