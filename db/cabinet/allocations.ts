/** Reads finished units with all that claims them, for core/stock/allocations. */
import { allocateUnits, type ProductAllocation } from "#core/stock/allocations";
import type { Day } from "#core/when";
import { and, asc, eq, gt, isNull } from "drizzle-orm";
import type { Reads } from "../client.ts";
import { lotsOfProducts } from "../ledger/lots.ts";
import { runPrepared } from "../prepared.ts";
import { giftItem, giftOrder, marketDay, marketLine } from "../schema.ts";

/** Lots that are along to a market day that isn't closed. */
const stalls = (db: Reads) =>
  runPrepared(db, "open_stalls", {}, () =>
    db
      .select({ dayId: marketDay.id, name: marketDay.name, lotId: marketLine.lotId, taken: marketLine.taken })
      .from(marketLine)
      .innerJoin(marketDay, eq(marketDay.id, marketLine.marketDayId))
      .where(and(isNull(marketDay.closedActId), gt(marketLine.taken, 0)))
      .orderBy(asc(marketDay.day), asc(marketDay.id)),
  );

/** What orders that aren't packed ask for. */
const wishes = (db: Reads) =>
  runPrepared(db, "open_wishes", {}, () =>
    db
      .select({
        orderId: giftOrder.id,
        customer: giftOrder.customer,
        due: giftOrder.due,
        of: giftItem.productId,
        units: giftItem.units,
      })
      .from(giftItem)
      .innerJoin(giftOrder, eq(giftOrder.id, giftItem.giftOrderId))
      .where(isNull(giftOrder.packedActId))
      .orderBy(asc(giftItem.id)),
  );

/** How many units of each product there are, and for which market days and orders. @param without a market day whose own lots are not yet reserved @param of products; all when absent */
export async function allocatedUnits(
  db: Reads,
  today: Day,
  { without, of }: { without?: number | undefined; of?: readonly number[] } = {},
): Promise<Map<number, ProductAllocation>> {
  // One after the other: an act asks on its own connection, which answers one question at a time.
  const lots = await lotsOfProducts(db, of);
  const along = (await stalls(db)).filter((s) => s.dayId !== without);
  return allocateUnits(lots, along, await wishes(db), today);
}
