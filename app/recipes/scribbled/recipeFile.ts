/** A recipe as a file: JSON with all of its sheet, or CSV with its lines. */
import { writeLines, writeRecipe } from "#core/recipe/portable";
import { materialsOf } from "#db/recipe/costs";
import { readWhole } from "#db/recipe/read";
import { materialsNamed } from "#db/shelf/materials";
import { db } from "../../server/workshop.server.ts";
import { idOf } from "../../forms/ids.ts";
import { recipeTexts } from "../recipeTexts.ts";
import { toPortable } from "./portableTexts.ts";
import type { Route } from "./+types/recipeFile";

export async function loader({ params }: Route.LoaderArgs) {
  const written = await readWhole(db(), idOf(params.id));
  if (!written || (params.as !== "json" && params.as !== "csv")) throw new Response("Not Found", { status: 404 });
  const names = new Map((await materialsNamed(db(), materialsOf([written]), [])).map((m) => [m.id, m.name]));
  const recipe = toPortable(recipeTexts(written, names));
  const name =
    written.recipe.name
      .normalize("NFD")
      .replace(/[^A-Za-z0-9]+/g, "-")
      .replace(/^-|-$/g, "")
      .toLowerCase() || "recipe";
  return new Response(params.as === "json" ? writeRecipe(recipe) : writeLines(recipe.lines), {
    headers: {
      "content-type": params.as === "json" ? "application/json" : "text/csv; charset=utf-8",
      "content-disposition": `attachment; filename="${name}.${params.as}"`,
    },
  });
}
