/** The recipes that would use a lot up, loaded only when asked for, since a lot's own page shows settled figures. */
import { findLot } from "#db/lots/trace";
import { db } from "../server/workshop.server.ts";
import { usesUp, type UsesUp } from "./usesUp.server.ts";
import type { Route } from "./+types/uses";

export async function loader({ params }: Route.LoaderArgs): Promise<UsesUp[]> {
  const lot = await findLot(db(), params.number);
  if (!lot) throw new Response("Not Found", { status: 404 });
  return usesUp(lot);
}
