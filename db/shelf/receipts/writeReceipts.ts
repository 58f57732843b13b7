/** Writing receipts inside an act: what they cost as landed, their lines, and a lot for whatever has come. */
import { groupBy } from "#core/collect";
import { factsIn } from "#core/material/facts";
import { micros, type Base, type Micros } from "#core/measure/exact";
import { Refused } from "#core/refused";
import { stockWeight } from "#core/stock/packs";
import { landReceipt, RATE_1, splitLanded, type SpreadBy } from "#core/stock/receipt";
import type { Day } from "#core/when";
import type { Tx } from "../../client.ts";
import { inChunks } from "../../pieces.ts";
import { movement, purchase, purchaseLine } from "../../schema.ts";
import { makeBareLots, materialsOfLines, numberLots, type BareLot } from "../makeLots.ts";
import type { MaterialRow } from "../materials.ts";

export interface ReceiptLineIn {
  materialId: number;
  supplierLot: string;
  packs: number;
  /** Packs that have come; all of them when absent. */
  arrived?: number;
  packSize: string;
  /** All packs together, in the material's base unit. */
  qty: Base;
  /** For all packs, in the receipt's currency, without postage. */
  price: Micros;
  bestBefore: Day | null;
}

export interface ReceiveIn {
  supplier: string;
  day: Day;
  postage: Micros;
  tax?: Micros;
  discount?: Micros;
  spreadBy?: SpreadBy;
  /** ISO code; empty for the workshop's own. */
  currency?: string;
  /** One of the receipt's currency in the workshop's, in millionths. */
  rate?: number;
  note?: string;
  lines: readonly ReceiptLineIn[];
}
/** A receipt's landed costs. @throws Refused beside the field that stops it */
export function landed(input: ReceiveIn, known: ReadonlyMap<number, MaterialRow>): Micros[] {
  const r = landReceipt({
    lines: input.lines.map((l) => {
      const m = known.get(l.materialId)!;
      return { price: l.price, weight: stockWeight(l.qty, factsIn(m), m.emptyMg) };
    }),
    postage: input.postage,
    tax: input.tax ?? micros(0),
    discount: input.discount ?? micros(0),
    spreadBy: input.spreadBy ?? "value",
    rate: input.rate ?? RATE_1,
  });
  if (!r.ok) throw Refused.one(r.problem.code === "discount" ? "discount" : "spreadBy", r.problem.say);
  return r.value.lines.map((l) => l.landed);
}

export const headOf = (input: ReceiveIn) => ({
  supplier: input.supplier,
  day: input.day,
  postage: input.postage,
  tax: input.tax ?? micros(0),
  discount: input.discount ?? micros(0),
  spreadBy: input.spreadBy ?? ("value" as const),
  currency: input.currency ?? "",
  rate: input.rate ?? RATE_1,
  note: input.note ?? "",
});

/** What was written of a receipt. */
interface WrittenReceipt {
  purchaseId: number;
  numbers: string[];
}

/** Packs that have come, and, as a line without a lot, those still to come. */
const partsOf = (input: ReceiveIn, costs: readonly Micros[]) =>
  input.lines.flatMap((l, i) => {
    const came = Math.min(l.arrived ?? l.packs, l.packs);
    const rest = l.packs - came;
    const one = l.qty / l.packs;
    const [now, later] = splitLanded(costs[i]!, came, rest);
    const [price, laterPrice] = splitLanded(l.price, came, rest);
    const part = (packs: number, cost: Micros, of: Micros, here: boolean) => ({
      ...l,
      packs,
      qty: Math.round(one * packs),
      landed: cost,
      price: of,
      here,
    });
    return [...(came ? [part(came, now, price, true)] : []), ...(rest ? [part(rest, later, laterPrice, false)] : [])];
  });

/**
 * Writes receipts inside an act: their lines, and a lot for each that has come. Many at once go in few statements.
 * @param step called with how many lines are done, between statements; what it throws ends the act
 */
export async function writeReceipts(
  tx: Tx,
  actId: number,
  inputs: readonly ReceiveIn[],
  step: (done: number) => Promise<void> = () => Promise.resolve(),
): Promise<WrittenReceipt[]> {
  const known = await materialsOfLines(
    tx,
    inputs.flatMap((r) => r.lines),
  );
  const bought: number[] = [];
  // A fifth of the work is their heads, two are their lots, two their lines.
  const all = inputs.reduce((a, r) => a + r.lines.length, 0);
  const [heads, half] = [all / 5, (2 * all) / 5];
  for (const piece of inChunks(inputs)) {
    const rows = await tx
      .insert(purchase)
      .values(piece.map((r) => ({ actId, ...headOf(r) })))
      .returning({ id: purchase.id });
    bought.push(...rows.map((r) => r.id));
    await step((heads * bought.length) / inputs.length);
  }
  const parts = inputs.flatMap((r, i) =>
    partsOf(r, landed(r, known)).map((p) => ({ ...p, day: r.day, receipt: i, purchaseId: bought[i]!, lot: null as BareLot | null })),
  );
  const here = parts.filter((p) => p.here);
  const byDay = [...groupBy(here, (p) => p.day)];
  let made = 0;
  for (const [day, of] of byDay) {
    const lots = await makeBareLots(
      tx,
      day,
      of.map((p) => ({ material: known.get(p.materialId)!, supplierLot: p.supplierLot, bestBefore: p.bestBefore })),
      (n) => step(heads + (half * (made + n)) / here.length),
    );
    for (const [i, p] of of.entries()) p.lot = lots[i]!;
    made += of.length;
  }
  let written = 0;
  for (const piece of inChunks(parts)) {
    await tx.insert(purchaseLine).values(
      piece.map((p) => ({
        purchaseId: p.purchaseId,
        materialId: p.materialId,
        name: known.get(p.materialId)!.name,
        lotId: p.lot?.id ?? null,
        arrivedActId: p.lot ? actId : null,
        packs: p.packs,
        packSize: p.packSize,
        qty: p.qty,
        price: p.price,
        landed: p.landed,
      })),
    );
    const came = piece.flatMap((p) =>
      p.lot ? [{ actId, lotId: p.lot.id, qty: p.qty, value: p.landed, reason: "received" as const }] : [],
    );
    if (came.length > 0) await tx.insert(movement).values(came);
    await step(heads + half + (half * (written += piece.length)) / parts.length);
  }
  const numbers = new Map<number, string[]>();
  for (const [day, of] of byDay) {
    const lots = await numberLots(
      tx,
      day,
      of.map((p) => p.lot!),
    );
    for (const [i, { receipt }] of of.entries()) numbers.set(receipt, [...(numbers.get(receipt) ?? []), lots[i]!.number]);
  }
  return bought.map((purchaseId, i) => ({ purchaseId, numbers: numbers.get(i) ?? [] }));
}
