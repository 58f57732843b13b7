/** What a batch is filled into, and how much room so much of it takes there. */
import { weighOrder } from "#core/batch/planning/weighOrder";
import { setsBy } from "#core/firmness/solids";
import { harmedByHeat } from "#core/recipe/method";
import { batchDensity } from "#core/recipe/sizes";
import type { BatchSheet } from "#db/bench/read";
import type { materialsNamed } from "#db/shelf/materials";

type Facts = ReadonlyMap<number, Awaited<ReturnType<typeof materialsNamed>>[number]>;

/** The ids of the materials to load: what is in the pot, and what it is filled into. */
export const potIds = ({ takes, sizes, others }: BatchSheet): number[] => [
  ...takes.map((t) => t.materialId),
  ...[...sizes, ...others].flatMap((s) => s.containerId ?? []),
];

/** Its lines in the order they are weighed in. */
export const weighedInOrder = ({ takes, recipe }: BatchSheet, facts: Facts): BatchSheet["takes"] =>
  weighOrder(
    takes.map((t) => {
      const m = facts.get(t.materialId)!;
      return { ...t, sets: setsBy(m), delicate: harmedByHeat(m) };
    }),
    recipe.method,
  ).map(({ sets: _, delicate: __, ...t }) => t);

/**
 * The density of the batch as it is filled, mg/mL, null where a material has none; what of it can be dripped; and what each size is filled into,
 * as far as it is known.
 */
export function potsOf({ recipe, takes, sizes, others }: BatchSheet, facts: Facts) {
  const density = batchDensity(
    takes.map((t) => {
      const { kind, densities } = facts.get(t.materialId)!;
      return { name: t.material, kind, densities, weight: t.planned };
    }),
    recipe.overrunBp,
  );
  return {
    liquids: takes.flatMap(({ materialId }) => {
      const { densities, dropsPerMl } = facts.get(materialId)!;
      return densities.liquid === undefined ? [] : [{ materialId, density: densities.liquid, counts: dropsPerMl }];
    }),
    density: density.ok ? density.value.filled : null,
    containers: [...sizes, ...others].flatMap((s) => {
      const c = s.containerId === null ? undefined : facts.get(s.containerId);
      if (!c) return [];
      const { name, brimMl, usableMl, innerMm, fillMm } = c;
      return [{ productId: s.productId, name, brimMl, usableMl, innerMm, fillMm }];
    }),
  };
}
