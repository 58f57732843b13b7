/** What is to be weighed, as the scale shows it, and out of which lots; the readings add up to what is under them. */
import { ofSteps, onScale, showSteps, type Scale } from "#core/recipe/scale";
import { isUsable, firstExpiredFirst, whyFirst, type Lot } from "#core/stock/lots";
import { grams } from "#core/measure/write";
import type { Mg } from "#core/measure/exact";
import { LotTag, showBase } from "../../ui/figures/amounts.tsx";
import { useWorkshop } from "../../ui/workshop.ts";
import { Table } from "../../ui/lists/table.tsx";
import type { Key } from "react";

interface Props {
  /** A base that is melted in was chosen by hand. */
  lines: readonly { id: Key; materialId: number; how: string; weight: Mg; own?: unknown }[];
  plan: readonly { takes: readonly { lotId: number; amount: number }[]; short: number }[];
  lots: ReadonlyMap<number, Lot>;
  names: ReadonlyMap<number, string>;
  scale: Scale;
}

export function ToWeigh({ lines, plan, lots, names, scale }: Props) {
  const { today } = useWorkshop();
  // Why the first of them is taken before those that are left.
  const why = (l: { materialId: number; own?: unknown; takes: readonly unknown[] }): string | null => {
    const usable = [...lots.values()].filter((x) => x.of === l.materialId && isUsable(x, today)).sort(firstExpiredFirst);
    return l.own !== undefined || usable.length <= l.takes.length ? null : whyFirst(usable);
  };
  const readings = lines.map((l) => onScale(l.weight, scale).steps);
  const together = readings.reduce((a, n) => a + n, 0);
  return (
    <Table
      rows={lines.map((l, i) => ({ ...l, reading: readings[i]!, takes: plan[i]!.takes, short: plan[i]!.short }))}
      by={(l) => l.id}
      columns={[
        {
          head: "Material",
          cell: (l) => (
            <>
              {names.get(l.materialId)} <span className="text-fine text-pine-soft">{l.how}</span>
            </>
          ),
          foot: "Together",
        },
        { head: "Weigh", as: "weight", cell: (l) => showSteps(l.reading, scale), foot: showSteps(together, scale) },
        scale.unit === "oz" && {
          head: "Grams",
          as: "weight",
          className: "text-pine-soft",
          cell: (l) => grams(ofSteps(l.reading, scale)),
          foot: grams(ofSteps(together, scale)),
        },
        {
          head: "Out of",
          plain: true,
          headClass: "pl-6!",
          className: "pl-6!",
          cell: (l) => (
            <span className="flex flex-wrap gap-1.5">
              {l.takes.map((t) => (
                <span key={t.lotId} className="inline-flex items-baseline gap-1.5">
                  <LotTag lot={lots.get(t.lotId)!} />
                  {l.takes.length > 1 && <span className="weight text-fine">{grams(t.amount)}</span>}
                </span>
              ))}
              {why(l) && <span className="text-fine text-pine-soft">{why(l)}</span>}
              {l.short > 0 && <span className="font-semibold text-berry">{showBase(l.short, "weight")} missing</span>}
            </span>
          ),
        },
      ]}
    />
  );
}
