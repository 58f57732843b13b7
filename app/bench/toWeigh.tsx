/** What is to be weighed, as the scale shows it, and out of which lots; the readings add up to what stands under them. */
import { ofSteps, onScale, showSteps, type Scale } from "#core/recipe/scale";
import type { Lot, NeedPlan } from "#core/stock/lots";
import { grams } from "#core/measure/write";
import type { Mg } from "#core/measure/exact";
import { LotTag, showBase } from "../ui/amounts.tsx";

interface Props {
  lines: readonly { id: number; materialId: number; entered: string }[];
  weights: readonly Mg[];
  plan: readonly NeedPlan[];
  lots: ReadonlyMap<number, Lot>;
  names: ReadonlyMap<number, string>;
  scale: Scale;
}

export function ToWeigh({ lines, weights, plan, lots, names, scale }: Props) {
  const readings = weights.map((w) => onScale(w, scale).steps);
  const together = readings.reduce((a, n) => a + n, 0);
  return (
    <table className="ruled stack">
      <thead>
        <tr>
          <th scope="col">Material</th>
          <th scope="col" className="text-right!">
            Weigh
          </th>
          {scale.unit === "oz" && (
            <th scope="col" className="text-right!">
              Grams
            </th>
          )}
          <th scope="col" className="pl-6!">
            Out of
          </th>
        </tr>
      </thead>
      <tbody>
        {lines.map((l, i) => (
          <tr key={l.id}>
            <td>
              {names.get(l.materialId)} <span className="text-[0.88rem] text-pine-soft">written as {l.entered}</span>
            </td>
            <td data-label="Weigh" className="num weight">
              {showSteps(readings[i]!, scale)}
            </td>
            {scale.unit === "oz" && (
              <td data-label="Grams" className="num weight text-pine-soft">
                {grams(ofSteps(readings[i]!, scale))}
              </td>
            )}
            <td className="pl-6!">
              <span className="flex flex-wrap gap-1.5">
                {plan[i]!.takes.map((t) => (
                  <span key={t.lotId} className="inline-flex items-baseline gap-1.5">
                    <LotTag lot={lots.get(t.lotId)!} />
                    {plan[i]!.takes.length > 1 && <span className="weight text-[0.85rem]">{grams(t.amount)}</span>}
                  </span>
                ))}
                {plan[i]!.short > 0 && <span className="font-semibold text-berry">{showBase(plan[i]!.short, "weight")} missing</span>}
              </span>
            </td>
          </tr>
        ))}
      </tbody>
      <tfoot>
        <tr>
          <th scope="row" className="text-[1rem]! text-pine!">
            Together
          </th>
          <td data-label="Weigh" className="num weight font-semibold">
            {showSteps(together, scale)}
          </td>
          {scale.unit === "oz" && (
            <td data-label="Grams" className="num weight text-pine-soft">
              {grams(ofSteps(together, scale))}
            </td>
          )}
          <td />
        </tr>
      </tfoot>
    </table>
  );
}
