/** Every product's prices as a ladder: its sizes and channels, dearest per gram first, and what doesn't fit together with what would mend it. */
import { lazy } from "react";
import { Link } from "react-router";
import { micros } from "#core/measure/exact";
import { money } from "#core/measure/money";
import { perHundredGrams, type Asked, type Rung } from "#core/pricing/ladder";
import { CHANNEL_IDS, CHANNELS } from "#core/pricing/pricingMethods";
import { counted } from "#core/words";
import { today } from "#db/clock";
import { choosePricesOfList, chosenPrices } from "#db/prices/prices";
import { unitCostsOf } from "#db/recipe/costs";
import { cachedSettings } from "#db/settings/settings";
import { object } from "yup";
import { idField, oneOf, wholeNumber } from "../forms/fields.ts";
import { readSheet, runAct } from "../forms/sheet.server.ts";
import { usePress } from "../forms/usePress.ts";
import { db } from "../server/workshop.server.ts";
import { Button, Problem } from "../ui/fields/form.tsx";
import { Drawn } from "../ui/figures/drawn.tsx";
import { Table, type Column } from "../ui/lists/table.tsx";
import { Print } from "../ui/sheet/print.tsx";
import { Empty, Heading, Part, Sheet } from "../ui/sheet/sheet.tsx";
import { useWorkshop } from "../ui/workshop.ts";
import { laddersOf } from "./ladders.ts";
import { sayFinding, sayMend } from "./ladderTexts.ts";
import type { Route } from "./+types/ladder";

const LadderChart = lazy(() => import("./ladderChart.tsx"));

export const meta: Route.MetaFunction = () => [{ title: "Ladder of prices · Zelbin" }];

export async function loader() {
  const settings = await cachedSettings(db());
  const [recipes, chosen] = await Promise.all([unitCostsOf(db(), settings, today()), chosenPrices(db())]);
  const all = laddersOf(recipes, chosen, settings);
  const ladders = all.filter((l) => l.rungs.some((r) => Object.keys(r.prices).length > 0));
  return { ladders, unpriced: all.length - ladders.length };
}

const schema = object({
  id: idField(),
  channel: oneOf(CHANNEL_IDS),
  /** Both in micros. */
  price: wholeNumber(1, 1e12, "a price"),
  was: wholeNumber(1, 1e12, "a price"),
});

export async function action({ request }: Route.ActionArgs) {
  const sheet = await readSheet(request, schema);
  if (!sheet.ok) return sheet.reply;
  const { id, channel, price, was } = sheet.value;
  const line = { productId: id, prices: { [channel]: micros(price) }, was: { [channel]: micros(was) } };
  return runAct(() => choosePricesOfList(db(), { lines: [line], by: "ladder" }, sheet.doing));
}

type Ladder = Route.ComponentProps["loaderData"]["ladders"][number];

/** What is out of line, each with what would mend it. */
function Findings({ of: { rungs, findings } }: { of: Ladder }) {
  const { currency } = useWorkshop();
  const hand = usePress("/prices/ladder");
  const asked = (m: Asked): number => rungs.find((r) => r.id === m.id)!.prices[m.channel]!;
  return (
    <ul className="mb-4 divide-y divide-rule border-y border-rule">
      {findings.map((f, i) => (
        <li key={i} className="flex flex-wrap items-center gap-x-4 gap-y-2 py-2">
          <span className={`min-w-0 flex-1 basis-96 ${f.wrong === "underCost" ? "font-semibold text-berry" : "text-honey"}`}>
            {sayFinding(f, rungs, currency)}
          </span>
          {f.mends.map((m) => (
            <Button
              key={sayMend(m, rungs, currency)}
              small
              className="no-print"
              disabled={hand.busy}
              onClick={() => hand.press({ id: m.id, channel: m.channel, price: m.price, was: asked(m) })}
            >
              {sayMend(m, rungs, currency)}
            </Button>
          ))}
          {f.mends.length === 0 && <span className="text-small text-pine-soft">More than one price has to change.</span>}
        </li>
      ))}
      <Problem say={hand.problem?.say} see={hand.problem?.see} />
    </ul>
  );
}

