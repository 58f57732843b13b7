/** What is left of a lot, and the recipes that would use all of it, loaded when opened. */
import { grams } from "#core/measure/write";
import { Link, useFetcher } from "react-router";
import { Button } from "../ui/fields/form.tsx";
import { Part } from "../ui/sheet/sheet.tsx";
import { Table } from "../ui/lists/table.tsx";
import type { UsesUp as Uses } from "./usesUp.server.ts";

export function UsesUp({ lot }: { lot: { id: number; number: string } }) {
  const { data, load, state } = useFetcher<Uses[]>();
  if (!data)
    return (
      <p className="no-print mb-4">
        <Button small disabled={state !== "idle"} onClick={() => void load(`/lots/${encodeURIComponent(lot.number)}/uses`)}>
          What would use it up?
        </Button>
      </p>
    );
  return (
    <Part title="What would use it up">
      {data.length === 0 ? (
        <p className="text-pine-soft">No recipe takes it. Instead, on a recipe's sheet, shows where it could stand in.</p>
      ) : (
        <Table
          rows={data}
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
                <Link to={`/bench/set-out?recipe=${u.recipeId}&lot=${lot.id}`} className="act act-small" aria-label={`Set out ${u.name}`}>
                  Set out
                </Link>
              ),
            },
          ]}
        />
      )}
    </Part>
  );
}
