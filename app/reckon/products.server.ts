/** Recipes asked for by name: what so many cost, and what to weigh for so many. */
import { finder } from "#core/find";
import { money } from "#core/measure/money";
import { massOf } from "#core/measure/mass";
import { readWeight } from "#core/measure/read";
import { grams } from "#core/measure/write";
import type { Mg } from "#core/measure/exact";
import type { Question } from "#core/reckon/question";
import { costRecipe } from "#core/recipe/cost";
import { batchFor, scaleTo } from "#core/recipe/scale";
import { COSTING_METHODS } from "#core/stock/costingMethods";
import { today } from "#db/clock";
import { materialsOf, readShelf } from "#db/recipe/costs";
import { costInput, readRecipes, type WrittenRecipe } from "#db/recipe/read";
import { cachedSettings } from "#db/settings/settings";
import { listMaterials } from "#db/shelf/materials";
import { db } from "../server/workshop.server.ts";
import { cant, type Reading } from "./reading.ts";

const MOST = 2;
const MOST_UNITS = 10_000;
type Size = WrittenRecipe["sizes"][number];

/** Recipes of a name with the size that is meant: it may come before the name ("2 oz hand balm"); else the recipe's first. */
async function named(text: string): Promise<{ w: WrittenRecipe; size: Size }[]> {
  const written = (await readRecipes(db())).filter((w) => w.sizes.length > 0);
  const typed = /^([\d./½¼¾\s]+(?:fl oz|oz|g|ml|lb))\s+(?:of\s+)?(.+)$/i.exec(text);
  const asked = typed ? readWeight(typed[1]!) : null;
  return finder(written, (w) => ({ name: w.recipe.name }))(typed?.[2] ?? text, MOST).map((w) => ({
    w,
    size: w.sizes.find((s) => asked?.ok && s.fill === asked.value) ?? w.sizes.find((s) => s.label === typed?.[1]?.trim()) ?? w.sizes[0]!,
  }));
}

const weightsOf = (w: WrittenRecipe, batch: Mg): Mg[] =>
  scaleTo(
    w.lines.map((l) => l.weight),
    batch,
  );

/** What so many units cost. */
export async function costing(units: number, name: string): Promise<Reading[]> {
  const hits = await named(name);
  if (hits.length === 0) return [cant(`No recipe is called “${name}”.`)];
  if (units < 1 || units > MOST_UNITS) return [cant("Ask for 1 to 10 000 units.")];
  const [settings, shelf] = await Promise.all([cachedSettings(db()), readShelf(db(), today(), materialsOf(hits.map((h) => h.w)))]);
  return hits.map(({ w, size }) => {
    const batch = batchFor([{ units, fill: size.fill }], w.recipe.lossBp);
    const cost = costRecipe(costInput(w, size, settings, weightsOf(w, batch)), shelf);
    const each = cost.perUnit[settings.school];
    if (!each) return cant(`${w.recipe.name} has an ingredient that was never bought, so it has no cost yet.`);
    const say = (n: number): string => money(n, settings.currency);
    return {
      say: `${units} × ${w.recipe.name} (${size.label}) cost ${say(each.total * units)}, ${say(each.total)} each`,
      steps: [
        `A batch of ${grams(batch)}, costed by: ${COSTING_METHODS[settings.school].toLowerCase()}`,
        `Materials ${say(each.materials)}, work ${say(each.work)}, overhead ${say(each.overhead)} each`,
      ],
      places: [{ to: `/recipes/${w.recipe.id}`, name: `The recipe` }],
    };
  });
}

/** What to weigh for so many units, or so much. */
export async function making({ product, units, weight }: Extract<Question, { kind: "makes" }>): Promise<Reading[]> {
  const hits = await named(product);
  if (hits.length === 0 || (units !== null && (units < 1 || units > MOST_UNITS))) return [];
  const all = weight ? massOf(weight, { name: "The batch", form: "liquid", densities: {} }) : null;
  if (all && !all.ok) return [];
  const names = new Map((await listMaterials(db())).map((m) => [m.id, m.name]));
  return hits.map(({ w, size }): Reading => {
    const batch = all?.ok ? all.value : batchFor([{ units: units ?? 1, fill: size.fill }], w.recipe.lossBp);
    const weights = weightsOf(w, batch);
    return {
      say: `${w.recipe.name} for ${units === null ? grams(batch) : `${units} × ${size.label}`}: ${grams(batch)} in the pot`,
      steps: w.lines.map((l, i) => `${names.get(l.materialId) ?? l.name} ${grams(weights[i]!)}`),
      places: [
        { to: `/bench/set-out?recipe=${w.recipe.id}${units === null ? "" : `&units=${units}`}`, name: "Set it out" },
        { to: `/recipes/${w.recipe.id}`, name: "The recipe" },
      ],
    };
  });
}
