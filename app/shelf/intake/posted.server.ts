/** Reading a posted file with the choices made beside it: the same for receipts and for opening stock. */
import type { Purpose } from "#core/intake/columns";
import type { IntakeLine } from "#core/intake/read";
import { orElse } from "#core/outcome";
import { readDay, type Day } from "#core/when";
import type { ActOptions } from "#db/act/define";
import { today } from "#db/clock";
import type { NewMaterial } from "#db/shelf/receipts/receive";
import { data } from "react-router";
import { object } from "yup";
import { noteText, reads } from "../../forms/fields.ts";
import { textsIn } from "../../forms/table/textsIn.ts";
import { intentOf, validateSheet, readPosted, refuseSheet } from "../../forms/sheet.server.ts";
import { readFile, type Preview } from "./intake.server.ts";

/** About twenty thousand long lines. */
const MOST_CHARACTERS = 8_000_000;
const texts = () => reads<Record<string, string>>(() => ({ ok: true, value: {} }));
const schema = object({
  intent: intentOf(["look", "receive"]),
  text: reads((t) =>
    t.length > MOST_CHARACTERS
      ? { ok: false, problem: { code: "long", say: "That is too much at once. Split the file." } }
      : { ok: true, value: t },
  ),
  numbers: noteText(10),
  dates: noteText(10),
  priceOf: noteText(10),
  supplier: noteText(120),
  // Half typed it is no day yet, and the rows say that they want one.
  day: reads<Day | null>((t) => ({ ok: true, value: orElse(readDay(t), null) })),
  twice: noteText(10),
  shown: noteText(60),
  columns: texts(),
  matches: texts(),
  blanks: texts(),
  money: texts(),
  rates: texts(),
});

type Posted =
  | {
      ok: true;
      lines: IntakeLine[];
      back: IntakeLine[];
      add: NewMaterial[];
      doing: ActOptions & { day: string };
      posted: Record<string, unknown>;
    }
  | { ok: false; reply: ReturnType<typeof refuseSheet> | ReturnType<typeof data<{ preview: Preview }>> };

/** What is to be put on the shelf; or the answer: a preview while it is only looked at, or what stops it. */
export async function readPostedFile(request: Request, purpose: Purpose): Promise<Posted> {
  const no = (reply: Extract<Posted, { ok: false }>["reply"]): Posted => ({ ok: false, reply });
  const body = await readPosted(request);
  if (!body.ok) return no(body.reply);
  const sheet = await validateSheet(body.body, schema);
  if (!sheet.ok) return no(sheet.reply);
  const posted = body.body as Record<string, unknown>;
  const told = Object.fromEntries((["columns", "matches", "blanks", "money", "rates"] as const).map((f) => [f, textsIn(posted[f])]));
  const read = await readFile({ ...sheet.value, ...told }, today(), purpose);
  if (!read.ok) return no(refuseSheet([{ field: "text", say: read.problem.say }]));
  if (sheet.value.intent !== "receive") return no(data({ preview: read.value.preview }));
  const { lines, back, add, preview, first } = read.value;
  if (first) return no(refuseSheet([{ field: "", say: first }]));
  if (lines.length + back.length === 0)
    return no(refuseSheet([{ field: "", say: "No line of it can be received yet. Match the columns and the names first." }]));
  if (preview.digest !== sheet.value.shown)
    return no(refuseSheet([{ field: "", say: "It has changed since it was shown. Look at it again, then put it on the shelf." }]));
  return { ok: true, lines, back, add, doing: sheet.doing, posted };
}
