/** What a material cost at each purchase: a chart, and the same figures as a table. */
import { Link } from "react-router";
import { perWeight } from "#core/measure/money";
import type { PriceRow } from "#db/shelf/buying";
import { lazy } from "react";
import { PerUnit, percent, When } from "../../ui/figures/amounts.tsx";
import { Drawn } from "../../ui/figures/drawn.tsx";
import { Part } from "../../ui/sheet/sheet.tsx";
import { Table } from "../../ui/lists/table.tsx";
import { useWorkshop } from "../../ui/workshop.ts";

const PriceChart = lazy(() => import("./priceChart.tsx"));

export function PriceHistory({ rows, measured }: { rows: readonly PriceRow[]; measured: "weight" | "count" }) {
  const { currency, today } = useWorkshop();
  if (rows.length === 0) return null;
  const per = perWeight(rows.map((r) => ({ value: r.value, per: r.per })));
  const told = rows
    .map((r, i) => {
      const before = rows[i - 1];
      return { ...r, change: before && before.value > 0 ? r.value / r.per / (before.value / before.per) - 1 : null };
    })
    .reverse();
  return (
    <Part title="What it cost">
      {rows.length > 1 && (
        <div className="mb-4">
          <Drawn height={224}>
            <PriceChart rows={rows} measured={measured} currency={currency} today={today} />
          </Drawn>
        </div>
      )}
      <Table
        rows={told}
        by={(r) => r.id}
        columns={[
          { head: "Day", cell: (r) => <When day={r.day} /> },
          {
            head: "Supplier",
            plain: true,
            cell: (r) => (
              <Link to={`/shelf/receipts/${r.purchaseId}`} className="hover:underline">
                {r.supplier}
              </Link>
            ),
          },
          { head: "Pack", cell: (r) => `${r.packs} × ${r.packSize}` },
          {
            head: "Delivered",
            as: "figure",
            cell: (r) => <PerUnit cost={{ value: r.value, per: r.per }} measured={measured} per={per} />,
          },
          {
            head: "Change",
            as: "figure",
            className: (r) => (r.change !== null && r.change > 0.1 ? "font-semibold text-honey" : ""),
            cell: (r) => (r.change === null ? "" : `${r.change >= 0 ? "+" : "−"}${percent(Math.abs(r.change))}`),
          },
        ]}
      />
    </Part>
  );
}
