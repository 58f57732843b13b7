/** Packing an order out of finished lots, and what a packed one was packed out of and cost. */
import { workIn } from "#core/batch/finishing/result";
import { Refused, type FieldProblem } from "#core/refused";
import { planPacking } from "#core/gift/packing";
import { unitsFor, unitsForStall, type ProductAllocation } from "#core/stock/allocations";
import { sayFullDay, type Day } from "#core/when";
import { counted, wordList } from "#core/words";
import { planTakes, stockOnHand } from "#core/stock/shelf";
import { asc, eq, sql } from "drizzle-orm";
import { isOnHold, sqlNumber } from "../columnsOf.ts";
import { defineAct } from "../act/define.ts";
import { allocatedUnits } from "../cabinet/allocations.ts";
import type { Reads } from "../client.ts";
import { draw, lockLots, lotsOfMaterials, requireUsable, type NewMovement } from "../ledger/lots.ts";
import { batch, batchSize, giftOrder, lot, movement } from "../schema.ts";
import { readSettings } from "../settings/settings.ts";
import { aboutOrder, listGiftOrders, unpacked, writeOrder, type GiftIn } from "./gifts.ts";

export interface PackIn {
  id: number;
  /** Finished lots chosen by hand, by the place of their line on the order; a line without one is taken use-first. */
  only: readonly { line: number; lotId: number }[];
  /** The sheet as typed, saved in the same act; the saved order when absent. */
  sheet?: Omit<GiftIn, "id">;
}

/** Why there is less of a product than is here, in words; empty where all of it is free. */
export function whyNotFree(stand: ProductAllocation | undefined, orderId: number, due: Day | null): string {
  if (!stand) return "";
  const tooOld = due === null ? 0 : unitsFor(stand, orderId, null) - unitsFor(stand, orderId, due);
  const others = stand.reserved.filter((p) => p.orderId !== orderId && p.units > 0).map((p) => `${p.units} reserved for ${p.customer}`);
  const said = [
    ...(stand.onTheWay > 0 ? [`${stand.onTheWay} on the way to a market`] : []),
    ...others,
    ...(stand.held > 0 ? [`${stand.held} on hold`] : []),
    ...(stand.expired > 0 ? [`${stand.expired} past their day`] : []),
    ...(tooOld > 0 ? [`${tooOld} past their day by ${sayFullDay(due!)}`] : []),
  ];
  return said.length > 0 ? ` (${said.join(", ")})` : "";
}

/** Where a line's own lot would go short of what other orders have reserved out of it. */
function chosenTooMuch(
  items: readonly { productId: number; units: number; name: string }[],
  chosen: ReadonlyMap<number, number>,
  stand: ReadonlyMap<number, ProductAllocation>,
  orderId: number,
): FieldProblem[] {
  const along = new Map<number, number>();
  return items.flatMap((i, n) => {
    const lotId = chosen.get(n);
    const of = stand.get(i.productId);
    if (lotId === undefined || !of) return [];
    const others = { ...of, reserved: of.reserved.filter((p) => p.orderId !== orderId) };
    const room = unitsForStall(others, lotId, along, null) - (along.get(lotId) ?? 0);
    along.set(lotId, (along.get(lotId) ?? 0) + i.units);
    const here = of.lots.find((l) => l.lot.id === lotId)?.open ?? 0;
    // Too few in all is reported with everything that is missing.
    if (i.units <= room || room === here) return [];
    const theirs = others.reserved.filter((p) => p.units > 0).map((p) => `${p.units} reserved for ${p.customer}`);
    return [
      {
        field: `items.${n}.lot`,
        say: `Only ${room} of it can go with this order: ${wordList(theirs)}. Choose another lot, or use first.`,
      },
    ];
  });
}

/**
 * Packs an order: finished units and wrapping leave their lots, use-first. What is reserved for other orders or on its way to a market
 * is left alone.
 * @throws Refused naming everything that is missing; then nothing is moved, and nothing of the sheet is saved
 */
