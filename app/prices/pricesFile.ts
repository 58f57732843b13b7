/** Chosen prices as a file: for each product what it costs and, for each channel, the price and what it leaves. */
import type { FileColumn } from "#core/lists/fileColumns";
import { CHANNELS, CHANNEL_IDS } from "#core/pricing/pricingMethods";
import type { Route } from "./+types/prices";

type Product = Route.ComponentProps["loaderData"]["products"][number];

export const PRICES_FILE: FileColumn<Product>[] = [
  { head: "product", of: (p) => p.name },
  { head: "size", of: (p) => p.label },
  { head: "costs", of: (p) => p.cost, as: "money" },
  ...CHANNEL_IDS.flatMap((c, i): FileColumn<Product>[] => [
    { head: `${CHANNELS[c]}: price`, of: (p) => p.views[i]?.price ?? null, as: "money" },
    { head: `${CHANNELS[c]}: left`, of: (p) => p.views[i]?.view?.margin ?? null, as: "money" },
    { head: `${CHANNELS[c]}: left of the price`, of: (p) => p.views[i]?.view?.marginShare ?? null, as: "percent" },
    { head: `${CHANNELS[c]}: an hour brings`, of: (p) => p.views[i]?.view?.perHour ?? null, as: "money" },
  ]),
];
