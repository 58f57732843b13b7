/**
 * An act in one place: what it reads and checks, what it does, what it leaves behind, how it is taken back, where it leads and what it
 * says in the book.
 *
 * To add an act, write its definition beside its command with `defineAct`, name its kind in core/act/kinds and enter it in db/acts/acts;
 * the compiler asks for what is missing.
 */
import type { ActKind, Subject } from "#core/act/kinds";
import { Refused } from "#core/refused";
import type { Day } from "#core/when";
import { eq, sql } from "drizzle-orm";
import { createHash } from "node:crypto";
import type { Schema } from "yup";
import type { Db, Tx } from "../client.ts";
import { holdSheet } from "../drafts.ts";
import { databaseOutage } from "../outage.ts";
import { inChunks } from "../pieces.ts";
import { actorName } from "./maker.ts";
import { duplicateRefusal } from "./duplicates.ts";
import { act, actSubject, draft } from "../schema.ts";

export interface ActOptions {
  /** The day it counts for; absent where the input says it. */
  day?: Day;
  /** From the form; absent in scripts. */
  token?: string | undefined;
  /** The newest act about the record when the sheet was opened. */
  seen?: number | null;
  /** Who does it; the workshop's maker when absent. */
  who?: string;
  /** Called while a long act goes on, with how much of how much is done; what it throws ends the act, and nothing of it is saved. */
  progress?: (done: number, of: number) => void;
  /** Only to see whether it could be done: everything is worked out and nothing is saved. */
  dryRun?: boolean;
}

/** It could be done; nothing was. */
export class DryRunPassed extends Error {}

export interface Done {
  actId: number;
  /** Where to go to see what came of it. */
  path: string;
}

/** What an act knows of itself while it runs. */
export interface ActContext {
  actId: number;
  day: Day;
  seen: number | null;
  /** Says how far a long act has come, and lets others have a turn. */
  step: (done: number, of: number) => Promise<void>;
}

/** A record an act is about; `changes` where the act changes the record's own sheet. */
export type About = Subject & { changes?: boolean };

export interface ActResult<Leaves> {
  path: string;
  /** What the book says. */
  summary: string;
  about: readonly About[];
  leaves: Leaves;
}

export interface ActDefinition<In, Leaves, K extends ActKind = ActKind> {
  kind: K;
  /** The day, where the input says it. */
  dayOf?: (input: In) => Day;
  /** It goes through the books from lot to lot, whatever follows from what: nobody else moves anything meanwhile. */
  exclusive?: true;
  /** Reads, checks and does. @throws Refused; then nothing is saved */
  run: (tx: Tx, input: In, at: ActContext) => Promise<ActResult<Leaves>>;
  /** How what it left is read again; null where it leaves nothing. */
  leaves: Schema<Leaves> | null;
  /**
   * Puts back what it changed beside the ledger, whose movements go back by themselves; or why it is never taken back.
   * @returns where to go then, when not to where the act led
   */
  // eslint-disable-next-line @typescript-eslint/no-invalid-void-type -- most lead back to where the act led and say nothing
  back: ((tx: Tx, left: Leaves, at: ActContext & { undoes: number }) => Promise<string | void>) | { never: string };
}

/** A definition whatever it reads and leaves. */
// eslint-disable-next-line @typescript-eslint/no-explicit-any -- a record of definitions with different inputs has no common one
export type AnyAct = ActDefinition<any, any>;

export interface Command<In, K extends ActKind> {
  (db: Db, input: In, doing: ActOptions): Promise<Done>;
  readonly definition: AnyAct & { kind: K };
}

type DbError = { code: string; constraint?: string };
/** An error of the database's own; of these codes, where some are named. */
const isDbError = (e: unknown): e is DbError => typeof (e as { code?: unknown } | null)?.code === "string";
const hasCode = (e: unknown, ...codes: readonly string[]): boolean => isDbError(e) && codes.includes(e.code);

/** Of the shape in which acts keep what they leave. */
export const LEAVES_VERSION = 1;

/** The content of an act: alike only for the same input, whatever the order of its keys; files count by their bytes. */
function digestOf(kind: ActKind, input: unknown): string {
  const plain = (key: string, value: unknown, holder: Record<string, unknown>): unknown => {
    const raw = key === "" ? value : holder[key];
    if (raw instanceof Uint8Array) return createHash("sha256").update(raw).digest("hex");
    if (raw instanceof Map) return [...raw.entries()];
    if (raw && typeof raw === "object" && !Array.isArray(raw))
      return Object.fromEntries(Object.entries(raw).sort(([a], [b]) => (a < b ? -1 : 1)));
    return typeof raw === "function" ? undefined : value;
  };
  const text = JSON.stringify([kind, input], function (this: Record<string, unknown>, key, value) {
    return plain(key, value, this);
  });
  return createHash("sha256").update(text).digest("base64url");
}

/**
 * Runs an act in one transaction: the row in the book first, then the work. What was saved of its sheet while it was unfinished goes with it.
 * @returns the act; when its token was posted before with the same content, that earlier act, and nothing is done again
 * @throws DryRunPassed when it was only to be tried; Refused from the work, for a token of another act, or when another window took stock away meanwhile
 */
