/**
 * A product's prices as a ladder: what doesn't fit together among its sizes and channels, worst first, each with the price that would mend it.
 *
 * Common practice, no source: a larger size costs more, and less per gram (10 to 25 %); a shop pays less than whoever buys from the maker; what
 * is sold online costs no less than at the stall, where selling costs less. A mend is offered only where it leaves nothing else out of line.
 */
import { groupBy } from "../collect.ts";
import { micros, mulDiv, type Mg, type Micros } from "../measure/exact.ts";
import { CHANNEL_IDS, type Channel, type ChannelId, type PricingRules } from "./pricingMethods.ts";
import { PRICE_POINTS, roundToPoint } from "./rounding.ts";

export interface Rung {
  /** Of the product. */
  id: number;
  label: string;
  /** Net weight of one unit. */
  fill: Mg;
  /** Of one unit, all costs; null where it isn't known. */
  cost: Micros | null;
  prices: Partial<Record<ChannelId, Micros>>;
}

export const OUT_OF_LINE = ["underCost", "shopNothing", "cheaperLarger", "dearerLarger", "onlineLess"] as const;

/** A price: of which size, on which channel. */
export interface Asked {
  id: number;
  channel: ChannelId;
  price: Micros;
}

export interface Finding {
  wrong: (typeof OUT_OF_LINE)[number];
  /** What is out of line, and against what; against nothing where it is under its cost. */
  of: Asked;
  against: Asked | null;
  /** Prices that mend it, the safer first; none where more than one price has to change. */
  mends: Asked[];
}

/** How much less a larger size usually costs per gram, in basis points. Common practice, no source. */
const LARGER_LESS_BP = 1500;

/** Prices that a customer of the maker's own pays. */
const OWN_CHANNELS = CHANNEL_IDS.filter((c) => c !== "wholesale");

/** What is left of a price after the channel's fee. */
const afterFee = (price: Micros, feeBp: number): Micros => micros(price - mulDiv(price, feeBp, 10_000));

/**
 * The least price at which nothing is lost, in the channel's coins; null where the fee takes all of it.
 * @param marginBp the share of it that is to be left, in basis points
 * @example leastPrice(micros(4_300_000), { shareBp: 10_000, feeBp: 120, point: "half" }) // 4.50
 */
export function leastPrice(cost: Micros, { feeBp, point }: Channel, marginBp = 0): Micros | null {
  const left = 10_000 - feeBp - marginBp;
  if (left <= 0) return null;
  return roundToPoint(micros(Math.ceil((cost * 10_000) / left)), point, "up");
}

/** Whether a gram of `a` is dearer than a gram of `b`. Exact: a price and a weight multiplied are more than a number holds. */
const dearerPerGram = (a: [Micros, Mg], b: [Micros, Mg]): boolean => BigInt(a[0]) * BigInt(b[1]) > BigInt(b[0]) * BigInt(a[1]);

/** Every size with each of the next smaller weight: what holds from step to step holds along the ladder. @param sizes smallest first */
function nextLarger<S extends { fill: Mg }>(sizes: readonly S[]): [small: S, large: S][] {
  const weights = [...groupBy(sizes, (s) => s.fill).values()];
  return weights.slice(1).flatMap((larger, i) => larger.flatMap((l) => weights[i]!.map((s): [S, S] => [s, l])));
}

