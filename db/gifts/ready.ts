/** Which orders could be packed as things stand. */
import { unitsFor } from "#core/stock/promised";
import { groupBy } from "#core/collect";
import { isUsable } from "#core/stock/lots";
import type { Day } from "#core/when";
import { eq, isNull } from "drizzle-orm";
import { unitsStand } from "../cabinet/promised.ts";
import type { Reads } from "../client.ts";
import { lotsOfMaterials } from "../ledger/lots.ts";
import { ask } from "../prepared.ts";
import { giftItem, giftOrder, giftWrap } from "../schema.ts";

/** Orders that have all their units, promised to them or free, and their wrapping on the shelf. */
export async function ordersReady(db: Reads, day: Day): Promise<Set<number>> {
  const items = await ask(db, "open_items", {}, () =>
    db
      .select({ orderId: giftItem.giftOrderId, due: giftOrder.due, productId: giftItem.productId, units: giftItem.units })
      .from(giftItem)
      .innerJoin(giftOrder, eq(giftOrder.id, giftItem.giftOrderId))
      .where(isNull(giftOrder.packedActId)),
  );
  const wraps = await ask(db, "open_wraps", {}, () =>
    db
      .select({ orderId: giftWrap.giftOrderId, materialId: giftWrap.materialId, pieces: giftWrap.pieces })
      .from(giftWrap)
      .innerJoin(giftOrder, eq(giftOrder.id, giftWrap.giftOrderId))
      .where(isNull(giftOrder.packedActId)),
  );
  if (items.length === 0) return new Set();
  const stand = await unitsStand(db, day);
  const here = new Map<number, number>();
  for (const l of await lotsOfMaterials(
    db,
    wraps.map((w) => w.materialId),
  ))
    if (isUsable(l, day)) here.set(l.of, (here.get(l.of) ?? 0) + l.onHand);
  const total = <T>(rows: readonly T[], of: (r: T) => number, n: (r: T) => number): Map<number, number> => {
    const sums = new Map<number, number>();
    for (const r of rows) sums.set(of(r), (sums.get(of(r)) ?? 0) + n(r));
    return sums;
  };
  const ready = new Set<number>();
  const wrapsOf = groupBy(wraps, (w) => w.orderId);
  for (const [orderId, own] of groupBy(items, (i) => i.orderId)) {
    const units = total(
      own,
      (i) => i.productId,
      (i) => i.units,
    );
    const pieces = total(
      wrapsOf.get(orderId) ?? [],
      (w) => w.materialId,
      (w) => w.pieces,
    );
    if (
      [...units].every(([of, n]) => unitsFor(stand.get(of), orderId, own[0]!.due) >= n) &&
      [...pieces].every(([of, n]) => (here.get(of) ?? 0) >= n)
    )
      ready.add(orderId);
  }
  return ready;
}
