/** What happens at the bench while a batch is made, written down as it happens: steps, warmths, timers, notes. */
import { SETTING } from "#core/batch/finishing/check";
import type { BenchEventKind } from "#core/batch/weighing/events";
import type { SpoonVerdict } from "#core/batch/finishing/spoon";
import type { Mg } from "#core/measure/exact";
import type { RecipeType } from "#core/recipe/types";
import { Refused } from "#core/refused";
import type { Day } from "#core/when";
import { and, asc, eq, isNotNull, isNull, or, sql } from "drizzle-orm";
import type { Db, Reads, Tx } from "../../client.ts";
import { today } from "../../clock.ts";
import { cachedUntilWrite } from "../../cache.ts";
import { actorName } from "../../act/maker.ts";
import { runPrepared } from "../../prepared.ts";
import { batch, batchEvent, recipeVersion } from "../../schema.ts";
import { onTheBench, lockBatchOnBench } from "../planning/standing.ts";

export interface EventIn {
  batchId: number;
  kind: BenchEventKind;
  step?: number | null;
  celsius?: number | null;
  minutes?: number | null;
  verdict?: SpoonVerdict | null;
  weight?: Mg | null;
  note?: string;
}

/** Writes one down. A step is done once, however often it is pressed. @throws Refused once the batch is poured or cleared */
export async function noteEvent(db: Db, { batchId, ...event }: EventIn): Promise<void> {
  await db.transaction(async (tx) => {
    await lockBatchOnBench(tx, batchId);
    if (event.kind === "step") {
      const [done] = await tx
        .select({ id: batchEvent.id })
        .from(batchEvent)
        .where(
          and(
            eq(batchEvent.batchId, batchId),
            eq(batchEvent.kind, "step"),
            eq(batchEvent.step, event.step ?? 0),
            isNull(batchEvent.struckAt),
          ),
        );
      if (done) return;
    }
    await tx.insert(batchEvent).values({ batchId, ...event, who: actorName });
  });
}

/** Ends a timer, or strikes out what was written by mistake: it stays, crossed out. @throws Refused when it isn't there, or the batch is poured */
export async function settleEvent(db: Db, batchId: number, id: number, how: "end" | "strike"): Promise<void> {
  await db.transaction(async (tx) => {
    await lockBatchOnBench(tx, batchId);
    const column =
      how === "end" ? { endedAt: sql`coalesce(${batchEvent.endedAt}, now())` } : { struckAt: sql`coalesce(${batchEvent.struckAt}, now())` };
    const [row] = await tx
      .update(batchEvent)
      .set(column)
      .where(and(eq(batchEvent.id, id), eq(batchEvent.batchId, batchId)))
      .returning({ id: batchEvent.id });
    if (!row) throw Refused.one("", "That isn't on this batch any more.");
  });
}

/** A batch that is poured sets: a timer that shows on every screen. One written down another day has set long since. */
export async function beginsSetting(tx: Tx, batchId: number, type: RecipeType, day: Day): Promise<void> {
  const sets = SETTING[type];
  if (sets && day === today())
    await tx.insert(batchEvent).values({ batchId, kind: "set", who: actorName, minutes: sets.minutes, note: sets.then });
}

const setting = (batchId: number) => and(eq(batchEvent.batchId, batchId), eq(batchEvent.kind, "set"), isNull(batchEvent.struckAt));

/** It is cold, and capped or pressed out. Pressed twice, it was the first time. */
export const endSetting = (db: Db | Tx, batchId: number) =>
  db
    .update(batchEvent)
    .set({ endedAt: sql`coalesce(${batchEvent.endedAt}, now())` })
    .where(setting(batchId));

/** Its pouring was taken back: nothing sets. */
export const neverSet = (tx: Tx, batchId: number) =>
  tx
    .update(batchEvent)
    .set({ struckAt: sql`now()` })
    .where(setting(batchId));

/** Everything that happened with a batch, in order. */
export const eventsOf = (db: Reads, batchId: number) =>
  runPrepared(db, "bench_events", { batchId }, (at) =>
    db.select().from(batchEvent).where(eq(batchEvent.batchId, at.batchId)).orderBy(asc(batchEvent.id)),
  );
export type BenchEvent = Awaited<ReturnType<typeof eventsOf>>[number];

/** Timers that run at the bench, and of what sets since: shown on every screen, since heat must not be forgotten. */
export const runningTimers = (db: Db) =>
  cachedUntilWrite(db, "bench timers", "", () =>
    db
      .select({
        id: batchEvent.id,
        batchId: batch.id,
        name: recipeVersion.name,
        note: batchEvent.note,
        at: batchEvent.at,
        minutes: batchEvent.minutes,
      })
      .from(batchEvent)
      .innerJoin(batch, eq(batch.id, batchEvent.batchId))
      .innerJoin(recipeVersion, eq(recipeVersion.id, batch.versionId))
      .where(
        and(
          sql`${batchEvent.kind} in ('timer', 'set')`,
          isNull(batchEvent.endedAt),
          isNull(batchEvent.struckAt),
          or(onTheBench, and(eq(batchEvent.kind, "set"), isNotNull(batch.pouredActId))),
        ),
      )
      .orderBy(asc(batchEvent.id)),
  );
