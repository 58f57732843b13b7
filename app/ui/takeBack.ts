/** Taking back an act that the note offered. */
import { today } from "#db/clock";
import { undoAct } from "#db/act";
import { db } from "../db.server.ts";
import { idOf } from "../forms/ids.ts";
import { act } from "../forms/sheet.server.ts";
import type { Route } from "./+types/takeBack";

export async function action({ request }: Route.ActionArgs) {
  const actId = idOf((await request.formData()).get("actId"));
  return act(() => undoAct(db(), actId, { day: today() }));
}
