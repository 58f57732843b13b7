/** Keeping what has been weighed so far, while the weigh sheet is being filled in: no act, and no page. */
import { saveWeighed } from "#db/bench/weighing/weigh";
import { once } from "#db/once";
import { readWeighed } from "#core/measure/read";
import { mg, type Mg } from "#core/measure/exact";
import { done } from "#core/outcome";
import { data } from "react-router";
import { array, object } from "yup";
import { db } from "../../server/workshop.server.ts";
import { background } from "../../forms/beside/background.ts";
import { idField, optional, reads, wholeNumber } from "../../forms/fields.ts";
import { idOf } from "../../forms/ids.ts";
import { withRefusals, readSheet, type Reply } from "../../forms/sheet.server.ts";
import type { Route } from "./+types/weighed";

/** The lines of a weigh sheet. */
export const weighedLines = array()
  .of(
    object({
      position: wholeNumber(0, 1000, "lines"),
      materialId: idField(),
      lot: idField(),
      planned: reads(readWeighed),
      weighed: optional(readWeighed),
    }),
  )
  .min(1)
  .required();

export const takesOf = <T extends { lot: number }>(lines: readonly T[]) => lines.map(({ lot, ...t }) => ({ ...t, lotId: lot }));

/** What couldn't be read was never saved: no weight is like it. */
const asKept = (text: string) => {
  const read = text.trim() === "" ? done(null) : readWeighed(text);
  return done<Mg | null>(read.ok ? read.value : mg(-1));
};
/** What a window had of each line when it last saved the sheet. */
export const keptLines = array().of(object({ position: wholeNumber(0, 1000, "lines"), lot: idField(), weighed: reads(asKept) }));
const schema = object({ ...background, takes: weighedLines, kept: keptLines.required() });

export async function action({ request, params }: Route.ActionArgs) {
  const sheet = await readSheet(request, schema);
  if (!sheet.ok) return sheet.reply;
  const { key, late, takes, kept } = sheet.value;
  return withRefusals(async () => {
    const overtaken = await once(db(), key, (d) => saveWeighed(d, idOf(params.id), takesOf(takes), takesOf(kept), late));
    return data<Reply>({ problems: overtaken ?? [] });
  });
}
