/** A stock-take: walking the shelf, noting what is there, and posting every correction as one act. */
import { kind, KIND_IDS, type KindId } from "#core/material/kinds";
import type { Base } from "#core/measure/exact";
import { showStock } from "#core/measure/write";
import { Refused, type FieldProblem } from "#core/refused";
import { counted as countOf } from "#core/words";
import { and, asc, eq, or, sql } from "drizzle-orm";
import { createHash } from "node:crypto";
import { isOnHold, sqlNumber } from "../../columnsOf.ts";
import { defineAct } from "../../act/define.ts";
import type { Db, Reads, Tx } from "../../client.ts";
import { draw, surplusValue, hasStock, lockLots, type NewMovement, unitCostOfLot } from "../../ledger/lots.ts";
import { anyOf, hasAll, wordsOf } from "../../pieces.ts";
import { cachedUntilWrite } from "../../cache.ts";
import { runPrepared } from "../../prepared.ts";
import { lot, material, movement, stockCount } from "../../schema.ts";

/** What of the shelf is walked: a board, or what a search finds; all of it where neither is given. */
export interface Walk {
  kind?: KindId | null;
  find?: string;
  page?: number;
}

/** Lots on one page of the walk. */
export const WALK_PAGE = 100;

const toWalk = or(hasStock, sql`${stockCount.lotId} is not null`);

/** How many lots there are to walk on each board, how many were counted, and how many of those differ. */
export const walkTotals = (db: Db) => cachedUntilWrite(db, "walk totals", "", () => countWalk(db));

const countWalk = (db: Reads) =>
  runPrepared(db, "walk_totals", {}, () =>
    db
      .select({
        kind: material.kind,
        lots: sqlNumber(sql`count(*)`),
        counted: sqlNumber(sql`count(${stockCount.lotId})`),
        differ: sqlNumber(sql`count(*) filter (where ${stockCount.counted} <> ${stockCount.expected})`),
      })
      .from(lot)
      .innerJoin(material, eq(material.id, lot.materialId))
      .leftJoin(stockCount, eq(stockCount.lotId, lot.id))
      .where(toWalk)
      .groupBy(material.kind),
  );

/** Lots with something on hand, shelf by shelf, a page at a time, with what has been counted of them so far. */
export function walkShelf(db: Reads, { kind: board, find = "", page = 0 }: Walk = {}) {
  const words = wordsOf(find);
  const found = words.length > 0;
  return runPrepared(
    db,
    `walk${board ? "_board" : ""}${found ? "_found" : ""}`,
    { board: board ?? "", words, from: page * WALK_PAGE },
    (at) =>
      db
        .select({
          id: lot.id,
          number: lot.number,
          onHand: lot.onHand,
          value: lot.value,
          bestBefore: lot.bestBefore,
          hold: isOnHold,
          materialId: material.id,
          material: material.name,
          kind: material.kind,
          expected: stockCount.expected,
          counted: stockCount.counted,
          note: stockCount.note,
        })
        .from(lot)
        .innerJoin(material, eq(material.id, lot.materialId))
        .leftJoin(stockCount, eq(stockCount.lotId, lot.id))
        .where(
          and(
            toWalk,
            board ? eq(material.kind, at.board) : undefined,
            found ? hasAll(sql`(${material.name} || ' ' || ${lot.number})`, at.words) : undefined,
          ),
        )
        // Board by board, in the shelf's order.
        .orderBy(
          sql`array_position(${sql.raw(`array[${KIND_IDS.map((k) => `'${k}'`).join(",")}]`)}, ${material.kind})`,
          asc(material.name),
          asc(lot.id),
        )
        .limit(WALK_PAGE)
        .offset(at.from),
  );
}

export type WalkRow = Awaited<ReturnType<typeof walkShelf>>[number];

/**
 * Notes one lot's count; null takes the note back. Nothing moves until it is posted.
 * @param had what the window that notes it may have had of the lot: what it was shown, and what it sent since; absent for a script
 * @throws Refused where another window has noted something else since
 */
