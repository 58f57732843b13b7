/** All the acts that the book is asked for, part by part, for its files. */
import { readBook, type BookRow } from "#db/acts/book";
import { inParts } from "../server/csv.server.ts";
import { db } from "../server/workshop.server.ts";
import { askedOfBook } from "./asked.ts";

export function actsAsked(request: Request): AsyncIterable<readonly BookRow[]> {
  const { query } = askedOfBook(request);
  return inParts(
    (before, size) => readBook(db(), { ...query, before: before ?? null }, size),
    (a) => a.id,
  );
}
