/** What a product was sold for before: the prices that were chosen for it, told as changes. */
import type { Micros } from "../measure/exact.ts";
import type { Day } from "../when.ts";
import type { ChannelId } from "./pricingMethods.ts";

/** A price as it was chosen. */
export interface ChosenPrice {
  actId: number;
  day: Day;
  channel: ChannelId;
  price: Micros;
}

/** What changed on one day by one act. */
export interface PriceStep {
  actId: number;
  day: Day;
  prices: Partial<Record<ChannelId, Micros>>;
}

/**
 * What changed by each act, newest first. A price chosen again as it was is no change.
 * @param chosen in the order they were chosen
 * @example priceSteps([{ actId: 1, day: "2026-05-01", channel: "market", price: micros(9_000_000) }, { actId: 2, day: "2026-06-01", channel: "market", price: micros(9_000_000) }]).length // 1
 */
export function priceSteps(chosen: readonly ChosenPrice[]): PriceStep[] {
  const now: PriceStep["prices"] = {};
  const steps: PriceStep[] = [];
  for (const { actId, day, channel, price } of chosen) {
    if (now[channel] === price) continue;
    now[channel] = price;
    const last = steps.at(-1);
    if (last?.actId === actId) last.prices[channel] = price;
    else steps.push({ actId, day, prices: { [channel]: price } });
  }
  return steps.reverse();
}
