/** Goods that went back to their supplier, as a list of a shop has them: taken out of the lots that came from there. */
import type { Base } from "#core/measure/exact";
import { Refused } from "#core/refused";
import type { Day } from "#core/when";
import { and, desc, eq, lte, sql } from "drizzle-orm";
import { factsIn } from "#core/material/facts";
import { showStock } from "#core/measure/write";
import { notBack } from "../act/standing.ts";
import type { Tx } from "../client.ts";
import { draw, isThere, lockLots, type NewMovement } from "../ledger/lots.ts";
import { lot, movement, purchase, purchaseLine } from "../schema.ts";
import { materialsOfLines } from "./makeLots.ts";

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
  const known = await materialsOfLines(tx, back);
  for (const b of back) {
    const from = await tx
      .select({ id: lot.id, supplierLot: lot.supplierLot })
      .from(purchaseLine)
      .innerJoin(purchase, eq(purchase.id, purchaseLine.purchaseId))
      .innerJoin(lot, eq(lot.id, purchaseLine.lotId))
      .where(
        and(
          eq(purchaseLine.materialId, b.materialId),
          eq(sql`lower(${purchase.supplier})`, b.supplier.toLowerCase()),
          lte(purchase.day, b.day),
          isThere,
          notBack(purchase.actId),
        ),
      )
      .orderBy(desc(lot.arrived), desc(lot.id));
    const may = from.filter((l) => b.supplierLot === "" || l.supplierLot === b.supplierLot);
    const locked = await lockLots(
      tx,
      may.map((l) => l.id),
    );
    const material = known.get(b.materialId)!;
    const show = (n: Base): string => showStock(n, factsIn(material).measured);
    const there = [...locked.values()].reduce((a, l) => a + l.onHand, 0);
    if (there < b.qty)
      throw Refused.one(
        "",
        `Row ${b.row}: ${show(b.qty)} of ${material.name} can't have gone back to ${b.supplier}, of what came from there ${show(there)} is left. Leave that row out of the file, and take it out by hand.`,
      );
    let rest = b.qty;
    const mine: NewMovement[] = [];
    for (const { id } of may) {
      const amount = Math.min(rest, locked.get(id)?.onHand ?? 0);
      if (amount > 0) mine.push(draw(locked, id, amount, "", show, { actId, reason: "returned", note: noteOf(b) }));
      rest -= amount;
    }
    // Written at once: the next row may go back out of the same lot.
    await tx.insert(movement).values(mine);
  }
}
