/** The stock's value by each costing method; loaded when somebody opens it, since it needs the newest cost of everything. */
import { KINDS } from "#core/material/kinds";
import { worthByCostingMethod } from "#core/stock/costingMethods";
import { replacementCosts } from "#db/ledger/lots";
import { onShelf } from "#db/shelf/overview";
import { today } from "#db/clock";
import { db } from "../server/workshop.server.ts";

const ALL = 100_000;

export async function loader() {
  const [materials, again] = await Promise.all([onShelf(db(), today(), {}, ALL), replacementCosts(db())]);
  const of = (group: "ingredient" | "packaging") =>
    worthByCostingMethod(
      materials.filter((m) => KINDS[m.kind].group === group),
      again,
    );
  return { ingredient: of("ingredient"), packaging: of("packaging") };
}
