/** What a recipe's sheet comes to once it can be read: its lines and sizes as they are kept, with what the whole weighs. */
import type { Mg } from "../measure/exact.ts";
import type { Form } from "../measure/mass.ts";
import { orElse } from "../outcome.ts";
import type { FillBy } from "./sizes.ts";
import type { ReadRecipe } from "./written.ts";

export interface WrittenParts {
  lines: { materialId: number; entered: string; form: Form; weight: Mg }[];
  sizes: {
    /** Its place on the sheet. */
    at: number;
    label: string;
    fillBy: FillBy;
    fillText: string;
    fill: Mg;
    fillMl: number | null;
    containerId: number | null;
    packaging: { materialId: number; pieces: number }[];
  }[];
  makes: Mg | null;
  total: Mg;
  overrunBp: number;
}

/**
 * @param read a sheet without problems; what has one is left out
 * @example writtenParts(readWritten({ lines: [], sizes: [], makes: "1 kg", overrun: "" }, []), { lines: [], sizes: [] }).makes // 1000 g
 */
export function writtenParts(
  read: ReadRecipe,
  texts: { lines: readonly { entered: string }[]; sizes: readonly { fill: string }[] },
): WrittenParts {
  return {
    lines: read.lines.flatMap(({ out, material, form }, i) =>
      out.ok && material ? [{ materialId: material.id, entered: texts.lines[i]!.entered, form, weight: out.weight }] : [],
    ),
    sizes: read.sizes.flatMap(({ fill, container, packaging }, at) =>
      fill.ok
        ? [
            {
              at,
              label: fill.value.label,
              fillBy: fill.value.by,
              fillText: texts.sizes[at]!.fill.trim(),
              fill: fill.value.weight,
              fillMl: fill.value.ml,
              containerId: container?.id ?? null,
              packaging: packaging.map((p) => ({ materialId: p.material.id, pieces: p.pieces })),
            },
          ]
        : [],
    ),
    makes: read.makes?.ok ? read.makes.value : null,
    total: read.total,
    overrunBp: orElse(read.overrun, 0),
  };
}
