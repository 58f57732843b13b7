/** Adding a material. */
import { saveMaterial } from "#db/shelf/keepMaterial";
import { materialRow } from "#db/shelf/materials";
import { db } from "../../server/workshop.server.ts";
import { idOf } from "../../forms/ids.ts";
import { runAct, readSheet } from "../../forms/sheet.server.ts";
import { factsSchema, lids, materialFrom } from "./facts.server.ts";
import { FactsForm } from "./factsForm.tsx";
import type { Route } from "./+types/add";

export const meta: Route.MetaFunction = () => [{ title: "Add a material · Zelbin" }];
export async function loader({ request }: Route.LoaderArgs) {
  const like = new URL(request.url).searchParams.get("like");
  return {
    lids: await lids(db()),
    like: like === null ? null : ((await materialRow(db(), idOf(like))) ?? null),
    token: crypto.randomUUID(),
  };
}

export async function action({ request }: Route.ActionArgs) {
  const sheet = await readSheet(request, factsSchema);
  if (!sheet.ok) return sheet.reply;
  const facts = materialFrom(sheet.value, await lids(db()));
  if (!facts.ok) return facts.reply;
  return runAct(() => saveMaterial(db(), facts.value, sheet.doing));
}

export default function Add({ loaderData }: Route.ComponentProps) {
  return <FactsForm material={null} like={loaderData.like} opened={{ token: loaderData.token }} lids={loaderData.lids} locked={false} />;
}
