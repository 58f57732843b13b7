/** Loads substitutes on the shelf for a material that ran short, with how much of each and its effect. */
import { substitute, type Consequence } from "#core/batch/weighing/weighingFixes";
import { setsBy } from "#core/firmness/solids";
import type { Mg } from "#core/measure/exact";
import { likeKinds, onHandOf } from "#core/recipe/instead/standIn";
import { carries } from "#core/material/kinds";
import { scentShare } from "#core/scent/dilution";
import { useStandIns } from "../../../recipes/instead/useStandIns.ts";
import type { AtBenchLoaded } from "../loaded.ts";
import { potOf } from "./pot.ts";

export interface Instead extends Consequence {
  materialId: number;
  name: string;
  amount: Mg;
  /** Label names it needs that the original doesn't. */
  allergen: string;
}

/** So many are offered, what there is most of first. */
const OFFERED = 3;

/** @param weighed what there was of the line @returns none while there is enough of it, or nobody has answered */
export function useInstead(page: AtBenchLoaded, line: number, weighed: Mg): Instead[] {
  const take = page.takes[line]!;
  const known = useStandIns(weighed < take.planned ? [take.materialId] : []);
  if (!known || weighed >= take.planned) return [];
  const pot = potOf(page);
  const kinds = likeKinds(known.find((k) => k.id === take.materialId)!.kind);
  return known
    .filter((k) => k.lots.length > 0 && kinds.includes(k.kind) && !page.takes.some((t) => t.materialId === k.id))
    .sort((a, b) => onHandOf(b) - onHandOf(a))
    .flatMap((k) => {
      const by = {
        name: k.name,
        sets: setsBy(k),
        scent: scentShare(k),
        carries: carries(k),
        onHand: onHandOf(k),
        perMg: k.per && k.per.value / k.per.per,
      };
      const does = substitute(pot, line, weighed, by, page.constants);
      return does ? [{ ...does, materialId: k.id, name: k.name, allergen: k.allergen === take.allergen ? "" : k.allergen }] : [];
    })
    .slice(0, OFFERED);
}
