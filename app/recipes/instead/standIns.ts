/** Possible substitutes for the ingredients of a recipe: those on the shelf, and those of the library that aren't on it yet. */
import { LIBRARY, libraryChoice } from "#core/material/library";
import { lookThrough } from "#core/material/lookThrough";
import { likeKinds, type StandIn } from "#core/recipe/instead/standIn";
import { choiceOf } from "#core/recipe/written";
import { stockOnHand } from "#core/stock/shelf";
import { readShelfCosts } from "#db/recipe/costs";
import { today } from "#db/clock";
import { listMaterials } from "#db/shelf/materials";
import { db } from "../../server/workshop.server.ts";
import { idOf } from "../../forms/ids.ts";
import type { Route } from "./+types/standIns";

/** As many of the shelf are weighed against each other; beyond it those with the least on hand are left out. */
const MOST = 80;

/** @returns those that may stand in, and the recipe's own, which are asked for by number */
export async function loader({ request }: Route.LoaderArgs): Promise<StandIn[]> {
  const asked = new Set(new URL(request.url).searchParams.getAll("of").map(idOf));
  const all = await listMaterials(db());
  const kinds = new Set(all.flatMap((m) => (asked.has(m.id) ? likeKinds(m.kind) : [])));
  const own = all.filter((m) => asked.has(m.id) || (!m.retired && kinds.has(m.kind)));
  const { lots, again } = await readShelfCosts(
    db(),
    own.map((m) => m.id),
  );
  const shelf = stockOnHand(lots, today(), again);
  const onHand = new Map(own.map((m) => [m.id, shelf.of(m.id).usable.reduce((a, l) => a + l.onHand, 0)]));
  const there = own
    .sort((a, b) => Number(asked.has(b.id)) - Number(asked.has(a.id)) || onHand.get(b.id)! - onHand.get(a.id)!)
    .slice(0, asked.size + MOST)
    .map((m): StandIn => {
      const { usable, average, again: anew } = shelf.of(m.id);
      const lotsOf = usable.map(({ number, bestBefore, scentMostPpm, onHand: left }) => ({
        number,
        bestBefore,
        scentMostPpm,
        onHand: left,
      }));
      return { ...choiceOf(lookThrough(m)), vegan: m.vegan, feel: m.feel, smell: m.smell, lots: lotsOf, per: average ?? anew };
    });
  const here = new Set(all.flatMap((m) => m.libraryKey ?? []));
  // Under no number of the shelf's.
  const library = LIBRARY.filter((e) => kinds.has(e.kind) && !here.has(e.key)).map((e, i): StandIn => ({
    ...libraryChoice(e, -1 - i),
    vegan: e.vegan,
    feel: e.feel,
    smell: e.smell,
    lots: [],
    per: null,
  }));
  return [...there, ...library];
}
