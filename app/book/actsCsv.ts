/** The book as a file: the acts that were asked for, newest first. */
import { ACTS_SAID } from "#core/act/kinds";
import type { FileColumn } from "#core/fileColumns";
import { readBook, type BookRow } from "#db/acts/book";
import { inParts, longCsvFile } from "../server/csv.server.ts";
import { db } from "../server/workshop.server.ts";
import { askedOfBook } from "./asked.ts";
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

export function loader({ request }: Route.LoaderArgs) {
  const { query } = askedOfBook(request);
  const acts = inParts(
    (before, size) => readBook(db(), { ...query, before: before ?? null }, size),
    (a) => a.id,
  );
  return longCsvFile("book", COLUMNS, acts);
}
