/** A recipe's sheet as it goes into a file, and what comes out of one as the sheet takes it. */
import type { PortableRecipe } from "#core/recipe/portable";
import { BLANK_LINE, BLANK_PACK, BLANK_SIZE, type RecipeTexts } from "../recipeTexts.ts";

/** What is put away, and what this workshop has answered, stays here. */
export const toPortable = (t: RecipeTexts): PortableRecipe => ({
  recipe: 1,
  name: t.name,
  madeAs: t.type,
  batchWeight: t.makes,
  lossPercent: t.loss,
  airPercent: t.overrun,
  keepsMonths: t.keepsMonths,
  batchMinutes: t.batchMinutes,
  method: t.method,
  usedOn: t.usedOn,
  forWhom: t.forWhom,
  lines: t.lines.map((l) => ({ material: l.material, amount: l.entered, measuredAs: l.form })),
  sizes: t.sizes
    .filter((s) => s.away === "")
    .map((s) => ({
      container: s.container,
      filledWith: s.fill,
      minutes: s.minutes,
      packaging: s.packaging.filter((p) => p.material !== "").map((p) => ({ material: p.material, pieces: p.pieces })),
    })),
});

/** A sheet with what a file says in place of its own; what the file says nothing of stays. */
export function fromPortable(p: PortableRecipe, t: RecipeTexts): RecipeTexts {
  const or = (said: string | undefined, own: string): string => (said === undefined || said === "" ? own : said);
  return {
    ...t,
    name: or(p.name, t.name),
    type: p.madeAs ?? t.type,
    makes: p.batchWeight,
    loss: or(p.lossPercent, t.loss),
    overrun: p.airPercent,
    keepsMonths: or(p.keepsMonths, t.keepsMonths),
    batchMinutes: or(p.batchMinutes, t.batchMinutes),
    method: or(p.method, t.method),
    usedOn: (p.usedOn ?? t.usedOn) as RecipeTexts["usedOn"],
    forWhom: p.forWhom ?? t.forWhom,
    lines: p.lines.length > 0 ? p.lines.map((l) => ({ material: l.material, entered: l.amount, form: l.measuredAs })) : [BLANK_LINE],
    sizes:
      p.sizes.length > 0
        ? p.sizes.map((s) => ({
            ...BLANK_SIZE,
            container: s.container,
            fill: s.filledWith,
            minutes: s.minutes,
            packaging: s.packaging.length > 0 ? s.packaging : [BLANK_PACK],
          }))
        : t.sizes,
  };
}
