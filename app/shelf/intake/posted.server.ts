/** Reading a posted file with the choices made beside it: the same for receipts and for opening stock. */
import type { IntakeLine, Purpose } from "#core/intake/receipt";
import { isRecord } from "#core/record";
import type { Doing } from "#db/act/define";
import { today } from "#db/clock";
import type { NewMaterial } from "#db/shelf/receive";
import { data } from "react-router";
import { object } from "yup";
import { note, reads } from "../../forms/fields.ts";
import { readSheet, refuseSheet } from "../../forms/sheet.server.ts";
import { readFile, type Preview } from "./intake.server.ts";

/** About twenty thousand long lines. */
const MOST_CHARACTERS = 8_000_000;
const texts = () => reads<Record<string, string>>(() => ({ ok: true, value: {} }));
const schema = object({
  intent: note(20),
  text: reads((t) =>
    t.length > MOST_CHARACTERS
      ? { ok: false, problem: { code: "long", say: "That is too much at once. Split the file." } }
      : { ok: true, value: t },
  ),
  numbers: note(10),
  dates: note(10),
  supplier: note(120),
  columns: texts(),
  matches: texts(),
});

/** Texts by key, of whatever was posted. */
const textsIn = (v: unknown): Record<string, string> =>
  isRecord(v) ? Object.fromEntries(Object.entries(v).flatMap(([k, x]) => (typeof x === "string" ? [[k, x]] : []))) : {};

type Posted =
  | { ok: true; lines: IntakeLine[]; add: NewMaterial[]; doing: Doing & { day: string }; posted: Record<string, unknown> }
  | { ok: false; reply: ReturnType<typeof refuseSheet> | ReturnType<typeof data<{ preview: Preview }>> };

/** What is to be put on the shelf; or the answer: a preview while it is only looked at, or what stops it. */
export async function readPosted(request: Request, purpose: Purpose): Promise<Posted> {
  const no = (reply: Extract<Posted, { ok: false }>["reply"]): Posted => ({ ok: false, reply });
  const body = await request.text();
  const sheet = await readSheet(new Request(request.url, { method: "POST", body }), schema);
  if (!sheet.ok) return no(sheet.reply);
  const posted = JSON.parse(body) as Record<string, unknown>;
  const read = await readFile({ ...sheet.value, columns: textsIn(posted.columns), matches: textsIn(posted.matches) }, today(), purpose);
  if (!read.ok) return no(refuseSheet([{ field: "text", say: read.problem.say }]));
  if (sheet.value.intent !== "receive") return no(data({ preview: read.value.preview }));
  const { lines, add, preview } = read.value;
  const asked = preview.asked.numbers || preview.asked.dates;
  if (asked) return no(refuseSheet([{ field: "", say: asked }]));
  if (lines.length === 0)
    return no(refuseSheet([{ field: "", say: "No line of it can be received yet. Match the columns and the names first." }]));
  if (lines.some((l) => l.day > today()))
    return no(refuseSheet([{ field: "", say: "A line of it is dated after today. Check the order of day and month." }]));
  return { ok: true, lines, add, doing: sheet.doing, posted };
}
