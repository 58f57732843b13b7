/**
 * What an order still lacks, what is to be begun for each of it, and the last day to begin: a batch, a jar, an order at a supplier's.
 *
 * Counted back from the day it is due: packed a day before, made three days before (poured, set overnight, labelled, a day in hand), and
 * what it is made of there on the day it is made. Common practice, no source.
 */
import { batchFor, scaleTo } from "../recipe/scale.ts";
import { stirredInto } from "../batch/planning/parts.ts";
import { METHODS, methodsInTime, readyDays, type MethodId } from "../infusion/methods.ts";
import type { Mg } from "../measure/exact.ts";
import { Draws, type Need, type Shelf } from "../stock/shelf.ts";
import { addDays, daysBetween, type Day } from "../when.ts";
import { mustBe } from "../work.ts";
import type { Standing } from "./standing.ts";

/** An order that isn't packed, with what there is too little of for it; nothing where it is ready. */
export interface Lacking {
  orderId: number;
  due: Day;
  units: readonly { productId: number; units: number }[];
  pieces: readonly { materialId: number; pieces: number }[];
}

/** Something to be done for an order. `by` is the last day to begin it; amounts are mg, or pieces and units of what is counted. */
export type OrderStep = { amount: number; by: Day } & (
  | { does: "pour"; batchId: number; productId: number }
  | { does: "make"; recipeId: number; productId: number }
  /** Of a product that is no longer made. */
  | { does: "instead"; productId: number }
  /** `from` is the first day the jar may be strained. */
  | { does: "strain"; jarId: number; materialId: number; from: Day }
  | { does: "fill"; materialId: number; method: MethodId }
  /** Ordered at a supplier's already: to be here by then. */
  | { does: "await"; materialId: number }
  | { does: "buy"; materialId: number }
);

/** What there is to make it with. */
export interface Means {
  today: Day;
  /** What so many units of a product are made of; null where it is no longer made. */
  make: (productId: number, units: number) => { recipeId: number; needs: readonly Need[] } | null;
  /** What batches on the bench will fill. */
  bench: readonly { batchId: number; productId: number; units: number }[];
  /** Without what is reserved for those batches. */
  shelf: Shelf;
  /** Jars that are steeping, with the oil they are expected to give. */
  jars: readonly { jarId: number; materialId: number; expected: Mg; earliest: Day }[];
  /** Oils that are steeped here, each with the method it was last made by. */
  steeped: ReadonlyMap<number, MethodId>;
  /** Bought and still to come, by material. */
  coming: ReadonlyMap<number, number>;
  /** From ordering at a supplier's to having it. */
  leadDays: number;
}

/** A recipe as far as it decides what a batch of it takes. */
interface Recipe {
  recipe: { lossBp: number };
  lines: readonly { materialId: number; weight: Mg }[];
}

interface Size {
  fill: Mg;
  packaging: readonly { materialId: number; pieces: number }[];
  /** What is stirred into a variant, of all that is filled. */
  additions: readonly { materialId: number; ppm: number }[];
}

/**
 * What so many units of a size take: its share of a pot with what stays in the pot, its packaging, and what is stirred into a variant.
 * @example unitNeeds({ recipe: { lossBp: 0 }, lines: [{ materialId: 1, weight: mg(500_000) }] }, { fill: mg(60_000), packaging: [], additions: [] }, 2) // [{ of: 1, amount: 120_000 }]
 */
export function unitNeeds({ recipe, lines }: Recipe, size: Size, units: number): Need[] {
  const weights = scaleTo(
    lines.map((l) => l.weight),
    batchFor([{ fill: size.fill, units }], recipe.lossBp),
  );
  return [
    ...lines.map((l, i) => ({ of: l.materialId, amount: weights[i]! })),
    ...stirredInto(size, units, recipe.lossBp),
    ...size.packaging.map((p) => ({ of: p.materialId, amount: p.pieces * units })),
  ];
}

/** What is given out bit by bit, and by whom. */
class Stores<T> {
  private readonly left: { of: number; amount: number; what: T }[];
  constructor(all: readonly { of: number; amount: number; what: T }[]) {
    this.left = all.map((a) => ({ ...a }));
  }
  /** @returns what nobody could give */
  take(of: number, wanted: number, each: (what: T, amount: number) => void): number {
    let open = wanted;
    for (const s of this.left) {
      const amount = s.of === of ? Math.min(s.amount, open) : 0;
      if (amount === 0) continue;
      s.amount -= amount;
      open -= amount;
      each(s.what, amount);
    }
    return open;
  }
}

