/** The versions of a recipe: when each was written, why, and how often it was poured. */
import type { versionsOf } from "#db/recipe/read";
import { grams } from "#core/measure/write";
import { When } from "../ui/amounts.tsx";
import { Part } from "../ui/sheet.tsx";

export function Versions({ versions }: { versions: Awaited<ReturnType<typeof versionsOf>> }) {
  return (
    <Part title="Versions">
      <table className="ruled stack">
        <thead>
          <tr>
            <th scope="col">Version</th>
            <th scope="col">Since</th>
            <th scope="col">What changed</th>
            <th scope="col" className="text-right!">
              Batch
            </th>
            <th scope="col" className="text-right!">
              Poured
            </th>
          </tr>
        </thead>
        <tbody>
          {versions.map((v, i) => (
            <tr key={v.id}>
              <td>
                {v.n}
                {i === 0 && <span className="text-pine-soft">, made by now</span>}
              </td>
              <td data-label="Since">
                <When day={v.day} />
              </td>
              <td>
                {v.note}
                {v.name !== versions[0]!.name && <span className="text-pine-soft"> called {v.name}</span>}
              </td>
              <td data-label="Batch" className="num weight">
                {grams(v.total)}
              </td>
              <td data-label="Poured" className="num">
                {v.batches}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </Part>
  );
}