export const packGiftOrder = defineAct({
  kind: "packOrder",
  run: async (tx, { id, only, sheet }: PackIn, { actId, day, seen }) => {
    if (sheet) await writeOrder(tx, { ...sheet, id }, seen);
    else await unpacked(tx, id);
    const [order] = await listGiftOrders(tx, [id]);
    const { items, wrapping: wraps, customer, due } = order!;
    const stand = await allocatedUnits(tx, day);
    const chosen = new Map(only.map((o) => [o.line, o.lotId]));
    const papers = await lotsOfMaterials(
      tx,
      wraps.map((w) => w.materialId),
    );
    // What is on its way elsewhere stays out.
    const goods = [...new Set(items.map((i) => i.productId))].flatMap((of) =>
      (stand.get(of)?.lots ?? []).map((l) => ({ ...l.lot, onHand: l.open })),
    );
    const locked = await lockLots(
      tx,
      [...goods, ...papers, ...chosen.values()].map((l) => (typeof l === "number" ? l : l.id)),
    );
    for (const [n, i] of items.entries()) {
      const lotId = chosen.get(n);
      if (lotId !== undefined && requireUsable(locked, lotId, "order", day, `items.${n}.lot`).of !== i.productId)
        throw Refused.one(`items.${n}.lot`, "That lot is of something else. Choose another.");
    }
    const tooMuch = chosenTooMuch(items, chosen, stand, id);
    if (tooMuch.length > 0) throw new Refused(tooMuch);
    // Taken by itself only what is good on the day it is handed over; a lot that was chosen is the maker's own word.
    const itemPlan = planPacking(
      items.map((i, n) => ({ of: i.productId, units: i.units, lotId: chosen.get(n) ?? null })),
      goods,
      due > day ? due : day,
    );
    const wrapPlan = planTakes(
      wraps.map((w) => ({ of: w.materialId, amount: w.pieces })),
      stockOnHand(
        papers.map((l) => locked.get(l.id)!),
        day,
      ),
    );
    // A product may be sure of less than its lots could give: what others have reserved stays theirs.
    const over = new Map<number, number>();
    for (const i of items) over.set(i.productId, (over.get(i.productId) ?? 0) + i.units);
    const lacks = [...over].flatMap(([of, units]) => {
      const planned = items.reduce((a, i, n) => (i.productId === of ? a + itemPlan[n]!.short : a), 0);
      const short = Math.max(planned, units - unitsFor(stand.get(of), id, null));
      return short > 0 ? [`${short} × ${items.find((i) => i.productId === of)!.name}${whyNotFree(stand.get(of), id, due)}`] : [];
    });
    const missing = [...lacks, ...wrapPlan.flatMap((p, i) => (p.short ? [`${p.short} × ${wraps[i]!.name}`] : []))];
    if (missing.length > 0) throw Refused.one("pack", `There is too little to pack it: ${wordList(missing)} missing. Nothing was moved.`);
    const units = (n: number): string => counted(n, "unit");
    const take = (plan: typeof itemPlan, reason: "ordered" | "wrapped"): NewMovement[] =>
      plan.flatMap((p) => p.takes.map((t) => draw(locked, t.lotId, t.amount, "pack", units, { actId, reason, giftOrderId: id })));
    await tx.insert(movement).values([...take(itemPlan, "ordered"), ...take(wrapPlan, "wrapped")]);
    const { hourly } = await readSettings(tx);
    await tx.update(giftOrder).set({ packedActId: actId, hourly }).where(eq(giftOrder.id, id));
    return {
      path: `/gifts/${id}`,
      summary: `Packed the order for ${customer}`,
      about: [...aboutOrder(id), ...[...over.keys()].map((p) => ({ kind: "product" as const, id: p }))],
      leaves: null,
    };
  },
  leaves: null,
  back: async (tx, _left, { undoes }) => {
    await tx.update(giftOrder).set({ packedActId: null, hourly: null }).where(eq(giftOrder.packedActId, undoes));
  },
});

/** Lots that a packed order took, with how much, what their materials cost, and the work in them; what was corrected since is in it. */
export async function packedLots(db: Reads, orderId: number) {
  const rows = await db
    .select({
      lotId: lot.id,
      number: lot.number,
      bestBefore: lot.bestBefore,
      onHand: lot.onHand,
      hold: isOnHold,
      costKnown: lot.costKnown,
      productId: lot.productId,
      materialId: lot.materialId,
      name: lot.name,
      label: lot.label,
      qty: sqlNumber(sql`-sum(${movement.qty})`),
      value: sql`-sum(${movement.value})`.mapWith(movement.value),
      units: batchSize.units,
      minutesHundredths: batchSize.minutesHundredths,
      hourly: batch.hourly,
      overheadHourly: batch.overheadHourly,
    })
    .from(movement)
    .innerJoin(lot, eq(lot.id, movement.lotId))
    .leftJoin(batchSize, eq(batchSize.lotId, lot.id))
    .leftJoin(batch, eq(batch.id, batchSize.batchId))
    .where(eq(movement.giftOrderId, orderId))
    .groupBy(lot.id, batchSize.id, batch.id)
    .having(sql`sum(${movement.qty}) <> 0`)
    .orderBy(asc(lot.id));
  return rows.map(({ units, minutesHundredths, hourly, overheadHourly, ...l }) => ({
    ...l,
    work: workIn(l.qty, { units, minutesHundredths, hourly, overheadHourly }),
  }));
}
