/** Recipes as a file: a row for each size, with what a unit costs by each costing method. */
import type { FileColumn } from "#core/lists/fileColumns";
import { RECIPE_TYPES } from "#core/recipe/types";
import { COSTING_METHODS, COSTING_METHOD_IDS } from "#core/stock/costingMethods";
import type { Route } from "./+types/recipes";

type Recipe = Route.ComponentProps["loaderData"]["recipes"][number];
interface Sized {
  recipe: Recipe;
  size: Recipe["sizes"][number];
}

export const RECIPES_FILE: FileColumn<Sized>[] = [
  { head: "recipe", of: ({ recipe }) => recipe.name },
  { head: "kind", of: ({ recipe }) => RECIPE_TYPES[recipe.type].label },
  { head: "lots start with", of: ({ recipe }) => recipe.code },
  { head: "version", of: ({ recipe }) => recipe.n, as: "number" },
  { head: "size", of: ({ size }) => size.label },
  { head: "fill", of: ({ size }) => size.fill, as: "grams" },
  { head: "batch", of: ({ recipe }) => recipe.batch, as: "grams" },
  { head: "fills units", of: ({ size }) => size.units, as: "number" },
  { head: "wax", of: ({ recipe }) => recipe.wax, as: "percent" },
  ...COSTING_METHOD_IDS.map((m, i): FileColumn<Sized> => ({
    head: `one costs, ${COSTING_METHODS[m].toLowerCase()}`,
    of: ({ size }) => size.perUnit[i] ?? null,
    as: "money",
  })),
  { head: "short of", of: ({ recipe }) => recipe.short.join(", ") },
];
