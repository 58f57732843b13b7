/** Variants of before that are planned as a batch is set out: out of which size, how many, and what is stirred in. */
import { isPartOf, stirredInto } from "#core/batch/planning/parts";
import { Refused, type FieldProblem } from "#core/refused";
import type { WrittenRecipe, WrittenSize } from "../../recipe/read.ts";

export interface PlannedPart {
  variant: WrittenSize;
  /** The size it is taken from, by its place. */
  at: number;
  units: number;
  stirred: ReturnType<typeof stirredInto>;
}

/**
 * @param sizes what is to be filled
 * @param parts of what is sold by itself, how many of that
 * @throws Refused beside `parts.0.units` and on: for what isn't made any more, and for more than is filled of the size it is taken from
 */
export function partsToSetOut(
  { recipe, variants }: WrittenRecipe,
  sizes: readonly (WrittenSize & { units: number })[],
  parts: readonly { productId: number; units: number }[],
): PlannedPart[] {
  const problems: FieldProblem[] = [];
  const left = sizes.map((s) => s.units);
  const planned = parts.flatMap(({ productId, units }, i): PlannedPart[] => {
    if (units === 0) return [];
    const wrong = (say: string): [] => {
      problems.push({ field: `parts.${i}.units`, say });
      return [];
    };
    const variant = variants.find((v) => v.id === productId);
    if (!variant) return wrong("That isn't made of this recipe any more.");
    if (parts.findIndex((p) => p.productId === productId && p.units > 0) < i) return wrong("That is there already.");
    const at = sizes.findIndex((s) => isPartOf(variant, s));
    const size = sizes[at];
    if (!size) return wrong(`None of the size that ${variant.label} is taken from is to be filled.`);
    if (units > left[at]!) return wrong(`Only ${size.units} of ${size.label} are filled in all.`);
    left[at]! -= units;
    return [{ variant, at, units, stirred: stirredInto(variant, units, recipe.lossBp) }];
  });
  if (problems.length > 0) throw new Refused(problems);
  return planned;
}
