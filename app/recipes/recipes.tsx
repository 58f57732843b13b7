/** Every recipe with its size and what a unit costs by each school. */
import { gramsIn } from "#core/measure/write";
import { money } from "#core/measure/money";
import { RECIPE_TYPES } from "#core/recipe/types";
import { SCHOOLS, SCHOOL_IDS } from "#core/stock/schools";
import { today } from "#db/clock";
import { costRecipes } from "#db/recipe/costs";
import { readSettings } from "#db/settings";
import { listMaterials } from "#db/shelf/materials";
import { Link } from "react-router";
import { db } from "../db.server.ts";
import { percent } from "../ui/amounts.tsx";
import { Empty, Heading, Sheet } from "../ui/sheet.tsx";
import { useWorkshop } from "../ui/workshop.ts";
import type { Route } from "./+types/recipes";

export const meta: Route.MetaFunction = () => [{ title: "Recipes · Zelbin" }];

export async function loader() {
  const settings = await readSettings(db());
  const [recipes, materials] = await Promise.all([costRecipes(db(), settings, today()), listMaterials(db())]);
  const kinds = new Map(materials.map((m) => [m.id, m]));
  return recipes.map(({ recipe, product, lines, packaging, cost }) => ({
    id: recipe.id,
    name: recipe.name,
    type: recipe.type,
    code: recipe.code,
    fill: product.fill,
    batch: cost.batch,
    units: cost.fill.units,
    wax: lines.filter((l) => kinds.get(l.materialId)?.kind === "wax").reduce((a, l) => a + l.weight, 0) / cost.batch,
    perUnit: SCHOOL_IDS.map((s) => cost.perUnit[s]?.total ?? null),
    short: [...lines, ...packaging]
      .filter((_, i) => [...cost.lines, ...cost.packaging][i]!.plan.short > 0)
      .map((n) => kinds.get(n.materialId)?.name),
  }));
}

export default function Recipes({ loaderData }: Route.ComponentProps) {
  const { currency, school } = useWorkshop();
  return (
    <>
      <Heading title="Recipes" about="What a unit costs at the batch size the recipe is written for, work and overhead included.">
        <Link to="/recipes/new" className="act act-main">
          Write a recipe
        </Link>
      </Heading>
      {loaderData.length === 0 ? (
        <Empty
          title="No recipe yet"
          act={
            <Link to="/recipes/new" className="act act-main">
              Write a recipe
            </Link>
          }
        >
          Write it the way you measure, in cups, ounces, parts or grams; every line shows its grams.
        </Empty>
      ) : (
        <Sheet>
          <table className="ruled stack">
            <thead>
              <tr>
                <th scope="col">Recipe</th>
                <th scope="col" className="text-right!">
                  Size
                </th>
                <th scope="col" className="text-right!">
                  Batch
                </th>
                <th scope="col" className="text-right!">
                  Fills
                </th>
                <th scope="col" className="text-right!">
                  Wax
                </th>
                {SCHOOL_IDS.map((s) => (
                  <th key={s} scope="col" className={`text-right! ${s === school ? "text-pine!" : ""}`}>
                    {SCHOOLS[s]}
                    {s === school && " ●"}
                  </th>
                ))}
              </tr>
            </thead>
            <tbody>
              {loaderData.map((r) => (
                <tr key={r.id}>
                  <td>
                    <a href={`/recipes/${r.id}`} className="font-display text-[1.1rem] hover:underline">
                      {r.name}
                    </a>
                    <div className="text-[0.88rem] text-pine-soft">
                      {RECIPE_TYPES[r.type].label}, lots start with {r.code}
                      {r.short.length > 0 && <span className="font-semibold text-honey"> · short of {r.short.join(", ")}</span>}
                    </div>
                  </td>
                  <td data-label="Size" className="num weight">
                    {gramsIn(1)(r.fill)}
                  </td>
                  <td data-label="Batch" className="num weight">
                    {gramsIn(1)(r.batch)}
                  </td>
                  <td data-label="Fills" className="num">
                    {r.units} units
                  </td>
                  <td data-label="Wax" className="num">
                    {percent(r.wax)}
                  </td>
                  {r.perUnit.map((c, i) => (
                    <td
                      key={SCHOOL_IDS[i]}
                      data-label={SCHOOLS[SCHOOL_IDS[i]!]}
                      className={`num ${SCHOOL_IDS[i] === school ? "font-semibold" : ""}`}
                    >
                      {c === null ? "—" : money(c, currency)}
                    </td>
                  ))}
                </tr>
              ))}
            </tbody>
          </table>
          <p className="mt-3 text-[0.9rem] text-pine-soft">● is the school this workshop goes by; change it in Settings.</p>
        </Sheet>
      )}
    </>
  );
}
