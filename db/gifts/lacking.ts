/** What each open order lacks now: units that aren't there, are allocated to others or past their day by then, and wrapping. */
import { groupBy } from "#core/collect";
import type { Lacking } from "#core/gift/begin";
import { isUsable } from "#core/stock/lots";
import { unitsFor } from "#core/stock/allocations";
import type { Day } from "#core/when";
import { asc, eq, isNull } from "drizzle-orm";
import { allocatedUnits } from "../cabinet/allocations.ts";
import type { Reads } from "../client.ts";
import { lotsOfMaterials } from "../ledger/lots.ts";
import { runPrepared } from "../prepared.ts";
import { giftItem, giftOrder, giftWrap } from "../schema.ts";

const orders = (db: Reads) =>
  runPrepared(db, "open_orders", {}, () =>
    db
      .select({ id: giftOrder.id, customer: giftOrder.customer, due: giftOrder.due })
      .from(giftOrder)
      .where(isNull(giftOrder.packedActId))
      .orderBy(asc(giftOrder.due), asc(giftOrder.id)),
  );
const items = (db: Reads) =>
  runPrepared(db, "open_items", {}, () =>
    db
      .select({ orderId: giftItem.giftOrderId, of: giftItem.productId, n: giftItem.units })
      .from(giftItem)
      .innerJoin(giftOrder, eq(giftOrder.id, giftItem.giftOrderId))
      .where(isNull(giftOrder.packedActId)),
  );
const wraps = (db: Reads) =>
  runPrepared(db, "open_wraps", {}, () =>
    db
      .select({ orderId: giftWrap.giftOrderId, of: giftWrap.materialId, n: giftWrap.pieces })
      .from(giftWrap)
      .innerJoin(giftOrder, eq(giftOrder.id, giftWrap.giftOrderId))
      .where(isNull(giftOrder.packedActId)),
  );

/** How many are asked for in all, by what they are of. */
function totals(rows: readonly { of: number; n: number }[]): [of: number, n: number][] {
  const sums = new Map<number, number>();
  for (const r of rows) sums.set(r.of, (sums.get(r.of) ?? 0) + r.n);
  return [...sums];
}

/** Every order that isn't packed, soonest due first. */
export async function ordersLacking(db: Reads, day: Day): Promise<(Lacking & { customer: string; wished: number })[]> {
  const open = await orders(db);
  if (open.length === 0) return [];
  const [wished, wrapping] = [groupBy(await items(db), (i) => i.orderId), groupBy(await wraps(db), (w) => w.orderId)];
  const stand = await allocatedUnits(db, day);
  const papers = new Set([...wrapping.values()].flatMap((ws) => ws.map((w) => w.of)));
  const here = new Map<number, number>();
  for (const l of await lotsOfMaterials(db, [...papers])) if (isUsable(l, day)) here.set(l.of, (here.get(l.of) ?? 0) + l.onHand);
  return open.map(({ id, customer, due }) => {
    const own = totals(wished.get(id) ?? []);
    const units = own.map(([productId, n]) => ({ productId, units: n - unitsFor(stand.get(productId), id, due) }));
    const pieces = totals(wrapping.get(id) ?? []).map(([materialId, n]) => ({ materialId, pieces: n - (here.get(materialId) ?? 0) }));
    return {
      ...{ orderId: id, customer, due, wished: own.reduce((a, [, n]) => a + n, 0) },
      units: units.filter((u) => u.units > 0),
      pieces: pieces.filter((p) => p.pieces > 0),
    };
  });
}
