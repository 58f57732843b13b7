/** The life of every lot in the cabinet, so that what has to be sold first is seen from across the room; its table has the same figures. */
import { Link } from "react-router";
import { AGES, type Life } from "#core/cabinet/ages";
import { counted } from "#core/words";
import { lazy } from "react";
import { AsTable, Drawn } from "../ui/figures/drawn.tsx";
import { Part } from "../ui/sheet/sheet.tsx";
import { Table } from "../ui/lists/table.tsx";

const AgeChart = lazy(() => import("./ageChart.tsx"));
/** The picture shows so many lots; the table has all of them. */
const DRAWN = 14;
const ROW_PX = 28;
/** On a phone a name takes three lines. */
const PHONE_ROW_PX = 44;

const days = (n: number): string => counted(n, "day");

export function Ages({ lots }: { lots: readonly Life[] }) {
  const shown = lots.slice(0, DRAWN);
  return (
    <Part
      title="By age"
      aside={<span className="text-small text-pine-soft">Each lot from its pouring to its day; what should be sold first is on top.</span>}
    >
      <Drawn height={shown.length * ROW_PX + 84} onPhone={shown.length * PHONE_ROW_PX + 104}>
        <AgeChart lots={shown} />
      </Drawn>
      <AsTable>
        <Table
          rows={lots}
          by={(l) => l.id}
          columns={[
            {
              head: "Lot",
              cell: (l) => (
                <Link to={`/lots/${encodeURIComponent(l.number)}`} className="weight hover:underline">
                  {l.number}
                </Link>
              ),
            },
            { head: "Of", plain: true, cell: (l) => l.name },
            { head: "Here", as: "figure", cell: (l) => l.onHand },
            { head: "Age", as: "figure", cell: (l) => days(l.age) },
            { head: "Left", as: "figure", cell: (l) => (l.left === null ? "no day" : l.left < 0 ? `${days(-l.left)} past` : days(l.left)) },
            { head: "It is", cell: (l) => AGES[l.is] },
          ]}
        />
      </AsTable>
    </Part>
  );
}
