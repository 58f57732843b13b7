/** The versions of a recipe on its sheet: when each was written, why, how often it was poured, and the way to set two side by side. */
import { Link } from "react-router";
import type { versionsOf } from "#db/recipe/history";
import { grams } from "#core/measure/write";
import { When } from "../../ui/figures/amounts.tsx";
import { Table } from "../../ui/lists/table.tsx";

interface Props {
  recipeId: number;
  versions: Awaited<ReturnType<typeof versionsOf>>;
}

export function Versions({ recipeId, versions }: Props) {
  const [newest, before] = versions;
  return (
    <div className="mt-7">
      <details>
        <summary className="cursor-pointer font-display text-large">
          Versions{" "}
          <span className="font-sans text-small text-pine-soft">
            made by version {newest!.n}, since <When day={newest!.day} />
          </span>
        </summary>
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
                  {v.name !== newest!.name && <span className="text-pine-soft"> called {v.name}</span>}
                </>
              ),
            },
            { head: "Batch", as: "weight", cell: (v) => grams(v.total) },
            { head: "Poured", as: "figure", cell: (v) => v.batches },
          ]}
        />
      </details>
      {before && (
        <p className="mt-1">
          <Link to={`/recipes/${recipeId}/versions?a=${before.n}&b=${newest!.n}`} className="pressable text-small">
            Two side by side, and their batches
          </Link>
        </p>
      )}
    </div>
  );
}
