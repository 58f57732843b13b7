/** Noting what was counted of one lot, while the shelf is walked: no act, and no page. */
import { factsIn } from "#core/material/facts";
import { done, orElse } from "#core/outcome";
import { readStock } from "#core/stock/packs";
import { materialOfLot } from "#db/shelf/materials";
import { noteCount } from "#db/shelf/counting/stocktake";
import { once } from "#db/once";
import { data } from "react-router";
import { array, number, object } from "yup";
import { db } from "../../server/workshop.server.ts";
import { background } from "../../forms/beside/background.ts";
import { idField, noteText } from "../../forms/fields.ts";
import { withRefusals, readSheet, refuseSheet, type Reply } from "../../forms/sheet.server.ts";
import type { Route } from "./+types/noted";

const MOST_SENT = 5;
const schema = object({
  ...background,
  lotId: idField(),
  counted: noteText(40),
  /** What the window was shown of it, exactly; absent from scripts. */
  was: number().integer().nullable().optional(),
  /** What it has sent of it since, as typed: one of these may have been noted by now. */
  sent: array().of(noteText(40)).max(MOST_SENT).default([]),
  note: noteText(200),
});

export async function action({ request }: Route.ActionArgs) {
  const sheet = await readSheet(request, schema);
  if (!sheet.ok) return sheet.reply;
  const { key, lotId, counted, was, sent, note: words } = sheet.value;
  const field = `lot.${lotId}`;
  const m = await materialOfLot(db(), lotId);
  if (!m) return refuseSheet([{ field, say: "That lot isn't here any more." }]);
  const read = (text: string) => (text.trim() === "" ? done(null) : readStock(text, factsIn(m)));
  const amount = read(counted);
  if (!amount.ok) return refuseSheet([{ field, say: amount.problem.say }]);
  const had = was === undefined ? undefined : [was, ...sent.flatMap((t) => orElse(read(t), []))];
  return withRefusals(async () => {
    await once(db(), key, (d) => noteCount(d, lotId, amount.value, words, had));
    return data<Reply>({ problems: [] });
  });
}
