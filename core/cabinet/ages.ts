/**
 * How old what stands in the cabinet is, against the life it has: make only what is sold within half of it. Common practice, no source.
 */
import { groupBy } from "../collect.ts";
import { SOON_DAYS } from "../stock/lots.ts";
import { daysBetween, type Day } from "../when.ts";

export const AGES = {
  first: "in the first half of its life",
  second: "in the second half",
  soon: "near its day",
  past: "past its day",
} as const;
export type Age = keyof typeof AGES;
export const AGE_IDS = Object.keys(AGES) as Age[];

interface Dated {
  arrived: Day;
  bestBefore: Day | null;
}

/** @example ageOf({ arrived: "2026-01-01", bestBefore: "2027-01-01" }, "2026-08-01") // "second" */
export function ageOf({ arrived, bestBefore }: Dated, today: Day): Age {
  if (bestBefore === null) return "first";
  const left = daysBetween(today, bestBefore);
  if (left < 0) return "past";
  if (left <= SOON_DAYS) return "soon";
  return left * 2 >= daysBetween(arrived, bestBefore) ? "first" : "second";
}

export interface AgedProduct {
  of: number;
  name: string;
  units: Record<Age, number>;
}

/** Units of each product by age, the product with most of them past or near its day first. */
export function ages(lots: readonly (Dated & { of: number; name: string; label: string; onHand: number })[], today: Day): AgedProduct[] {
  const products = [...groupBy(lots, (l) => l.of)].map(([of, own]) => {
    const units = { first: 0, second: 0, soon: 0, past: 0 };
    for (const l of own) units[ageOf(l, today)] += l.onHand;
    return { of, name: `${own[0]!.name}, ${own[0]!.label.replace(/ /g, "\u00a0")}`, units };
  });
  const pressing = ({ units: u }: AgedProduct): number => u.past * 4 + u.soon * 2 + u.second;
  return products.sort((a, b) => pressing(b) - pressing(a));
}
