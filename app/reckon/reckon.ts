/** Answers the reckon bar. */
import { factsIn } from "#core/material/facts";
import { kind } from "#core/material/kinds";
import { money } from "#core/measure/money";
import { convert, strength, type Answer } from "#core/reckon/answer";
import { bestName, readQuestion } from "#core/reckon/question";
import { costRecipe } from "#core/recipe/cost";
import { batchFor, scaleTo } from "#core/recipe/scale";
import { type MassFacts } from "#core/measure/mass";
import { readWeight } from "#core/measure/read";
import { grams } from "#core/measure/write";
import type { Outcome } from "#core/outcome";
import { SCHOOLS } from "#core/stock/schools";
import { today } from "#db/clock";
import { findLot, lotsLike } from "#db/lots/trace";
import { materialsOf, readShelfCosts } from "#db/recipe/costs";
import { costInput, readRecipes } from "#db/recipe/read";
import { readSettings } from "#db/settings";
import { listMaterials } from "#db/shelf/materials";
import { db } from "../db.server.ts";
import type { Route } from "./+types/reckon";

export interface Reckoned {
  say: string;
  steps: string[];
  places: { to: string; name: string }[];
  problem?: boolean;
}

const cant = (say: string): Reckoned => ({ say, steps: [], places: [], problem: true });

async function measured(name: string, ask: (facts: MassFacts) => Outcome<Answer>): Promise<Reckoned> {
  const m = bestName(
    name,
    (await listMaterials(db())).filter((x) => kind(x.kind).measured === "weight"),
  );
  if (!m) return cant(`Nothing on the shelf is called “${name}”.`);
  const found = ask(factsIn(m));
  return found.ok ? { ...found.value, places: [{ to: `/shelf/${m.id}`, name: `${m.name} on the shelf` }] } : cant(found.problem.say);
}

async function costing(units: number, name: string): Promise<Reckoned> {
  const written = await readRecipes(db());
  // A size may stand before the name ("2 oz hand balm"); without one the recipe's first is meant.
  const typed = /^([\d./½¼¾\s]+(?:fl oz|oz|g|ml|lb))\s+(.+)$/i.exec(name);
  const words = typed?.[2] ?? name;
  const hit = bestName(
    words,
    written.filter((w) => w.sizes.length > 0).map((w) => ({ name: w.recipe.name, w })),
  );
  if (!hit) return cant(`No recipe is called “${words}”.`);
  if (units < 1 || units > 10_000) return cant("Ask for 1 to 10 000 units.");
  const { w } = hit;
  const asked = typed ? readWeight(typed[1]!) : null;
  const size =
    w.sizes.find((s) => asked?.ok && s.fill === asked.value) ?? w.sizes.find((s) => s.label === typed?.[1]?.trim()) ?? w.sizes[0]!;
  const settings = await readSettings(db());
  const batch = batchFor([{ units, fill: size.fill }], w.recipe.lossBp);
  const shelf = await readShelfCosts(db(), materialsOf([w]));
  const input = costInput(
    w,
    size,
    settings,
    scaleTo(
      w.lines.map((l) => l.weight),
      batch,
    ),
  );
  const cost = costRecipe(input, shelf.lots, shelf.again, today());
  const each = cost.perUnit[settings.school];
  if (!each) return cant(`${w.recipe.name} has an ingredient that was never bought, so it has no cost yet.`);
  return {
    say: `${units} × ${w.recipe.name} (${size.label}) cost ${money(each.total * units, settings.currency)}, ${money(each.total, settings.currency)} each`,
    steps: [
      `A batch of ${grams(batch)}, costed by: ${SCHOOLS[settings.school].toLowerCase()}`,
      `Materials ${money(each.materials, settings.currency)}, work ${money(each.work, settings.currency)}, overhead ${money(each.overhead, settings.currency)} each`,
    ],
    places: [{ to: `/recipes/${w.recipe.id}`, name: `The recipe` }],
  };
}

async function finding(text: string): Promise<Reckoned> {
  const lot = await findLot(db(), text);
  if (lot)
    return {
      say: `${lot.number}: ${lot.name}`,
      steps: [],
      places: [{ to: `/lots/${encodeURIComponent(lot.number)}`, name: "Open its history" }],
    };
  const materials = await listMaterials(db());
  const m = bestName(text, materials);
  const r = bestName(
    text,
    (await readRecipes(db())).map((w) => ({ name: w.recipe.name, id: w.recipe.id })),
  );
  const like = text.length > 2 ? await lotsLike(db(), text, 4) : [];
  const places = [
    ...(m ? [{ to: `/shelf/${m.id}`, name: `${m.name} on the shelf` }] : []),
    ...(r ? [{ to: `/recipes/${r.id}`, name: `${r.name}, the recipe` }] : []),
    ...like.map((l) => ({ to: `/lots/${encodeURIComponent(l.number)}`, name: `${l.number}, ${l.name}` })),
  ];
  return places.length > 0
    ? { say: "Found", steps: [], places }
    : cant("Nothing found. Ask for an amount in a unit, a cost, or a lot number.");
}

export async function loader({ request }: Route.LoaderArgs): Promise<Reckoned> {
  const text = (new URL(request.url).searchParams.get("q") ?? "").slice(0, 200);
  const q = readQuestion(text);
  switch (q.kind) {
    case "convert":
      return measured(q.material, (facts) => convert(q.amount, q.to, facts));
    case "strength":
      return measured(q.material, (facts) => strength(q.amount, facts, q.whole));
    case "cost":
      return costing(q.units, q.product);
    case "find":
      return finding(q.text);
  }
}
