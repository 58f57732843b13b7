/** Recipes out of a list, with the materials they want that aren't on the shelf yet, as one act. */
import { Refused } from "#core/refused";
import { counted } from "#core/words";
import { array, object } from "yup";
import { defineAct } from "../act/define.ts";
import { undoId } from "../act/left.ts";
import { deleteWritten, newRecipe, nobodyElseIs, writeSizes, type RecipeIn } from "../recipe/save.ts";
import { restoreSizes } from "../recipe/sizesBack.ts";
import { writeVersion } from "../recipe/versions.ts";
import { addNamed, materialIdOf, type NewMaterial } from "../shelf/receipts/receive.ts";

export interface AddRecipesIn {
  /** Materials to put on the shelf first; recipes name them by numbers below zero. */
  add: readonly NewMaterial[];
  recipes: readonly Omit<RecipeIn, "id">[];
}

/** Writes the recipes of a list, all or none. @throws Refused for a name or letters that are taken */
export const addRecipes = defineAct({
  kind: "addRecipes",
  run: async (tx, { add, recipes }: AddRecipesIn, { actId, day, step }) => {
    if (recipes.length === 0) throw Refused.one("", "Enter at least one recipe.");
    const added = await addNamed(tx, add);
    const of = <T extends { materialId: number }>(l: T): T => ({ ...l, materialId: materialIdOf(l.materialId, added) });
    const ids: number[] = [];
    for (const { code, note, sizes, ...version } of recipes) {
      await nobodyElseIs(tx, { ...version, code, note, sizes });
      const id = await newRecipe(tx, { name: version.name, code });
      await writeVersion(tx, id, { ...version, lines: version.lines.map(of) }, { actId, day, note });
      await writeSizes(
        tx,
        id,
        [],
        sizes.map((s) => ({
          ...s,
          containerId: s.containerId === null ? null : materialIdOf(s.containerId, added),
          packaging: s.packaging.map(of),
        })),
      );
      ids.push(id);
      await step(ids.length, recipes.length);
    }
    return {
      path: ids.length === 1 ? `/recipes/${ids[0]!}` : "/recipes",
      summary: `Wrote ${counted(ids.length, "recipe")} from a list`,
      about: [
        ...added.map((id) => ({ kind: "material" as const, id, changes: true })),
        ...ids.map((id) => ({ kind: "recipe" as const, id, changes: true })),
      ],
      leaves: { ids },
    };
  },
  leaves: object({ ids: array().of(undoId()).required() }),
  back: async (tx, { ids }, { undoes }) => {
    for (const id of ids) {
      await restoreSizes(tx, id, { sizes: [], packaging: [] }, undoes);
      await deleteWritten(tx, id);
    }
    return "/recipes";
  },
});
