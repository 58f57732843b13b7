/** The demo workshop's recipes written down, and one written again after its first batch. */
import { type Micros } from "#core/measure/exact";
import { massOf } from "#core/measure/mass";
import { parseAmount } from "#core/measure/parse";
import { UNASKED } from "#core/recipe/judge/judge";
import { weighRecipe } from "#core/recipe/lines";
import { batchDensity, readFill } from "#core/recipe/sizes";
import { addDays, type Day } from "#core/when";
import type { Db } from "#db/client";
import { choosePrices } from "#db/prices/prices";
import { readRecipes } from "#db/recipe/read";
import { saveRecipe, type RecipeIn } from "#db/recipe/save";
import { factsOf, material, type MaterialKey } from "./materials.ts";
import { RECIPES, type DemoRecipe, type RecipeKey } from "./recipes.ts";
import { euro, idIn, must, type DemoEvent, type World } from "./world.ts";

const containerOf = (key: MaterialKey) => {
  const { name, brimMl = null, innerMm = null, fillMm = null } = material(key);
  return { name, brimMl, innerMm, fillMm, usableMl: null };
};

/** A recipe as it is saved. @param as its lines by then @param sizes that are there already, in their order */
function recipeIn(r: DemoRecipe, materials: World["materials"], as: DemoRecipe["lines"], sizes: readonly (number | null)[] = []): RecipeIn {
  const { lines: _now, first: _first, packaging, fill, makes, lossPercent, unitMinutes, prices: _prices, small, ...head } = r;
  const weigh = weighRecipe(
    as.map(([m, entered, form]) => ({ amount: must(parseAmount(entered)), facts: factsOf(material(m), form) })),
    makes ? must(massOf(must(parseAmount(makes)), factsOf(material("beeswax"), "block"))) : null,
  );
  if (weigh.problem) throw new Error(`${r.name}: ${weigh.problem.say}`);
  const weights = weigh.lines.map((line) => {
    if (!line.ok) throw new Error(`${r.name}: ${line.problem.say}`);
    return line.weight;
  });
  const density = batchDensity(
    as.map(([m], i) => {
      const { name, kind, densities = {} } = material(m);
      return { name, kind, densities, weight: weights[i]! };
    }),
    0,
  );
  const size = (id: number | null = null, text: string, minutes: number, parts: DemoRecipe["packaging"]) => {
    const [container] = parts.map(([m]) => m).filter((m) => material(m).kind === "container");
    const made = must(readFill(text, density, container ? containerOf(container) : null));
    return {
      id,
      label: made.label,
      fillBy: made.by,
      fillText: text,
      fill: made.weight,
      fillMl: made.ml,
      containerId: container ? materials[container] : null,
      unitMinutesHundredths: Math.round(minutes * 100),
      retired: false,
      packaging: parts.map(([m, pieces]) => ({ materialId: materials[m], pieces })),
    };
  };
  return {
    ...head,
    ...UNASKED,
    makes: makes ? weigh.total : null,
    total: weigh.total,
    lossBp: Math.round(lossPercent * 100),
    overrunBp: 0,
    note: "",
    lines: as.map(([m, entered, form], i) => ({ materialId: materials[m], entered, form, weight: weights[i]! })),
    sizes: [
      size(sizes[0], fill, unitMinutes, packaging),
      ...(small ? [size(sizes[1], small.fill ?? "", small.unitMinutes, small.packaging)] : []),
    ],
  };
}

/** Every recipe as it was first written, with its prices. */
export async function addRecipes(db: Db, day: Day, materials: World["materials"]): Promise<World["recipes"]> {
  const out: Partial<World["recipes"]> = {};
  for (const [key, r] of Object.entries(RECIPES) as [RecipeKey, DemoRecipe][]) {
    const at = new Map(r.first?.lines);
    const lines = r.lines.map(([m, amount, form]) => [m, at.get(m) ?? amount, form] as const);
    const id = idIn(await saveRecipe(db, recipeIn(r, materials, lines), { day }));
    const [written] = await readRecipes(db, [id]);
    const [main, second] = written!.sizes;
    out[key] = { id, productId: main!.id, smallId: second?.id ?? null };
    const choose = async (productId: number, figures: DemoRecipe["prices"]): Promise<void> => {
      const [market, online, wholesale, gift] = figures.map(euro) as [Micros, Micros, Micros, Micros];
      await choosePrices(db, { productId, own: null, prices: { market, online, wholesale, gift } }, { day });
    };
    await choose(main!.id, r.prices);
    if (r.small && second) await choose(second.id, r.small.prices);
  }
  return out as World["recipes"];
}

/** What a first batch taught, written as the next version. */
export const rewrites = ({ db, today, materials, recipes }: World): DemoEvent[] =>
  (Object.entries(RECIPES) as [RecipeKey, DemoRecipe][]).flatMap(([key, r]) => {
    const { id, productId, smallId } = recipes[key];
    const { first } = r;
    return first
      ? [
          {
            daysAgo: first.until,
            run: () =>
              saveRecipe(
                db,
                { ...recipeIn(r, materials, r.lines, [productId, smallId]), id, note: first.why },
                { day: addDays(today, -first.until) },
              ),
          },
        ]
      : [];
  });
