/** The jars' weeks: when each was filled, when it can be strained, when it is at its best and when it must be; its table has the days. */
import { Link } from "react-router";
import { JAR_STATES, jarState } from "#core/infusion/tend";
import { lazy } from "react";
import { When } from "../ui/figures/amounts.tsx";
import { AsTable, Drawn } from "../ui/figures/drawn.tsx";
import { Part, Sheet } from "../ui/sheet/sheet.tsx";
import { Table } from "../ui/lists/table.tsx";
import { useWorkshop } from "../ui/workshop.ts";
import type { WeekJar } from "./weekChart.tsx";

const WeekChart = lazy(() => import("./weekChart.tsx"));
const ROW_PX = 30;

export function JarWeeks({ jars }: { jars: readonly WeekJar[] }) {
  const { today } = useWorkshop();
  return (
    <Sheet className="mt-8">
      <Part title="Their weeks" aside={<span className="text-small text-pine-soft">The line is today.</span>}>
        <Drawn height={jars.length * ROW_PX + 70}>
          <WeekChart jars={jars} today={today} />
        </Drawn>
        <AsTable>
          <Table
            rows={jars}
            by={(j) => j.id}
            columns={[
              {
                head: "Jar",
                cell: (j) => (
                  <Link to={`/jars/${j.id}`} className="hover:underline">
                    {j.name} <span className="weight text-part text-pine-soft">{j.number}</span>
                  </Link>
                ),
              },
              { head: "Filled", cell: (j) => <When day={j.day} /> },
              { head: "Could be strained from", cell: (j) => <When day={j.earliest} /> },
              { head: "At its best", cell: (j) => <When day={j.best} /> },
              { head: "No later than", cell: (j) => <When day={j.latest} /> },
              { head: "Now", cell: (j) => JAR_STATES[jarState(j, today)] },
            ]}
          />
        </AsTable>
      </Part>
    </Sheet>
  );
}
