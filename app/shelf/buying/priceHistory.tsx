/** What a material cost at each purchase: a chart, and the same figures as a table. */
import { perWeight } from "#core/measure/money";
import type { priceHistory } from "#db/shelf/buying";
import { lazy, Suspense, useEffect, useState } from "react";
import { PerUnit, percent, When } from "../../ui/amounts.tsx";
import { Part } from "../../ui/sheet.tsx";
import { useWorkshop } from "../../ui/workshop.ts";

const PriceChart = lazy(() => import("./priceChart.tsx"));

export type PriceRow = Awaited<ReturnType<typeof priceHistory>>[number];

export function PriceHistory({ rows, measured }: { rows: readonly PriceRow[]; measured: "weight" | "count" }) {
  const { currency, today } = useWorkshop();
  const [drawn, setDrawn] = useState(false);
  useEffect(() => setDrawn(true), []);
  if (rows.length === 0) return null;
  const per = perWeight(rows.map((r) => ({ value: r.value, per: r.per })));
  return (
    <Part title="What it cost">
      {rows.length > 1 && (
        <div className="mb-4 h-56">
          {drawn && (
            <Suspense>
              <PriceChart rows={rows} measured={measured} currency={currency} today={today} />
            </Suspense>
          )}
        </div>
      )}
      <table className="ruled stack">
        <thead>
          <tr>
            <th scope="col">Day</th>
            <th scope="col">Supplier</th>
            <th scope="col">Pack</th>
            <th scope="col" className="text-right!">
              Delivered
            </th>
            <th scope="col" className="text-right!">
              Change
            </th>
          </tr>
        </thead>
        <tbody>
          {rows
            .map((r, i) => {
              const before = rows[i - 1];
              const change = before && before.value > 0 ? r.value / r.per / (before.value / before.per) - 1 : null;
              return (
                <tr key={r.id}>
                  <td>
                    <When day={r.day} />
                  </td>
                  <td>
                    <a href={`/shelf/receipts/${r.purchaseId}`} className="hover:underline">
                      {r.supplier}
                    </a>
                  </td>
                  <td data-label="Pack">
                    {r.packs} × {r.packSize}
                  </td>
                  <td data-label="Delivered" className="num">
                    <PerUnit cost={{ value: r.value, per: r.per }} measured={measured} per={per} />
                  </td>
                  <td data-label="Change" className={`num ${change !== null && change > 0.1 ? "font-semibold text-honey" : ""}`}>
                    {change === null ? "" : `${change >= 0 ? "+" : "−"}${percent(Math.abs(change))}`}
                  </td>
                </tr>
              );
            })
            .reverse()}
        </tbody>
      </table>
    </Part>
  );
}
