/** A lot's comings and goings, each with a way to where it came from or went. */
import { Link } from "react-router";
import { kind } from "#core/material/kinds";
import { REASONS } from "#core/ledger/reasons";
import type { HistoryRow, NamedLot } from "#db/lots/trace";
import { Money, showInColumn, When } from "../ui/figures/amounts.tsx";
import { Table } from "../ui/lists/table.tsx";

/** Whether it is weighed or counted. */
export const measureOf = (l: NamedLot) => (l.kind ? kind(l.kind).measured : "count");

/** Where units or grams went, in words with a way there. */
function Went({ row }: { row: HistoryRow }) {
  if (row.marketDayId !== null)
    return (
      <Link to={`/markets/${row.marketDayId}`} className="text-amber underline underline-offset-4">
        {REASONS[row.reason].say} at {row.market}
      </Link>
    );
  if (row.giftOrderId !== null)
    return (
      <Link to={`/gifts/${row.giftOrderId}`} className="text-amber underline underline-offset-4">
        {REASONS[row.reason].say} for {row.customer}
      </Link>
    );
  if (row.jarId !== null)
    return (
      <Link to={`/jars/${row.jarId}`} className="text-amber underline underline-offset-4">
        {REASONS[row.reason].say}, {row.jar}
      </Link>
    );
  if (row.batchId !== null)
    return (
      <Link to={`/bench/${row.batchId}`} className="text-amber underline underline-offset-4">
        {REASONS[row.reason].say}
        {row.reason === "used" && row.batchNumber ? `, ${row.batchNumber}` : ""}
      </Link>
    );
  return (
    <span>
      {REASONS[row.reason].say}
      {row.note && <span className="text-pine-soft">, {row.note}</span>}
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
