/**
 * What is weighed, as it is weighed: saved on the batch for every window and device, and no act until it is poured.
 *
 * A whole sheet may be saved from one window while another, or the bench itself, weighs on: each line goes by what that window changed of it.
 */
import type { WeighedBy } from "#core/batch/weighing/events";
import type { Mg } from "#core/measure/exact";
import { grams } from "#core/measure/write";
import { Refused, type FieldProblem } from "#core/refused";
import { and, asc, eq } from "drizzle-orm";
import type { Db, Tx } from "../../client.ts";
import { batch, batchSize, batchTake } from "../../schema.ts";
import { onBench, type TakeIn, lockBatchOnBench } from "../planning/standing.ts";

type Row = typeof batchTake.$inferSelect;
type NewRow = Omit<typeof batchTake.$inferInsert, "id">;
/** Lines by what tells them apart: their place, their lot, and which of those it is, since more of a lot may be added to what is in the pot. */
export function byLine<T extends { position: number; lotId: number }>(rows: readonly T[]): Map<string, T> {
  const seen = new Map<string, number>();
  return new Map(
    rows.map((t) => {
      const at = `${t.position} ${t.lotId}`;
      const nth = seen.get(at) ?? 0;
      seen.set(at, nth + 1);
      return [`${at} ${nth}`, t];
    }),
  );
}

/** The lines of a batch as they are on its sheet. */
export const takesOf = (tx: Tx, batchId: number) =>
  tx.select().from(batchTake).where(eq(batchTake.batchId, batchId)).orderBy(asc(batchTake.position), asc(batchTake.id));

/** Writes the lines of a weigh sheet again; what was weighed before still says when and how. */
export async function writeTakes(tx: Tx, batchId: number, lines: readonly NewRow[]): Promise<void> {
  const before = byLine(await takesOf(tx, batchId));
  await tx.delete(batchTake).where(eq(batchTake.batchId, batchId));
  await tx.insert(batchTake).values(
    [...byLine(lines)].map(([key, l]) => {
      const was = before.get(key);
      const same = was && was.weighed === l.weighed;
      const fresh = l.weighed === null || l.weighed === undefined ? null : new Date();
      return { ...l, weighedAt: same ? was.weighedAt : fresh, weighedBy: same ? was.weighedBy : fresh && ("hand" as const) };
    }),
  );
}

/** What a window had of a line when it last saved the sheet. */
export type Kept = Pick<TakeIn, "position" | "lotId" | "weighed">;

/**
 * The lines of a sheet that two windows keep: this window's where it changed them, else what is stored.
 * @param late sent by a page after the one it was typed on: what was weighed elsewhere since is newer, and wins
 * @returns the lines, and beside which of them a newer weight was left
 */
function merged(sent: readonly NewRow[], kept: readonly Kept[], stored: readonly Row[], late: boolean) {
  const [had, now, mine] = [byLine(kept), byLine(stored), byLine(sent)];
  const overtaken: FieldProblem[] = [];
  const own = [...mine].map(([key, t], i) => {
    const [before, theirs] = [had.get(key), now.get(key)];
    if (!before || !theirs) return t;
    const newer = late && theirs.weighed !== before.weighed && theirs.weighed !== t.weighed;
    if (newer && t.weighed !== before.weighed) {
      const say = `${theirs.weighed === null ? "It" : grams(theirs.weighed)} of ${theirs.name} was ${theirs.weighed === null ? "struck out" : "weighed"} elsewhere meanwhile. Look again.`;
      overtaken.push({ field: `takes.${i}.weighed`, say });
    }
    return newer || before.weighed === t.weighed ? { ...t, weighed: theirs.weighed, planned: theirs.planned } : t;
  });
  // A lot that was added elsewhere, which this window never had.
  const added = [...now].flatMap(([key, { id: _, ...t }]) => (had.has(key) || mine.has(key) ? [] : [t]));
  return { lines: [...own, ...added].sort((a, b) => a.position - b.position), overtaken };
}

/**
 * Before a sheet is poured: what another window, or the bench, weighed since this one last saved it is on the sheet too.
 * @throws Refused beside the line that is another by now, or naming what this sheet never had
 */
