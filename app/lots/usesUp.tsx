/** What is left of a lot, and the recipes that would use all of it. */
import { grams } from "#core/measure/write";
import { Link } from "../ui/link.tsx";
import { Part } from "../ui/sheet/sheet.tsx";
import { Table } from "../ui/lists/table.tsx";
import type { UsesUp as Uses } from "./usesUp.server.ts";

export function UsesUp({ lotId, uses }: { lotId: number; uses: readonly Uses[] }) {
  if (uses.length === 0) return null;
  return (
    <Part title="What would use it up">
      <Table
        rows={uses}
        by={(u) => u.recipeId}
        columns={[
          {
            head: "Recipe",
            cell: (u) => (
              <Link to={`/recipes/${u.recipeId}`} className="underline underline-offset-4">
                {u.name}
              </Link>
            ),
          },
          { head: "All of it makes", as: "weight", cell: (u) => grams(u.batch) },
          { head: "Fills", cell: (u) => `${u.units} × ${u.label}` },
          {
            head: "Set out",
            as: "press",
            cell: (u) => (
              <Link to={`/bench/set-out?recipe=${u.recipeId}&lot=${lotId}`} className="act act-small" aria-label={`Set out ${u.name}`}>
                Set out
              </Link>
            ),
          },
        ]}
      />
    </Part>
  );
}
