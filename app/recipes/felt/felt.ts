/** Records a spoon or finger test of a recipe. */
import { FEEL_IDS } from "#core/firmness/words";
import { noteFirmness } from "#db/recipe/firmness";
import { object } from "yup";
import { db } from "../../server/workshop.server.ts";
import { noteText, oneOf, scaled, wholeNumber } from "../../forms/fields.ts";
import { idOf } from "../../forms/ids.ts";
import { runAct, readSheet } from "../../forms/sheet.server.ts";
import type { Route } from "./+types/felt";

const schema = object({
  n: wholeNumber(1, 100_000, "versions"),
  celsius: scaled(-30, 90, "degrees", 1),
  feel: oneOf(FEEL_IDS),
  note: noteText(200),
});

export async function action({ request, params }: Route.ActionArgs) {
  const sheet = await readSheet(request, schema);
  if (!sheet.ok) return sheet.reply;
  const { doing, value } = sheet;
  return runAct(() => noteFirmness(db(), { recipeId: idOf(params.id), day: doing.day, ...value }, doing));
}
