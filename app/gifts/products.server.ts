/** What an order can be made up of: sizes of recipes with their prices and costs, what is free of them and out of which lots. */
import { unitsFor } from "#core/stock/promised";
import { unitsStand } from "#db/cabinet/promised";
import { today } from "#db/clock";
import { spokenFor } from "#db/gifts/pack";
import { chosenPrices } from "#db/prices/prices";
import { unitCostsOf } from "#db/recipe/costs";
import { listProducts, productsNamed } from "#db/recipe/read";
import { keptSettings } from "#db/settings";
import { db } from "../db.server.ts";
import type { Name } from "../names/name.ts";
import type { Product } from "../names/named.ts";

const nameOf = (p: { recipe: string; label: string }): string => `${p.recipe}, ${p.label}`;

interface Asked {
  /** Those an order names as it was kept, made still or not. */
  ids?: readonly number[];
  /** Others, in whatever case; what isn't made any more as long as there is some of it. */
  names?: readonly string[];
  /** What it is promised is free for that order. */
  order?: number | null;
}

export async function productsOf({ ids = [], names = [], order = null }: Asked): Promise<Product[]> {
  const found = await productsNamed(db(), ids, names);
  if (found.length === 0) return [];
  const settings = await keptSettings(db());
  const of = found.map((p) => p.id);
  const [stand, chosen, costed] = await Promise.all([
    unitsStand(db(), today(), { of }),
    chosenPrices(db(), of),
    unitCostsOf(db(), settings, today(), [...new Set(found.map((p) => p.recipeId))]),
  ]);
  const costs = new Map(costed.flatMap((c) => c.sizes.map((s) => [s.id, s.cost.perUnit[settings.school]?.total ?? null])));
  return found
    .filter((p) => !p.retired || ids.includes(p.id) || (stand.get(p.id)?.here ?? 0) > 0)
    .map((p) => ({
      id: p.id,
      name: nameOf(p),
      price: chosen.get(p.id)?.gift ?? null,
      cost: costs.get(p.id) ?? null,
      free: unitsFor(stand.get(p.id), order),
      spoken: spokenFor(stand.get(p.id), order ?? 0),
      lots: (stand.get(p.id)?.lots ?? []).flatMap((l) => (l.open > 0 ? [{ ...l.lot, onHand: l.open }] : [])),
    }));
}

/** Everything that can be ordered, to choose from. */
export async function productNames(): Promise<Name[]> {
  const [all, stand] = await Promise.all([listProducts(db()), unitsStand(db(), today())]);
  return all
    .filter((p) => !p.retired || (stand.get(p.id)?.here ?? 0) > 0)
    .map((p) => {
      const free = unitsFor(stand.get(p.id), null);
      return { name: nameOf(p), first: free > 0, aside: `${free} free`, about: spokenFor(stand.get(p.id), 0) };
    });
}
