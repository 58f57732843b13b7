/** The workshop's own choices as they are typed, and what each field is called. */
import { moneyField } from "#core/measure/money";
import { CHANNEL_IDS, type ChannelId } from "#core/pricing/pricingMethods";
import type { Settings } from "#core/settings/settings";
import { scaleId } from "./scales.ts";

/** The settings as their sheet says them. */
export const settingsTexts = (s: Settings) => ({
  workshop: s.workshop,
  maker: s.maker,
  reachUs: s.reachUs,
  currency: s.currency,
  school: s.school as string,
  hourly: moneyField(s.hourly),
  overheadHourly: moneyField(s.overheadHourly),
  batchScheme: s.batchScheme,
  receiptScheme: s.receiptScheme,
  jarScheme: s.jarScheme,
  herbValue: s.herbValue as string,
  leadDays: String(s.leadDays),
  coverDays: String(s.coverDays),
  scale: scaleId(s.scale),
  paper: s.paper as string,
  netRule: s.netRule as string,
  checkFirst: s.checkFirst ? "first" : "once",
  dates: s.dates as string,
  numbers: s.numbers as string,
  cardFee: String(s.cardFeeBp / 100),
  multiple: String(s.pricing.multipleHundredths / 100),
  margin: String(s.pricing.marginBp / 100),
  channels: Object.fromEntries(
    CHANNEL_IDS.map((c) => [
      c,
      {
        share: String(s.pricing.channels[c].shareBp / 100),
        fee: String(s.pricing.channels[c].feeBp / 100),
        point: s.pricing.channels[c].point,
      },
    ]),
  ) as Record<ChannelId, { share: string; fee: string; point: string }>,
});

export const FIELD_NAMES = {
  workshop: "Name",
  maker: "Who does the work",
  reachUs: "How customers reach you",
  currency: "Currency",
  school: "What a gram costs",
  hourly: "An hour of your work",
  overheadHourly: "Overhead for each hour",
  batchScheme: "Batches",
  receiptScheme: "What is received",
  jarScheme: "Jars",
  herbValue: "Herbs of your own",
  leadDays: "Days from ordering to delivery",
  coverDays: "Days an order should last",
  scale: "The scale",
  paper: "Paper",
  netRule: "Net weights by the rule of",
  checkFirst: "What is poured can be sold",
  dates: "Days are written",
  numbers: "Numbers are typed",
  cardFee: "Card fee, %",
  multiple: "Material cost times",
  margin: "Target margin, %",
  channels: "Channel",
};
