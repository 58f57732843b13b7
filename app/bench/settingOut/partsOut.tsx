/** Variants that were made of part of a pot before: how many of each come out of this one, in place of the size they are taken from. */
import { isPartOf, shareText } from "#core/batch/planning/parts";
import { parseNumber } from "#core/measure/parse";
import { wordList } from "#core/words";
import type { WrittenRecipe, WrittenSize } from "#db/recipe/read";
import type { ReactNode } from "react";
import { Part } from "../../ui/sheet/sheet.tsx";

/** What is typed beside each, by what it is sold as: variants come and go while a sheet is unfinished. */
export interface PartText {
  product: string;
  units: string;
}

/** Those a size is made for still. */
const variantsOf = (w: WrittenRecipe): WrittenSize[] => w.variants.filter((v) => w.sizes.some((s) => isPartOf(v, s)));

/** Rows for variants the sheet has none of yet. */
export const partsMissing = (w: WrittenRecipe, typed: readonly PartText[]): PartText[] =>
  variantsOf(w).flatMap(({ id }) => (typed.some((t) => t.product === String(id)) ? [] : [{ product: String(id), units: "" }]));

/** What is parted off; what can't be read is nothing yet. */
export const partsOf = (w: WrittenRecipe, typed: readonly PartText[]): { variant: WrittenSize; units: number }[] =>
  typed.flatMap((t) => {
    const variant = variantsOf(w).find((v) => String(v.id) === t.product);
    const n = parseNumber(t.units);
    const units = n.ok ? n.value.valueOf() : 0;
    return variant && Number.isInteger(units) && units > 0 ? [{ variant, units }] : [];
  });

interface Props {
  w: WrittenRecipe;
  typed: readonly PartText[];
  names: ReadonlyMap<number, string>;
  /** The field of a row, by its place. */
  field: (i: number, label: string) => ReactNode;
}

export function PartsOut({ w, typed, names, field }: Props) {
  const rows = typed.flatMap(({ product }, i) => {
    const variant = variantsOf(w).find((v) => String(v.id) === product);
    return variant ? [{ variant, i }] : [];
  });
  if (rows.length === 0) return null;
  return (
    <Part title="Some of them as">
      <p className="mb-2 text-pine-soft">
        What was stirred into part of it before; the others are poured as they are. Something new is parted off at the bench.
      </p>
      <ul className="divide-y divide-rule border-y border-rule">
        {rows.map(({ variant, i }) => (
          <li key={variant.id} className="flex flex-wrap items-start justify-between gap-x-4 gap-y-1 py-2">
            <span className="flex flex-wrap items-baseline gap-x-3 pt-1.5">
              <span className="font-display text-lead">{variant.label}</span>
              <span className="text-pine-soft">
                {wordList(variant.additions.map((a) => `${shareText(a.ppm)} ${names.get(a.materialId)}`))}
              </span>
            </span>
            {field(i, `As ${variant.label}`)}
          </li>
        ))}
      </ul>
    </Part>
  );
}
