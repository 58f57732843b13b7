/** Route for drafts: saves, discards and reopens them; every sheet posts here as it is typed on. */
import { isObject } from "#core/objects";
import { dropDraft, keepDraft } from "#db/drafts";
import { data } from "react-router";
import { object } from "yup";
import { db } from "../../server/workshop.server.ts";
import { noteText, requiredText } from "../fields.ts";
import { MOST_CHARACTERS } from "./keptDrafts.ts";
import { validateSheet, readPosted, refuseSheet } from "../sheet.server.ts";
import type { Route } from "./+types/drafts";

const schema = object({ path: requiredText("a page", 300), sheet: noteText(80), title: noteText(200) });

/** Answers whether it is saved: not any more once the sheet has done its act. */
export async function action({ request }: Route.ActionArgs) {
  const posted = await readPosted(request);
  if (!posted.ok) return posted.reply;
  const sheet = await validateSheet(posted.body, schema);
  if (!sheet.ok) return sheet.reply;
  const { path, sheet: which, title } = sheet.value;
  const { values } = posted.body as { values?: unknown };
  const no = () => refuseSheet([{ field: "", say: "That can't be saved as a draft." }]);
  if (!path.startsWith("/")) return no();
  if (values === null) {
    await dropDraft(db(), path, which);
    return data({ kept: false });
  }
  const { token, seen = null } = sheet.doing;
  if (!isObject(values) || JSON.stringify(values).length > MOST_CHARACTERS || token === undefined) return no();
  return data({ kept: await keepDraft(db(), { path, sheet: which, title, token, seen, values }) });
}