/** What doesn't fit, without what would mend it. @param rungs sizes, smallest first */
function outOfLine(rungs: readonly Rung[], { channels, marginBp }: PricingRules): (Omit<Finding, "mends"> & { tries: Asked[] })[] {
  const found: (Omit<Finding, "mends"> & { tries: Asked[] })[] = [];
  const asked = (r: Rung, channel: ChannelId): Asked | null => {
    const price = r.prices[channel];
    return price === undefined ? null : { id: r.id, channel, price };
  };
  const at = ({ id, channel }: Asked, price: number, to: "near" | "up" | "down"): Asked => ({
    id,
    channel,
    price: roundToPoint(micros(Math.round(price)), channels[channel].point, to),
  });
  for (const r of rungs) {
    for (const channel of CHANNEL_IDS) {
      const of = asked(r, channel);
      if (!of || r.cost === null || afterFee(of.price, channels[channel].feeBp) >= r.cost) continue;
      // Nobody works for nothing: what is wished first, and only where that can't be what at least covers it.
      const tries = [marginBp, 0].flatMap((m) => leastPrice(r.cost!, channels[channel], m) ?? []).map((price) => ({ ...of, price }));
      found.push({ wrong: "underCost", of, against: null, tries });
    }
    const shop = asked(r, "wholesale");
    const own = OWN_CHANNELS.flatMap((c) => asked(r, c) ?? []).sort((a, b) => a.price - b.price)[0];
    if (shop && own && shop.price >= own.price) {
      const { shareBp } = channels.wholesale;
      const tries = [
        at(shop, (own.price * shareBp) / 10_000, "near"),
        ...(shareBp > 0 ? [at(own, (shop.price * 10_000) / shareBp, "up")] : []),
      ];
      found.push({ wrong: "shopNothing", of: shop, against: own, tries });
    }
    const [online, market] = [asked(r, "online"), asked(r, "market")];
    // Coins differ between channels; that much is rounding.
    if (online && market && online.price + PRICE_POINTS[channels.online.point].step <= market.price)
      found.push({
        wrong: "onlineLess",
        of: online,
        against: market,
        tries: [at(online, market.price, "up"), at(market, online.price, "down")],
      });
  }
  for (const channel of CHANNEL_IDS) {
    const priced = rungs.flatMap((r) => {
      const a = asked(r, channel);
      return a ? [{ ...a, fill: r.fill, cost: r.cost }] : [];
    });
    for (const [small, large] of nextLarger(priced)) {
      const [of, against] = [large, small].map(({ id, price }) => ({ id, channel, price })) as [Asked, Asked];
      const ofLarge = (of.price * small.fill) / large.fill;
      const ofSmall = (against.price * large.fill) / small.fill;
      const less = (10_000 - LARGER_LESS_BP) / 10_000;
      if (large.price <= small.price) {
        const least = (large.cost !== null && leastPrice(large.cost, channels[channel])) || micros(0);
        const justMore = at(of, Math.max(least, small.price + PRICE_POINTS[channels[channel].point].step), "up");
        const tries = [at(of, ofSmall * less, "near"), at(against, ofLarge / less, "near"), justMore];
        found.push({ wrong: "cheaperLarger", of, against, tries });
      } else if (dearerPerGram([large.price, large.fill], [small.price, small.fill]))
        found.push({ wrong: "dearerLarger", of, against, tries: [at(against, ofLarge, "up"), at(of, ofSmall, "down")] });
    }
  }
  return found.sort((a, b) => OUT_OF_LINE.indexOf(a.wrong) - OUT_OF_LINE.indexOf(b.wrong));
}

const keyOf = ({ wrong, of, against }: Pick<Finding, "wrong" | "of" | "against">): string =>
  `${wrong} ${of.channel} ${of.id} ${against && against.id !== of.id ? against.id : ""}`;

/** So many are offered: a press among more is a puzzle. */
const MENDS: Record<Finding["wrong"], number> = { underCost: 1, shopNothing: 2, cheaperLarger: 1, dearerLarger: 2, onlineLess: 2 };

/**
 * What doesn't fit among a product's prices, worst first.
 * @param sizes of one product, in any order; those of one weight aren't compared with each other
 * @returns each with the prices that would mend it: a mend ends its finding, brings no other, and is never under its cost
 * @example ladderFindings([{ ...rung, prices: { market: micros(6_000_000), wholesale: micros(6_000_000) } }], rules)[0]?.wrong // "shopNothing"
 */
export function ladderFindings(sizes: readonly Rung[], rules: PricingRules): Finding[] {
  const { channels } = rules;
  const rungs = [...sizes].sort((a, b) => a.fill - b.fill || a.id - b.id);
  const found = outOfLine(rungs, rules);
  const keys = new Set(found.map(keyOf));
  const mends = (key: string, { id, channel, price }: Asked): boolean => {
    const changed = rungs.map((r) => (r.id === id ? { ...r, prices: { ...r.prices, [channel]: price } } : r));
    const after = outOfLine(changed, rules).map(keyOf);
    const { cost } = rungs.find((r) => r.id === id)!;
    const worth = cost === null || afterFee(price, channels[channel].feeBp) >= cost;
    return worth && !after.includes(key) && after.every((k) => keys.has(k));
  };
  return found.map(({ tries, ...f }) => ({ ...f, mends: tries.filter((t) => mends(keyOf(f), t)).slice(0, MENDS[f.wrong]) }));
}

/**
 * What a hundred grams of it cost on a channel.
 * @example perHundredGrams(micros(12_000_000), mg(60_000)) // 20.00
 */
export const perHundredGrams = (price: Micros, fill: Mg): Micros => micros(mulDiv(price, 100_000, fill));