export async function perform<In, Leaves>(db: Db, def: ActDefinition<In, Leaves>, input: In, doing: ActOptions): Promise<Done> {
  const until = Date.now() + KEEP_TRYING_MS;
  for (let tried = 1; ; tried++) {
    try {
      return await performOnce(db, def, input, doing);
    } catch (e) {
      // Cut short by another act, nothing of it was saved. Where its last word was lost it may have been: then its token tells.
      const again = hasCode(causeOf(e), "40P01", "40001") || (doing.token !== undefined && databaseOutage(e)?.kind === "away");
      if (!again || Date.now() > until) throw refusalOf(e);
      await new Promise((done) => setTimeout(done, Math.random() * 25 * Math.min(tried, 8)));
    }
  }
}

/** As long as somebody at a sheet waits without wondering. */
const KEEP_TRYING_MS = 4000;

const causeOf = (e: unknown): unknown => (e instanceof Error && e.cause ? e.cause : e);

/** What another window's act has done to this one, in words; anything else as it is. */
function refusalOf(e: unknown): unknown {
  const cause = causeOf(e);
  if (!isDbError(cause)) return e;
  if (cause.constraint === "lot_never_negative")
    return Refused.one("", "Another window has just used that stock. Look again: nothing was moved.");
  if (hasCode(cause, "40P01", "40001", "55P03"))
    return Refused.one("", "Other windows are at work on the same things. Try again: nothing was moved.");
  if (hasCode(cause, "23505")) return duplicateRefusal(cause.constraint);
  if (hasCode(cause, "23503"))
    return Refused.one("", "Something on this sheet has just been deleted in another window. Look again: nothing was saved.");
  return e;
}

/**
 * Locks are taken in one order by every act, so that two never wait for each other: the books, the sheet's token, the act's row, the record on
 * the sheet, what is reserved for batches on the bench, all the lots at once by their number (`lockLots`), and last the numbers of lots.
 */
const holdBooks = (tx: Tx, alone: boolean) =>
  tx.execute(alone ? sql`select pg_advisory_xact_lock(7001)` : sql`select pg_advisory_xact_lock_shared(7001)`);

async function performOnce<In, Leaves>(db: Db, def: ActDefinition<In, Leaves>, input: In, doing: ActOptions): Promise<Done> {
  const day = def.dayOf?.(input) ?? doing.day;
  if (day === undefined) throw new Error(`${def.kind} was given no day`);
  const digest = digestOf(def.kind, input);
  const seen = doing.seen ?? null;
  return db.transaction(async (tx) => {
    await holdBooks(tx, def.exclusive ?? false);
    if (doing.token !== undefined) {
      await holdSheet(tx, doing.token);
      await tx.delete(draft).where(eq(draft.token, doing.token));
    }
    const [fresh] = await tx
      .insert(act)
      .values({
        kind: def.kind,
        day,
        digest,
        seen,
        token: doing.token,
        who: doing.who ?? actorName,
      })
      .onConflictDoNothing({ target: act.token })
      .returning({ id: act.id });
    if (!fresh) {
      if (doing.dryRun) throw new DryRunPassed();
      return await sameAct(tx, doing.token!, def.kind, digest);
    }
    const step = async (done: number, of: number): Promise<void> => {
      await new Promise(setImmediate);
      doing.progress?.(done, of);
    };
    const came = await def.run(tx, input, { actId: fresh.id, day, seen, step });
    await tx
      .update(act)
      .set({ path: came.path, summary: came.summary, leaves: came.leaves === null ? null : { v: LEAVES_VERSION, left: came.leaves } })
      .where(eq(act.id, fresh.id));
    await writeSubjects(tx, fresh.id, came.about);
    // Thrown, so that the transaction rolls back.
    if (doing.dryRun) throw new DryRunPassed();
    return { actId: fresh.id, path: came.path };
  });
}

/** The act a token was used for, when it was this very one. @throws Refused when it was another */
async function sameAct(tx: Tx, token: string, kind: ActKind, digest: string): Promise<Done> {
  const [before] = await tx.select().from(act).where(eq(act.token, token));
  // Acts from before contents were stored have none to compare.
  if (before!.kind !== kind || (before!.digest !== null && before!.digest !== digest))
    throw Refused.one(
      "",
      `This sheet has already done something else: ${before!.summary}. What you typed is still here; reload the page before you send it.`,
      [{ to: `/book/${before!.id}`, name: before!.summary }],
    );
  return { actId: before!.id, path: before!.path };
}

export async function writeSubjects(tx: Tx, actId: number, about: readonly About[]): Promise<void> {
  const rows = new Map<string, typeof actSubject.$inferInsert>();
  for (const { kind, id, changes = false } of about) {
    const key = `${kind} ${id}`;
    rows.set(key, { actId, kind, subjectId: id, changes: changes || (rows.get(key)?.changes ?? false) });
  }
  for (const piece of inChunks([...rows.values()])) await tx.insert(actSubject).values(piece);
}

/**
 * Makes a command out of a definition.
 * @example export const openLot = defineAct({ kind: "open", run: async (tx, input: { lotId: number }, at) => …, leaves: null, back: async (tx) => … })
 */
export function defineAct<const K extends ActKind, In, Leaves>(definition: ActDefinition<In, Leaves, K>): Command<In, K> {
  return Object.assign((db: Db, input: In, doing: ActOptions) => perform(db, definition, input, doing), { definition });
}
