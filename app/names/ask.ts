/** Answers a sheet that was given names it has not seen yet. */
import { oilLotsNamed } from "../jars/oilLots.server.ts";
import { jarStuffOf } from "../jars/jarStuff.server.ts";
import { productsOf } from "../gifts/products.server.ts";
import { boughtOf, stuffOf } from "../shelf/stuff.server.ts";
import { isKeyOf } from "#core/record";
import { MOST_NAMES, type Named, type NamedKind } from "./named.ts";
import type { Route } from "./+types/ask";

const ANSWERS: { [K in NamedKind]: (names: string[]) => Promise<Named[K][]> } = {
  material: (names) => stuffOf([], names),
  bought: (names) => boughtOf([], names),
  product: (names) => productsOf({ names }),
  jar: (names) => jarStuffOf([], names),
  oilLot: (names) => oilLotsNamed(names),
};

export function loader({ request, params: { of } }: Route.LoaderArgs): Promise<Named[NamedKind][]> {
  if (!isKeyOf(ANSWERS, of)) throw new Response("Not Found", { status: 404 });
  return ANSWERS[of](new URL(request.url).searchParams.getAll("name").slice(0, MOST_NAMES));
}
