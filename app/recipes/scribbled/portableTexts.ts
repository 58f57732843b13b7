/** A recipe's sheet as it goes into a file, and what comes out of one as the sheet takes it. */
import type { PortableRecipe } from "#core/recipe/portable";
import { BLANK_LINE, BLANK_PACK, BLANK_SIZE, type RecipeTexts } from "../recipeTexts.ts";

/** What is put away, and what this workshop has answered, stays here. */
export const toPortable = (t: RecipeTexts) =>
  ({
    recipe: 1 as const,
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
  }) satisfies PortableRecipe;

/** Overwrites a sheet with what a file says; the rest of the sheet stays. */
export const fromPortable = (p: PortableRecipe, t: RecipeTexts): RecipeTexts => ({
  ...t,
  name: p.name ?? t.name,
  type: p.madeAs ?? t.type,
  makes: p.batchWeight ?? t.makes,
  loss: p.lossPercent ?? t.loss,
  overrun: p.airPercent ?? t.overrun,
  keepsMonths: p.keepsMonths ?? t.keepsMonths,
  batchMinutes: p.batchMinutes ?? t.batchMinutes,
  method: p.method ?? t.method,
  usedOn: p.usedOn ?? t.usedOn,
  forWhom: p.forWhom ?? t.forWhom,
  lines: orBlank(
    p.lines?.map((l) => ({ material: l.material, entered: l.amount, form: l.measuredAs })),
    t.lines,
    BLANK_LINE,
  ),
  sizes: orBlank(
    p.sizes?.map((s) => ({
      ...BLANK_SIZE,
      ...{ container: s.container, fill: s.filledWith, minutes: s.minutes },
      packaging: orBlank(s.packaging, [], BLANK_PACK),
    })),
    t.sizes,
    BLANK_SIZE,
  ),
});

/** The file's rows, or one empty row: a table is never without one. */
const orBlank = <R>(said: R[] | undefined, own: R[], blank: R): R[] => {
  const rows = said ?? own;
  return rows.length > 0 ? rows : [blank];
};
