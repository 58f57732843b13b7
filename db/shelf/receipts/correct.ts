/**
 * Correcting a receipt after its lots were used: the lots keep their history, and what they and everything made of them cost is worked
 * out again.
 */
import { kind } from "#core/material/kinds";
import { micros, minus } from "#core/measure/exact";
import { Refused } from "#core/refused";
import { SPREADS, type SpreadBy } from "#core/stock/receipt";
import { sayFullDay, type Day } from "#core/when";
import { and, eq, min, ne, notInArray, sql } from "drizzle-orm";
import { array, object, type InferType } from "yup";
import { defineAct } from "../../act/define.ts";
import { undoDay, undoDayOrNull, undoId, undoIdOrNull, undoMicros, undoOneOf, undoText } from "../../act/left.ts";
import { requireUnchanged } from "../../act/seen.ts";
import { requireNoLaterActs, isEffective } from "../../ledger/effective.ts";
import type { Tx } from "../../client.ts";
import { anyOf } from "../../pieces.ts";
import { restate, type Restatement } from "../../ledger/restate.ts";
import { act, lot, movement, purchase, purchaseLine } from "../../schema.ts";
import { keepBestBefore } from "../bestBy.ts";
import { makeLots, materialsOfLines } from "../makeLots.ts";
import { headOf, landed, type ReceiptLineIn, type ReceiveIn } from "./writeReceipts.ts";

export interface CorrectIn extends Omit<ReceiveIn, "lines"> {
  /** In sheet order; a line without an id is new. Lines left out are taken off. */
  lines: readonly (ReceiptLineIn & { id: number | null })[];
}

/** A receipt as it was before it was corrected. */
const before = object({
  head: object({
    id: undoId(),
    supplier: undoText(),
    day: undoDay(),
    postage: undoMicros(),
    tax: undoMicros(),
    discount: undoMicros(),
    spreadBy: undoOneOf(Object.keys(SPREADS) as SpreadBy[]),
    currency: undoText(),
    rate: undoId(),
    note: undoText(),
  }),
  lines: array()
    .of(
      object({
        id: undoId(),
        materialId: undoId(),
        name: undoText(),
        lotId: undoIdOrNull(),
        arrivedActId: undoIdOrNull(),
        packs: undoId(),
        packSize: undoText(),
        qty: undoId(),
        price: undoMicros(),
        landed: undoMicros(),
      }),
    )
    .required(),
  lots: array()
    .of(
      object({
        id: undoId(),
        materialId: undoId(),
        name: undoText(),
        supplierLot: undoText(),
        printed: undoDayOrNull(),
        arrived: undoDay(),
      }),
    )
    .required(),
});
type Before = InferType<typeof before>;

/** @throws Refused when the receipt is gone */
async function asItStands(tx: Tx, id: number): Promise<Before> {
  const [row] = await tx
    .select()
    .from(purchase)
    .where(and(eq(purchase.id, id), isEffective(purchase.actId)))
    .for("no key update");
  if (!row) throw Refused.one("", "That receipt isn't here any more.");
  const { actId: _received, ...head } = row;
  const rows = await tx.select().from(purchaseLine).where(eq(purchaseLine.purchaseId, id)).orderBy(purchaseLine.id);
  const lines = rows.map(({ purchaseId: _own, ...l }) => l);
  const ids = lines.flatMap((l) => (l.lotId === null ? [] : [l.lotId]));
  const lots = ids.length === 0 ? [] : await tx.select().from(lot).where(anyOf(lot.id, ids)).orderBy(lot.id);
  return {
    head,
    lines,
    lots: lots.map((l) => ({
      id: l.id,
      materialId: l.materialId!,
      name: l.name,
      supplierLot: l.supplierLot,
      printed: l.printed,
      arrived: l.arrived,
    })),
  };
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
        anyOf(movement.lotId, lotIds),
        sql`${movement.qty} < 0`,
        notInArray(movement.reason, ["undone", "corrected"]),
        isEffective(movement.actId),
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
    .where(and(anyOf(movement.lotId, lotIds), eq(movement.reason, "received"), isEffective(movement.actId)))
    .groupBy(movement.lotId);
  return new Map(rows.map((r) => [r.lotId, r.id!]));
}

/**
 * Corrects a receipt as one act.
 * @throws Refused by field: a material that was used under another name, less than was used, a day after its first use
 */
