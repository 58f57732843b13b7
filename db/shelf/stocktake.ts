/** A stock-take: walking the shelf, noting what is there, and posting every correction as one act. */
import { kind } from "#core/material/kinds";
import type { Base } from "#core/measure/exact";
import { showStock } from "#core/measure/write";
import { Refused, type FieldProblem } from "#core/refused";
import { counted as countOf } from "#core/words";
import { asc, eq, gt, inArray, or, sql } from "drizzle-orm";
import { held } from "../columnsOf.ts";
import { defineAct } from "../act/define.ts";
import type { Db, Reads } from "../client.ts";
import { draw, foundValue, lockLots, unitCostOfLot, type NewMovement } from "../ledger/lots.ts";
import { lot, material, movement, stockCount } from "../schema.ts";

/** Every lot with something on hand, shelf by shelf, with what has been counted of it so far. */
export const walkShelf = (db: Reads) =>
  db
    .select({
      id: lot.id,
      number: lot.number,
      onHand: lot.onHand,
      value: lot.value,
      bestBefore: lot.bestBefore,
      hold: held,
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
    .where(or(gt(lot.onHand, 0), sql`${stockCount.lotId} is not null`))
    .orderBy(asc(material.name), asc(lot.id));

export type WalkRow = Awaited<ReturnType<typeof walkShelf>>[number];

/** Notes one lot's count; null takes the note back. Nothing moves until it is posted. */
export async function noteCount(db: Db, lotId: number, counted: Base | null, note: string): Promise<void> {
  await db.transaction(async (tx) => {
    if (counted === null) {
      await tx.delete(stockCount).where(eq(stockCount.lotId, lotId));
      return;
    }
    const at = (await lockLots(tx, [lotId])).get(lotId);
    if (!at) throw Refused.one("counted", "That lot isn't here any more.");
    const row = { expected: at.onHand, counted, note };
    await tx
      .insert(stockCount)
      .values({ lotId, ...row })
      .onConflictDoUpdate({ target: stockCount.lotId, set: row });
  });
}

/** Forgets every count noted so far. */
export const dropCounts = async (db: Db): Promise<void> => {
  await db.delete(stockCount);
};

/**
 * Posts all that was counted as one act.
 * @throws Refused when nothing was counted, or beside each lot that has moved since it was
 */
export const postStocktake = defineAct({
  kind: "stocktake",
  run: async (tx, _input: object, { actId }) => {
    const rows = await tx
      .select({ count: stockCount, number: lot.number, kind: material.kind })
      .from(stockCount)
      .innerJoin(lot, eq(lot.id, stockCount.lotId))
      .innerJoin(material, eq(material.id, lot.materialId))
      .orderBy(stockCount.lotId)
      .for("update", { of: stockCount });
    if (rows.length === 0) throw Refused.one("", "Nothing has been counted yet.");
    const lots = await lockLots(
      tx,
      rows.map((r) => r.count.lotId),
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
      const base = { actId, reason: "counted" as const, note: count.note || "stock-take" };
      moves.push(
        change < 0
          ? draw(lots, count.lotId, -change, `lot.${count.lotId}`, show, base)
          : { ...base, lotId: count.lotId, qty: change, value: foundValue(change, await unitCostOfLot(tx, count.lotId)) },
      );
    }
    if (moved.length > 0) throw new Refused(moved);
    if (moves.length > 0) await tx.insert(movement).values(moves);
    // Only what was read is posted: a note made meanwhile waits for the next time.
    await tx.delete(stockCount).where(
      inArray(
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
