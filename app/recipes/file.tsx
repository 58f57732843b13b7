/** Recipes from a spreadsheet's file or a paste: shown first, written as one act. */
import { readRecipeList, RECIPES, type RecipeField, type RecipeLine } from "#core/listsIn/recipes";
import { isKeyOf } from "#core/objects";
import { RECIPE_TYPE_IDS, RECIPE_TYPES } from "#core/recipe/types";
import { lettersTaken, recipeNames } from "#db/recipe/read";
import { addRecipes } from "#db/listsIn/recipes";
import { listMaterials } from "#db/shelf/materials";
import { Link } from "react-router";
import { listAction } from "../forms/table/listFile.server.ts";
import { ListFile } from "../forms/table/listFile.tsx";
import { db } from "../server/workshop.server.ts";
import { materialOptions } from "../shelf/intake/materialOptions.ts";
import { choicesNamed, libraryMeant, namesOf } from "../shelf/intake/names.server.ts";
import { Choice, Text } from "../ui/fields/form.tsx";
import { counted } from "#core/words";
import { grams } from "#core/measure/write";
import type { Route } from "./+types/file";

export const meta: Route.MetaFunction = () => [{ title: "Recipes, from a file · Zelbin" }];

export const loader = async () => ({ names: (await listMaterials(db())).map((m) => m.name), token: crypto.randomUUID() });

const WORDS = ["recipe", "recipes"] as const;

interface More {
  /** What some recipes don't say themselves. */
  wants: { size: boolean; type: boolean; makes: boolean };
  /** The library's entry that each unknown name seems to mean. */
  library: Record<string, { key: string; name: string }>;
}

export const action = ({ request }: Route.ActionArgs) =>
  listAction(request, {
    spec: RECIPES,
    words: WORDS,
    read: async ({ rows, header, columns, reading, matches, extras }) => {
      const [materials, recipes, letters] = await Promise.all([listMaterials(db()), recipeNames(db()), lettersTaken(db())]);
      const { known, add } = namesOf(materials, matches);
      const type = extras.type ?? "";
      const { wants, ...list } = readRecipeList(
        rows,
        columns.amount === null ? "" : (header[columns.amount] ?? ""),
        { materials: choicesNamed(materials, known), recipes, letters },
        { type: isKeyOf(RECIPE_TYPES, type) ? type : null, size: extras.size ?? "", makes: extras.makes ?? "" },
        reading,
      );
      const library = libraryMeant(list.unknown);
      return {
        list,
        more: { wants, library } satisfies More,
        add: (doing) =>
          addRecipes(
            db(),
            {
              add,
              recipes: list.fresh.map(({ name, code, type: madeAs, keepsMonths, method, parts }) => ({
                ...{ name, code, type: madeAs, keepsMonths, method, note: "", lossBp: LOSS_BP, batchMinutes: MINUTES },
                ...{ usedOn: "" as const, forWhom: "anyone" as const, answers: {} },
                ...parts,
                sizes: parts.sizes.map(({ at: _at, ...s }) => ({ ...s, id: null, unitMinutesHundredths: UNIT_MINUTES, retired: false })),
              })),
            },
            doing,
          ),
      };
    },
  });

/** What a new recipe's sheet begins with: lost in the pot, minutes for a batch, minutes for a unit in hundredths. */
const LOSS_BP = 200;
const MINUTES = 45;
const UNIT_MINUTES = 200;

export default function RecipesFile({ loaderData: { names, token } }: Route.ComponentProps) {
  return (
    <ListFile<RecipeField, RecipeLine, More>
      spec={RECIPES}
      token={token}
      title="Recipes, from a file"
      about="A row for each ingredient, under the name of its recipe or beside it. Loss, minutes and packaging are as on a new recipe’s sheet; look through each before the first batch."
      links={
        <Link to="/recipes" className="act">
          All recipes
        </Link>
      }
      placeholder={"recipe;ingredient;amount;size\nHand balm;Beeswax, yellow;60 g;60 g\n;Olive oil;240 g;"}
      words={WORDS}
      extras={{ type: "", size: "", makes: "" }}
      beside={({ wants }, extras, set) => (
        <>
          {(wants.type || extras.type) && (
            <Choice
              label="The others are made as"
              value={extras.type ?? ""}
              onChange={(e) => set({ type: e.target.value })}
              options={[["", "— choose —"], ...RECIPE_TYPE_IDS.map((t) => [t, RECIPE_TYPES[t].label] as const)]}
            />
          )}
          {(wants.size || extras.size) && (
            <Text
              label="Those without a size are filled with"
              placeholder="such as 60 g"
              value={extras.size ?? ""}
              onChange={(e) => set({ size: e.target.value })}
            />
          )}
          {(wants.makes || extras.makes) && (
            <Text
              label="A batch weighs"
              placeholder="such as 1 kg"
              value={extras.makes ?? ""}
              onChange={(e) => set({ makes: e.target.value })}
            />
          )}
        </>
      )}
      names={{
        title: "Names the shelf doesn't know",
        options: (name, more) => materialOptions(names, more.library[name], "leave these recipes out"),
        aside: (more, say) => {
          const found = Object.entries(more.library);
          return (
            found.length > 0 && (
              <button
                type="button"
                className="pressable"
                onClick={() => say(Object.fromEntries(found.map(([name, e]) => [name, `library:${e.key}`])))}
              >
                Take {counted(found.length, "name")} from the library
              </button>
            )
          );
        },
      }}
      columns={[
        { head: "Recipe", cell: (r) => <span className="font-display text-lead">{r.name}</span> },
        { head: "Made as", cell: (r) => RECIPE_TYPES[r.type].label },
        { head: "Ingredients", as: "figure", cell: (r) => r.parts.lines.length },
        { head: "Batch", as: "figure", cell: (r) => grams(r.parts.makes ?? r.parts.total) },
        { head: "Sizes", plain: true, cell: (r) => r.parts.sizes.map((s) => s.label).join(", ") },
        { head: "Keeps", as: "figure", cell: (r) => counted(r.keepsMonths, "month") },
        { head: "Lot letters", cell: (r) => r.code },
      ]}
    />
  );
}
