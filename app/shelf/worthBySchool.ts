/** What is on hand is worth by each costing school; asked for when somebody opens it, since it needs the newest cost of everything. */
import { KINDS } from "#core/material/kinds";
import { worthBySchool } from "#core/stock/schools";
import { againCosts } from "#db/ledger/lots";
import { onShelf } from "#db/shelf/overview";
import { today } from "#db/clock";
import { db } from "../db.server.ts";

const ALL = 100_000;

export async function loader() {
  const [materials, again] = await Promise.all([onShelf(db(), today(), {}, ALL), againCosts(db())]);
  const of = (group: "ingredient" | "packaging") =>
    worthBySchool(
      materials.filter((m) => KINDS[m.kind].group === group),
      again,
    );
  return { ingredient: of("ingredient"), packaging: of("packaging") };
}
