/** Every product's chosen prices, and what each leaves. */
import { Link } from "react-router";
import { money } from "#core/measure/money";
import { CHANNELS, CHANNEL_IDS, viewPrice } from "#core/pricing/pricingMethods";
import { today } from "#db/clock";
import { chosenPrices } from "#db/prices/prices";
import { unitCostsOf } from "#db/recipe/costs";
import { cachedSettings } from "#db/settings/settings";
import { db } from "../server/workshop.server.ts";
import { percent } from "../ui/figures/amounts.tsx";
import { Empty, Heading, Sheet } from "../ui/sheet/sheet.tsx";
import { ListTable } from "../ui/lists/listTable.tsx";
import { SaveAs } from "../ui/lists/saveAs.tsx";
import { SaveList } from "../ui/lists/saveList.tsx";
import type { Column } from "../ui/lists/table.tsx";
import { useWorkshop } from "../ui/workshop.ts";
import { laddersOf } from "./ladders.ts";
import { PRICES_FILE } from "./pricesFile.ts";
import type { Route } from "./+types/prices";

export const meta: Route.MetaFunction = () => [{ title: "Prices · Zelbin" }];

export async function loader() {
  const settings = await cachedSettings(db());
  const [recipes, chosen] = await Promise.all([unitCostsOf(db(), settings, today()), chosenPrices(db())]);
  const unfit = laddersOf(recipes, chosen, settings).reduce((a, l) => a + l.findings.length, 0);
  const products = recipes.flatMap(({ recipe, sizes }) =>
    sizes.map(({ id, label, cost }) => {
      const one = cost.perUnit[settings.school];
      const prices = chosen.get(id) ?? {};
      return {
        id,
        name: recipe.name,
        label,
        cost: one?.total ?? null,
        views: CHANNEL_IDS.map((c) => {
          const price = prices[c];
          return price === undefined
            ? null
            : { price, view: one ? viewPrice(price, one, settings.pricing.channels[c].feeBp, cost.minutes / cost.units) : null };
        }),
      };
    }),
  );
  return { products, unfit };
}

export default function Prices({ loaderData: { products, unfit } }: Route.ComponentProps) {
  const { currency } = useWorkshop();
  return (
    <>
      <Heading
        title="Prices"
        about="Under each price: what is left of it after every cost, the fee and your hours. Open a product to see what the pricing methods say."
      >
        {products.length > 0 && (
          <>
            <Link to="/prices/file" className="act">
              From a file
            </Link>
            <Link to="/prices/ladder" className="act">
              {unfit > 0 ? `Ladder, ${unfit} to look at` : "Ladder"}
            </Link>
          </>
        )}
      </Heading>
      {products.length === 0 ? (
        <Empty
          title="Nothing to price yet"
          act={
            <Link to="/recipes/new" className="act act-main">
              Write a recipe
            </Link>
          }
        >
          A product is a recipe in a size. Write a recipe and it can be priced here.
        </Empty>
      ) : (
        <Sheet>
          <ListTable
            what="products"
            rows={products}
            by={(p) => p.id}
            under={(found) => <SaveList what="prices" rows={found} columns={PRICES_FILE} />}
            finds={(p) => `${p.name} ${p.label}`}
            columns={[
              {
                head: "Product",
                sorts: (p) => `${p.name} ${p.label}`,
                cell: (p) => (
                  <>
                    <Link to={`/prices/${p.id}`} className="font-display text-lead hover:underline">
                      {p.name}
                    </Link>{" "}
                    <span className="weight text-small text-pine-soft">{p.label}</span>
                  </>
                ),
              },
              { head: "Costs", as: "figure", sorts: (p) => p.cost, cell: (p) => (p.cost === null ? "—" : money(p.cost, currency)) },
              ...CHANNEL_IDS.map((c, i): Column<(typeof products)[number]> => ({
                head: CHANNELS[c],
                as: "figure",
                sorts: ({ views }) => views[i]?.price ?? null,
                cell: ({ views }) => {
                  const v = views[i];
                  return (
                    <>
                      {v ? <strong>{money(v.price, currency)}</strong> : <span className="text-pine-soft">no price</span>}
                      {v?.view && (
                        <span className={`block text-fine ${v.view.margin < 0 ? "font-semibold text-berry" : "text-pine-soft"}`}>
                          {v.view.margin < 0 ? "loses " : ""}
                          {percent(Math.abs(v.view.marginShare), 0)}
                        </span>
                      )}
                    </>
                  );
                },
              })),
              {
                head: "An hour brings",
                as: "figure",
                sorts: (p) => p.views[0]?.view?.perHour ?? null,
                cell: (p) => (p.views[0]?.view?.perHour != null ? money(p.views[0].view.perHour, currency) : "—"),
              },
            ]}
          />
          <SaveAs
            files={CHANNEL_IDS.filter((_, i) => products.some((p) => p.views[i])).map((c) => [
              `/prices/pdf?for=${c}`,
              `Price list as PDF: ${CHANNELS[c].toLowerCase()}`,
            ])}
          />
          <p className="mt-3 text-small text-pine-soft">
            An hour brings: at the market price, what is left for each hour of making after materials, overhead and fee.
          </p>
        </Sheet>
      )}
    </>
  );
}
