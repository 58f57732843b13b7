/** The packs materials are offered in, for the page of a recipe's costs; asked for when that is opened. */
import type { Offer } from "#core/stock/offers";
import { offersOf } from "#db/shelf/buying";
import { db } from "../../server/workshop.server.ts";
import { idOf } from "../../forms/ids.ts";
import type { Route } from "./+types/offers";

export type OfferOf = Offer & { materialId: number };

/** No recipe has more ingredients. */
const MOST = 500;

export async function loader({ request }: Route.LoaderArgs): Promise<OfferOf[]> {
  const ids = new URL(request.url).searchParams.getAll("of").slice(0, MOST).map(idOf);
  const offers = await offersOf(db(), ids);
  return offers.map(({ materialId, supplier, packSize, qty, price, postage }) => ({ materialId, supplier, packSize, qty, price, postage }));
}
