/**
 * What a market day came to.
 *
 * Stock is counted at what its materials cost; the maker's hours are not a cost here but what the profit is divided by.
 */
import { micros, mulDiv, sum, type Micros } from "../measure/exact.ts";
import type { CostKnown } from "../stock/costKnown.ts";

export interface DayLine {
  taken: number;
  sold: number;
  /** Testers and presents. */
  given: number;
  damaged: number;
  price: Micros;
  /** Materials cost of all units that left (sold, given and damaged). */
  gone: Micros;
}

export interface DayIn {
  lines: readonly DayLine[];
  stallFee: Micros;
  travel: Micros;
  /** Of the takings, paid by card. */
  byCard: Micros;
  cardFeeBp: number;
  /** Hours on the stall and the road. */
  hours: number;
}

export interface DayResult {
  takings: Micros;
  unitsSold: number;
  stockCost: Micros;
  cardFee: Micros;
  profit: Micros;
  perHour: Micros | null;
}

/** What was sold in all, what it brought and what left stock cost. */
export type DaySums = Pick<DayResult, "takings" | "unitsSold" | "stockCost">;

/**
 * What was sold in all, and what it brought.
 * @param lines units sold, each line at one price
 * @example salesOf([{ sold: 5, price: micros(12_000_000) }]) // { takings: 60_000_000, unitsSold: 5 }
 */
export const salesOf = (lines: readonly Pick<DayLine, "sold" | "price">[]): Pick<DayResult, "takings" | "unitsSold"> => ({
  takings: sum(lines.map((l) => micros(l.sold * l.price))),
  unitsSold: lines.reduce((a, l) => a + l.sold, 0),
});

/**
 * The same of a day from before the books, whose takings are noted as they were.
 * @example pastSalesOf([{ units: 5, takings: micros(55_000_000) }]) // { takings: 55_000_000, unitsSold: 5 }
 */
export const pastSalesOf = (sales: readonly { units: number; takings: Micros }[]): Pick<DayResult, "takings" | "unitsSold"> => ({
  takings: sum(sales.map((s) => s.takings)),
  unitsSold: sales.reduce((a, s) => a + s.units, 0),
});

/**
 * What such a day left before what its goods cost, which nobody knows any more.
 * @example pastDayResult({ sales: [{ units: 5, takings: micros(55_000_000) }], stallFee: micros(20_000_000), travel: micros(0) }).left // 35_000_000
 */
export function pastDayResult(day: { sales: readonly { units: number; takings: Micros }[]; stallFee: Micros; travel: Micros }) {
  const sold = pastSalesOf(day.sales);
  return { ...sold, left: micros(sold.takings - day.stallFee - day.travel) };
}

/** @example dayResult({ ...day, stallFee: micros(20_000_000) }).profit // -20.00 */
export const dayResult = (day: DayIn): DayResult =>
  resultOf({ ...day, ...salesOf(day.lines), stockCost: sum(day.lines.map((l) => l.gone)) });

/**
 * The same of a day whose lines are added up already.
 * @example resultOf({ ...day, takings: micros(60_000_000), unitsSold: 5, stockCost: micros(10_000_000) }).profit // 50.00
 */
export function resultOf(day: Omit<DayIn, "lines"> & DaySums): DayResult {
  const { takings, unitsSold, stockCost } = day;
  const cardFee = micros(mulDiv(day.byCard, day.cardFeeBp, 10_000));
  const profit = micros(takings - stockCost - cardFee - day.stallFee - day.travel);
  return {
    takings,
    unitsSold,
    stockCost,
    cardFee,
    profit,
    perHour: day.hours > 0 ? micros(Math.round(profit / day.hours)) : null,
  };
}

/**
 * Units that went out of lots whose cost nobody knows: what a day left is then before what they cost.
 * @example costlessUnits([{ sold: 6, given: 1, damaged: 0, costKnown: "none" }, { sold: 4, given: 0, damaged: 0, costKnown: "guessed" }]) // 7
 */
export const costlessUnits = (lines: readonly (Pick<DayLine, "sold" | "given" | "damaged"> & { costKnown?: CostKnown })[]): number =>
  lines.reduce((a, l) => a + (l.costKnown === "none" ? l.sold + l.given + l.damaged : 0), 0);

/** Units of a line that come home. @example leftOver({ taken: 10, sold: 6, given: 1, damaged: 0 }) // 3 */
export const leftOver = (l: Pick<DayLine, "taken" | "sold" | "given" | "damaged">): number => l.taken - l.sold - l.given - l.damaged;
