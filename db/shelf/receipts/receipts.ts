/** Receipts: listing them, and one whole. */
import type { Base } from "#core/measure/exact";
import { and, asc, desc, eq, isNull, sql, type Placeholder } from "drizzle-orm";
import { sqlBoolean, sqlNumber } from "../../columnsOf.ts";
import { notReversed } from "../../ledger/effective.ts";
import type { Reads } from "../../client.ts";
import { LISTED_AT_MOST } from "../../lists.ts";
import { anyOf } from "../../pieces.ts";
import { runPrepared } from "../../prepared.ts";
import { attachment, lot, material, purchase, purchaseLine } from "../../schema.ts";

/** Receipts in effect: those of which something is still to come, then newest first. Those that are shown are found first, and only their lines are counted. */
export const listReceipts = (db: Reads, most = LISTED_AT_MOST) => runPrepared(db, "receipts", { most }, (at) => receipts(db, at.most));

function receipts(db: Reads, most: Placeholder) {
  const shown = db
    .select({
      id: purchase.id,
      supplier: purchase.supplier,
      day: purchase.day,
      waits: sqlBoolean(sql`${purchase.id} in (select l.purchase_id from ${purchaseLine} l where l.lot_id is null)`).as("waits"),
    })
    .from(purchase)
    .where(notReversed(purchase.actId))
    .orderBy(sql`waits desc`, desc(purchase.day), desc(purchase.id))
    .limit(most)
    .as("shown");
  const sums = db
    .select({
      lines: sqlNumber(sql`count(*)::int`).as("lines"),
      toCome: sqlNumber(sql`count(*) filter (where ${purchaseLine.lotId} is null)::int`).as("to_come"),
      paid: sqlNumber(sql`coalesce(sum(${purchaseLine.landed}), 0)`).as("paid"),
    })
    .from(purchaseLine)
    .where(eq(purchaseLine.purchaseId, shown.id))
    .as("sums");
  return db
    .select({
      id: shown.id,
      supplier: shown.supplier,
      day: shown.day,
      lines: sums.lines,
      toCome: sums.toCome,
      paid: sums.paid,
      scans: sqlNumber(sql`(select count(*)::int from ${attachment} a where a.purchase_id = ${shown.id} and a.dropped_act_id is null)`),
    })
    .from(shown)
    .innerJoinLateral(sums, sql`true`)
    .orderBy(desc(shown.waits), desc(shown.day), desc(shown.id));
}

/** One receipt with its lines, their lots and its scans; null when there is none, or it was taken back. */
export async function readReceipt(db: Reads, id: number) {
  const [head] = await runPrepared(db, "receipt", { id }, (at) =>
    db
      .select()
      .from(purchase)
      .where(and(eq(purchase.id, at.id), notReversed(purchase.actId))),
  );
  if (!head) return null;
  const [lines, scans] = await Promise.all([
    runPrepared(db, "lines_of_receipt", { id }, (at) =>
      db
        .select({ line: purchaseLine, material: purchaseLine.name, kind: material.kind, lot })
        .from(purchaseLine)
        .innerJoin(material, eq(material.id, purchaseLine.materialId))
        .leftJoin(lot, eq(lot.id, purchaseLine.lotId))
        .where(eq(purchaseLine.purchaseId, at.id))
        .orderBy(asc(purchaseLine.id)),
    ),
    runPrepared(db, "scans_of_receipt", { id }, (at) =>
      db
        .select({ id: attachment.id, name: attachment.name, mime: attachment.mime })
        .from(attachment)
        .where(and(eq(attachment.purchaseId, at.id), isNull(attachment.droppedActId))),
    ),
  ]);
  return { receipt: head, lines, scans };
}

/** Packs paid for and still to come, by material; of these, or all. */
export async function stillToCome(db: Reads, ids?: readonly number[]): Promise<Map<number, Base>> {
  const rows = await runPrepared(db, ids ? "still_to_come_of" : "still_to_come", { ids: ids ?? [] }, (at) =>
    db
      .select({ of: purchaseLine.materialId, qty: sqlNumber(sql`sum(${purchaseLine.qty})`) })
      .from(purchaseLine)
      .innerJoin(purchase, eq(purchase.id, purchaseLine.purchaseId))
      .where(and(isNull(purchaseLine.lotId), notReversed(purchase.actId), ids && anyOf(purchaseLine.materialId, at.ids)))
      .groupBy(purchaseLine.materialId),
  );
  return new Map(rows.map((r) => [r.of, r.qty]));
}

/** The lines of some receipts in effect, for a file: what they were called and cost on their day, and the lots they became. */
export const linesOfReceipts = (db: Reads, ids: readonly number[]) =>
  runPrepared(db, "lines_of_receipts", { ids }, (at) =>
    db
      .select({
        of: purchase.id,
        day: purchase.day,
        supplier: purchase.supplier,
        currency: purchase.currency,
        name: purchaseLine.name,
        kind: material.kind,
        packs: purchaseLine.packs,
        packSize: purchaseLine.packSize,
        qty: purchaseLine.qty,
        price: purchaseLine.price,
        landed: purchaseLine.landed,
        number: lot.number,
        supplierLot: lot.supplierLot,
        bestBefore: lot.bestBefore,
      })
      .from(purchaseLine)
      .innerJoin(purchase, eq(purchase.id, purchaseLine.purchaseId))
      .innerJoin(material, eq(material.id, purchaseLine.materialId))
      .leftJoin(lot, eq(lot.id, purchaseLine.lotId))
      .where(and(anyOf(purchase.id, at.ids), notReversed(purchase.actId)))
      .orderBy(asc(purchaseLine.id)),
  );
