/** What the ladder says of prices that don't fit together, in sentences. */
import { money } from "#core/measure/money";
import { perHundredGrams, type Asked, type Finding, type Rung } from "#core/pricing/ladder";
import type { ChannelId } from "#core/pricing/pricingMethods";

/** Where a price is asked, as it goes on in a sentence. */
const AT = { market: "at a market", online: "online", wholesale: "in wholesale", gift: "as a gift" } as const satisfies Record<
  ChannelId,
  string
>;

type Named = Pick<Rung, "id" | "label" | "fill" | "cost">;

/**
 * What is wrong, in a sentence.
 * @param sizes the product's
 * @example sayFinding({ wrong: "onlineLess", of: { id: 1, channel: "online", price: micros(9_900_000) }, against: { price: micros(12_000_000) } }, [rung], "EUR") // "30 g: €9.90 online is less than €12.00 at a market, where selling costs less."
 */
export function sayFinding({ wrong, of, against }: Finding, sizes: readonly Named[], currency: string): string {
  const size = (id: number): Named => sizes.find((s) => s.id === id)!;
  const cash = (m: number): string => money(m, currency);
  const { label, cost } = size(of.id);
  const at = AT[of.channel];
  const forHundred = (a: Asked): string => cash(perHundredGrams(a.price, size(a.id).fill));
  switch (wrong) {
    case "underCost":
      return `${label}: ${cash(of.price)} ${at} is less than it costs, ${cash(cost ?? 0)}, and the fee.`;
    case "shopNothing":
      return `${label}: a shop pays ${cash(of.price)}, and whoever buys ${AT[against!.channel]} ${cash(against!.price)}: that leaves the shop nothing.`;
    case "cheaperLarger":
      return `${label} for ${cash(of.price)} ${at} costs no more than ${size(against!.id).label} for ${cash(against!.price)}.`;
    case "dearerLarger":
      return `${label} is dearer per gram ${at} than ${size(against!.id).label}: ${forHundred(of)} for 100 g, not ${forHundred(against!)}.`;
    case "onlineLess":
      return `${label}: ${cash(of.price)} online is less than ${cash(against!.price)} at a market, where selling costs less.`;
  }
}

/**
 * The press that mends it.
 * @example sayMend({ id: 1, channel: "market", price: micros(4_500_000) }, [rung], "EUR") // "Ask €4.50 for 30 g at a market"
 */
export const sayMend = ({ id, channel, price }: Asked, sizes: readonly Named[], currency: string): string =>
  `Ask ${money(price, currency)} for ${sizes.find((s) => s.id === id)!.label} ${AT[channel]}`;
