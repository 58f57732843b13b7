/**
 * What is weighed, as it is weighed: kept on the batch for every window and device, and no act until it is poured.
 *
 * A whole sheet may be kept from one window while another, or the bench itself, weighs on: each line goes by what that window changed of it.
 */
import type { WeighedBy } from "#core/batch/events";
import type { Mg } from "#core/measure/exact";
import { grams } from "#core/measure/write";
import { Refused } from "#core/refused";
import { and, eq, isNull } from "drizzle-orm";
import type { Db, Tx } from "../client.ts";
import { batch, batchTake } from "../schema.ts";
import { onBench, type TakeIn } from "./setOut.ts";

type Row = typeof batchTake.$inferSelect;
type NewRow = Omit<typeof batchTake.$inferInsert, "id">;
const line = (t: { position: number; lotId: number }): string => `${t.position} ${t.lotId}`;

/** Writes the lines of a weigh sheet anew; what was weighed before keeps when and how. */
export async function writeTakes(tx: Tx, batchId: number, lines: readonly NewRow[]): Promise<void> {
  const before = new Map((await tx.select().from(batchTake).where(eq(batchTake.batchId, batchId))).map((t) => [line(t), t]));
  await tx.delete(batchTake).where(eq(batchTake.batchId, batchId));
  await tx.insert(batchTake).values(
    lines.map((l) => {
      const was = before.get(line(l));
      const same = was && was.weighed === l.weighed;
      const fresh = l.weighed === null || l.weighed === undefined ? null : new Date();
      return { ...l, weighedAt: same ? was.weighedAt : fresh, weighedBy: same ? was.weighedBy : fresh && ("hand" as const) };
    }),
  );
}

/** What a window had of a line when it last kept the sheet. */
export type Kept = Pick<TakeIn, "position" | "lotId" | "weighed">;

/** What stands where two windows kept one sheet: of each line this window's, where this window changed it. */
function merged(sent: readonly NewRow[], kept: readonly Kept[], stored: readonly Row[]): NewRow[] {
  const had = new Map(kept.map((t) => [line(t), t]));
  const now = new Map(stored.map((t) => [line(t), t]));
  const own = sent.map((t) => {
    const [mine, theirs] = [had.get(line(t)), now.get(line(t))];
    return mine && theirs && mine.weighed === t.weighed ? { ...t, weighed: theirs.weighed, planned: theirs.planned } : t;
  });
  // A lot that was added elsewhere, which this window never had.
  const added = stored.filter((t) => !had.has(line(t)) && !sent.some((s) => line(s) === line(t)));
  return [...own, ...added.map(({ id: _, ...t }) => t)].sort((a, b) => a.position - b.position);
}

/**
 * Keeps what has been weighed so far, and lots changed by hand: the sheet as it is being filled in, and no act yet.
 * @param kept what this window had when it last kept the sheet; without it the sheet stands as it is sent
 * @throws Refused once the batch is poured, or for a lot of another material
 */
export async function saveWeighed(db: Db, batchId: number, takes: readonly TakeIn[], kept?: readonly Kept[]): Promise<void> {
  await db.transaction(async (tx) => {
    const { lines } = await onBench(tx, batchId, takes);
    const stored = await tx.select().from(batchTake).where(eq(batchTake.batchId, batchId));
    await writeTakes(tx, batchId, kept ? merged(lines, kept, stored) : lines);
  });
}

/** The batch, held, while it stands on the bench. @throws Refused once it is poured or cleared */
export async function standing(tx: Tx, batchId: number): Promise<typeof batch.$inferSelect> {
  const [row] = await tx
    .select()
    .from(batch)
    .where(and(eq(batch.id, batchId), isNull(batch.pouredActId), isNull(batch.clearedActId)))
    .for("no key update");
  if (!row) throw Refused.one("", "This batch isn't on the bench any more.");
  return row;
}

export interface WeighIn {
  batchId: number;
  position: number;
  lotId: number;
  /** Null strikes it out. */
  weighed: Mg | null;
  /** What stood there when it was put on the scale. */
  was: Mg | null;
  by: WeighedBy;
}

/** Keeps one weighing. @throws Refused for what another window weighed meanwhile, and for more than its lot has */
export async function weighOne(db: Db, { batchId, position, lotId, weighed, was, by }: WeighIn): Promise<void> {
  await db.transaction(async (tx) => {
    await standing(tx, batchId);
    const at = and(eq(batchTake.batchId, batchId), eq(batchTake.position, position), eq(batchTake.lotId, lotId));
    const [row] = await tx.select().from(batchTake).where(at);
    if (!row) throw Refused.one("", "This line isn't on the sheet any more. Reload the page.");
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
    await standing(tx, batchId);
    await tx.update(batch).set({ vessel }).where(eq(batch.id, batchId));
  });
}
