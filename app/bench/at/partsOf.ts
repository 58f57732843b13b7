/** Parts of a pot as the bench shows them: how much of the base each takes, what is stirred in, and whether that is too much of a scent. */
import { partPlan } from "#core/batch/parts";
import { mg, mulDiv, sum, type Mg } from "#core/measure/exact";
import { RECIPE_TYPES } from "#core/recipe/types";
import { isScent, type ScentLine } from "#core/scent/dilution";
import { tooMuchScent } from "#core/scent/tooMuch";
import type { BatchSheet } from "#db/bench/read";
import type { MaterialRow } from "#db/shelf/materials";

export interface Part {
  sizeId: number;
  label: string;
  units: number;
  /** To be ladled out of the pot. */
  base: Mg;
  additions: { material: string; planned: Mg; weighed: Mg | null }[];
  /** What of its scent is too much, in words. */
  tooMuch: { say: string; why: string; gravity: number }[];
}

export function partsOf({ sizes, takes, lots, recipe }: BatchSheet, materials: ReadonlyMap<number, MaterialRow>): Part[] {
  const base = takes.filter((t) => t.sizeId === null);
  const pot = sum(base.map((t) => t.weighed ?? t.planned));
  return sizes.flatMap((s) => {
    if (s.partOf === null) return [];
    const own = takes.filter((t) => t.sizeId === s.id);
    const { total } = partPlan({ units: s.planned, fill: s.fill, lossBp: recipe.lossBp, shares: [] });
    const added = sum(own.map((t) => t.weighed ?? t.planned));
    const ladled = mg(Math.max(0, total - sum(own.map((t) => t.planned))));
    const scents = takes.flatMap((t): ScentLine[] => {
      const m = materials.get(t.materialId)!;
      const mine = t.sizeId === s.id || t.sizeId === null;
      if (!mine || !isScent(m) || pot === 0) return [];
      const whole = t.weighed ?? t.planned;
      const weight = t.sizeId === null ? mg(mulDiv(whole, ladled, pot)) : whole;
      return [{ name: t.material, libraryKey: m.libraryKey, weight, lots: lots.filter((l) => l.id === t.lotId), short: false }];
    });
    return [
      {
        sizeId: s.id,
        label: s.label,
        units: s.planned,
        base: ladled,
        additions: own.map(({ material, planned, weighed }) => ({ material, planned, weighed })),
        tooMuch: tooMuchScent(scents, sum([ladled, added]), recipe.usedOn || RECIPE_TYPES[recipe.type].usedOn, recipe.forWhom).map(
          ({ say, why, gravity }) => ({ say, why, gravity }),
        ),
      },
    ];
  });
}
