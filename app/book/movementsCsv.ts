/** What the acts that were asked for moved, as a file. */
import { movedByActs, type Moved } from "#db/acts/moved";
import { longCsvFile } from "../server/csv.server.ts";
import { db } from "../server/workshop.server.ts";
import { actsAsked } from "./acts.server.ts";
import { MOVED_FILE } from "./movedFile.ts";
import type { Route } from "./+types/movementsCsv";

async function* moved(request: Request): AsyncIterable<Moved[]> {
  for await (const part of actsAsked(request)) {
    yield await movedByActs(
      db(),
      part.map((a) => a.id),
    );
  }
}

export const loader = ({ request }: Route.LoaderArgs) => longCsvFile("movements", MOVED_FILE, moved(request));
