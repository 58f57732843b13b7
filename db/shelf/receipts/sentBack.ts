/** Goods that went back to their supplier, as a list of a shop has them: taken out of the lots that came from there. */
import type { Base } from "#core/measure/exact";
import { Refused } from "#core/refused";
import type { Day } from "#core/when";
import { and, desc, eq, sql } from "drizzle-orm";
import { factsIn } from "#core/material/facts";
import { showStock } from "#core/measure/write";
import { notReversed } from "../../ledger/effective.ts";
import { sqlText } from "../../columnsOf.ts";
import type { Tx } from "../../client.ts";
import { draw, hasStock, lockLots, type NewMovement } from "../../ledger/lots.ts";
import { anyOf, inChunks } from "../../pieces.ts";
import { lot, movement, purchase, purchaseLine } from "../../schema.ts";
import { materialsOfLines } from "../makeLots.ts";

export interface SentBackIn {
  /** Row of the file. */
  row: number;
  materialId: number;
  supplier: string;
  day: Day;
  qty: Base;
  /** Empty where the list doesn't say which lot. */
  supplierLot: string;
}

/** What a movement says, by which the same row of another file is known. @example noteOf({ supplier: "Mill", day: "2026-02-09" }) // "Mill, 2026-02-09" */
export const noteOf = (b: Pick<SentBackIn, "supplier" | "day">): string => `${b.supplier}, ${b.day}`;

/**
 * Takes each amount out of what is left of that material from that supplier, bought by that day: the newest lot first, at what it cost.
 * @throws Refused naming the row, where less is left than went back
 */
export async function sendBack(tx: Tx, actId: number, back: readonly SentBackIn[]): Promise<void> {
  if (back.length === 0) return;
  const known = await materialsOfLines(tx, back);
  const bought = await tx
    .select({
      id: lot.id,
      of: purchaseLine.materialId,
      supplierLot: lot.supplierLot,
      supplier: sqlText(sql`lower(${purchase.supplier})`),
      day: purchase.day,
    })
    .from(purchaseLine)
    .innerJoin(purchase, eq(purchase.id, purchaseLine.purchaseId))
    .innerJoin(lot, eq(lot.id, purchaseLine.lotId))
    .where(and(anyOf(purchaseLine.materialId, known.keys()), hasStock, notReversed(purchase.actId)))
    .orderBy(desc(lot.arrived), desc(lot.id));
  const locked = await lockLots(
    tx,
    bought.map((l) => l.id),
  );
  // What a row draws is off its lot in memory, so that the next one may draw on the same.
  const rows: NewMovement[] = [];
  for (const b of back) {
    const material = known.get(b.materialId)!;
    const show = (n: Base): string => showStock(n, factsIn(material).measured);
    const from = bought.filter(
      (l) =>
        l.of === b.materialId &&
        l.supplier === b.supplier.toLowerCase() &&
        l.day <= b.day &&
        (b.supplierLot === "" || l.supplierLot === b.supplierLot),
    );
    const there = from.reduce((a, l) => a + locked.get(l.id)!.onHand, 0);
    if (there < b.qty)
      throw Refused.one(
        "",
        `Row ${b.row}: ${show(b.qty)} of ${material.name} can't have gone back to ${b.supplier}, of what came from there ${show(there)} is left. Leave that row out of the file, and take it out by hand.`,
      );
    let rest = b.qty;
    for (const { id } of from) {
      const amount = Math.min(rest, locked.get(id)!.onHand);
      if (amount > 0) rows.push(draw(locked, id, amount, "", show, { actId, reason: "returned", note: noteOf(b) }));
      rest -= amount;
    }
  }
  for (const piece of inChunks(rows)) await tx.insert(movement).values(piece);
}
