/** Answers a sheet that was given names it has not seen yet. */
import { oilLots } from "#db/jars/read";
import { jarStuffOf } from "#db/jars/jarStuff";
import { productsOf } from "#db/gifts/products";
import { boughtOf, stuffOf } from "#db/shelf/sheetMaterials";
import { isKeyOf } from "#core/objects";
import { db } from "../server/workshop.server.ts";
import { idOf } from "../forms/ids.ts";
import { MOST_NAMES, type Named, type NamedKind } from "./named.ts";
import type { Route } from "./+types/ask";

/** By how they are called, or by number, where a sheet knows already which it means. */
const ANSWERS: { [K in NamedKind]: (names: string[], ids: number[]) => Promise<Named[K][]> } = {
  material: (names, ids) => stuffOf(db(), ids, names),
  bought: (names, ids) => boughtOf(db(), ids, names),
  product: (names) => productsOf(db(), { names }),
  jar: (names, ids) => jarStuffOf(db(), ids, names),
  oilLot: (names) => oilLots(db(), names),
};

export function loader({ request, params: { of } }: Route.LoaderArgs): Promise<Named[NamedKind][]> {
  if (!isKeyOf(ANSWERS, of)) throw new Response("Not Found", { status: 404 });
  const asked = new URL(request.url).searchParams;
  return ANSWERS[of](asked.getAll("name").slice(0, MOST_NAMES), asked.getAll("id").slice(0, MOST_NAMES).map(idOf));
}
