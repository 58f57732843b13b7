/** One product's prices: the pricing methods side by side on every channel, and the prices chosen. */
import { Link } from "react-router";
import type { Micros } from "#core/measure/exact";
import { money, moneyField } from "#core/measure/money";
import { firstUnread, parseMoney } from "#core/measure/read";
import { priceSteps } from "#core/pricing/history";
import {
  CHANNELS,
  CHANNEL_IDS,
  PRICING_METHODS,
  priceBy,
  viewPrice,
  type ChannelId,
  type PricingMethod,
} from "#core/pricing/pricingMethods";
import { COST_PART_IDS, COST_PARTS } from "#core/recipe/cost";
import { COSTING_METHODS } from "#core/stock/costingMethods";
import { today } from "#db/clock";
import { choosePrices, chosenPrices, chosenSoFar } from "#db/prices/prices";
import { costWritten, materialsOf, readShelf } from "#db/recipe/costs";
import { listProducts, productsNamed, readWhole } from "#db/recipe/read";
import { cachedSettings } from "#db/settings/settings";
import { object } from "yup";
import { db } from "../server/workshop.server.ts";
import { idOf } from "../forms/ids.ts";
import { optional } from "../forms/fields.ts";
import { openSheet } from "../forms/openSheet.server.ts";
import { runAct, readSheet } from "../forms/sheet.server.ts";
import { useSheet } from "../forms/useSheet.ts";
import { mindedIn } from "../shelf/minded.server.ts";
import { AWAY_SAID, Keeping } from "../away/keeping.tsx";
import { ActsOf } from "../book/actsOf.tsx";
import { actsOf } from "../book/lines.server.ts";
import { percent } from "../ui/figures/amounts.tsx";
import { Text } from "../ui/fields/form.tsx";
import { Figure, HowLine, Reckoner } from "../ui/figures/reckoner.tsx";
import { Empty, Heading, Part, Sheet, SideBySide } from "../ui/sheet/sheet.tsx";
import { Mind } from "../ui/sheet/mind.tsx";
import { Send, SheetSays } from "../forms/sheetSays.tsx";
import { Table, type Column } from "../ui/lists/table.tsx";
import { Print } from "../ui/sheet/print.tsx";
import { useWorkshop } from "../ui/workshop.ts";
import { PricesSoFar } from "./pricesSoFar.tsx";
import { Leaves, Suggested } from "./suggested.tsx";
import type { Route } from "./+types/product";

export const meta: Route.MetaFunction = ({ loaderData }) => [
  { title: `${(loaderData as { name?: string } | undefined)?.name ?? "Prices"}, prices · Zelbin` },
];

export async function loader({ params }: Route.LoaderArgs) {
  const id = idOf(params.id);
  const record = { kind: "product", id } as const;
  const [settings, [product], chosen, soFar, sheet, book] = await Promise.all([
    cachedSettings(db()),
    productsNamed(db(), [id], []),
    chosenPrices(db(), [id]),
    chosenSoFar(db(), id),
    openSheet(record),
    actsOf(record),
  ]);
  const written = product && (await readWhole(db(), product.recipeId));
  if (!product || !written) throw new Response("Not found", { status: 404 });
  const size = [...written.sizes, ...written.variants].find((s) => s.id === id);
  const minded = mindedIn([...written.lines, ...(size?.additions ?? [])].map((l) => l.materialId));
  const [costed] = costWritten([written], await readShelf(db(), today(), materialsOf([written])), settings);
  return {
    product,
    name: `${product.recipe}, ${product.label}`,
    cost: costed!.sizes.find((s) => s.id === id)!.cost,
    rules: settings.pricing,
    chosen: chosen.get(id) ?? {},
    steps: priceSteps(soFar),
    opened: sheet,
    book,
    minded: await minded,
  };
}

/** Prices as their sheet says them. */
const priceTexts = (own: Micros | null, chosen: Partial<Record<ChannelId, Micros>>) => {
  const text = (m: Micros | null | undefined): string => (m == null ? "" : moneyField(m));
  return {
    own: text(own),
    market: text(chosen.market),
    online: text(chosen.online),
    wholesale: text(chosen.wholesale),
    gift: text(chosen.gift),
  };
};

const schema = object({
  own: optional(parseMoney),
  market: optional(parseMoney),
  online: optional(parseMoney),
  wholesale: optional(parseMoney),
  gift: optional(parseMoney),
});

export async function action({ request, params }: Route.ActionArgs) {
  const sheet = await readSheet(request, schema);
  if (!sheet.ok) return sheet.reply;
  const { own, ...typed } = sheet.value;
  const prices = Object.fromEntries(CHANNEL_IDS.flatMap((c) => (typed[c] === null ? [] : [[c, typed[c]]]))) as Partial<
    Record<ChannelId, Micros>
  >;
  const productId = idOf(params.id);
  return runAct(() => choosePrices(db(), { productId, own, prices }, sheet.doing), {
    theirs: async () => {
      const product = (await listProducts(db())).find((p) => p.id === productId);
      return priceTexts(product?.ownPrice ?? null, (await chosenPrices(db())).get(productId) ?? {});
    },
  });
}

/** Rows of the table: the price asked, then what each pricing method would ask. */
type Row = PricingMethod | "asked";
const ROWS: readonly Row[] = ["asked", ...(Object.keys(PRICING_METHODS) as PricingMethod[])];

