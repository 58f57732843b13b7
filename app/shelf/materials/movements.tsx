/** A material's comings and goings, as a table. */
import type { materialMovements } from "#db/shelf/materials";
import { REASONS } from "#core/stock/reasons";
import { Money, showInColumn, When } from "../../ui/amounts.tsx";

export type MovementRow = Awaited<ReturnType<typeof materialMovements>>[number];

export function Movements({ rows, measured }: { rows: readonly MovementRow[]; measured: "weight" | "count" }) {
  return (
    <table className="ruled stack">
      <thead>
        <tr>
          <th scope="col">Day</th>
          <th scope="col">What</th>
          <th scope="col">Lot</th>
          <th scope="col" className="text-right!">
            Amount
          </th>
        </tr>
      </thead>
      <tbody>
        {rows.map((m) => (
          <tr key={m.id}>
            <td>
              <When day={m.day} />
            </td>
            <td>
              <a href={`/book/${m.actId}`} className="hover:underline">
                {m.summary || REASONS[m.reason]}
              </a>
              {m.reason === "restated" && <span className="text-pine-soft"> · {REASONS.restated}</span>}
              {m.note && <span className="text-pine-soft"> · {m.note}</span>}
            </td>
            <td className="weight text-[0.9em]">{m.number}</td>
            <td data-label="Amount" className="num weight">
              {m.qty === 0 ? (
                <Money of={m.value} />
              ) : (
                <>
                  {m.qty < 0 ? "−" : "+"}
                  {showInColumn(Math.abs(m.qty), measured)}
                </>
              )}
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
