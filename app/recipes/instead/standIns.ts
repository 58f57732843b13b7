/** What may stand in for the ingredients of a recipe: the shelf's own of those kinds, and the library's that aren't on it yet. */
import { KINDS } from "#core/material/kinds";
import { LIBRARY } from "#core/material/library";
import { isKeyOf } from "#core/record";
import { likeKinds, type StandIn } from "#core/recipe/instead";
import { shelfOf } from "#core/stock/shelf";
import { readShelfCosts } from "#db/recipe/costs";
import { today } from "#db/clock";
import { listMaterials } from "#db/shelf/materials";
import { db } from "../../db.server.ts";
import type { Route } from "./+types/standIns";

/** As many of the shelf are weighed against each other; beyond it those with the least on hand are left out. */
const MOST = 80;

export async function loader({ request }: Route.LoaderArgs): Promise<StandIn[]> {
  const asked = new URL(request.url).searchParams.getAll("kind").filter((k) => isKeyOf(KINDS, k));
  const kinds = new Set(asked.flatMap(likeKinds));
  const all = await listMaterials(db());
  const own = all.filter((m) => !m.retired && kinds.has(m.kind));
  const { lots, again } = await readShelfCosts(
    db(),
    own.map((m) => m.id),
  );
  const shelf = shelfOf(lots, today(), again);
  const there = own
    .map((m): StandIn => {
      const stock = shelf.of(m.id);
      const { id, name, kind, densities, dropsPerMl, pieceMg, brimMl, usableMl, innerMm, fillMm, allergen, vegan } = m;
      const { libraryKey, meltFrom, meltTo, cautions, keepsSealed } = m;
      return {
        ...{ id, name, kind, densities, dropsPerMl, pieceMg, brimMl, usableMl, innerMm, fillMm, allergen, vegan },
        ...{ libraryKey, meltFrom, meltTo, cautions, keepsSealed },
        onHand: stock.usable.reduce((a, l) => a + l.onHand, 0),
        per: stock.average ?? stock.again,
      };
    })
    .sort((a, b) => Number(b.onHand > 0) - Number(a.onHand > 0) || b.onHand - a.onHand)
    .slice(0, MOST);
  const here = new Set(all.flatMap((m) => m.libraryKey ?? []));
  const library = LIBRARY.filter((e) => kinds.has(e.kind) && !here.has(e.key)).map((e, i): StandIn => ({
    // No number of the shelf's.
    id: -1 - i,
    ...{ name: e.name, kind: e.kind, densities: e.densities, dropsPerMl: e.dropsPerMl, pieceMg: null },
    ...{ brimMl: null, usableMl: null, innerMm: null, fillMm: null, allergen: e.allergen, vegan: e.vegan, libraryKey: e.key },
    ...{ meltFrom: e.melts?.[0] ?? null, meltTo: e.melts?.[1] ?? null, cautions: e.cautions, keepsSealed: e.keepsSealed },
    ...{ onHand: 0, per: null },
  }));
  return [...there, ...library];
}
