/** Changing a material's facts. */
import { saveMaterial } from "#db/shelf/keepMaterial";
import { readMaterial } from "#db/shelf/materials";
import { db } from "../../server/workshop.server.ts";
import { idOf } from "../../forms/ids.ts";
import { runAct, readSheet } from "../../forms/sheet.server.ts";
import { factsSchema, lids, materialFrom } from "./facts.server.ts";
import { factsText } from "./factsText.ts";
import { openSheet } from "../../forms/openSheet.server.ts";
import { FactsForm } from "./factsForm.tsx";
import type { Route } from "./+types/facts";

export async function loader({ params }: Route.LoaderArgs) {
  const found = await readMaterial(db(), idOf(params.id));
  if (!found) throw new Response("Not found", { status: 404 });
  return {
    material: found.material,
    locked: found.lots.length > 0,
    lids: await lids(db()),
    opened: await openSheet({ kind: "material", id: found.material.id }),
  };
}

export async function action({ request, params }: Route.ActionArgs) {
  const sheet = await readSheet(request, factsSchema);
  if (!sheet.ok) return sheet.reply;
  const facts = materialFrom(sheet.value, await lids(db()));
  if (!facts.ok) return facts.reply;
  const id = idOf(params.id);
  return runAct(() => saveMaterial(db(), { ...facts.value, id }, sheet.doing), {
    theirs: async () => factsText((await readMaterial(db(), id))!.material, await lids(db())),
  });
}

export default function ChangeFacts({ loaderData }: Route.ComponentProps) {
  return <FactsForm {...loaderData} />;
}
