/** One product's prices: the schools side by side on every channel, and the prices chosen. */
import { micros, type Micros } from "#core/measure/exact";
import { money, moneyField } from "#core/measure/money";
import { firstUnread, parseMoney } from "#core/measure/read";
import { CHANNELS, CHANNEL_IDS, PRICE_SCHOOLS, priceBy, viewPrice, type ChannelId, type PriceSchool } from "#core/pricing/schools";
import { COST_PART_IDS, COST_PARTS } from "#core/recipe/cost";
import { SCHOOLS } from "#core/stock/schools";
import { today } from "#db/clock";
import { choosePrices, chosenPrices } from "#db/prices/prices";
import { costWritten, materialsOf, readShelf } from "#db/recipe/costs";
import { listProducts, productsNamed, readWhole } from "#db/recipe/read";
import { keptSettings } from "#db/settings";
import { object } from "yup";
import { Link } from "../ui/link.tsx";
import { db } from "../db.server.ts";
import { idOf } from "../forms/ids.ts";
import { optional } from "../forms/fields.ts";
import { opened } from "../forms/opened.server.ts";
import { act, readSheet } from "../forms/sheet.server.ts";
import { useSheet } from "../forms/useSheet.ts";
import { AWAY_SAID, Keeping } from "../away/keeping.tsx";
import { ActsOf } from "../book/actsOf.tsx";
import { actsOf } from "../book/lines.server.ts";
import { percent } from "../ui/figures/amounts.tsx";
import { Text } from "../ui/fields/form.tsx";
import { Figure, HowLine, Reckoner } from "../ui/figures/reckoner.tsx";
import { Empty, Heading, Part, Sheet, SideBySide } from "../ui/sheet/sheet.tsx";
import { Send, SheetSays } from "../ui/sheet/sheetSays.tsx";
import { Table, type Column } from "../ui/lists/table.tsx";
import { Print } from "../ui/sheet/print.tsx";
import { useWorkshop } from "../ui/workshop.ts";
import type { Route } from "./+types/product";

export const meta: Route.MetaFunction = ({ loaderData }) => [
  { title: `${(loaderData as { name?: string } | undefined)?.name ?? "Prices"}, prices · Zelbin` },
];

