/** A price list as PDF, for those who buy: what there is and what it costs them, and nothing of what it costs to make. */
import { CHANNELS, CHANNEL_IDS } from "#core/pricing/pricingMethods";
import { groupBy } from "#core/collect";
import { today } from "#db/clock";
import type { Cell } from "../paper/paper.ts";
import { pdfFile } from "../paper/pdf.server.ts";
import { loader as page } from "./prices.tsx";
import type { Route } from "./+types/pricesPdf";

export async function loader({ request }: Route.LoaderArgs) {
  const asked = CHANNEL_IDS.indexOf(new URL(request.url).searchParams.get("for") as (typeof CHANNEL_IDS)[number]);
  const channel = CHANNEL_IDS[asked];
  if (!channel) throw new Response("No such price", { status: 404 });
  const priced = (await page()).products.flatMap((p) => (p.views[asked] ? [{ ...p, price: p.views[asked].price }] : []));
  // One name, its sizes beneath one another.
  const named = [...groupBy(priced, (p) => p.name)].sort(([a], [b]) => a.localeCompare(b));
  return pdfFile(({ money, day, settings }) => ({
    title: "Price list",
    file: `prices-${channel}-${today()}`,
    about: [settings.workshop, settings.reachUs, `${CHANNELS[channel]}, ${day(today())}`].filter(Boolean).join("\n"),
    parts: [
      {
        columns: [{ head: "Product" }, { head: "Size" }, { head: "Price", as: "figure" }],
        groups: [
          {
            rows: named.flatMap(([name, sizes]) => sizes.map((s, i): Cell[] => [{ text: name, strong: i === 0 }, s.label, money(s.price)])),
          },
        ],
      },
    ],
  }));
}