export async function noteCount(db: Db, lotId: number, counted: Base | null, note: string, had?: readonly (Base | null)[]): Promise<void> {
  await db.transaction(async (tx) => {
    const at = (await lockLots(tx, [lotId])).get(lotId);
    const [noted] = had === undefined ? [] : await tx.select().from(stockCount).where(eq(stockCount.lotId, lotId));
    const now = noted?.counted ?? null;
    if (had !== undefined && !had.includes(now) && now !== counted) {
      const measured = kind(at?.kind ?? "oil").measured;
      const say = now === null ? "Its count was taken out in another window." : `Counted ${showStock(now, measured)} in another window.`;
      throw Refused.one(`lot.${lotId}`, `${say} Look again.`);
    }
    if (counted === null) {
      await tx.delete(stockCount).where(eq(stockCount.lotId, lotId));
      return;
    }
    if (!at) throw Refused.one("counted", "That lot isn't here any more.");
    const row = { expected: at.onHand, counted, note };
    await tx
      .insert(stockCount)
      .values({ lotId, ...row })
      .onConflictDoUpdate({ target: stockCount.lotId, set: row });
  });
}

const digestOf = (counts: readonly { lotId: number; counted: Base }[]): string =>
  createHash("sha256")
    .update(JSON.stringify(counts.map((c) => [c.lotId, c.counted])))
    .digest("base64url");

/** All that is noted so far, as one text: by it a window knows whether another has noted something since. */
export const notedSoFar = async (db: Reads): Promise<string> =>
  digestOf(await db.select({ lotId: stockCount.lotId, counted: stockCount.counted }).from(stockCount).orderBy(stockCount.lotId));

/** Forgets every count noted so far. */
export const dropCounts = (db: Db): Promise<void> =>
  db.transaction(async (tx) => {
    await lockCounted(tx);
    await tx.delete(stockCount);
  });

/** Holds the lots that are noted, before the notes themselves, as noting one does: what is read then can't be noted again before it is done with. */
async function lockCounted(tx: Tx) {
  const noted = await tx.select({ lotId: stockCount.lotId }).from(stockCount);
  return lockLots(
    tx,
    noted.map((n) => n.lotId),
  );
}

/**
 * Posts all that was counted as one act.
 * @throws Refused when nothing was counted, or beside each lot that has moved since it was
 */
export const postStocktake = defineAct({
  kind: "stocktake",
  run: async (tx, input: { /** What was noted as the page was loaded; absent for a script. */ noted?: string }, { actId }) => {
    const lots = await lockCounted(tx);
    const rows = await tx
      .select({ count: stockCount, number: lot.number, kind: material.kind })
      .from(stockCount)
      .innerJoin(lot, eq(lot.id, stockCount.lotId))
      .innerJoin(material, eq(material.id, lot.materialId))
      .where(anyOf(stockCount.lotId, lots.keys()))
      .orderBy(stockCount.lotId);
    if (rows.length === 0) throw Refused.one("", "Nothing has been counted yet.");
    if (input.noted !== undefined && input.noted !== digestOf(rows.map((r) => r.count)))
      throw Refused.one(
        "",
        "Nothing was posted: other counts were noted in another window. They are shown here now; look at them, and post again.",
      );
    const moved: FieldProblem[] = [];
    const moves: NewMovement[] = [];
    for (const { count, number, kind: k } of rows) {
      const at = lots.get(count.lotId)!;
      const show = (n: Base): string => showStock(n, kind(k).measured);
      if (at.onHand !== count.expected) {
        moved.push({ field: `lot.${count.lotId}`, say: `${number} has moved to ${show(at.onHand)} since you counted it. Count it again.` });
        continue;
      }
      const change = count.counted - at.onHand;
      if (change === 0) continue;
      const base = { actId, reason: "counted" as const, countedTo: count.counted, note: count.note || "stock-take" };
      moves.push(
        change < 0
          ? draw(lots, count.lotId, -change, `lot.${count.lotId}`, show, base)
          : { ...base, lotId: count.lotId, qty: change, value: surplusValue(change, await unitCostOfLot(tx, count.lotId)) },
      );
    }
    if (moved.length > 0) throw new Refused(moved);
    if (moves.length > 0) await tx.insert(movement).values(moves);
    // Only what was read is posted: a note made meanwhile waits for the next time.
    await tx.delete(stockCount).where(
      anyOf(
        stockCount.lotId,
        rows.map((r) => r.count.lotId),
      ),
    );
    return {
      path: "/shelf",
      summary: `Stock-take: ${countOf(rows.length, "lot")} counted, ${moves.length === 0 ? "none" : moves.length} corrected`,
      about: [],
      leaves: null,
    };
  },
  leaves: null,
  back: async () => {},
});
