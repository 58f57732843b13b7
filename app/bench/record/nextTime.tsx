/** What a batch teaches for the next, each to be ticked, and one press that writes the recipe's next version so. */
import { Link } from "react-router";
import type { Change } from "#core/batch/finishing/nextTime";
import type { BatchSheet } from "#db/bench/read";
import { tokenFor, useSheet, type Opened } from "../../forms/useSheet.ts";
import { Button, Problem } from "../../ui/fields/form.tsx";
import { Part } from "../../ui/sheet/sheet.tsx";

/** So that this sheet's act has its own token on the record. */
const APART = 78;

interface Props {
  recipe: BatchSheet["recipe"];
  /** Null where the recipe has moved on since. */
  taught: { changes: readonly Change[]; melted: boolean } | null;
  opened: Opened;
}

export function NextTime({ recipe, taught, opened }: Props) {
  // Not of the record: what it says changes with the recipe.
  return (
    <section className="no-print mt-7">
      <Part title="Next time">
        {taught === null ? (
          <p className="text-pine-soft">
            Made by version {recipe.n}, and{" "}
            <Link to={`/recipes/${recipe.id}`} className="underline underline-offset-4">
              the recipe
            </Link>{" "}
            has moved on since.
          </p>
        ) : taught.melted ? (
          <p className="text-pine-soft">Some of it was melted in again, in proportions of its own: it says nothing of the recipe.</p>
        ) : taught.changes.length === 0 ? (
          <p className="text-pine-soft">Nothing to change: it went as the recipe says.</p>
        ) : (
          <Ticks key={taught.changes.map((c) => c.key).join()} changes={taught.changes} {...{ recipe, opened }} />
        )}
      </Part>
    </section>
  );
}

function Ticks({ recipe, changes, opened }: Pick<Props, "recipe" | "opened"> & { changes: readonly Change[] }) {
  const sheet = useSheet<{ keys: string[] }>({ keys: changes.map((c) => c.key) }, { ...opened, token: tokenFor(opened.token, APART) });
  return (
    <form onSubmit={sheet.send("learn")}>
      <ul className="divide-y divide-rule border-y border-rule">
        {changes.map((c) => (
          <li key={c.key}>
            <label className="grid min-h-11 cursor-pointer grid-cols-[auto_1fr] items-baseline gap-x-3 py-2">
              <input
                type="checkbox"
                value={c.key}
                defaultChecked={sheet.values.keys.includes(c.key)}
                className="h-5 w-5 translate-y-0.5 accent-amber"
                {...sheet.register("keys")}
              />
              <span>
                <strong className="font-semibold">{c.say}</strong>
                <span className="block text-small text-pine-soft">{c.why}</span>
              </span>
            </label>
          </li>
        ))}
      </ul>
      <Problem say={sheet.problem} />
      <div className="mt-3 flex flex-wrap items-center gap-3">
        <Button type="submit" disabled={sheet.busy || sheet.values.keys.length === 0}>
          Write version {recipe.n + 1} so
        </Button>
        <span className="text-small text-pine-soft">What was made by version {recipe.n} stays as it is.</span>
      </div>
    </form>
  );
}
