/** What goes into the pot in which order, beside every step of the method: looked at over steam, so it is one line a stage. */
import { meltSequence } from "#core/batch/planning/meltOrder";
import { groupBy } from "#core/collect";
import { grams } from "#core/measure/write";
import type { AtBenchLoaded } from "../loaded.ts";

/** Some never melt a butter that is whipped: then no melting order is shown. */
const isMelted = ({ type, method }: AtBenchLoaded["recipe"]): boolean => type !== "bodyButter" || /melt/i.test(method);

export function MeltOrder({ page: { takes, recipe } }: { page: AtBenchLoaded }) {
  // Of several lots of one material all of it goes in together.
  const base = [
    ...groupBy(
      takes.filter((t) => t.sizeId === null),
      (t) => t.materialId,
    ).values(),
  ].map((own) => ({
    ...own[0]!,
    weight: own.reduce((a, t) => a + (t.weighed ?? t.planned), 0),
  }));
  const stages = meltSequence(base);
  if (stages.length < 2 || !isMelted(recipe)) return null;
  return (
    <section aria-label="Into the pot in this order" className="mt-4 rounded border border-rule bg-paper px-4 py-2.5">
      <h3 className="font-display text-lead">Into the pot in this order</h3>
      <ol className="mt-1 list-decimal pl-6">
        {stages.map((s) => (
          <li key={s.lines.join()} className="py-0.5">
            {s.lines.map((i) => `${base[i]!.material} ${grams(base[i]!.weight)}`).join(", ")}
            <span className="text-pine-soft">
              {s.offHeat
                ? " · off the heat, once it has cooled"
                : s.melts === null
                  ? " · last, warmed first if you like"
                  : ` · melts by ${s.melts} °C${s.lines.some((i) => /shea/i.test(base[i]!.material)) ? "; shea off the heat, if that is your way" : ""}`}
            </span>
          </li>
        ))}
      </ol>
    </section>
  );
}
