/** What to expect of a recipe while it is typed: worked out once for the Reckoner's judgement and the pages beneath the ingredients. */
import { orNothing, readPlain } from "#core/measure/read";
import { answeredBy, judge } from "#core/recipe/judge/judge";
import { judgedOf, type JudgedSheet } from "#core/recipe/judge/judgedOf";
import type { Judged, Judgement } from "#core/recipe/judge/judgement";
import type { Constants } from "#core/firmness/model";
import type { Scale } from "#core/recipe/scale";
import { RECIPE_TYPES } from "#core/recipe/types";
import type { ReadRecipe } from "#core/recipe/written";
import type { Lot } from "#core/stock/lots";
import type { Shelf } from "#core/stock/shelf";
import { useMemo } from "react";
import { shelfOfStuff } from "../../names/named.ts";
import type { SheetMaterial } from "#db/shelf/sheetMaterials";
import { useWorkshop } from "../../ui/workshop.ts";
import type { RecipeTexts } from "../recipeTexts.ts";

export interface Foreseen {
  judged: Judged;
  open: Judgement[];
  known: (Judgement & { word: string })[];
  shelf: Shelf;
  lots: ReadonlyMap<number, Lot>;
}

/** How much stays in pot and jug, in basis points; nothing while it can't be read. */
export const lossOf = (text: string): number => Math.min(Math.round(orNothing(text, readPlain, 0) * 100), 5000);

/** What of a sheet its judges go by besides its lines; what can't be read counts as usual. */
export function judgedSheet({ type, usedOn, forWhom, loss, keepsMonths, sizes }: RecipeTexts): JudgedSheet {
  const usual = RECIPE_TYPES[type];
  return {
    ...{ type, forWhom, usedOn: usedOn || usual.usedOn, lossBp: lossOf(loss) },
    keepsMonths: orNothing(keepsMonths, readPlain, usual.keepsMonths),
    away: sizes.map((s) => s.away === "yes"),
  };
}

/** The lots of what a sheet names, by number. */
export const lotsById = (stuff: readonly SheetMaterial[]): ReadonlyMap<number, Lot> =>
  new Map(stuff.flatMap((s) => s.lots.map((l) => [l.id, l] as const)));

export function useForeseen(
  { read, values }: { read: ReadRecipe; values: RecipeTexts },
  stuff: readonly SheetMaterial[],
  { scale, constants }: { scale: Scale; constants: Constants },
): Foreseen {
  const { today } = useWorkshop();
  const shelf = useMemo(() => shelfOfStuff(stuff, today), [stuff, today]);
  const lots = useMemo(() => lotsById(stuff), [stuff]);
  return useMemo(() => {
    const judged = judgedOf(read, judgedSheet(values), shelf, lots, { today, scale, constants });
    const said = read.problem === null ? judge(judged) : [];
    return { judged, ...answeredBy(said, Object.fromEntries(values.answers.map((a) => [a.key, a.word]))), shelf, lots };
  }, [read, values, shelf, lots, today, scale, constants]);
}
