/** Market days: what each came to, to see which are worth the drive. */
import { money } from "#core/measure/money";
import { dayResult } from "#core/market/day";
import { sayDay } from "#core/when";
import { listMarketDays } from "#db/markets/markets";
import { lazy, Suspense, useEffect, useState } from "react";
import { Link } from "react-router";
import { db } from "../db.server.ts";
import { When } from "../ui/amounts.tsx";
import { Empty, Heading, Part, Sheet } from "../ui/sheet.tsx";
import { Table } from "../ui/table.tsx";
import { useWorkshop } from "../ui/workshop.ts";
import type { Route } from "./+types/markets";

const DayChart = lazy(() => import("./dayChart.tsx"));

export const meta: Route.MetaFunction = () => [{ title: "Markets · Zelbin" }];

export async function loader() {
  const days = await listMarketDays(db());
  return days.map((d) => ({
    id: d.id,
    name: d.name,
    day: d.day,
    closed: d.closedActId !== null,
    taken: d.lines.reduce((a, l) => a + l.taken, 0),
    hours: d.minutes / 60,
    fees: d.stallFee + d.travel,
    ...dayResult({ ...d, hours: d.minutes / 60 }),
  }));
}

const Plan = () => (
  <Link to="/markets/new" className="act act-main">
    Plan a market day
  </Link>
);

export default function Markets({ loaderData: days }: Route.ComponentProps) {
  const { currency, today } = useWorkshop();
  const [drawn, setDrawn] = useState(false);
  useEffect(() => setDrawn(true), []);
  const closed = days.filter((d) => d.closed);
  return (
    <>
      <Heading title="Markets">
        <Plan />
      </Heading>
      {days.length === 0 ? (
        <Empty title="No market day yet" act={<Plan />}>
          Note what goes along, count what was sold, and see what the day was worth after stock, stall and card.
        </Empty>
      ) : (
        <Sheet>
          {closed.length > 1 && (
            <Part title="Where the takings went">
              <div className="h-56">
                {drawn && (
                  <Suspense fallback={null}>
                    <DayChart
                      days={[...closed].reverse().map((d) => ({ ...d, label: `${d.name}, ${sayDay(d.day, today)}` }))}
                      currency={currency}
                    />
                  </Suspense>
                )}
              </div>
            </Part>
          )}
          <Part title="Days">
            <Table
              rows={days}
              by={(d) => d.id}
              columns={[
                {
                  head: "Market",
                  cell: (d) => (
                    <>
                      <Link to={`/markets/${d.id}`} className="font-semibold hover:underline">
                        {d.name}
                      </Link>
                      {!d.closed && (
                        <span className="ml-2 rounded-sm bg-honey-wash px-1.5 text-[0.85rem] font-semibold text-honey">open</span>
                      )}
                    </>
                  ),
                },
                { head: "Day", cell: (d) => <When day={d.day} /> },
                { head: "Taken", as: "figure", cell: (d) => d.taken },
                { head: "Sold", as: "figure", cell: (d) => (d.closed ? d.unitsSold : "—") },
                { head: "Takings", as: "figure", cell: (d) => (d.closed ? money(d.takings, currency) : "—") },
                { head: "Stock", as: "figure", cell: (d) => (d.closed ? money(d.stockCost, currency) : "—") },
                { head: "Fees, travel", as: "figure", cell: (d) => money(d.fees + d.cardFee, currency) },
                {
                  head: "Profit",
                  as: "figure",
                  className: (d) => `font-semibold ${d.closed && d.profit < 0 ? "text-berry" : ""}`,
                  cell: (d) => (d.closed ? money(d.profit, currency) : "—"),
                },
                { head: "Each hour there", as: "figure", cell: (d) => (d.closed && d.perHour !== null ? money(d.perHour, currency) : "—") },
              ]}
            />
          </Part>
        </Sheet>
      )}
    </>
  );
}
