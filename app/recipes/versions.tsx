/** The versions of a recipe: when each was written, why, and how often it was poured. */
import type { versionsOf } from "#db/recipe/read";
import { grams } from "#core/measure/write";
import { When } from "../ui/figures/amounts.tsx";
import { Part } from "../ui/sheet/sheet.tsx";
import { Table } from "../ui/lists/table.tsx";

export function Versions({ versions }: { versions: Awaited<ReturnType<typeof versionsOf>> }) {
  return (
    <Part title="Versions">
      <Table
        rows={versions}
        by={(v) => v.id}
        columns={[
          {
            head: "Version",
            cell: (v, i) => (
              <>
                {v.n}
                {i === 0 && <span className="text-pine-soft">, made by now</span>}
              </>
            ),
          },
          { head: "Since", cell: (v) => <When day={v.day} /> },
          {
            head: "What changed",
            plain: true,
            cell: (v) => (
              <>
                {v.note}
                {v.name !== versions[0]!.name && <span className="text-pine-soft"> called {v.name}</span>}
              </>
            ),
          },
          { head: "Batch", as: "weight", cell: (v) => grams(v.total) },
          { head: "Poured", as: "figure", cell: (v) => v.batches },
        ]}
      />
    </Part>
  );
}
