/** A lot's comings and goings, each with a way to where it came from or went. */
import { Link } from "react-router";
import { kind } from "#core/material/kinds";
import type { HistoryRow, NamedLot } from "#db/lots/trace";
import { Money, showInColumn, When } from "../ui/figures/amounts.tsx";
import { Table } from "../ui/lists/table.tsx";
import { went } from "./went.ts";

/** Whether it is weighed or counted. */
export const measureOf = (l: NamedLot) => (l.kind ? kind(l.kind).measured : "count");

/** Where it went, with a way there. */
function Went({ row }: { row: HistoryRow }) {
  const { say, to, note } = went(row);
  return to ? (
    <Link to={to} className="text-amber underline underline-offset-4">
      {say}
    </Link>
  ) : (
    <span>
      {say}
      {note && <span className="text-pine-soft">, {note}</span>}
    </span>
  );
}

/** A lot's own comings and goings. */
export function History({ rows, lot }: { rows: HistoryRow[]; lot: NamedLot }) {
  return (
    <Table
      quiet
      rows={rows}
      by={(r) => r.id}
      columns={[
        { head: "Day", className: "w-32", cell: (r) => <When day={r.day} /> },
        { head: "What", plain: true, cell: (r) => <Went row={r} /> },
        {
          head: "Amount",
          as: "weight",
          cell: (r) =>
            r.qty === 0 ? (
              <Money of={r.value} />
            ) : (
              <>
                {r.qty < 0 ? "−" : "+"}
                {showInColumn(Math.abs(r.qty), measureOf(lot))}
              </>
            ),
        },
      ]}
    />
  );
}
