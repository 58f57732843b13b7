/** Taking back an act: from the note that offers it, its record, its lot or the book. */
import { reverseAct } from "#db/acts/reverse";
import { object } from "yup";
import { db } from "../server/workshop.server.ts";
import { idField } from "../forms/fields.ts";
import { runAct, readSheet } from "../forms/sheet.server.ts";
import type { Route } from "./+types/takeBack";

export async function action({ request }: Route.ActionArgs) {
  const sheet = await readSheet(request, object({ actId: idField() }));
  return sheet.ok ? runAct(() => reverseAct(db(), sheet.value.actId, sheet.doing)) : sheet.reply;
}
