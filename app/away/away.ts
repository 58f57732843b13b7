/** Putting a record away, bringing it back, and deleting what was never used: one address for every kind of record. */
import { deleteContact, retireContact } from "#db/contacts/contacts";
import { deleteProduct, deleteRecipe, retireProduct, retireRecipe } from "#db/recipe/keep";
import { deleteMaterial, retireMaterial } from "#db/shelf/keepMaterial";
import { object } from "yup";
import { db } from "../server/workshop.server.ts";
import { idField, oneOf } from "../forms/fields.ts";
import { runAct, readSheet } from "../forms/sheet.server.ts";
import type { Route } from "./+types/away";
import { AWAY_DOES, AWAY_OF } from "./kinds.ts";

const COMMANDS = {
  material: { retire: retireMaterial, remove: deleteMaterial },
  recipe: { retire: retireRecipe, remove: deleteRecipe },
  product: { retire: retireProduct, remove: deleteProduct },
  contact: { retire: retireContact, remove: deleteContact },
} as const;

const schema = object({ of: oneOf(AWAY_OF), id: idField(), does: oneOf(AWAY_DOES) });

export async function action({ request }: Route.ActionArgs) {
  const sheet = await readSheet(request, schema);
  if (!sheet.ok) return sheet.reply;
  const { of, id, does } = sheet.value;
  const { retire, remove } = COMMANDS[of];
  return runAct(() =>
    does === "delete" ? remove(db(), { id }, sheet.doing) : retire(db(), { id, retired: does === "away" }, sheet.doing),
  );
}