const BAR_PX = 10;

function OneLadder({ of }: { of: Ladder }) {
  const { currency } = useWorkshop();
  const { rungs } = of;
  const channels = CHANNEL_IDS.filter((c) => rungs.some((r) => r.prices[c] !== undefined));
  const forHundred = (price: number | null | undefined, r: Rung): number | null =>
    price == null ? null : perHundredGrams(micros(price), r.fill);
  const bars = rungs.map((r) => ({
    name: r.label,
    cost: forHundred(r.cost, r),
    prices: Object.fromEntries(channels.flatMap((c) => (r.prices[c] === undefined ? [] : [[c, forHundred(r.prices[c], r)!]]))),
  }));
  const height = rungs.length * ((channels.length + 1) * BAR_PX + 16) + 70;
  return (
    <Part title={of.name} aside={of.findings.length === 0 ? <span className="text-small text-sage">fits together</span> : undefined}>
      {of.findings.length > 0 && <Findings of={of} />}
      <Table
        rows={rungs}
        by={(r) => r.id}
        columns={[
          {
            head: "Size",
            cell: (r) => (
              <Link to={`/prices/${r.id}`} className="weight font-semibold hover:underline">
                {r.label}
              </Link>
            ),
          },
          { head: "Costs", as: "figure", cell: (r) => <ForHundred price={r.cost} of={r} none="not known" /> },
          ...CHANNEL_IDS.map((c): Column<Rung> => ({
            head: CHANNELS[c],
            as: "figure",
            cell: (r) => <ForHundred price={r.prices[c] ?? null} of={r} none="no price" strong />,
          })),
        ]}
      />
      {rungs.length > 1 && (
        <>
          <p className="mt-4 text-small text-pine-soft">For a hundred grams</p>
          <Drawn height={height}>
            <LadderChart bars={bars} channels={channels} currency={currency} />
          </Drawn>
        </>
      )}
    </Part>
  );
}

/** An amount for one, and for a hundred grams beneath. */
function ForHundred({ price, of, none, strong = false }: { price: number | null; of: Rung; none: string; strong?: boolean }) {
  const { currency } = useWorkshop();
  if (price === null) return <span className="text-pine-soft">{none}</span>;
  return (
    <>
      <span className={strong ? "font-semibold" : ""}>{money(price, currency)}</span>
      <span className="block text-fine text-pine-soft">{money(perHundredGrams(micros(price), of.fill), currency)}</span>
    </>
  );
}

export default function LadderOfPrices({ loaderData: { ladders, unpriced } }: Route.ComponentProps) {
  const wrong = ladders.reduce((a, l) => a + l.findings.length, 0);
  return (
    <>
      <Heading
        title="Ladder of prices"
        about={
          ladders.length === 0
            ? undefined
            : `Sizes from the dearest per gram to the cheapest; under each figure, what a hundred grams come to. ${
                wrong === 0 ? "Everything fits together." : `${counted(wrong, "price")} ${wrong === 1 ? "doesn’t" : "don’t"} fit.`
              }`
        }
      >
        <Link to="/prices" className="act">
          All prices
        </Link>
        <Print />
      </Heading>
      {ladders.length === 0 ? (
        <Empty
          title="No price yet"
          act={
            <Link to="/prices" className="act act-main">
              Choose prices
            </Link>
          }
        >
          Once a product has prices, its sizes and channels are compared here.
        </Empty>
      ) : (
        <Sheet>
          {ladders.map((l) => (
            <OneLadder key={l.key} of={l} />
          ))}
          {unpriced > 0 && (
            <p className="text-small text-pine-soft">
              {counted(unpriced, "product")} without any price {unpriced === 1 ? "isn’t" : "aren’t"} compared.
            </p>
          )}
          <p className="mt-3 text-small text-pine-soft">
            A larger size should cost more, and less per gram; a shop less than anybody else; online no less than at a market. Prices are
            yours all the same.
          </p>
        </Sheet>
      )}
    </>
  );
}