export async function nothingElsewhere(tx: Tx, batchId: number, sent: readonly TakeIn[], kept: readonly Kept[]): Promise<void> {
  const [had, now, mine] = [byLine(kept), byLine(await takesOf(tx, batchId)), byLine(sent)];
  const rows = [...mine.keys()];
  for (const [key, theirs] of now) {
    if (theirs.weighed === null || theirs.weighed === had.get(key)?.weighed || theirs.weighed === mine.get(key)?.weighed) continue;
    const said = `${grams(theirs.weighed)} of ${theirs.name} ${mine.has(key) ? "was weighed in another window" : "was added in another window"} meanwhile. Reload the page, and look at it first.`;
    throw Refused.one(mine.has(key) ? `takes.${rows.indexOf(key)}.weighed` : "", said);
  }
}

/**
 * Keeps what has been weighed so far, and lots changed by hand: the sheet as it is being filled in, and no act yet.
 * @param kept what this window had when it last saved the sheet; without it the sheet is stored as it is sent
 * @param late sent by a page after the one it was typed on
 * @returns beside which lines a newer weight was left, all else being saved
 * @throws Refused once the batch is poured, or for a lot of another material
 */
export async function saveWeighed(
  db: Db,
  batchId: number,
  takes: readonly TakeIn[],
  kept?: readonly Kept[],
  late = false,
): Promise<FieldProblem[]> {
  return db.transaction(async (tx) => {
    const { lines } = await onBench(tx, batchId, takes, kept);
    const both = kept ? merged(lines, kept, await takesOf(tx, batchId), late) : { lines, overtaken: [] };
    await writeTakes(tx, batchId, both.lines);
    return both.overtaken;
  });
}

/** A line of a batch. */
export interface LineOf {
  batchId: number;
  position: number;
  lotId: number;
  /** Which of those, from nought. */
  nth?: number;
}

/** One of the lines of a batch. @throws Refused when it isn't there any more */
export function lineIn<T extends { position: number; lotId: number }>(
  takes: readonly T[],
  { position, lotId, nth = 0 }: Omit<LineOf, "batchId">,
): T {
  const found = byLine(takes).get(`${position} ${lotId} ${nth}`);
  if (!found) throw Refused.one("", "This line isn't on the sheet any more. Reload the page.");
  return found;
}

/** The same with all of them. @throws Refused when it isn't there any more */
export async function lineOf(tx: Tx, { batchId, ...at }: LineOf) {
  const takes = await takesOf(tx, batchId);
  return { takes, found: lineIn(takes, at) };
}

export interface WeighIn extends LineOf {
  /** Null strikes it out. */
  weighed: Mg | null;
  /** What was there when it was put on the scale. */
  was: Mg | null;
  by: WeighedBy;
}

/** Keeps one weighing. @throws Refused for what another window weighed meanwhile, and for more than its lot has */
export async function weighOne(db: Db, { weighed, was, by, ...at }: WeighIn): Promise<void> {
  await db.transaction(async (tx) => {
    await lockBatchOnBench(tx, at.batchId);
    const { found: row } = await lineOf(tx, at);
    if (row.weighed !== was && row.weighed !== weighed)
      throw Refused.one(
        "",
        `${row.name} has just been weighed elsewhere: ${row.weighed === null ? "struck out" : grams(row.weighed)}. Look again.`,
      );
    await tx
      .update(batchTake)
      .set({ weighed, weighedAt: weighed === null ? null : new Date(), weighedBy: weighed === null ? null : by })
      .where(eq(batchTake.id, row.id));
  });
}

/** Keeps what the empty pot weighs; null strikes it out. */
export async function weighVessel(db: Db, batchId: number, vessel: Mg | null): Promise<void> {
  await db.transaction(async (tx) => {
    await lockBatchOnBench(tx, batchId);
    await tx.update(batch).set({ vessel }).where(eq(batch.id, batchId));
  });
}

export interface FilledIn {
  batchId: number;
  sizeId: number;
  /** Filled by now, and what was there when it was counted. */
  units: number;
  was: number;
}

/** Keeps the count of a size while it is being filled; sent again it counts once. @throws Refused for what another window counted meanwhile */
export async function countFilled(db: Db, { batchId, sizeId, units, was }: FilledIn): Promise<void> {
  await db.transaction(async (tx) => {
    await lockBatchOnBench(tx, batchId);
    const [size] = await tx
      .select()
      .from(batchSize)
      .where(and(eq(batchSize.id, sizeId), eq(batchSize.batchId, batchId)));
    if (!size) throw Refused.one("", "That size isn't planned of this batch any more.");
    const now = size.units ?? 0;
    if (now !== was && now !== units) throw Refused.one("", `Counted elsewhere just now: ${now} × ${size.label}. Look again.`);
    await tx.update(batchSize).set({ units }).where(eq(batchSize.id, sizeId));
  });
}
