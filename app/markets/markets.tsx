/** Market days: what each came to, to see which are worth the drive. */
import { Link } from "react-router";
import { counted } from "#core/words";
import { money } from "#core/measure/money";
import { resultOf } from "#core/market/day";
import { marketSums } from "#db/markets/markets";
import { lazy } from "react";
import { db } from "../server/workshop.server.ts";
import { When, useSayDay } from "../ui/figures/amounts.tsx";
import { Drawn } from "../ui/figures/drawn.tsx";
import { Empty, Heading, Part, Sheet } from "../ui/sheet/sheet.tsx";
import type { Column } from "../ui/lists/table.tsx";
import { ListTable } from "../ui/lists/listTable.tsx";
import { SaveList } from "../ui/lists/saveList.tsx";
import { askedOf, partOf, useFullList } from "../ui/lists/useFullList.ts";
import { useWorkshop } from "../ui/workshop.ts";
import { CLOSED_DAYS_FILE, DAYS_TO_COME_FILE } from "./daysFile.ts";
import type { Route } from "./+types/markets";

const DayChart = lazy(() => import("./dayChart.tsx"));

export const meta: Route.MetaFunction = () => [{ title: "Markets · Zelbin" }];

export async function loader({ request }: Route.LoaderArgs) {
  const { most } = askedOf(request);
  const { rows, more } = partOf(await marketSums(db(), most), most);
  const days = rows.map((d) => {
    const result = resultOf({ ...d, hours: d.minutes / 60 });
    return {
      id: d.id,
      name: d.name,
      day: d.day,
      closed: d.closedActId !== null,
      beforeBooks: d.beforeBooks,
      taken: d.taken,
      hours: d.minutes / 60,
      fees: d.stallFee + d.travel,
      ...{ takings: result.takings, unitsSold: result.unitsSold, cardFee: result.cardFee },
      // Where a cost isn't known there is no profit.
      known: d.costKnown ? result : null,
    };
  });
  return { rows: days, more };
}

type Day = Route.ComponentProps["loaderData"]["rows"][number];
const MARKET: Column<Day> = {
  head: "Market",
  sorts: (d) => d.name,
  cell: (d) => (
    <Link to={`/markets/${d.id}`} className="font-semibold hover:underline">
      {d.name}
    </Link>
  ),
};

/** The newest days; more would be a hedge, not a picture. */
const CHARTED = 12;

const Plan = () => (
  <Link to="/markets/new" className="act act-main">
    Plan a market day
  </Link>
);

export default function Markets({ loaderData }: Route.ComponentProps) {
  const { rows: days, more, ask } = useFullList(loaderData);
  const { currency } = useWorkshop();
  const sayIt = useSayDay();
  const closed = days.filter((d) => d.closed);
  const charted = closed.flatMap((d) => (d.known ? [{ ...d, ...d.known }] : [])).slice(0, CHARTED);
  // Soonest first: what waits longest to be closed, then what comes next.
  const open = days.filter((d) => !d.closed).sort((a, b) => a.day.localeCompare(b.day) || a.id - b.id);
  return (
    <>
      <Heading title="Markets">
        <Link to="/people?of=market" className="act">
          All markets
        </Link>
        <Link to="/markets/file" className="act">
          Earlier days, from a file
        </Link>
        <Plan />
      </Heading>
      {days.length === 0 ? (
        <Empty title="No market day yet" act={<Plan />}>
          Note what goes along, count what was sold, and see what the day was worth after stock, stall and card.
        </Empty>
      ) : (
        <Sheet>
          {open.length > 0 && (
            <Part title="To come, or to close">
              <ListTable
                what="open market days"
                rows={open}
                by={(d) => d.id}
                finds={(d) => `${d.name} ${d.day}`}
                under={(found) => <SaveList what="open market days" rows={found} {...DAYS_TO_COME_FILE} />}
                columns={[
                  MARKET,
                  { head: "Day", sorts: (d) => d.day, cell: (d) => <When day={d.day} /> },
                  { head: "Goes along", as: "figure", cell: (d) => counted(d.taken, "unit") },
                  { head: "Fees, travel", as: "figure", cell: (d) => money(d.fees, currency) },
                ]}
              />
            </Part>
          )}
          {charted.length > 1 && (
            <Part title="Where the takings went">
              <Drawn height={224}>
                <DayChart days={charted.reverse().map((d) => ({ ...d, label: `${d.name}, ${sayIt(d.day)}` }))} currency={currency} />
              </Drawn>
            </Part>
          )}
          {closed.length > 0 && (
            <Part title="Closed">
              <ListTable
                what="market days"
                more={more}
                ask={ask}
                rows={closed}
                by={(d) => d.id}
                finds={(d) => `${d.name} ${d.day}`}
                under={(found) => <SaveList what="market days" rows={found} {...CLOSED_DAYS_FILE} more={more} ask={ask} />}
                columns={[
                  MARKET,
                  { head: "Day", sorts: (d) => d.day, cell: (d) => <When day={d.day} /> },
                  { head: "Taken", as: "figure", cell: (d) => (d.beforeBooks ? "—" : d.taken) },
                  {
                    head: "Sold",
                    as: "figure",
                    sorts: (d) => d.unitsSold,
                    cell: (d) => (!d.beforeBooks || d.unitsSold > 0 ? d.unitsSold : "—"),
                  },
                  {
                    head: "Takings",
                    as: "figure",
                    sorts: (d) => d.takings,
                    cell: (d) => money(d.takings, currency),
                  },
                  { head: "Stock", as: "figure", cell: (d) => (d.known ? money(d.known.stockCost, currency) : "not known") },
                  { head: "Fees, travel", as: "figure", cell: (d) => money(d.fees + d.cardFee, currency) },
                  {
                    head: "Profit",
                    as: "figure",
                    sorts: (d) => d.known?.profit ?? null,
                    className: (d) => `font-semibold ${(d.known?.profit ?? 0) < 0 ? "text-berry" : ""}`,
                    cell: (d) => (d.known ? money(d.known.profit, currency) : "—"),
                  },
                  {
                    head: "Each hour there",
                    as: "figure",
                    sorts: (d) => d.known?.perHour ?? null,
                    cell: (d) => (d.known?.perHour != null ? money(d.known.perHour, currency) : "—"),
                  },
                ]}
              />
            </Part>
          )}
        </Sheet>
      )}
    </>
  );
}
