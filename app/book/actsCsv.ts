/** The book as a file: the acts that were asked for, newest first. */
import { ACTS_SAID } from "#core/act/kinds";
import type { FileColumn } from "#core/lists/fileColumns";
import type { BookRow } from "#db/acts/book";
import { longCsvFile } from "../server/csv.server.ts";
import { actsAsked } from "./acts.server.ts";
import type { Route } from "./+types/actsCsv";

const COLUMNS: FileColumn<BookRow>[] = [
  { head: "act", of: (a) => a.id, as: "number" },
  { head: "day", of: (a) => a.day },
  { head: "written", of: (a) => a.at.toISOString() },
  { head: "who", of: (a) => a.who },
  { head: "kind", of: (a) => ACTS_SAID[a.kind].say },
  { head: "what", of: (a) => a.summary },
  { head: "takes back act", of: (a) => a.undoes, as: "number" },
  { head: "taken back by act", of: (a) => a.undoneBy, as: "number" },
];

export const loader = ({ request }: Route.LoaderArgs) => longCsvFile("book", COLUMNS, actsAsked(request));