export async function loader({ params }: Route.LoaderArgs) {
  const id = idOf(params.id);
  const record = { kind: "product", id } as const;
  const [settings, [product], chosen, sheet, book] = await Promise.all([
    keptSettings(db()),
    productsNamed(db(), [id], []),
    chosenPrices(db(), [id]),
    opened(record),
    actsOf(record),
  ]);
  const written = product && (await readWhole(db(), product.recipeId));
  if (!product || !written) throw new Response("Not found", { status: 404 });
  const [costed] = costWritten([written], await readShelf(db(), today(), materialsOf([written])), settings);
  return {
    product,
    name: `${product.recipe}, ${product.label}`,
    cost: costed!.sizes.find((s) => s.id === id)!.cost,
    rules: settings.pricing,
    chosen: chosen.get(id) ?? {},
    opened: sheet,
    book,
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
  return act(() => choosePrices(db(), { productId, own, prices }, sheet.doing), {
    theirs: async () => {
      const product = (await listProducts(db())).find((p) => p.id === productId);
      return priceTexts(product?.ownPrice ?? null, (await chosenPrices(db())).get(productId) ?? {});
    },
  });
}

/** What a school says to ask in a channel; pressed, that is the price. */
function Suggested({ view, channel, take }: { view: ReturnType<typeof priceBy>; channel: string; take: (price: Micros) => void }) {
  const { currency } = useWorkshop();
  if (view === null) return "—";
  const say = `Take ${money(view.price, currency)} for ${channel}`;
  return (
    <button
      type="button"
      title={say}
      aria-label={say}
      className="inline-flex cursor-pointer flex-col items-end rounded px-1.5 py-0.5 hover:bg-honey-wash"
      onClick={() => take(view.price)}
    >
      <strong className="underline decoration-dotted underline-offset-4">{money(view.price, currency)}</strong>
      <span className={`text-[0.86rem] ${view.margin < micros(0) ? "text-berry" : "text-pine-soft"}`}>
        {view.margin < 0 ? "loses " : ""}
        {percent(Math.abs(view.marginShare), 0)}
      </span>
      {view.perHour !== null && <span className="text-[0.86rem] text-pine-soft">{money(view.perHour, currency)}/h</span>}
    </button>
  );
}

const SCHOOL_ROWS = Object.keys(PRICE_SCHOOLS) as PriceSchool[];

export default function ProductPrices({
  loaderData: { product, name, cost, rules, chosen, opened: sheetOpened, book },
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
  const explain: Record<PriceSchool, string> = {
    multiple: `materials × ${rules.multipleHundredths / 100}`,
    doubled: "all costs × 2 for wholesale, × 2 again for the shelf",
    margin: `${rules.marginBp / 100} % left after all costs and the fee`,
    own: "what you would ask",
  };
  return (
    <form onSubmit={sheet.send()}>
      <Heading
        title={name}
        about={
          product.retired ? AWAY_SAID : "Each school rounds to the coins of its channel; take one over with a press, or type your own."
        }
      >
        <Link to="/prices" className="act">
          All prices
        </Link>
        <Print />
        <Send sheet={sheet}>Keep these prices</Send>
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
                  By {SCHOOLS[school].toLowerCase()}, at a batch of {cost.units} units.
                </p>
              }
            />
            {COST_PART_IDS.map((p) => (
              <Figure key={p} label={COST_PARTS[p]} value={money(one[p], currency)} />
            ))}
            <Figure label="Work in one unit" value={`${minutes.toFixed(1)} min`} />
            {CHANNEL_IDS.map((c) => {
              const price = parseMoney(v[c]);
              if (!price.ok) return <Figure key={c} label={CHANNELS[c]} value="no price" />;
              const view = viewPrice(price.value, one, rules.channels[c].feeBp, minutes);
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
          <Part title="What the schools say">
            <Table
              rows={SCHOOL_ROWS}
              by={(s) => s}
              columns={[
                {
                  head: "School",
                  className: "align-top",
                  cell: (s) => (
                    <>
                      <strong>{PRICE_SCHOOLS[s]}</strong>
                      <span className="block text-[0.86rem] text-pine-soft">{explain[s]}</span>
                      {s === "own" && (
                        <Text
                          data-amount
                          label={<span className="sr-only">Own figure</span>}
                          placeholder="0.00"
                          className="mt-1 w-28"
                          {...sheet.register("own")}
                          problem={errors.own?.message}
                        />
                      )}
                    </>
                  ),
                },
                ...CHANNEL_IDS.map((c): Column<PriceSchool> => ({
                  head: CHANNELS[c],
                  as: "figure",
                  className: "align-top",
                  cell: (s) => (
                    <Suggested
                      view={priceBy(s, c, one, rules, own.ok ? own.value : null, minutes)}
                      channel={CHANNELS[c]}
                      take={(price) => sheet.setValue(c, moneyField(price), { shouldDirty: true })}
                    />
                  ),
                })),
              ]}
            />
          </Part>
          <Part title="What you ask">
            <div className="grid gap-4 sm:grid-cols-4">
              {CHANNEL_IDS.map((c) => (
                <Text
                  data-amount
                  key={c}
                  label={CHANNELS[c]}
                  placeholder="0.00"
                  className="[&_input]:text-right [&_input]:text-[1.25rem]"
                  {...sheet.register(c)}
                  problem={errors[c]?.message}
                />
              ))}
            </div>
          </Part>
          <ActsOf {...book} />
          {keeping}
        </Sheet>
      </SideBySide>
    </form>
  );
}
