/**
 * Reverses an act (*Take it back*), at any time: posts the opposite of each of its movements, restores what it changed beside the ledger, and
 * restates what followed from it, as if it had never been done. The ledger has both.
 */
import { COST_SAID } from "#core/ledger/reasons";
import type { ActKind } from "#core/act/kinds";
import { micros, minus } from "#core/measure/exact";
import { Refused } from "#core/refused";
import { and, eq, inArray, isNotNull, ne } from "drizzle-orm";
import { ACTS } from "./acts.ts";
import type { Db, Tx } from "../client.ts";
import { requireNoReturns } from "../ledger/out.ts";
import { restate, sumsOf, type Restatement } from "../ledger/restate.ts";
import { act, actSubject, lot, movement } from "../schema.ts";
import { anyOf } from "../pieces.ts";
import { LEAVES_VERSION, perform, type ActDefinition, type AnyAct, type ActOptions, type Done } from "../act/define.ts";
import { isEffective } from "../ledger/effective.ts";

const definitionOf = (kind: ActKind): AnyAct => (kind === "undo" ? UNDO : ACTS[kind].definition);

/** Whether an act of that kind can ever be taken back; if not, why. */
export function whyIrreversible(kind: ActKind): string | null {
  const { back } = definitionOf(kind);
  return typeof back === "function" ? null : back.never;
}

const UNDO: ActDefinition<{ actId: number }, null> = {
  kind: "undo",
  exclusive: true,
  leaves: null,
  back: { never: "Taking back isn't taken back itself: do again what was done." },
  run: async (tx, { actId }, at) => {
    const [was] = await tx.select().from(act).where(eq(act.id, actId)).for("no key update");
    if (!was) throw Refused.one("", "There is nothing of that number in the book.");
    const def = definitionOf(was.kind);
    if (typeof def.back !== "function") throw Refused.one("", `That can't be taken back. ${def.back.never}`);
    const [already] = await tx.select({ id: act.id, summary: act.summary }).from(act).where(eq(act.undoes, actId));
    if (already) throw Refused.one("", "That has been taken back already.", [{ to: `/book/${already.id}`, name: already.summary }]);
    await tx.update(act).set({ undoes: actId }).where(eq(act.id, at.actId));
    const left: unknown = def.leaves ? await readLeft(def, was.leaves) : null;
    const path = await def.back(tx, left, { ...at, undoes: actId });
    await restate(tx, at.actId, await opposites(tx, actId, at.actId), {
      field: () => "",
      after: actId,
      short: (number) =>
        `Lot ${number} has been used or counted since, so this can't be taken back. Take that back first, or correct the count.`,
    });
    // Of what is finished only: a material comes back from nobody.
    const lots = await tx
      .selectDistinct({ id: lot.id })
      .from(movement)
      .innerJoin(lot, and(eq(lot.id, movement.lotId), isNotNull(lot.productId)))
      .where(eq(movement.actId, actId));
    await requireNoReturns(
      tx,
      lots.map((l) => l.id),
    );
    const about = await tx.select().from(actSubject).where(eq(actSubject.actId, actId));
    return {
      path: path ?? was.path,
      summary: `Took back: ${was.summary}`,
      about: about.map((s) => ({ kind: s.kind, id: s.subjectId, changes: s.changes })),
      leaves: null,
    };
  },
};

/**
 * Takes an act back.
 * @throws Refused when it was taken back before, can't be, or an act in effect depends on it; that one is named
 */
export const reverseAct = (db: Db, actId: number, doing: ActOptions): Promise<Done> => perform(db, UNDO, { actId }, doing);

/** What an act left, read as its definition says. @throws Refused for an act from before that was recorded */
async function readLeft(def: AnyAct, stored: unknown): Promise<unknown> {
  const { v, left } = (stored ?? {}) as { v?: unknown; left?: unknown };
  if (v !== LEAVES_VERSION || !def.leaves?.isValidSync(left, { strict: true }))
    throw Refused.one("", "That was saved before Zelbin noted what had been there, so it can't be taken back. Change it by hand.");
  return def.leaves.validate(left, { strict: true });
}

/**
 * The opposite of everything an act moved, to be posted: what was corrected since is reversed at its value now. What it corrected of
 * others' purchases is reversed as long as those are in effect; what merely followed from that is worked out again.
 */
async function opposites(tx: Tx, actId: number, undoId: number): Promise<Restatement[]> {
  const own = await tx.select().from(movement).where(eq(movement.actId, actId)).orderBy(movement.id);
  const bases = own.filter((m) => m.restates === null);
  const since = new Map(
    (
      await sumsOf(
        tx,
        bases.map((m) => m.id),
      )
    ).map((s) => [s.of, s]),
  );
  const whole = bases.map((m) => ({
    ...m,
    restates: m.id,
    qty: m.qty + (since.get(m.id)?.qty ?? 0),
    value: micros(m.value + (since.get(m.id)?.value ?? 0)),
  }));
  const putRight = own.flatMap((m) => (m.restates === null ? [] : [{ ...m, restates: m.restates }]));
  const given = new Set(
    putRight.length === 0
      ? []
      : (
          await tx
            .select({ id: movement.id })
            .from(movement)
            .where(
              and(
                anyOf(
                  movement.id,
                  putRight.map((m) => m.restates),
                ),
                inArray(movement.reason, [...COST_SAID]),
                ne(movement.actId, actId),
                isEffective(movement.actId),
              ),
            )
        ).map((m) => m.id),
  );
  return [...whole, ...putRight.filter((m) => given.has(m.restates))].map(
    ({ lotId, qty, value, batchId, marketDayId, giftOrderId, jarId, intoLotId, restates }) => ({
      actId: undoId,
      lotId,
      qty: -qty || 0,
      value: minus(value),
      reason: "undone" as const,
      batchId,
      marketDayId,
      giftOrderId,
      jarId,
      intoLotId,
      restates,
    }),
  );
}
