/** The shopping list: what is below its point, by supplier, in whole packs. */
import { kind } from "#core/material/kinds";
import { sum } from "#core/measure/exact";
import { money, perWeight } from "#core/measure/money";
import { delivered, shoppingList } from "#core/stock/offers";
import { counted } from "#core/words";
import { whatToBuy } from "#db/shelf/buying";
import { readSettings } from "#db/settings";
import { today } from "#db/clock";
import { Link } from "react-router";
import { db } from "../../db.server.ts";
import { PerUnit, showBase } from "../../ui/amounts.tsx";
import { Button } from "../../ui/form.tsx";
import { Empty, Heading, Part, Sheet } from "../../ui/sheet.tsx";
import { useWorkshop } from "../../ui/workshop.ts";
import type { Route } from "./+types/shopping";

export const meta: Route.MetaFunction = () => [{ title: "Shopping list · Zelbin" }];

export async function loader() {
  const rule = await readSettings(db());
  const wanted = await whatToBuy(db(), today(), rule);
  return {
    groups: shoppingList(wanted),
    rule: { leadDays: rule.leadDays, coverDays: rule.coverDays },
    facts: wanted.map(({ materialId, kind: k, onHand, coming, perDay }) => ({ materialId, kind: k, onHand, coming, perDay })),
  };
}

export default function Shopping({ loaderData: { groups, rule, facts } }: Route.ComponentProps) {
  const { currency } = useWorkshop();
  const of = new Map(facts.map((f) => [f.materialId, f]));
  const per = perWeight(
    groups.flatMap((g) =>
      g.lines.flatMap((l) => (l.offer && kind(of.get(l.materialId)!.kind).measured === "weight" ? [delivered(l.offer)] : [])),
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
            <a href="/shelf/shopping.csv" className="act" download>
              As CSV
            </a>
            <Button onClick={() => window.print()}>Print</Button>
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
          Nothing is below its point. Say under a material's facts whether and when to remind you.
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
                    <a
                      className="pressable no-print"
                      href={`/shelf/receive?supplier=${encodeURIComponent(g.supplier)}&${g.lines.map((l) => `material=${l.materialId}`).join("&")}`}
                    >
                      It has come
                    </a>
                  </span>
                )
              }
            >
              <table className="ruled stack sm:table-fixed">
                <thead>
                  <tr>
                    <th scope="col" style={{ width: "30%" }}>
                      Material
                    </th>
                    <th scope="col">Left</th>
                    <th scope="col">Lasts</th>
                    <th scope="col">Wanted</th>
                    <th scope="col">Buy</th>
                    <th scope="col" className="text-right!">
                      Delivered
                    </th>
                    <th scope="col" className="text-right!">
                      Price
                    </th>
                  </tr>
                </thead>
                <tbody>
                  {g.lines.map((l) => {
                    const f = of.get(l.materialId)!;
                    const measured = kind(f.kind).measured;
                    return (
                      <tr key={l.materialId}>
                        <td>
                          <a href={`/shelf/${l.materialId}/buying`} className="font-semibold hover:underline">
                            {l.name}
                          </a>
                        </td>
                        <td data-label="Left" className="whitespace-nowrap">
                          {f.onHand === 0 ? "none" : showBase(f.onHand, measured)}
                          {f.coming > 0 && <span className="text-pine-soft"> + {showBase(f.coming, measured)} to come</span>}
                        </td>
                        <td data-label="Lasts">{f.perDay ? counted(Math.round(f.onHand / f.perDay), "day") : "—"}</td>
                        <td data-label="Wanted" className="whitespace-nowrap">
                          {showBase(l.amount, measured)}
                        </td>
                        <td data-label="Buy" className="font-semibold whitespace-nowrap">
                          {l.offer ? `${l.packs} × ${l.offer.packSize}` : "—"}
                        </td>
                        <td data-label="Delivered" className="num">
                          <PerUnit cost={l.offer ? delivered(l.offer) : null} measured={measured} per={per} />
                        </td>
                        <td data-label="Price" className="num">
                          {l.offer ? money(l.cost, currency) : "—"}
                        </td>
                      </tr>
                    );
                  })}
                </tbody>
              </table>
            </Part>
          ))}
          <p className="mt-5 text-right font-semibold">In all about {money(sum(groups.map((g) => g.cost)), currency)}, without postage</p>
        </Sheet>
      )}
    </>
  );
}
