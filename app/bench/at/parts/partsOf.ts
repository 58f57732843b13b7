/** Parts of a pot as the bench shows them: how much of the base each takes, what is stirred in, and whether that is too much of a scent. */
import { ladled, partTotal, scentsOfPart } from "#core/batch/planning/parts";
import { sum, type Mg } from "#core/measure/exact";
import { RECIPE_TYPES } from "#core/recipe/types";
import { isScent, scentOf, scentsOfBase, type ScentLine } from "#core/scent/dilution";
import { tooMuchScent } from "#core/scent/tooMuch";
import type { BatchSheet } from "#db/bench/read";
import type { MaterialRow } from "#db/shelf/materials";

export interface Part {
  sizeId: number;
  label: string;
  units: number;
  /** To be ladled out of the pot, and what was, where it has been weighed. */
  base: Mg;
  ladled: Mg | null;
  additions: { material: string; planned: Mg; weighed: Mg | null }[];
  /** What of its scent is too much, in words. */
  tooMuch: { say: string; why: string; gravity: number }[];
}

/** As it is weighed, or as it is planned. */
const inIt = (t: BatchSheet["takes"][number]): Mg => t.weighed ?? t.planned;

type Materials = ReadonlyMap<number, MaterialRow>;

/** The scents of some lines, with the lots they come out of. */
const scentsIn = (of: BatchSheet["takes"], lots: BatchSheet["lots"], materials: Materials): ScentLine[] =>
  of.flatMap((t) => {
    const m = materials.get(t.materialId)!;
    return isScent(m)
      ? [{ name: t.material, libraryKey: m.libraryKey, weight: inIt(t), lots: lots.filter((l) => l.id === t.lotId), short: false }]
      : scentsOfBase({ weight: inIt(t), makeup: m.makeup });
  });

const usedOnOf = (recipe: BatchSheet["recipe"]) => recipe.usedOn || RECIPE_TYPES[recipe.type].usedOn;

/** The most of the pot its blend may be, in the proportions it has; null where there is none. */
export function mostScent({ takes, lots, recipe }: BatchSheet, materials: Materials): number | null {
  const base = takes.filter((t) => t.sizeId === null);
  return scentOf(scentsIn(base, lots, materials), sum(base.map(inIt)), usedOnOf(recipe), recipe.forWhom)?.most.share ?? null;
}

export function partsOf({ sizes, takes, lots, recipe }: BatchSheet, materials: Materials): Part[] {
  const base = takes.filter((t) => t.sizeId === null);
  const pot = sum(base.map(inIt));
  const scentsOf = (of: typeof takes): ScentLine[] => scentsIn(of, lots, materials);
  return sizes.flatMap((s) => {
    if (s.partOf === null) return [];
    const own = takes.filter((t) => t.sizeId === s.id);
    const total = partTotal(s.planned, s.fill, recipe.lossBp);
    const out = ladled(
      total,
      own.map((t) => t.planned),
    );
    const added = sum(own.map(inIt));
    const scents = scentsOfPart(scentsOf(base), pot, s.ladled ?? out, scentsOf(own));
    return [
      {
        sizeId: s.id,
        label: s.label,
        units: s.planned,
        base: out,
        ladled: s.ladled,
        additions: own.map(({ material, planned, weighed }) => ({ material, planned, weighed })),
        tooMuch: tooMuchScent(scents, sum([s.ladled ?? out, added]), usedOnOf(recipe), recipe.forWhom).map(({ say, why, gravity }) => ({
          say,
          why,
          gravity,
        })),
      },
    ];
  });
}
