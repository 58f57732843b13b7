/** Every recipe with its size and what a unit costs by each costing method. */
import { Link } from "react-router";
import { waxShare } from "#core/material/makeup";
import { gramsIn } from "#core/measure/write";
import { money } from "#core/measure/money";
import { RECIPE_TYPES } from "#core/recipe/types";
import { counted } from "#core/words";
import { COSTING_METHODS, COSTING_METHOD_IDS } from "#core/stock/costingMethods";
import { today } from "#db/clock";
import { recipesAway } from "#db/recipe/read";
import { costRecipes } from "#db/recipe/costs";
import { cachedSettings } from "#db/settings/settings";
import { materialKinds } from "#db/shelf/materials";
import { db } from "../server/workshop.server.ts";
import { percent } from "../ui/figures/amounts.tsx";
import { Empty, Heading, Sheet } from "../ui/sheet/sheet.tsx";
import { ListTable } from "../ui/lists/listTable.tsx";
import { SaveList } from "../ui/lists/saveList.tsx";
import type { Column } from "../ui/lists/table.tsx";
import { useWorkshop } from "../ui/workshop.ts";
import { RECIPES_FILE } from "./recipesFile.ts";
import type { Route } from "./+types/recipes";

export const meta: Route.MetaFunction = () => [{ title: "Recipes · Zelbin" }];

export async function loader() {
  const settings = await cachedSettings(db());
  const [recipes, materials, away] = await Promise.all([costRecipes(db(), settings, today()), materialKinds(db()), recipesAway(db())]);
  const kinds = new Map(materials.map((m) => [m.id, m]));
  return {
    away,
    recipes: recipes.map(({ recipe, sizes, lines }) => {
      const total = lines.reduce((a, l) => a + l.weight, 0);
      const short = new Set(
        sizes.flatMap((s) =>
          [...lines, ...s.packaging].filter((_, i) => [...s.cost.lines, ...s.cost.packaging][i]!.plan.short > 0).map((n) => n.materialId),
        ),
      );
      return {
        id: recipe.id,
        name: recipe.name,
        type: recipe.type,
        code: recipe.code,
        n: recipe.n,
        batch: total,
        wax: lines.reduce((a, l) => a + l.weight * waxShare(kinds.get(l.materialId)!), 0) / total,
        short: [...short].map((id) => kinds.get(id)?.name),
        sizes: sizes.map((s) => ({
          id: s.id,
          label: s.label,
          fill: s.fill,
          units: s.cost.units,
          perUnit: COSTING_METHOD_IDS.map((x) => s.cost.perUnit[x]?.total ?? null),
        })),
      };
    }),
  };
}

export default function Recipes({ loaderData: { recipes, away } }: Route.ComponentProps) {
  const { currency, school } = useWorkshop();
  return (
    <>
      <Heading title="Recipes" about="What a unit costs at the batch size the recipe is written for, work and overhead included.">
        <Link to="/recipes/file" className="act">
          From a file
        </Link>
        <Link to="/recipes/new" className="act act-main">
          Write a recipe
        </Link>
      </Heading>
      {recipes.length === 0 && away.length === 0 ? (
        <Empty
          title="No recipe yet"
          act={
            <span className="flex flex-wrap gap-2">
              <Link to="/recipes/new" className="act act-main">
                Write a recipe
              </Link>
              <Link to="/recipes/file" className="act">
                From a file
              </Link>
            </span>
          }
        >
          Write it the way you measure, in cups, ounces, parts or grams; every line shows its grams.
        </Empty>
      ) : (
        <Sheet>
          <ListTable
            what="recipes"
            rows={recipes.flatMap((recipe) => recipe.sizes.map((size, n) => ({ recipe, size, first: n === 0 })))}
            by={({ size }) => size.id}
            under={(found) => <SaveList what="recipes" rows={found} columns={RECIPES_FILE} />}
            finds={({ recipe: r, size }) => `${r.name} ${size.label} ${r.code} ${RECIPE_TYPES[r.type].label}`}
            columns={[
              {
                head: "Recipe",
                sorts: ({ recipe }) => recipe.name,
                cell: ({ recipe: r, first }) =>
                  first ? (
                    <>
                      <Link to={`/recipes/${r.id}`} className="font-display text-lead hover:underline">
                        {r.name}
                      </Link>
                      <div className="text-fine text-pine-soft">
                        {RECIPE_TYPES[r.type].label}, lots start with {r.code}, version {r.n}
                        {r.short.length > 0 && <span className="font-semibold text-honey"> · short of {r.short.join(", ")}</span>}
                      </div>
                    </>
                  ) : (
                    <Link to={`/recipes/${r.id}`} className="text-pine-soft hover:underline">
                      {r.name}
                    </Link>
                  ),
              },
              { head: "Size", as: "weight", sorts: ({ size }) => size.fill, cell: ({ size }) => size.label },
              { head: "Batch", as: "weight", cell: ({ recipe, first }) => first && gramsIn(1)(recipe.batch) },
              { head: "Fills", as: "figure", sorts: ({ size }) => size.units, cell: ({ size }) => `${size.units} units` },
              { head: "Wax", as: "figure", sorts: ({ recipe }) => recipe.wax, cell: ({ recipe, first }) => first && percent(recipe.wax) },
              ...COSTING_METHOD_IDS.map((s, i): Column<{ size: { perUnit: readonly (number | null)[] } }> => ({
                head: COSTING_METHODS[s] + (s === school ? "\u00a0●" : ""),
                as: "figure",
                headClass: s === school ? "text-pine!" : "",
                className: s === school ? "font-semibold" : "",
                sorts: ({ size }) => size.perUnit[i] ?? null,
                cell: ({ size }) => (size.perUnit[i] == null ? "—" : money(size.perUnit[i], currency)),
              })),
            ]}
          />
          <p className="mt-3 text-small text-pine-soft">● is the costing method this workshop uses; change it in Settings.</p>
          {away.length > 0 && (
            <details className="mt-5">
              <summary className="pressable text-small">{counted(away.length, "recipe")} put away</summary>
              <ul className="mt-1 columns-2 gap-8 max-sm:columns-1">
                {away.map((r) => (
                  <li key={r.id}>
                    <Link to={`/recipes/${r.id}`} className="hover:underline">
                      {r.name}
                    </Link>
                  </li>
                ))}
              </ul>
            </details>
          )}
        </Sheet>
      )}
    </>
  );
}
