/** Acts as the screens list them. */
import type { Subject } from "#core/act/kinds";
import { actsAbout, reversible, type BookRow } from "#db/acts/book";
import { db } from "../server/workshop.server.ts";
import type { ActLine } from "./actsOf.tsx";

export const actLine = (a: BookRow): ActLine => ({
  id: a.id,
  day: a.day,
  summary: a.summary,
  who: a.who,
  undoes: a.undoes,
  undoneBy: a.undoneBy,
  reversible: reversible(a),
});

/** The newest acts about a record, and where the rest is. */
export const actsOf = async (record: Subject): Promise<{ acts: ActLine[]; more: string }> => ({
  acts: (await actsAbout(db(), record)).map(actLine),
  more: `/book?about=${record.kind}-${record.id}`,
});
