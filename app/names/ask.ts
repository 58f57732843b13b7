/** Answers a sheet that was given names it has not seen yet. */
import { oilLotsNamed } from "../jars/oilLots.server.ts";
import { jarStuffOf } from "../jars/jarStuff.server.ts";
import { productsOf } from "../gifts/products.server.ts";
import { boughtOf, stuffOf } from "../shelf/stuff.server.ts";
import { isKeyOf } from "#core/record";
import { idOf } from "../forms/ids.ts";
import { MOST_NAMES, type Named, type NamedKind } from "./named.ts";
import type { Route } from "./+types/ask";

/** By how they are called, or by number, where a sheet knows already which it means. */
const ANSWERS: { [K in NamedKind]: (names: string[], ids: number[]) => Promise<Named[K][]> } = {
  material: (names, ids) => stuffOf(ids, names),
  bought: (names, ids) => boughtOf(ids, names),
  product: (names) => productsOf({ names }),
  jar: (names, ids) => jarStuffOf(ids, names),
  oilLot: (names) => oilLotsNamed(names),
};

export function loader({ request, params: { of } }: Route.LoaderArgs): Promise<Named[NamedKind][]> {
  if (!isKeyOf(ANSWERS, of)) throw new Response("Not Found", { status: 404 });
  const asked = new URL(request.url).searchParams;
  return ANSWERS[of](asked.getAll("name").slice(0, MOST_NAMES), asked.getAll("id").slice(0, MOST_NAMES).map(idOf));
}
