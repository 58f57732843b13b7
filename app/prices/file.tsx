/** A price list from a spreadsheet's file or a paste: shown first, chosen as one act. */
import { PRICES, readPrices, type PriceField, type PricesLine } from "#core/listsIn/prices";
import { money } from "#core/measure/money";
import { CHANNEL_IDS, CHANNELS } from "#core/pricing/pricingMethods";
import { chosenPrices, choosePricesOfList } from "#db/prices/prices";
import { Link } from "react-router";
import { listAction } from "../forms/table/listFile.server.ts";
import { ListFile } from "../forms/table/listFile.tsx";
import { productChoices, productsMeant } from "../forms/table/products.server.ts";
import { unknownProducts } from "../forms/table/unknownNames.tsx";
import { db } from "../server/workshop.server.ts";
import { useWorkshop } from "../ui/workshop.ts";
import type { Route } from "./+types/file";

export const meta: Route.MetaFunction = () => [{ title: "Prices, from a file · Zelbin" }];

export const loader = async () => ({ products: await productChoices(), token: crypto.randomUUID() });

const WORDS = ["product", "products"] as const;

export const action = ({ request }: Route.ActionArgs) =>
  listAction(request, {
    spec: PRICES,
    words: WORDS,
    read: async ({ rows, reading, matches }) => {
      const list = readPrices(rows, await productsMeant(matches), await chosenPrices(db()), reading);
      return { list, more: null, add: (doing) => choosePricesOfList(db(), { lines: list.fresh }, doing) };
    },
  });

export default function PricesFile({ loaderData: { products, token } }: Route.ComponentProps) {
  const { currency } = useWorkshop();
  const names = new Map(products);
  return (
    <ListFile<PriceField, PricesLine, null>
      spec={PRICES}
      token={token}
      title="Prices, from a file"
      about="A spreadsheet’s file, or rows pasted from one: what it is, its size, and a column for each channel. A price that is another than today’s is chosen; what was sold keeps its own."
      links={
        <Link to="/prices" className="act">
          All prices
        </Link>
      }
      placeholder={"product;size;market;online;wholesale\nHand balm;60 g;12,50;13,00;7,00"}
      words={WORDS}
      names={unknownProducts(products, "leave these rows out")}
      columns={[
        { head: "Product", cell: (l) => <span className="font-display text-lead">{names.get(String(l.productId))}</span> },
        ...CHANNEL_IDS.map((c) => ({
          head: CHANNELS[c],
          as: "figure" as const,
          cell: (l: PricesLine) => (l.prices[c] === undefined ? "stays" : money(l.prices[c], currency)),
        })),
      ]}
    />
  );
}
