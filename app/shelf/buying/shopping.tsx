/** The shopping list: what is below its point, by supplier, in whole packs. */
import { Link } from "react-router";
import { kind } from "#core/material/kinds";
import { sum } from "#core/measure/exact";
import { money, perWeight } from "#core/measure/money";
import { delivered, shoppingList } from "#core/stock/offers";
import { counted } from "#core/words";
import { whatToBuy } from "#db/shelf/buying";
import { cachedSettings } from "#db/settings/settings";
import { today } from "#db/clock";
import { db } from "../../server/workshop.server.ts";
import { PerUnit, showBase } from "../../ui/figures/amounts.tsx";
import { Print } from "../../ui/sheet/print.tsx";
import { Empty, Heading, Part, Sheet } from "../../ui/sheet/sheet.tsx";
import { Lasts } from "../../ui/figures/lasts.tsx";
import { Table } from "../../ui/lists/table.tsx";
import { useWorkshop } from "../../ui/workshop.ts";
import type { Route } from "./+types/shopping";

export const meta: Route.MetaFunction = () => [{ title: "Shopping list · Zelbin" }];

export async function loader() {
  const rule = await cachedSettings(db());
  const wanted = await whatToBuy(db(), today(), rule);
  return {
    groups: shoppingList(wanted),
    rule: { leadDays: rule.leadDays, coverDays: rule.coverDays },
    facts: wanted.map(({ materialId, kind: k, onHand, coming, perDay }) => ({ materialId, kind: k, onHand, coming, perDay })),
  };
}

export default function Shopping({ loaderData: { groups, rule, facts } }: Route.ComponentProps) {
  const { currency } = useWorkshop();
  const forecast = new Map(facts.map((f) => [f.materialId, f]));
  const per = perWeight(
    groups.flatMap((g) =>
      g.lines.flatMap((l) => (l.offer && kind(forecast.get(l.materialId)!.kind).measured === "weight" ? [delivered(l.offer)] : [])),
    ),
  );
  return (
    <>
      <Heading
        title="Shopping list"
        about={`What would run out before it could be here. An order takes ${counted(rule.leadDays, "day")} and should last ${counted(rule.coverDays, "day")}: change that in Settings.`}
      >
        {groups.length > 0 && (
          <>
            <Link reloadDocument to="/shelf/shopping.csv" className="act" download>
              As CSV
            </Link>
            <Print />
          </>
        )}
      </Heading>
      {groups.length === 0 ? (
        <Empty
          title="Nothing to buy"
          act={
            <Link to="/shelf" className="act">
              To the shelf
            </Link>
          }
        >
          Nothing is below its reorder point. Say under a material's facts whether and when to remind you.
        </Empty>
      ) : (
        <Sheet>
          {groups.map((g) => (
            <Part
              key={g.supplier ?? ""}
              title={g.supplier ?? "Nobody known to sell it"}
              aside={
                g.supplier && (
                  <span className="flex items-baseline gap-4">
                    <span className="tabular-nums">about {money(g.cost, currency)}</span>
                    <Link
                      className="pressable no-print"
                      to={`/shelf/receive?supplier=${encodeURIComponent(g.supplier)}&${g.lines.map((l) => `material=${l.materialId}`).join("&")}`}
                    >
                      It has come
                    </Link>
                  </span>
                )
              }
            >
              <Table
                className="sm:table-fixed"
                rows={g.lines.map((l) => {
                  const of = forecast.get(l.materialId)!;
                  return { ...l, of, measured: kind(of.kind).measured };
                })}
                by={(l) => l.materialId}
                columns={[
                  {
                    head: "Material",
                    width: "27%",
                    cell: (l) => (
                      <>
                        <Link to={`/shelf/${l.materialId}/buying`} className="font-semibold hover:underline">
                          {l.name}
                        </Link>
                        {l.of.kind === "infusedOil" && (
                          <Link to={`/jars/fill?makes=${l.materialId}`} className="pressable no-print ml-3 text-small">
                            Fill a jar
                          </Link>
                        )}
                      </>
                    ),
                  },
                  {
                    head: "Left",
                    width: "14%",
                    className: "whitespace-nowrap",
                    cell: (l) => (
                      <>
                        {l.of.onHand === 0 ? "none" : showBase(l.of.onHand, l.measured)}
                        {l.of.coming > 0 && <span className="text-pine-soft"> + {showBase(l.of.coming, l.measured)} to come</span>}
                      </>
                    ),
                  },
                  {
                    head: "Lasts",
                    width: "17%",
                    cell: (l) => <Lasts onHand={l.of.onHand} perDay={l.of.perDay} low />,
                  },
                  {
                    head: "Wanted",
                    width: "10%",
                    className: "whitespace-nowrap",
                    cell: (l) => showBase(l.amount, l.measured),
                  },
                  {
                    head: "Buy",
                    width: "12%",
                    className: "font-semibold whitespace-nowrap",
                    cell: (l) => (l.offer ? `${l.packs} × ${l.offer.packSize}` : "—"),
                  },
                  {
                    head: "Delivered",
                    width: "11%",
                    as: "figure",
                    cell: (l) => <PerUnit cost={l.offer ? delivered(l.offer) : null} measured={l.measured} per={per} />,
                  },
                  {
                    head: "Price",
                    as: "figure",
                    cell: (l) => (l.offer ? money(l.cost, currency) : "—"),
                  },
                ]}
              />
            </Part>
          ))}
          <p className="mt-5 text-right font-semibold">In all about {money(sum(groups.map((g) => g.cost)), currency)}, without postage</p>
        </Sheet>
      )}
    </>
  );
}