export const correctReceipt = defineAct({
  kind: "correct",
  exclusive: true,
  run: async (tx, { id, ...input }: CorrectIn & { id: number }, { actId, seen }) => {
    const was = await asItStands(tx, id);
    await requireUnchanged(tx, { kind: "receipt", id }, seen);
    const known = await materialsOfLines(tx, input.lines);
    const costs = landed(input, known);
    const lineById = new Map(was.lines.map((l) => [l.id, l]));
    const lotById = new Map(was.lots.map((l) => [l.id, l]));
    const used = await firstUse(tx, [...lotById.keys()]);
    const came = await broughtIn(tx, [...lotById.keys()]);
    const materialOf = await materialsOfLines(tx, was.lines);
    const kept = new Set<number>();
    const facts: Restatement[] = [];
    const fieldOf = new Map<number, string>();
    const putRight = (lotId: number, field: string, qty: number, value: number): void => {
      fieldOf.set(lotId, field);
      if (qty !== 0 || value !== 0)
        facts.push({ actId, lotId, qty, value: micros(value), reason: "corrected", restates: came.get(lotId)! });
    };

    for (const [i, l] of input.lines.entries()) {
      const old = l.id === null ? undefined : lineById.get(l.id);
      const at = (field: string): string => `lines.${i}.${field}`;
      const { packs, packSize, qty, price, materialId } = l;
      const line = { packs, packSize, qty, price, materialId, landed: costs[i]! };
      const { name } = known.get(materialId)!;
      if (!old) {
        const [made] = await makeLots(tx, input.day, [{ material: known.get(materialId)!, ...l }]);
        await tx.insert(movement).values({ actId, lotId: made!.id, qty, value: costs[i]!, reason: "received" });
        await tx.insert(purchaseLine).values({ ...line, name, purchaseId: id, lotId: made!.id, arrivedActId: actId });
        continue;
      }
      if (kept.has(old.id)) throw Refused.one(at("material"), "That line of the receipt is here twice. Take one of them off.");
      kept.add(old.id);
      const first = old.lotId === null ? undefined : used.get(old.lotId);
      const other = old.materialId !== materialId;
      if (other && first !== undefined)
        throw Refused.one(at("material"), "Some of this lot was used as what it says. Take that back first.");
      if (other && kind(known.get(materialId)!.kind).measured !== kind(materialOf.get(old.materialId)!.kind).measured)
        throw Refused.one(at("material"), "One is weighed and the other counted. Take the line off and write a new one.");
      if (first !== undefined && input.day > first && lotById.get(old.lotId!)!.arrived === was.head.day)
        throw Refused.one("day", `Some of it was used on ${sayFullDay(first)}, before that day. It can't have come after it was used.`);
      if (old.lotId !== null) {
        putRight(old.lotId, at("packSize"), qty - old.qty, costs[i]! - old.landed);
        const lotBefore = lotById.get(old.lotId)!;
        await tx
          .update(lot)
          .set({
            supplierLot: l.supplierLot,
            printed: l.bestBefore,
            arrived: lotBefore.arrived === was.head.day ? input.day : lotBefore.arrived,
            ...(other ? { materialId, name } : {}),
          })
          .where(eq(lot.id, old.lotId));
      }
      await tx
        .update(purchaseLine)
        .set(other ? { ...line, name } : line)
        .where(eq(purchaseLine.id, old.id));
    }
    for (const old of was.lines.filter((l) => !kept.has(l.id))) {
      if (old.lotId !== null) {
        if (used.has(old.lotId)) throw Refused.one("lines", "A line that was taken off has been used since. Take that back first.");
        putRight(old.lotId, "lines", -old.qty, minus(old.landed));
      }
      await tx.delete(purchaseLine).where(eq(purchaseLine.id, old.id));
    }
    await tx.update(purchase).set(headOf(input)).where(eq(purchase.id, id));
    await keepBestBefore(tx, [...lotById.keys()]);
    await restate(tx, actId, facts, {
      field: (lotId) => fieldOf.get(lotId) ?? "",
      short: (number) => `More of lot ${number} has been used or counted out than that. Nothing was changed.`,
    });
    return {
      path: `/shelf/receipts/${id}`,
      summary: `Corrected the receipt from ${input.supplier}`,
      about: [
        { kind: "receipt", id, changes: true },
        ...[...was.lines, ...input.lines].map((l) => ({ kind: "material" as const, id: l.materialId })),
      ],
      leaves: was,
    };
  },
  leaves: before,
  back: async (tx, was, { undoes }) => {
    const { id, ...head } = was.head;
    await requireNoLaterActs(
      tx,
      { kind: "receipt", id },
      undoes,
      ["arrive", "correct"],
      "More of that receipt has arrived, or it was corrected again, since.",
    );
    await usedAsOther(tx, was);
    await tx.update(purchase).set(head).where(eq(purchase.id, id));
    await tx.delete(purchaseLine).where(
      and(
        eq(purchaseLine.purchaseId, id),
        notInArray(
          purchaseLine.id,
          was.lines.map((l) => l.id),
        ),
      ),
    );
    const there = new Set(
      (await tx.select({ id: purchaseLine.id }).from(purchaseLine).where(eq(purchaseLine.purchaseId, id))).map((l) => l.id),
    );
    for (const { id: lineId, ...l } of was.lines)
      if (there.has(lineId)) await tx.update(purchaseLine).set(l).where(eq(purchaseLine.id, lineId));
      else
        await tx
          .insert(purchaseLine)
          .overridingSystemValue()
          .values({ id: lineId, purchaseId: id, ...l });
    for (const { id: lotId, ...l } of was.lots) await tx.update(lot).set(l).where(eq(lot.id, lotId));
    await keepBestBefore(
      tx,
      was.lots.map((l) => l.id),
    );
  },
});

/** @throws Refused when a lot that was corrected to another material has been used as that since */
async function usedAsOther(tx: Tx, was: Before): Promise<void> {
  for (const l of was.lots) {
    const [now] = await tx
      .select({ number: lot.number })
      .from(lot)
      .where(and(eq(lot.id, l.id), ne(lot.materialId, l.materialId)));
    if (now && (await firstUse(tx, [l.id])).size > 0)
      throw Refused.one("", `Lot ${now.number} has been used as what it was corrected to. Take that back first.`, [
        { to: `/lots/${encodeURIComponent(now.number)}`, name: `Lot ${now.number}` },
      ]);
  }
}
