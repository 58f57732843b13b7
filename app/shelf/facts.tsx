/** Changing a material's facts. */
import { today } from "#db/clock";
import { listMaterials, readMaterial, saveMaterial } from "#db/shelf/materials";
import { db } from "../db.server.ts";
import { idOf } from "../forms/ids.ts";
import { act, readSheet } from "../forms/sheet.server.ts";
import { factsSchema, materialFrom } from "./facts.server.ts";
import { FactsForm } from "./factsForm.tsx";
import type { Route } from "./+types/facts";

export async function loader({ params }: Route.LoaderArgs) {
  const found = await readMaterial(db(), idOf(params.id));
  if (!found) throw new Response("Not found", { status: 404 });
  return { material: found.material, locked: found.lots.length > 0, lids: await lids(), token: crypto.randomUUID() };
}

const lids = async () => (await listMaterials(db())).filter((m) => m.kind === "closure").map(({ id, name }) => ({ id, name }));

export async function action({ request, params }: Route.ActionArgs) {
  const sheet = await readSheet(request, factsSchema);
  if (!sheet.ok) return sheet.reply;
  const facts = materialFrom(sheet.value, await lids());
  if (!facts.ok) return facts.reply;
  return act(() => saveMaterial(db(), facts.value, { day: today(), token: sheet.token }, idOf(params.id)));
}

export default function ChangeFacts({ loaderData }: Route.ComponentProps) {
  return <FactsForm {...loaderData} />;
}
