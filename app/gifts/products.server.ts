/** What an order can be made up of: sizes of recipes with their prices and costs, what is free of them and out of which lots. */
import { workIn } from "#core/batch/result";
import { micros, type Micros } from "#core/measure/exact";
import { productNames } from "#core/recipe/productNames";
import { drawValue, type Lot } from "#core/stock/lots";
import { unitsFor } from "#core/stock/promised";
import type { Day } from "#core/when";
import { listCabinet } from "#db/cabinet/cabinet";
import { notReady } from "#db/bench/notReady";
import { unitsStand } from "#db/cabinet/promised";
import { today } from "#db/clock";
import { spokenFor } from "#db/gifts/pack";
import { chosenPrices } from "#db/prices/prices";
import { unitCostsOf } from "#db/recipe/costs";
import { listProducts } from "#db/recipe/read";
import { keptSettings } from "#db/settings";
import { db } from "../db.server.ts";
import type { Name } from "../names/name.ts";
import type { Product } from "../names/named.ts";

interface Asked {
  /** Those an order names as it was kept, made still or not. */
  ids?: readonly number[];
  /** Others, in whatever case; what isn't made any more as long as there is some of it. */
  names?: readonly string[];
  /** What it is promised is free for that order, as far as it is good on the day it is due. */
  order?: { id: number; due: Day } | null;
}

export async function productsOf({ ids = [], names = [], order = null }: Asked): Promise<Product[]> {
  const all = await listProducts(db());
  const called = productNames(all);
  const asked = new Set(names.map((n) => n.trim().toLowerCase()));
  const found = all.filter((p) => ids.includes(p.id) || asked.has(called.get(p.id)!.toLowerCase()));
  if (found.length === 0) return [];
  const settings = await keptSettings(db());
  const of = found.map((p) => p.id);
  const [stand, chosen, costed, cabinet] = await Promise.all([
    unitsStand(db(), today(), { of }),
    chosenPrices(db(), of),
    unitCostsOf(db(), settings, today(), [...new Set(found.map((p) => p.recipeId))]),
    listCabinet(db()),
  ]);
  const costs = new Map(costed.flatMap((c) => c.sizes.map((s) => [s.id, s.cost.perUnit[settings.school]?.total ?? null])));
  const works = new Map(cabinet.map((l) => [l.id, workIn(1, l)]));
  const waits = await notReady(
    db(),
    [...stand.values()].flatMap((s) => s.lots.map((l) => l.lot.id)),
    today(),
  );
  const due = order && order.due > today() ? order.due : null;
  return found
    .filter((p) => !p.retired || ids.includes(p.id) || (stand.get(p.id)?.here ?? 0) > 0)
    .map((p) => ({
      id: p.id,
      name: called.get(p.id)!,
      price: chosen.get(p.id)?.gift ?? null,
      cost: costs.get(p.id) ?? null,
      free: unitsFor(stand.get(p.id), order?.id ?? null, due),
      spoken: spokenFor(stand.get(p.id), order?.id ?? 0, due),
      lots: (stand.get(p.id)?.lots ?? []).flatMap((l) =>
        l.open > 0
          ? [
              {
                ...l.lot,
                onHand: l.open,
                value: valueOfOpen(l),
                work: works.get(l.lot.id) ?? micros(0),
                waits: waits.get(l.lot.id) ?? null,
              },
            ]
          : [],
      ),
    }));
}

/** What the units of a lot that are open cost. */
const valueOfOpen = ({ lot, open }: { lot: Lot; open: number }): Micros => (open === lot.onHand ? lot.value : drawValue(lot, open));

/** Everything that can be ordered, to choose from. */
export async function productsToChoose(): Promise<Name[]> {
  const [all, stand] = await Promise.all([listProducts(db()), unitsStand(db(), today())]);
  const called = productNames(all);
  return all
    .filter((p) => !p.retired || (stand.get(p.id)?.here ?? 0) > 0)
    .map((p) => {
      const free = unitsFor(stand.get(p.id), null, null);
      return { name: called.get(p.id)!, first: free > 0, aside: `${free} free`, about: spokenFor(stand.get(p.id), 0, null) };
    });
}
