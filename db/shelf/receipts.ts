/** Receipts: listing, one whole, and correcting one after its lots were used. */
import { kind } from "#core/material/kinds";
import type { Base } from "#core/measure/exact";
import { Refused } from "#core/refused";
import type { Day } from "#core/when";
import { and, asc, desc, eq, inArray, isNull, min, sql } from "drizzle-orm";
import { perform, type Doing, type Done } from "../act.ts";
import type { Db, Reads, Tx } from "../client.ts";
import { prepared } from "../prepared.ts";
import type { ReceiptBefore } from "../reopen.ts";
import { act, attachment, lot, material, movement, purchase, purchaseLine } from "../schema.ts";
import { headOf, landed, makeLots, materialsOfLines, type ReceiptLineIn, type ReceiveIn } from "./receive.ts";
import { restateLot } from "./restate.ts";

const stands = sql`not exists (select 1 from ${act} u where u.undoes = ${purchase.actId})`;

/** Receipts that stand, newest first, a page at a time. */
export const listReceipts = (db: Reads, page = 0, size = 40) =>
  db
    .select({
      id: purchase.id,
      supplier: purchase.supplier,
      day: purchase.day,
      lines: sql<number>`count(${purchaseLine.id})::int`,
      toCome: sql<number>`count(${purchaseLine.id}) filter (where ${purchaseLine.lotId} is null)::int`,
      paid: sql`coalesce(sum(${purchaseLine.landed}), 0)`.mapWith(Number),
      scans: sql<number>`(select count(*)::int from ${attachment} a where a.purchase_id = ${purchase.id})`,
    })
    .from(purchase)
    .leftJoin(purchaseLine, eq(purchaseLine.purchaseId, purchase.id))
    .where(stands)
    .groupBy(purchase.id)
    .orderBy(desc(purchase.day), desc(purchase.id))
    .limit(size)
    .offset(page * size);

/** One receipt with its lines, their lots and its scans; null when there is none, or it was taken back. */
export async function readReceipt(db: Reads, id: number) {
  const [head] = await db
    .select()
    .from(purchase)
    .where(and(eq(purchase.id, id), stands));
  if (!head) return null;
  const [lines, scans] = await Promise.all([
    db
      .select({ line: purchaseLine, material: material.name, kind: material.kind, lot })
      .from(purchaseLine)
      .innerJoin(material, eq(material.id, purchaseLine.materialId))
      .leftJoin(lot, eq(lot.id, purchaseLine.lotId))
      .where(eq(purchaseLine.purchaseId, id))
      .orderBy(asc(purchaseLine.id)),
    db.select({ id: attachment.id, name: attachment.name, mime: attachment.mime }).from(attachment).where(eq(attachment.purchaseId, id)),
  ]);
  return { receipt: head, lines, scans };
}

/** Packs paid for and still to come, by material; of these, or all. */
export async function stillToCome(db: Reads, ids?: readonly number[]): Promise<Map<number, Base>> {
  const rows = await prepared(db, ids ? "still_to_come_of" : "still_to_come", () =>
    db
      .select({ of: purchaseLine.materialId, qty: sql`sum(${purchaseLine.qty})`.mapWith(Number) })
      .from(purchaseLine)
      .innerJoin(purchase, eq(purchase.id, purchaseLine.purchaseId))
      .where(and(isNull(purchaseLine.lotId), stands, ids && sql`${purchaseLine.materialId} = any(${sql.placeholder("ids")}::int[])`))
      .groupBy(purchaseLine.materialId),
  ).execute(ids ? { ids: `{${ids.join(",")}}` } : {});
  return new Map(rows.map((r) => [r.of, r.qty]));
}

export interface CorrectIn extends Omit<ReceiveIn, "lines"> {
  /** In sheet order; a line without an id is new. Lines left out are taken off. */
  lines: readonly (ReceiptLineIn & { id: number | null })[];
}

/** What a receipt's lots were before, so that the correction can be taken back. */
async function asItStood(tx: Tx, id: number): Promise<ReceiptBefore> {
  const [head] = await tx
    .select()
    .from(purchase)
    .where(and(eq(purchase.id, id), stands))
    .for("update");
  if (!head) throw Refused.one("", "That receipt isn't here any more.");
  const lines = await tx.select().from(purchaseLine).where(eq(purchaseLine.purchaseId, id)).orderBy(purchaseLine.id);
  const ids = lines.flatMap((l) => (l.lotId === null ? [] : [l.lotId]));
  const lots = ids.length
    ? await tx
        .select({
          id: lot.id,
          supplierLot: lot.supplierLot,
          bestBefore: lot.bestBefore,
          sealedBestBefore: lot.sealedBestBefore,
          arrived: lot.arrived,
        })
        .from(lot)
        .where(inArray(lot.id, ids))
    : [];
  return { purchase: head, lines, lots };
}

