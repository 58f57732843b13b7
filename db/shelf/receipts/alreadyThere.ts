/** Which lines of a list are in the books already: the same file twice, or last month's rows in this month's. */
import type { Base } from "#core/measure/exact";
import type { Day } from "#core/when";
import { and, eq, inArray, sql } from "drizzle-orm";
import { sqlNumber, sqlText } from "../../columnsOf.ts";
import { notReversed, isEffective } from "../../ledger/effective.ts";
import type { Reads } from "../../client.ts";
import { lot, movement, purchase, purchaseLine } from "../../schema.ts";
import { noteOf } from "./sentBack.ts";

export interface ListLine {
  materialId: number;
  qty: Base;
  supplierLot: string;
  supplier: string;
  day: Day | null;
}

const keyOf = (...parts: readonly (string | number | null)[]): string => JSON.stringify(parts);

/** Of lines that are alike as many are there already as the books have. */
function among<L extends ListLine>(lines: readonly L[], keys: (l: L) => string, books: readonly string[]): Set<L> {
  const left = new Map<string, number>();
  for (const k of books) left.set(k, (left.get(k) ?? 0) + 1);
  return new Set(
    lines.filter((l) => {
      const n = left.get(keys(l)) ?? 0;
      left.set(keys(l), n - 1);
      return n > 0;
    }),
  );
}

/**
 * Lines that receipts of the same supplier and day have already: as much of the same material, whatever it cost and whatever came of it.
 * @returns those of `lines` that are there
 */
export async function receivedAlready<L extends ListLine>(db: Reads, lines: readonly L[]): Promise<Set<L>> {
  const days = [...new Set(lines.flatMap((l) => l.day ?? []))];
  if (days.length === 0) return new Set();
  const books = await db
    .select({
      day: purchase.day,
      supplier: sqlText(sql`lower(${purchase.supplier})`),
      materialId: purchaseLine.materialId,
      qty: sqlNumber(sql`${purchaseLine.qty}`),
    })
    .from(purchaseLine)
    .innerJoin(purchase, eq(purchase.id, purchaseLine.purchaseId))
    .where(and(inArray(purchase.day, days), notReversed(purchase.actId)));
  return among(
    lines,
    (l) => keyOf(l.day, l.supplier.toLowerCase(), l.materialId, l.qty),
    books.map((b) => keyOf(b.day, b.supplier, b.materialId, b.qty)),
  );
}

/** The same of what was sent back: one line may have come out of several lots. */
export async function sentBackAlready<L extends ListLine>(db: Reads, lines: readonly L[]): Promise<Set<L>> {
  if (lines.length === 0) return new Set();
  const books = await db
    .select({ note: movement.note, materialId: lot.materialId, qty: sqlNumber(sql`-sum(${movement.qty})`) })
    .from(movement)
    .innerJoin(lot, eq(lot.id, movement.lotId))
    .where(and(eq(movement.reason, "returned"), isEffective(movement.actId)))
    .groupBy(movement.note, lot.materialId);
  const left = new Map(books.map((b) => [keyOf(b.materialId, b.note), b.qty]));
  return new Set(
    lines.filter((l) => {
      const key = keyOf(l.materialId, noteOf({ supplier: l.supplier, day: l.day ?? "" }));
      const there = left.get(key) ?? 0;
      left.set(key, there - l.qty);
      return there >= l.qty;
    }),
  );
}

/** The same of opening stock: as much of the same material under the same lot of its supplier. */
export async function openedAlready<L extends ListLine>(db: Reads, lines: readonly L[]): Promise<Set<L>> {
  const books = await db
    .select({ materialId: lot.materialId, qty: sqlNumber(sql`${movement.qty}`), supplierLot: lot.supplierLot })
    .from(movement)
    .innerJoin(lot, eq(lot.id, movement.lotId))
    .where(and(eq(movement.reason, "opening"), isEffective(movement.actId)));
  return among(
    lines,
    (l) => keyOf(l.materialId, l.qty, l.supplierLot),
    books.map((b) => keyOf(b.materialId, b.qty, b.supplierLot)),
  );
}
