/**
 * The shelf as a value: worked out once, however many recipes ask it. Which lots of a material are taken and in which order, what a gram of
 * it costs on average, and what having it again would cost; and plans that draw on it without changing anything.
 */
import { micros, type Base, type Micros } from "../measure/exact.ts";
import type { UnitCost } from "../measure/money.ts";
import type { Day } from "../when.ts";
import { drawValue, isUsable, firstExpiredFirst, type Lot } from "./lots.ts";

/** The running average over everything on hand, or null when nothing is. @example runningAverage([]) // null */
export function runningAverage(lots: readonly Pick<Lot, "onHand" | "value">[]): UnitCost | null {
  let [per, value] = [0, 0];
  for (const l of lots) {
    per += l.onHand;
    value += l.value;
  }
  return per > 0 ? { value: micros(value), per } : null;
}

/** What the shelf has of one material. */
export interface Stock {
  /** Lots that are taken by themselves, use-first. */
  readonly usable: readonly Lot[];
  /** Over all of it on hand, held and past its day too; null when nothing is. */
  readonly average: UnitCost | null;
  /** Its newest landed unit cost; null when it was never bought. */
  readonly again: UnitCost | null;
}

export interface Shelf {
  of: (material: number) => Stock;
}

/** Sorted and averaged when it is first asked for, and never again. */
class OneStock implements Stock {
  readonly lots: Lot[] = [];
  private sorted: readonly Lot[] | undefined;
  private averaged: UnitCost | null | undefined;

  constructor(
    readonly again: UnitCost | null,
    private readonly today: Day,
  ) {}

  get usable(): readonly Lot[] {
    return (this.sorted ??= this.lots.filter((l) => isUsable(l, this.today)).sort(firstExpiredFirst));
  }

  get average(): UnitCost | null {
    if (this.averaged === undefined) this.averaged = runningAverage(this.lots);
    return this.averaged;
  }
}

const NEVER_BOUGHT: ReadonlyMap<number, UnitCost> = new Map();

/**
 * Works a shelf out. A material is sorted and averaged when it is first asked for, and never again.
 * @param lots of any materials or products, in any order; they stay as they are
 * @param again newest landed unit cost per material; absent where nothing is to be priced
 * @example stockOnHand([lot(3, 900)], today).of(1).usable.length // 1
 */
export function stockOnHand(lots: readonly Lot[], today: Day, again: ReadonlyMap<number, UnitCost> = NEVER_BOUGHT): Shelf {
  const stocks = new Map<number, OneStock>();
  const of = (material: number): OneStock => {
    let stock = stocks.get(material);
    if (!stock) stocks.set(material, (stock = new OneStock(again.get(material) ?? null, today)));
    return stock;
  };
  for (const l of lots) of(l.of).lots.push(l);
  return { of };
}

/**
 * A shelf on which some materials have other lots; what was worked out for the rest is reused.
 * @param others with all of each material that has others
 * @example shelfWith(stockOnHand([lot(3, 900)], today), stockOnHand([lot(3, 500)], today), [1]).of(1).usable[0].onHand // 500
 */
export function shelfWith(shelf: Shelf, others: Shelf, materials: Iterable<number>): Shelf {
  const changed = new Set(materials);
  return { of: (material) => (changed.has(material) ? others : shelf).of(material) };
}

/** How far a material is used up: its next lot, and what is left of that. */
interface Left {
  stock: Stock;
  next: number;
  onHand: Base;
  value: Micros;
}

/** Meets needs one after the other out of a shelf that stays as it is; needs of the same material share its lots. */
export class Draws {
  private readonly left: Left[] = [];

  /** There are few, so that looking through them is quickest. */
  private leftOf(stock: Stock): Left {
    for (const l of this.left) if (l.stock === stock) return l;
    const first = stock.usable[0];
    const fresh = { stock, next: 0, onHand: first?.onHand ?? 0, value: first?.value ?? micros(0) };
    this.left.push(fresh);
    return fresh;
  }

  /**
   * Draws use-first, splitting over lots.
   * @returns what no usable lot could give
   */
  take(stock: Stock, amount: Base, each: (lot: Lot, amount: Base, value: Micros) => void): Base {
    const at = this.leftOf(stock);
    const { usable } = stock;
    let open = amount;
    for (let lot = usable[at.next]; lot && open > 0; lot = usable[at.next]) {
      const take = Math.min(open, at.onHand);
      const value = drawValue(at, take);
      each(lot, take, value);
      open -= take;
      at.onHand -= take;
      at.value = micros(at.value - value);
      if (at.onHand > 0) continue;
      const after = usable[++at.next];
      at.onHand = after?.onHand ?? 0;
      at.value = after?.value ?? micros(0);
    }
    return open;
  }
}

export interface Take {
  lotId: number;
  amount: Base;
  value: Micros;
}

export interface Need {
  of: number;
  amount: Base;
}

export interface NeedPlan {
  takes: Take[];
  /** What no usable lot could give. */
  short: Base;
}

/**
 * Plans draws for several needs from one shelf.
 * @example planTakes([{ of: 1, amount: 5 }], stockOnHand([lot(3, 3), lot(4, 9)], today))[0].takes // [{ lotId: 3, amount: 3 }, { lotId: 4, amount: 2 }]
 */
export function planTakes(needs: readonly Need[], shelf: Shelf): NeedPlan[] {
  const draws = new Draws();
  return needs.map(({ of, amount }) => {
    const takes: Take[] = [];
    const short = draws.take(shelf.of(of), amount, (lot, taken, value) => takes.push({ lotId: lot.id, amount: taken, value }));
    return { takes, short };
  });
}