/** The first day something left each lot. */
async function firstUse(tx: Tx, lotIds: readonly number[]): Promise<Map<number, Day>> {
  if (lotIds.length === 0) return new Map();
  const rows = await tx
    .select({ lotId: movement.lotId, day: min(act.day) })
    .from(movement)
    .innerJoin(act, eq(act.id, movement.actId))
    .where(
      and(
        inArray(movement.lotId, [...lotIds]),
        sql`${movement.qty} < 0 and ${movement.reason} <> 'undone'`,
        sql`not exists (select 1 from ${act} u where u.undoes = ${movement.actId})`,
      ),
    )
    .groupBy(movement.lotId);
  return new Map(rows.map((r) => [r.lotId, r.day!]));
}

/** The movement each lot came in by. */
async function broughtIn(tx: Tx, lotIds: readonly number[]): Promise<Map<number, number>> {
  if (lotIds.length === 0) return new Map();
  const rows = await tx
    .select({ lotId: movement.lotId, id: min(movement.id) })
    .from(movement)
    .where(and(inArray(movement.lotId, [...lotIds]), eq(movement.reason, "received")))
    .groupBy(movement.lotId);
  return new Map(rows.map((r) => [r.lotId, r.id!]));
}

/**
 * Corrects a receipt as one act. Lots that were used keep their history; what they and everything made of them cost is restated
 * by movements of its own.
 * @throws Refused by field: a material that was used under another name, less than was used, a day after its first use
 */
export function correctReceipt(db: Db, id: number, input: CorrectIn, doing: Doing): Promise<Done> {
  return perform(db, "correct", doing, async (tx, actId) => {
    const before = await asItStood(tx, id);
    const known = await materialsOfLines(tx, input.lines);
    const costs = landed(input, known);
    const lineById = new Map(before.lines.map((l) => [l.id, l]));
    const lotById = new Map(before.lots.map((l) => [l.id, l]));
    const used = await firstUse(tx, [...lotById.keys()]);
    const kept = new Set<number>();
    const came = await broughtIn(tx, [...lotById.keys()]);
    const materialOf = await materialsOfLines(tx, before.lines);

    for (const [i, l] of input.lines.entries()) {
      const old = l.id === null ? undefined : lineById.get(l.id);
      const at = (field: string): string => `lines.${i}.${field}`;
      if (!old) {
        const [made] = await makeLots(tx, input.day, [{ material: known.get(l.materialId)!, ...l }]);
        await tx.insert(movement).values({ actId, lotId: made!.id, qty: l.qty, value: costs[i]!, reason: "received" });
        const { packs, packSize, qty, price, materialId } = l;
        await tx
          .insert(purchaseLine)
          .values({ purchaseId: id, materialId, lotId: made!.id, arrivedActId: actId, packs, packSize, qty, price, landed: costs[i]! });
        continue;
      }
      kept.add(old.id);
      const first = old.lotId === null ? undefined : used.get(old.lotId);
      if (old.materialId !== l.materialId) {
        if (first !== undefined) throw Refused.one(at("material"), "Some of this lot was used as what it says. Take that back first.");
        if (kind(known.get(l.materialId)!.kind).measured !== kind(materialOf.get(old.materialId)!.kind).measured)
          throw Refused.one(at("material"), "One is weighed and the other counted. Take the line off and write a new one.");
        if (old.lotId !== null) await tx.update(lot).set({ materialId: l.materialId }).where(eq(lot.id, old.lotId));
      }
      if (first !== undefined && input.day > first && lotById.get(old.lotId!)!.arrived === before.purchase.day)
        throw Refused.one("day", `Some of it was used on ${first}, before that day. It can't have come after it was used.`);
      if (old.lotId !== null) {
        await restateLot(
          tx,
          actId,
          { lotId: old.lotId, qty: l.qty - old.qty, value: (costs[i]! - old.landed) as typeof old.landed, made: came.get(old.lotId)! },
          at("packSize"),
        );
        const was = lotById.get(old.lotId)!;
        await tx
          .update(lot)
          .set({
            supplierLot: l.supplierLot,
            // An opened lot keeps the sooner day it got by that.
            bestBefore:
              was.sealedBestBefore !== null && l.bestBefore !== null && was.bestBefore! < l.bestBefore ? was.bestBefore : l.bestBefore,
            sealedBestBefore: was.sealedBestBefore === null ? null : l.bestBefore,
            arrived: was.arrived === before.purchase.day ? input.day : was.arrived,
          })
          .where(eq(lot.id, old.lotId));
      }
      const { packs, packSize, qty, price, materialId } = l;
      await tx.update(purchaseLine).set({ packs, packSize, qty, price, materialId, landed: costs[i]! }).where(eq(purchaseLine.id, old.id));
    }
    for (const old of before.lines.filter((l) => !kept.has(l.id))) {
      if (old.lotId !== null) {
        if (used.has(old.lotId)) throw Refused.one("lines", "A line that was taken off has been used since. Take that back first.");
        await restateLot(
          tx,
          actId,
          { lotId: old.lotId, qty: -old.qty, value: -old.landed as typeof old.landed, made: came.get(old.lotId)! },
          "lines",
        );
      }
      await tx.delete(purchaseLine).where(eq(purchaseLine.id, old.id));
    }
    await tx.update(purchase).set(headOf(input)).where(eq(purchase.id, id));
    return { path: `/shelf/receipts/${id}`, summary: `Corrected the receipt from ${input.supplier}`, before };
  });
}