export default function ProductPrices({
  loaderData: { product, name, cost, rules, chosen, steps, opened: sheetOpened, book, minded },
}: Route.ComponentProps) {
  const { currency, school } = useWorkshop();
  const sheet = useSheet(priceTexts(product.ownPrice, chosen), sheetOpened, { draft: `Prices of ${product.recipe}, ${product.label}` });
  const v = sheet.values;
  const { errors } = sheet.formState;
  const one = cost.perUnit[school];
  const keeping = <Keeping of="product" id={product.id} retired={product.away} copy={`/recipes/${product.recipeId}`} />;
  if (!one)
    return (
      <>
        <Empty
          title={`${name} has no cost yet`}
          act={
            <Link to={`/recipes/${product.recipeId}`} className="act act-main">
              Open the recipe
            </Link>
          }
        >
          Something in it was never bought, or its batch doesn't fill one unit. Its Reckoner says which.
        </Empty>
        {keeping}
      </>
    );
  const minutes = cost.minutes / cost.units;
  const own = parseMoney(v.own);
  const explain: Record<Row, string> = {
    asked: "with what it leaves of itself, and for an hour of making",
    multiple: `materials × ${rules.multipleHundredths / 100}`,
    doubled: "all costs × 2 for wholesale, × 2 again for the shelf",
    margin: `${rules.marginBp / 100} % left after all costs and the fee`,
    own: "what you would ask",
  };
  const asked = (c: ChannelId) => {
    const price = parseMoney(v[c]);
    return price.ok ? viewPrice(price.value, one, rules.channels[c].feeBp, minutes) : null;
  };
  return (
    <form onSubmit={sheet.send()}>
      <Heading
        title={name}
        about={
          product.retired ? AWAY_SAID : "Each method rounds to the coins of its channel; take one over with a press, or type your own."
        }
      >
        <Link to="/prices" className="act">
          All prices
        </Link>
        <Print />
        <Send sheet={sheet}>Save these prices</Send>
      </Heading>
      <SideBySide
        reckoner={
          <Reckoner
            unread={firstUnread([["Own figure", v.own, parseMoney], ...CHANNEL_IDS.map((c) => [CHANNELS[c], v[c], parseMoney] as const)])}
          >
            <Figure
              label="Cost of one unit"
              big
              value={money(one.total, currency)}
              how={
                <p>
                  By {COSTING_METHODS[school].toLowerCase()}, at a batch of {cost.units} units.
                </p>
              }
            />
            {COST_PART_IDS.map((p) => (
              <Figure key={p} label={COST_PARTS[p]} value={money(one[p], currency)} />
            ))}
            <Figure label="Work in one unit" value={`${minutes.toFixed(1)} min`} />
            {CHANNEL_IDS.map((c) => {
              const view = asked(c);
              if (!view) return <Figure key={c} label={CHANNELS[c]} value="no price" />;
              return (
                <Figure
                  key={c}
                  label={`${CHANNELS[c]}, margin`}
                  tone={view.margin < 0 ? "bad" : "good"}
                  value={`${money(view.margin, currency)}, ${percent(view.marginShare, 0)}`}
                  how={
                    <>
                      <HowLine label="Price" value={money(view.price, currency)} />
                      <HowLine label={`Fee, ${percent(rules.channels[c].feeBp / 10_000, 2)}`} value={`− ${money(view.fee, currency)}`} />
                      <HowLine label="All costs" value={`− ${money(one.total, currency)}`} />
                      {view.perHour !== null && <HowLine label="An hour of making brings" value={money(view.perHour, currency)} />}
                    </>
                  }
                />
              );
            })}
          </Reckoner>
        }
      >
        <Sheet>
          <SheetSays sheet={sheet} names={{ own: "Own figure", ...CHANNELS }} />
          <Part title="In each channel">
            <Table
              rows={ROWS}
              by={(s) => s}
              columns={[
                {
                  head: "Price",
                  className: "align-top",
                  cell: (s) => (
                    <>
                      <strong className={s === "asked" ? "font-display text-lead font-normal" : ""}>
                        {s === "asked" ? "What you ask" : PRICING_METHODS[s]}
                      </strong>
                      <span className="block text-fine text-pine-soft">{explain[s]}</span>
                      {s === "own" && (
                        <Text
                          data-amount
                          label={<span className="sr-only">Own figure</span>}
                          placeholder="none"
                          className="mt-1 w-28"
                          {...sheet.register("own")}
                          problem={errors.own?.message}
                        />
                      )}
                    </>
                  ),
                },
                ...CHANNEL_IDS.map((c): Column<Row> => ({
                  head: CHANNELS[c],
                  as: "figure",
                  className: "align-top",
                  width: "17%",
                  cell: (s) => {
                    const view = asked(c);
                    return s === "asked" ? (
                      <span className="inline-flex w-28 max-w-full flex-col items-end">
                        <Text
                          data-amount
                          label={<span className="sr-only">{CHANNELS[c]}</span>}
                          placeholder="none"
                          className="w-full whitespace-normal [&_input]:text-right [&_input]:text-lead"
                          {...sheet.register(c)}
                          problem={errors[c]?.message}
                        />
                        {view && <Leaves view={view} />}
                      </span>
                    ) : (
                      <Suggested
                        view={priceBy(s, c, one, rules, own.ok ? own.value : null, minutes)}
                        channel={CHANNELS[c]}
                        take={(price) => sheet.setValue(c, moneyField(price), { shouldDirty: true })}
                      />
                    );
                  },
                })),
              ]}
            />
          </Part>
          <PricesSoFar steps={steps} />
          <Part title="Cautions">
            <Mind of={minded} />
          </Part>
          <ActsOf {...book} />
          {keeping}
        </Sheet>
      </SideBySide>
    </form>
  );
}
