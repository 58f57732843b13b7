/** What an order can be made up of: sizes of recipes with their prices and costs, what is free of them and out of which lots. */
import { workIn } from "#core/batch/finishing/result";
import { micros, type Micros } from "#core/measure/exact";
import { productNames } from "#core/recipe/productNames";
import { drawValue, type Lot } from "#core/stock/lots";
import { unitsFor } from "#core/stock/allocations";
import type { Day } from "#core/when";
import type { Reads } from "../client.ts";
import { listCabinet } from "../cabinet/cabinet.ts";
import { notYetReleased } from "../bench/finishing/notYetReleased.ts";
import { allocatedUnits } from "../cabinet/allocations.ts";
import { today } from "../clock.ts";
import { whyNotFree } from "./pack.ts";
import { chosenPrices } from "../prices/prices.ts";
import { unitCostsOf } from "../recipe/costs.ts";
import { listProducts } from "../recipe/read.ts";
import { cachedSettings } from "../settings/settings.ts";

/** A size of a recipe as an order takes it. */
export interface Product {
  id: number;
  /** With its size: "Hand balm, 60 mL tin". */
  name: string;
  price: Micros | null;
  cost: Micros | null;
  /** Units an order can have, and why there are no more of them. */
  free: number;
  spoken: string;
  /** With what is open of each, the work in one unit of it, and why it better waits. */
  lots: (Lot & { work: Micros; waits: string | null })[];
}

interface Asked {
  /** Those an order names as it was saved, made still or not. */
  ids?: readonly number[];
  /** Others, in whatever case; what isn't made any more as long as there is some of it. */
  names?: readonly string[];
  /** What is allocated to it is free for that order, as far as it is good on the day it is due. */
  order?: { id: number; due: Day } | null;
}

export async function productsOf(db: Reads, { ids = [], names = [], order = null }: Asked): Promise<Product[]> {
  const all = await listProducts(db);
  const called = productNames(all);
  const asked = new Set(names.map((n) => n.trim().toLowerCase()));
  const found = all.filter((p) => ids.includes(p.id) || asked.has(called.get(p.id)!.toLowerCase()));
  if (found.length === 0) return [];
  const settings = await cachedSettings(db);
  const of = found.map((p) => p.id);
  const [stand, chosen, costed, cabinet] = await Promise.all([
    allocatedUnits(db, today(), { of }),
    chosenPrices(db, of),
    unitCostsOf(db, settings, today(), [...new Set(found.map((p) => p.recipeId))]),
    listCabinet(db),
  ]);
  const costs = new Map(costed.flatMap((c) => c.sizes.map((s) => [s.id, s.cost.perUnit[settings.school]?.total ?? null])));
  const works = new Map(cabinet.map((l) => [l.id, workIn(1, l)]));
  const waits = await notYetReleased(
    db,
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
      spoken: whyNotFree(stand.get(p.id), order?.id ?? 0, due),
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

/** Everything that can be ordered, to choose from: how many units of it are free, and whom the others are for. */
export async function productsToChoose(db: Reads): Promise<Pick<Product, "name" | "free" | "spoken">[]> {
  const [all, stand] = await Promise.all([listProducts(db), allocatedUnits(db, today())]);
  const called = productNames(all);
  return all
    .filter((p) => !p.retired || (stand.get(p.id)?.here ?? 0) > 0)
    .map((p) => ({
      name: called.get(p.id)!,
      free: unitsFor(stand.get(p.id), null, null),
      spoken: whyNotFree(stand.get(p.id), 0, null),
    }));
}
