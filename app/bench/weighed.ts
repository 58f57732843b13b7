/** Keeping what has been weighed so far, while the weigh sheet is being filled in: no act, and no page. */
import { saveWeighed } from "#db/bench/setOut";
import { readWeighed } from "#core/measure/read";
import { data } from "react-router";
import { array, object, type InferType } from "yup";
import { db } from "../db.server.ts";
import { idField, optional, reads, wholeNumber } from "../forms/fields.ts";
import { idOf } from "../forms/ids.ts";
import { asked, readSheet, type Reply } from "../forms/sheet.server.ts";
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

export const takesOf = (lines: InferType<typeof weighedLines>) => lines.map(({ lot, ...t }) => ({ ...t, lotId: lot }));

const schema = object({ takes: weighedLines });

export async function action({ request, params }: Route.ActionArgs) {
  const sheet = await readSheet(request, schema);
  if (!sheet.ok) return sheet.reply;
  return asked(async () => {
    await saveWeighed(db(), idOf(params.id), takesOf(sheet.value.takes));
    return data<Reply>({ problems: [] });
  });
}
