/** What the acts that were asked for moved, as a file. */
import { readBook } from "#db/acts/book";
import { movedByActs, type Moved } from "#db/acts/moved";
import { inParts, longCsvFile } from "../server/csv.server.ts";
import { db } from "../server/workshop.server.ts";
import { askedOfBook } from "./asked.ts";
import { MOVED_FILE } from "./movedFile.ts";
import type { Route } from "./+types/movementsCsv";

async function* moved(request: Request): AsyncIterable<Moved[]> {
  const { query } = askedOfBook(request);
  const acts = inParts(
    (before, size) => readBook(db(), { ...query, before: before ?? null }, size),
    (a) => a.id,
  );
  for await (const part of acts) {
    yield await movedByActs(
      db(),
      part.map((a) => a.id),
    );
  }
}

export const loader = ({ request }: Route.LoaderArgs) => longCsvFile("movements", MOVED_FILE, moved(request));
