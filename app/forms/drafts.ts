/** Keeping unfinished sheets, throwing them away, and taking them up again: posted by every sheet as it is typed on. */
import { isRecord } from "#core/record";
import { dropDraft, keepDraft } from "#db/drafts";
import { data } from "react-router";
import { object } from "yup";
import { db } from "../db.server.ts";
import { note, words } from "./fields.ts";
import { readSheet, refuseSheet } from "./sheet.server.ts";
import type { Route } from "./+types/drafts";

/** A sheet of more than this is a file, not something typed. */
const MOST_CHARACTERS = 300_000;

const schema = object({ path: words("a page", 300), sheet: note(80), title: note(200) });

/** Answers whether it is kept: not any more once the sheet has done its act. */
export async function action({ request }: Route.ActionArgs) {
  const body = await request.text();
  const sheet = await readSheet(new Request(request.url, { method: "POST", body }), schema);
  if (!sheet.ok) return sheet.reply;
  const { path, sheet: which, title } = sheet.value;
  const { values } = JSON.parse(body) as { values?: unknown };
  const no = () => refuseSheet([{ field: "", say: "That can't be kept as a draft." }]);
  if (!path.startsWith("/")) return no();
  if (values === null) {
    await dropDraft(db(), path, which);
    return data({ kept: false });
  }
  const { token, seen = null } = sheet.doing;
  if (!isRecord(values) || body.length > MOST_CHARACTERS || token === undefined) return no();
  return data({ kept: await keepDraft(db(), { path, sheet: which, title, token, seen, values }) });
}
