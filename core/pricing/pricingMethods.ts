/**
 * What a product could be sold at, by the methods makers price by (common practice, no source), and what each implies.
 *
 * - `multiple`: materials times three or four;
 * - `doubled`: all costs, hours included, doubled for wholesale and doubled again for retail;
 * - `margin`: the price at which a wished share of it is left after all costs and the channel's fee;
 * - `own`: the maker's own figure.
 */
import { micros, mulDiv, type Micros } from "../measure/exact.ts";
import type { UnitCosts } from "../recipe/cost.ts";
import { roundToPoint, type PricePoint } from "./rounding.ts";

export const PRICING_METHODS = {
  multiple: "Materials multiplied",
  doubled: "All costs, doubled twice",
  margin: "Target margin",
  own: "Own figure",
} as const;
export type PricingMethod = keyof typeof PRICING_METHODS;

export const CHANNELS = { market: "Market", online: "Online", wholesale: "Wholesale", gift: "Gift" } as const;
export type ChannelId = keyof typeof CHANNELS;
export const CHANNEL_IDS = Object.keys(CHANNELS) as ChannelId[];

export interface Channel {
  /** Share of the shelf price asked here, in basis points: 10 000 is the full price, 5 000 half. */
  shareBp: number;
  /** Fee taken of each sale (card, marketplace), in basis points. */
  feeBp: number;
  point: PricePoint;
}

export interface PricingRules {
  /** Material cost times this, in hundredths: 350 is × 3.5. */
  multipleHundredths: number;
  /** Target margin in basis points of the price, below 10 000 less any fee. */
  marginBp: number;
  channels: Record<ChannelId, Channel>;
}

export interface PriceView {
  price: Micros;
  fee: Micros;
  /** Left after every cost, the maker's hours included. */
  margin: Micros;
  /** `margin` as a share of the price. */
  marginShare: number;
  /** What an hour of work brings in: price less fee, materials and overhead, over the hours in a unit; null without work. */
  perHour: Micros | null;
}

/**
 * What a method asks on a channel before rounding, or null where it has no answer (no own figure, an impossible margin).
 * A shelf price is scaled by the channel's share; doubling has its own wholesale price, and a margin is set for each
 * channel as it is.
 * @example askedPrice("doubled", "wholesale", cost, rules, null) // 9.00
 */
export function askedPrice(
  school: PricingMethod,
  channel: ChannelId,
  cost: UnitCosts,
  rules: PricingRules,
  own: Micros | null,
): Micros | null {
  const { shareBp, feeBp } = rules.channels[channel];
  const onChannel = (shelf: number): Micros => micros(mulDiv(shelf, shareBp, 10_000));
  switch (school) {
    case "multiple":
      return onChannel(mulDiv(cost.materials, rules.multipleHundredths, 100));
    case "doubled":
      return channel === "wholesale" ? micros(cost.total * 2) : onChannel(cost.total * 4);
    case "margin": {
      const left = 10_000 - rules.marginBp - feeBp;
      return left > 0 ? micros(Math.ceil((cost.total * 10_000) / left)) : null;
    }
    case "own":
      return own === null ? null : onChannel(own);
  }
}

/**
 * What a price means on a channel.
 * @param minutes work in one unit
 * @example viewPrice(micros(9_000_000), cost, 0, 4).marginShare // 0.5
 */
export function viewPrice(price: Micros, cost: UnitCosts, feeBp: number, minutes: number): PriceView {
  const fee = micros(mulDiv(price, feeBp, 10_000));
  const margin = micros(price - fee - cost.total);
  const forWork = price - fee - cost.materials - cost.overhead;
  return {
    price,
    fee,
    margin,
    marginShare: price > 0 ? margin / price : 0,
    perHour: minutes > 0 ? micros(Math.round((forWork * 60) / minutes)) : null,
  };
}

/**
 * A school's rounded price on a channel with what it implies.
 * @example priceBy("multiple", "market", cost, rules, null, 4)?.price // 10.50
 */
export function priceBy(
  school: PricingMethod,
  channel: ChannelId,
  cost: UnitCosts,
  rules: PricingRules,
  own: Micros | null,
  minutes: number,
): PriceView | null {
  const { feeBp, point } = rules.channels[channel];
  const asked = askedPrice(school, channel, cost, rules, own);
  // A margin that is wished is the least: what rounding to coins took from it nobody would notice but the maker.
  return asked === null ? null : viewPrice(roundToPoint(asked, point, school === "margin" ? "up" : "near"), cost, feeBp, minutes);
}
