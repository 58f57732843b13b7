/**
 * When to buy again, and how much: learned from use, or by a point set by hand.
 *
 * What is used between noticing and delivery, and as long again for safety, is when to buy; what lasts for the cover is how much.
 * Common practice, no source.
 */
import type { Base } from "../measure/exact.ts";
import { addDays, daysBetween, type Day } from "../when.ts";
import type { ReorderBy } from "../material/facts.ts";

export interface MonthUse {
  /** First of the month. */
  month: Day;
  used: Base;
}

/** Use older than this says little about now. */
export const LEARN_DAYS = 180;

/**
 * What is used of a material in a day, over the last half year or since it was first used.
 * @returns null while there is less than a fortnight to go by
 * @example usedPerDay([{ month: "2026-10-01", used: 3100 }], "2026-11-01") // 100
 */
export function usedPerDay(months: readonly MonthUse[], today: Day): number | null {
  const from = addDays(today, -LEARN_DAYS);
  const firstOfFrom = `${from.slice(0, 7)}-01`;
  const recent = months.filter((m) => m.month >= firstOfFrom && m.month <= today && m.used !== 0);
  if (recent.length === 0) return null;
  const first = recent.reduce((a, m) => (m.month < a ? m.month : a), recent[0]!.month);
  const days = daysBetween(first, today);
  return days < 14 ? null : Math.max(0, recent.reduce((a, m) => a + m.used, 0) / days);
}

export interface ReorderRule {
  leadDays: number;
  coverDays: number;
}

export interface StockLine {
  onHand: Base;
  /** Ordered and still to come. */
  coming: Base;
  reorderBy: ReorderBy;
  reorderAt: Base | null;
  perDay: number | null;
}

/** Below this it is time to buy; null where nobody wants reminding, or nothing is known. @example reorderPoint(stock, { leadDays: 14, coverDays: 60 }) // 280 */
export function reorderPoint(s: StockLine, rule: ReorderRule): Base | null {
  if (s.reorderBy === "hand") return s.reorderAt;
  if (s.reorderBy === "never" || s.perDay === null) return null;
  return Math.ceil(s.perDay * rule.leadDays * 2);
}

/**
 * How much to buy now; 0 when there is enough.
 * @example toBuy(stock, { leadDays: 14, coverDays: 60 }) // 780
 */
export function toBuy(s: StockLine, rule: ReorderRule): Base {
  const point = reorderPoint(s, rule);
  if (point === null || s.onHand + s.coming >= point) return 0;
  // Up to the point and the cover after it; without known use, up to twice the point set by hand.
  const upTo = point + (s.perDay ? Math.ceil(s.perDay * rule.coverDays) : point);
  return upTo - s.onHand - s.coming;
}

const DAYS_A_MONTH = 365.25 / 12;

/** How many months of use there are on hand; null where nothing was used lately. @example lastsMonths(7305, 20) // 12 */
export const lastsMonths = (onHand: Base, perDay: number | null): number | null =>
  perDay === null || perDay <= 0 ? null : onHand / perDay / DAYS_A_MONTH;

/** @example sayMonths(0.4) // "12 days" */
/** @example sayMonths(2.26) // "2.3 months" */
export function sayMonths(months: number): string {
  if (months < 1) {
    const days = Math.floor(months * DAYS_A_MONTH);
    return days === 1 ? "1 day" : `${days} days`;
  }
  return months >= 24
    ? `${Math.floor(months / 12)} years`
    : `${months < 10 ? months.toFixed(1).replace(/\.0$/, "") : Math.round(months)} months`;
}
