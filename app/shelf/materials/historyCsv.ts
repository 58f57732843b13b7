/** Everything that went in and out of a material, as a file. */
import { movedOfMaterial } from "#db/acts/moved";
import { materialRow } from "#db/shelf/materials";
import { MOVED_FILE } from "../../book/movedFile.ts";
import { idOf } from "../../forms/ids.ts";
import { inParts, longCsvFile } from "../../server/csv.server.ts";
import { db } from "../../server/workshop.server.ts";
import type { Route } from "./+types/historyCsv";

export async function loader({ params }: Route.LoaderArgs) {
  const id = idOf(params.id);
  if (!(await materialRow(db(), id))) throw new Response("Not found", { status: 404 });
  const parts = inParts(
    (before, size) => movedOfMaterial(db(), id, size, before),
    (m) => m.id,
  );
  return longCsvFile("in-and-out", MOVED_FILE, parts);
}
