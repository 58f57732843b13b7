/** Taking back an act: from the note that offers it, its record, its lot or the book. */
import { takeBack } from "#db/act/takeBack";
import { object } from "yup";
import { db } from "../db.server.ts";
import { idField } from "../forms/fields.ts";
import { act, readSheet } from "../forms/sheet.server.ts";
import type { Route } from "./+types/takeBack";

export async function action({ request }: Route.ActionArgs) {
  const sheet = await readSheet(request, object({ actId: idField() }));
  return sheet.ok ? act(() => takeBack(db(), sheet.value.actId, sheet.doing)) : sheet.reply;
}
