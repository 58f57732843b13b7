/** Two versions of a recipe, line by line and figure by figure: what each was read as and comes to against the shelf of today. */
import { firmness, mixOf, type Constants } from "#core/firmness/model";
import { FEELS, feelOf, PLACE_IDS, PLACES } from "#core/firmness/words";
import type { Mg } from "#core/measure/exact";
import { money } from "#core/measure/money";
import { grams, sayShare } from "#core/measure/write";
import type { WorkRates } from "#core/recipe/cost";
import { judge } from "#core/recipe/judge/judge";
import { judgedOf } from "#core/recipe/judge/judgedOf";
import { keepingOf } from "#core/recipe/keeping";
import type { Scale } from "#core/recipe/scale";
import { readWritten, type ReadRecipe } from "#core/recipe/written";
import { scentShare } from "#core/scent/dilution";
import { waxShare } from "#core/material/makeup";
import type { WrittenRecipe } from "#db/recipe/read";
import type { CostingMethod } from "#core/stock/costingMethods";
import { counted } from "#core/words";
import type { Day } from "#core/when";
import { shelfOfStuff } from "../../names/named.ts";
import type { SheetMaterial } from "#db/shelf/sheetMaterials";
import { judgedSheet, lotsById } from "../foresight/foreseen.ts";
import { costingOf } from "../costing.ts";
import type { RecipeTexts } from "../recipeTexts.ts";

export interface LineOf {
  entered: string;
  weight: Mg;
  share: number;
}

/** One material in both; null where a version hasn't got it. */
export interface Pair {
  material: string;
  a: LineOf | null;
  b: LineOf | null;
}

export interface By {
  stuff: readonly SheetMaterial[];
  rates: WorkRates;
  scale: Scale;
  constants: Constants;
  today: Day;
  school: CostingMethod;
  currency: string;
}

/**
 * The lines of two versions as each was weighed on its day, in the order of the newer; what only the older has comes last. A material in two
 * lines is paired in order.
 * @param names what materials are called now
 */
export function pairLines(a: WrittenRecipe, b: WrittenRecipe, names: ReadonlyMap<number, string>): Pair[] {
  const linesOf = ({ lines, recipe: { total } }: WrittenRecipe): { of: number; material: string; line: LineOf }[] =>
    lines.map(({ materialId, name, entered, weight }) => ({
      of: materialId,
      material: names.get(materialId) ?? name,
      line: { entered, weight, share: weight / total },
    }));
  const older = linesOf(a);
  const pairs = linesOf(b).map(({ of, material, line }): Pair => {
    const at = older.findIndex((o) => o.of === of);
    return { material, b: line, a: at >= 0 ? older.splice(at, 1)[0]!.line : null };
  });
  return [...pairs, ...older.map((o): Pair => ({ material: o.material, a: o.line, b: null }))];
}

/** A version on its sheet, each line weighing what it did on its day, whatever is known of its material since. */
function readAsWeighed(w: WrittenRecipe, t: RecipeTexts, stuff: readonly SheetMaterial[]): ReadRecipe {
  const read = readWritten(t, stuff);
  const lines = read.lines.map((l, i): ReadRecipe["lines"][number] => {
    const weight = w.lines[i]?.weight;
    return weight === undefined ? l : { ...l, out: { ok: true, weight, share: weight / w.recipe.total } };
  });
  return { ...read, lines, total: w.recipe.total, problem: null };
}

/** What a version comes to, by name: the same names for any version. */
export function figuresOf(
  w: WrittenRecipe,
  t: RecipeTexts,
  { stuff, rates, scale, today, school, currency, constants }: By,
): Map<string, string> {
  const read = readAsWeighed(w, t, stuff);
  const shelf = shelfOfStuff(stuff, today);
  const judged = judgedOf(read, judgedSheet(t), shelf, lotsById(stuff), { today, scale, constants });
  const mix = mixOf(judged.lines);
  const share = (part: (l: (typeof judged.lines)[number]) => number): string =>
    sayShare(judged.lines.reduce((sum, l) => sum + l.share * part(l), 0));
  const costing = costingOf(read, t, rates, shelf);
  const said = judge(judged);
  const figures = new Map<string, string>([
    ["Batch", grams(read.total)],
    ["Wax share", share(waxShare)],
    ...PLACE_IDS.map((p): [string, string] => {
      const firm = firmness(mix, PLACES[p].celsius, constants);
      return [`Sets, ${PLACES[p].label}`, `${FEELS[feelOf(firm)].say}, like ${sayShare(firm)} wax`];
    }),
    ["Scent", share(scentShare)],
    ["Keeps, made today", counted(keepingOf(judged.lines, today, judged.keepsMonths).months, "month")],
  ]);
  for (const size of costing.sizes) {
    const cost = costing.cost(size);
    const each = cost.perUnit[school];
    figures.set(`Fills, ${size.label}`, `${cost.fill.units}`);
    figures.set(`Cost of one, ${size.label}`, each ? money(each.total, currency) : "—");
  }
  figures.set("To look at", said.length === 0 ? "nothing" : said.map((j) => j.say).join(" "));
  return figures;
}