/** How a jar filled in time is made: the usual way, or where that is too slow the slowest that isn't, with the last day to fill it. */
function jarBy(usual: MethodId, ready: Day, today: Day): { method: MethodId; by: Day } {
  // Spirit over heat is offered to nobody who doesn't work with it already.
  const inTime = methodsInTime(today, ready).filter((m) => m !== "alcohol" || m === usual);
  const method = usual === "own" || inTime.length === 0 || inTime.includes(usual) ? usual : inTime[0]!;
  const takes = daysBetween(today, readyDays(today, METHODS[method].times).earliest);
  return { method, by: addDays(ready, -takes) };
}

/**
 * What is to be begun for each order, the orders in the order they are due: what one takes, the next hasn't got.
 * @returns by order, each with the step that presses most first
 * @example stepsFor([{ orderId: 1, due: "2026-12-20", units: [], pieces: [{ materialId: 7, pieces: 2 }] }], bare).get(1) // [{ does: "buy", materialId: 7, amount: 2, by: "2026-12-05" }]
 */
export function stepsFor(orders: readonly Lacking[], means: Means): Map<number, OrderStep[]> {
  const { today, make, shelf, steeped, leadDays } = means;
  const draws = new Draws();
  const bench = new Stores(means.bench.map((b) => ({ of: b.productId, amount: b.units, what: b.batchId })));
  const jars = new Stores(means.jars.map((j) => ({ of: j.materialId, amount: j.expected, what: j })));
  const coming = new Stores([...means.coming].map(([of, amount]) => ({ of, amount, what: null })));

  /** What is missing of a material that has to be there on a day. */
  const getMaterial = (materialId: number, amount: number, there: Day): OrderStep[] => {
    const steps: OrderStep[] = [];
    const afterJars = jars.take(materialId, amount, ({ jarId, earliest }, n) =>
      steps.push({ does: "strain", jarId, materialId, amount: n, by: there, from: earliest }),
    );
    const open = coming.take(materialId, afterJars, (_, n) => steps.push({ does: "await", materialId, amount: n, by: there }));
    if (open === 0) return steps;
    const usual = steeped.get(materialId);
    return usual
      ? [...steps, { does: "fill", materialId, amount: open, ...jarBy(usual, there, today) }]
      : [...steps, { does: "buy", materialId, amount: open, by: addDays(there, -leadDays) }];
  };
  const ofShelf = (needs: readonly Need[], there: Day): OrderStep[] =>
    needs.flatMap(({ of, amount }) => {
      const short = draws.take(shelf.of(of), amount, () => undefined);
      return short > 0 ? getMaterial(of, short, there) : [];
    });

  const out = new Map<number, OrderStep[]>();
  for (const { orderId, due, units, pieces } of [...orders].sort((a, b) => a.due.localeCompare(b.due) || a.orderId - b.orderId)) {
    const made = mustBe({ kind: "toMake", day: due }, today)!;
    const packed = mustBe({ kind: "toPack", day: due }, today)!;
    const steps = units.flatMap(({ productId, units: n }): OrderStep[] => {
      const poured: OrderStep[] = [];
      const open = bench.take(productId, n, (batchId, amount) => poured.push({ does: "pour", batchId, productId, amount, by: made }));
      if (open === 0) return poured;
      const making = make(productId, open);
      if (!making) return [...poured, { does: "instead", productId, amount: open, by: packed }];
      const { recipeId, needs } = making;
      return [...poured, { does: "make", recipeId, productId, amount: open, by: made }, ...ofShelf(needs, made)];
    });
    for (const p of pieces) steps.push(...getMaterial(p.materialId, p.pieces, packed));
    out.set(
      orderId,
      together(steps).sort((a, b) => a.by.localeCompare(b.by)),
    );
  }
  return out;
}

/** Steps of one kind about one thing as one: two sizes of a balm want the same oil. */
function together(steps: readonly OrderStep[]): OrderStep[] {
  const out = new Map<string, OrderStep>();
  for (const s of steps) {
    const { amount: _, ...what } = s;
    const key = JSON.stringify(what);
    const had = out.get(key);
    out.set(key, had ? { ...had, amount: had.amount + s.amount } : s);
  }
  return [...out.values()];
}

/** Whether a step can't be done in time any more. */
export const tooLate = (s: OrderStep, today: Day): boolean => s.by < today || (s.does === "strain" && s.from > s.by);

/**
 * The state of an order: ready; something missing that can still be had in time; or late.
 * @example stateOfOrder("2026-12-05", [], "2026-12-06") // "late"
 */
export const stateOfOrder = (due: Day, steps: readonly OrderStep[], today: Day): Standing =>
  due < today || steps.some((s) => tooLate(s, today)) ? "late" : steps.length > 0 ? "missing" : "ready";
