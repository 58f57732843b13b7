/** Finished units by product, size and lot, and taking some out other than by selling. */
import { Refused } from "#core/refused";
import { REASONS, type TakeOutReason } from "#core/stock/reasons";
import { counted } from "#core/words";
import { asc, eq, gt, sql } from "drizzle-orm";
import { perform, type Doing, type Done } from "../act.ts";
import type { Db, Reads } from "../client.ts";
import { draw, lockLots } from "../ledger.ts";
import { batch, lot, movement, product, recipe } from "../schema.ts";

/** Every finished lot with units left, with what its batch cost in work. */
export const listCabinet = (db: Reads) =>
  db
    .select({
      id: lot.id,
      number: lot.number,
      of: product.id,
      onHand: lot.onHand,
      value: lot.value,
      arrived: lot.arrived,
      bestBefore: lot.bestBefore,
      hold: sql<boolean>`${lot.holdReason} is not null`,
      name: recipe.name,
      type: recipe.type,
      fill: product.fill,
      batchId: batch.id,
      units: batch.units,
      minutes: batch.minutes,
      hourly: batch.hourly,
      overheadHourly: batch.overheadHourly,
    })
    .from(lot)
    .innerJoin(product, eq(product.id, lot.productId))
    .innerJoin(recipe, eq(recipe.id, product.recipeId))
    .leftJoin(batch, eq(batch.lotId, lot.id))
    .where(gt(lot.onHand, 0))
    .orderBy(asc(recipe.name), asc(product.fill), asc(lot.bestBefore));

export type CabinetLot = Awaited<ReturnType<typeof listCabinet>>[number];

/** Takes units out of a finished lot for use as tester, gift, own use or as damaged. @throws Refused on `units` when there are fewer */
export function takeOut(db: Db, input: { lotId: number; units: number; reason: TakeOutReason; note: string }, doing: Doing): Promise<Done> {
  return perform(db, "takeOut", doing, async (tx, actId) => {
    const lots = await lockLots(tx, [input.lotId]);
    const number = lots.get(input.lotId)?.number;
    if (!number) throw Refused.one("units", "That lot isn't here any more.");
    await tx
      .insert(movement)
      .values(draw(lots, input.lotId, input.units, "units", (n) => counted(n, "unit"), { actId, reason: input.reason, note: input.note }));
    return { path: "/cabinet", summary: `Took ${input.units} of ${number} out: ${REASONS[input.reason]}` };
  });
}
