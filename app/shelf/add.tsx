/** Adding a material. */
import { today } from "#db/clock";
import { saveMaterial } from "#db/shelf/materials";
import { db } from "../db.server.ts";
import { act, readSheet } from "../forms/sheet.server.ts";
import { factsSchema, materialFrom } from "./facts.server.ts";
import { FactsForm } from "./factsForm.tsx";
import type { Route } from "./+types/add";

export const meta: Route.MetaFunction = () => [{ title: "Add a material · Zelbin" }];
export const loader = () => ({ token: crypto.randomUUID() });

export async function action({ request }: Route.ActionArgs) {
  const sheet = await readSheet(request, factsSchema);
  if (!sheet.ok) return sheet.reply;
  const facts = materialFrom(sheet.value);
  if (!facts.ok) return facts.reply;
  return act(() => saveMaterial(db(), facts.value, { day: today(), token: sheet.token }));
}

export default function Add({ loaderData }: Route.ComponentProps) {
  return <FactsForm material={null} token={loaderData.token} locked={false} />;
}
