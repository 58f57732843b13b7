/** Market days from before the books began: what each took and cost, by product where that was noted. Nothing leaves a lot for them. */
import { sameDay, type DayLine } from "#core/listsIn/days";
import { micros } from "#core/measure/exact";
import { Refused } from "#core/refused";
import { sayFullDay } from "#core/when";
import { counted } from "#core/words";
import { inArray } from "drizzle-orm";
import { array, object } from "yup";
import { defineAct } from "../act/define.ts";
import { undoId } from "../act/left.ts";
import type { Reads } from "../client.ts";
import { requireNoLaterActs, theseIds } from "../ledger/effective.ts";
import { inChunks } from "../pieces.ts";
import { marketDay, pastSale } from "../schema.ts";

export type PastDaysIn = { days: readonly Omit<DayLine, "row">[] };

/** Every market day there is, as `sameDay` tells them. */
export const daysAlready = async (db: Reads): Promise<Set<string>> =>
  new Set((await db.select({ name: marketDay.name, day: marketDay.day }).from(marketDay)).map((d) => sameDay(d.name, d.day)));

/** Writes a list of market days down, all or none. @throws Refused for one that is there already */
export const addPastDays = defineAct({
  kind: "pastDays",
  // Of two windows with one list the second finds it there.
  exclusive: true,
  run: async (tx, { days }: PastDaysIn, { actId, day: today }) => {
    if (days.length === 0) throw Refused.one("", "Enter at least one day.");
    const there = await daysAlready(tx);
    for (const d of days) {
      if (d.day > today) throw Refused.one("", `${d.market}, ${sayFullDay(d.day)}, hasn't been yet.`);
      if (there.has(sameDay(d.market, d.day)))
        throw Refused.one("", `${d.market}, ${sayFullDay(d.day)}, is in the books already. Look at the list again.`);
      there.add(sameDay(d.market, d.day));
    }
    const ids: number[] = [];
    for (const piece of inChunks(days)) {
      const rows = await tx
        .insert(marketDay)
        .values(
          piece.map(({ market, day, stallFee, travel, minutes, note }) => ({
            ...{ name: market, day, stallFee, travel, minutes, note },
            ...{ byCard: micros(0), cardFeeBp: 0, closedActId: actId, beforeBooks: true },
          })),
        )
        .returning({ id: marketDay.id });
      ids.push(...rows.map((r) => r.id));
    }
    for (const piece of inChunks(days.flatMap((d, i) => d.sales.map((s) => ({ ...s, marketDayId: ids[i]! })))))
      await tx.insert(pastSale).values(piece);
    return {
      path: "/markets",
      summary: `Wrote down ${counted(days.length, "earlier market day")} from a list`,
      about: ids.map((id) => ({ kind: "market" as const, id, changes: true })),
      leaves: { ids },
    };
  },
  leaves: object({ ids: array().of(undoId()).required() }),
  back: async (tx, { ids }, { undoes }) => {
    const whole = { kind: "market", among: theseIds(ids) } as const;
    await requireNoLaterActs(tx, whole, undoes, ["saveMarket", "closeMarket"], "One of these days has been saved since.");
    await tx.delete(pastSale).where(inArray(pastSale.marketDayId, ids));
    await tx.delete(marketDay).where(inArray(marketDay.id, ids));
    return "/markets";
  },
});
