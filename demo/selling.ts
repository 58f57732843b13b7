/** The demo workshop selling: markets and gift orders, and what is planned next. */
import { micros } from "#core/measure/exact";
import { STARTING_SETTINGS } from "#core/settings/settings";
import { addDays, saturdayBefore, type Day } from "#core/when";
import { planTakes, stockOnHand } from "#core/stock/shelf";
import { allocatedUnits } from "#db/cabinet/allocations";
import { saveGiftOrder } from "#db/gifts/gifts";
import { packGiftOrder } from "#db/gifts/pack";
import { closeMarketDay, saveMarketDay } from "#db/markets/markets";
import { RECIPES, type RecipeKey } from "./recipes.ts";
import { euro, idIn, type World } from "./world.ts";
import { GIFTS, MARKETS, NEXT_MARKET } from "./year.ts";

/** Finished lots for so many units of products, use-first. */
export async function linesFor(w: World, day: Day, wanted: readonly (readonly [RecipeKey, number])[]) {
  const stand = await allocatedUnits(w.db, day);
  // What is reserved for orders stays here.
  const lots = [...stand.values()].flatMap((s) => {
    let free = s.free;
    return s.lots.map((l) => {
      const onHand = Math.min(l.open, free);
      free -= onHand;
      return { ...l.lot, onHand };
    });
  });
  return planTakes(
    wanted.map(([r, n]) => ({ of: w.recipes[r].productId, amount: n })),
    stockOnHand(lots, day),
  ).map((p) => p.takes);
}

export async function goToMarket(w: World, m: (typeof MARKETS)[number]): Promise<void> {
  const day = saturdayBefore(addDays(w.today, -m.daysAgo));
  const takes = await linesFor(
    w,
    day,
    m.lines.map(([r, taken]) => [r, taken] as const),
  );
  let takings = 0;
  const lines = m.lines.flatMap(([r, , sold, given, damaged], i) => {
    let left = [sold, given, damaged];
    const price = euro(RECIPES[r].prices[0]);
    takings += sold * price;
    return takes[i]!.map((t) => {
      let room = t.amount;
      const [s, g, d] = left.map((n) => {
        const now = Math.min(n, room);
        room -= now;
        return now;
      }) as [number, number, number];
      left = [left[0]! - s, left[1]! - g, left[2]! - d];
      return { lotId: t.lotId, taken: t.amount, sold: s, given: g, damaged: d, price };
    });
  });
  const byCard = euro(Math.round((takings * m.cardShare) / 500_000) / 2);
  await closeMarketDay(
    w.db,
    {
      name: m.name,
      day,
      stallFee: euro(m.stallFee),
      travel: euro(m.travel),
      byCard,
      cardFeeBp: STARTING_SETTINGS.cardFeeBp,
      minutes: m.hours * 60,
      note: m.note ?? "",
      lines,
    },
    { day },
  );
}

export async function planNextMarket(w: World): Promise<void> {
  const takes = await linesFor(w, w.today, NEXT_MARKET.lines);
  const lines = NEXT_MARKET.lines.flatMap(([r], i) =>
    takes[i]!.map((t) => ({ lotId: t.lotId, taken: t.amount, sold: 0, given: 0, damaged: 0, price: euro(RECIPES[r].prices[0]) })),
  );
  const { name, stallFee, travel, inDays } = NEXT_MARKET;
  await saveMarketDay(
    w.db,
    {
      name,
      day: saturdayBefore(addDays(w.today, inDays)),
      stallFee: euro(stallFee),
      travel: euro(travel),
      byCard: micros(0),
      cardFeeBp: STARTING_SETTINGS.cardFeeBp,
      minutes: 0,
      note: "",
      lines,
    },
    { day: w.today },
  );
}

export async function giftOrder(w: World, g: (typeof GIFTS)[number]): Promise<void> {
  const day = addDays(w.today, Math.min(g.due - 2, -1));
  const { customer, wrapMinutes } = g;
  const saved = await saveGiftOrder(
    w.db,
    {
      customer,
      wrapMinutes,
      due: addDays(w.today, g.due),
      extra: euro(g.extra),
      discountBp: g.discountPercent * 100,
      note: g.note ?? "",
      items: g.items.map(([r, units]) => ({ productId: w.recipes[r].productId, units, price: euro(RECIPES[r].prices[3]) })),
      wrapping: g.wrapping.map(([m, pieces]) => ({ materialId: w.materials[m], pieces })),
    },
    { day },
  );
  if (g.packed) await packGiftOrder(w.db, { id: idIn(saved), only: [] }, { day });
}
