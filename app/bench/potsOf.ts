/** What a batch is filled into, and how much room so much of it takes there. */
import { batchDensity, densityInPot } from "#core/recipe/sizes";
import type { BatchSheet } from "#db/bench/read";
import type { materialsNamed } from "#db/shelf/materials";

type Facts = ReadonlyMap<number, Awaited<ReturnType<typeof materialsNamed>>[number]>;

/** The materials it takes to know: what is in the pot, and what it is filled into. */
export const potIds = ({ takes, sizes, others }: BatchSheet): number[] => [
  ...takes.map((t) => t.materialId),
  ...[...sizes, ...others].flatMap((s) => s.containerId ?? []),
];

/** The density of the batch melted, mg/mL, null where a material has none; and what each size is filled into, as far as it is known. */
export function potsOf({ takes, sizes, others }: BatchSheet, facts: Facts) {
  const density = batchDensity(
    takes.map((t) => ({ name: t.material, weight: t.planned, density: densityInPot(facts.get(t.materialId)!) })),
  );
  return {
    density: density.ok ? density.value : null,
    containers: [...sizes, ...others].flatMap((s) => {
      const c = s.containerId === null ? undefined : facts.get(s.containerId);
      if (!c) return [];
      const { name, brimMl, usableMl, innerMm, fillMm } = c;
      return [{ productId: s.productId, name, brimMl, usableMl, innerMm, fillMm }];
    }),
  };
}
