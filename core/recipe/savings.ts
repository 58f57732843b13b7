/**
 * What of a recipe is worth changing first: what each ingredient costs, what a tenth less of it would save, and what the cheapest pack anybody
 * offers would, against having it again as it was bought last. And what a batch costs whose packs are bought for it alone.
 */
import { mg, micros, mulDiv, sum, type Mg, type Micros } from "../measure/exact.ts";
import { costOf, type UnitCost } from "../measure/money.ts";
import { byDelivered, delivered, dearer, type Offer } from "../stock/offers.ts";

export interface SavedLine {
  of: number;
  weight: Mg;
  /** What it costs in this batch, by whichever school; null where nobody knows. */
  cost: Micros | null;
  /** What having it again costs. */
  again: UnitCost | null;
  offers: readonly Offer[];
}

export interface Saving {
  of: number;
  /** Of the batch. */
  cost: Micros | null;
  /** Of all ingredients. */
  share: number;
  /** A tenth less of it, in the whole batch. */
  tenth: Micros;
  /** The cheapest pack, and what it saves in the whole batch; null where none is cheaper. */
  pack: { offer: Offer; saves: Micros } | null;
}

/** A material in two lines is one that is bought. */
function onceEach<L extends { of: number; weight: Mg }>(lines: readonly L[]): L[] {
  const byMaterial = new Map<number, L>();
  for (const l of lines) byMaterial.set(l.of, { ...l, weight: mg(l.weight + (byMaterial.get(l.of)?.weight ?? 0)) });
  return [...byMaterial.values()];
}

/** Each material once, dearest first. */
export function savings(lines: readonly SavedLine[]): Saving[] {
  const costOfAll = (of: number): Micros | null => {
    const costs = lines.filter((l) => l.of === of).map((l) => l.cost);
    return costs.includes(null) ? null : sum(costs as Micros[]);
  };
  const materials = onceEach(lines).map((l) => ({ ...l, cost: costOfAll(l.of) }));
  const all = materials.reduce((a, l) => a + (l.cost ?? 0), 0);
  return materials
    .map(({ of, weight, cost, again, offers }): Saving => {
      const best = [...offers].sort(byDelivered)[0];
      const saves =
        best && again && dearer(delivered(best), again) < 0 ? micros(costOf(weight, again) - costOf(weight, delivered(best))) : micros(0);
      return {
        of,
        cost,
        share: all > 0 ? (cost ?? 0) / all : 0,
        tenth: micros(mulDiv(cost ?? 0, 1, 10)),
        pack: best && saves > 0 ? { offer: best, saves } : null,
      };
    })
    .sort((a, b) => (b.cost ?? 0) - (a.cost ?? 0));
}

/**
 * What a batch costs where every pack is bought for it and what is left of it counts as nothing: two tins out of retail packs look ruinous,
 * forty out of the same are cheap.
 * @returns null where something has no offer
 * @example boughtFor([{ of: 1, weight: mg(300_000), offers: [offer] }]) // 20.00
 */
export function boughtFor(lines: readonly Pick<SavedLine, "of" | "weight" | "offers">[]): Micros | null {
  let all = 0;
  for (const { weight, offers } of onceEach(lines)) {
    const packs = offers.map((o) => Math.ceil(weight / o.qty) * (o.price + o.postage));
    if (packs.length === 0) return null;
    all += Math.min(...packs);
  }
  return micros(all);
}
