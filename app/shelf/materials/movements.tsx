/** A material's comings and goings, as a table. */
import { Link } from "react-router";
import type { materialMovements } from "#db/shelf/materials";
import { REASONS } from "#core/ledger/reasons";
import { Money, showInColumn, When } from "../../ui/figures/amounts.tsx";
import { Table } from "../../ui/lists/table.tsx";

export type MovementRow = Awaited<ReturnType<typeof materialMovements>>[number];

export function Movements({ rows, measured }: { rows: readonly MovementRow[]; measured: "weight" | "count" }) {
  return (
    <Table
      rows={rows}
      by={(m) => m.id}
      columns={[
        { head: "Day", cell: (m) => <When day={m.day} /> },
        {
          head: "What",
          plain: true,
          cell: (m) => (
            <>
              <Link to={`/book/${m.actId}`} className="hover:underline">
                {m.summary || REASONS[m.reason].say}
              </Link>
              {m.reason === "restated" && <span className="text-pine-soft"> · {REASONS.restated.say}</span>}
              {m.note && <span className="text-pine-soft"> · {m.note}</span>}
            </>
          ),
        },
        { head: "Lot", plain: true, className: "weight text-part", cell: (m) => m.number },
        {
          head: "Amount",
          as: "weight",
          cell: (m) =>
            m.qty === 0 ? (
              <Money of={m.value} />
            ) : (
              <>
                {m.qty < 0 ? "−" : "+"}
                {showInColumn(Math.abs(m.qty), measured)}
              </>
            ),
        },
      ]}
    />
  );
}
