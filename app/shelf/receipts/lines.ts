/** The lines of some receipts, for the file they are saved as. */
import { cachedSettings } from "#db/settings/settings";
import { linesOfReceipts } from "#db/shelf/receipts/receipts";
import { idsAsked } from "../../forms/ids.ts";
import { db } from "../../server/workshop.server.ts";
import type { Route } from "./+types/lines";

export async function loader({ request }: Route.LoaderArgs) {
  const [lines, { currency }] = await Promise.all([linesOfReceipts(db(), idsAsked(request)), cachedSettings(db())]);
  // A receipt in the workshop's currency names none.
  return Response.json(lines.map((l) => ({ ...l, currency: l.currency || currency })));
}
