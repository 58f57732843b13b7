/** The shelf as a file: every material with what is on hand and its worth, or those of a board or a search. */
import { amountColumns, type FileColumn } from "#core/lists/fileColumns";
import { KINDS, kind } from "#core/material/kinds";
import { today } from "#db/clock";
import { onShelf, type OnShelf } from "#db/shelf/overview";
import { LISTED_AT_MOST } from "#db/lists";
import { csvFile } from "../server/csv.server.ts";
import { db } from "../server/workshop.server.ts";
import { askedMaterials, askedOfShelf } from "./asked.server.ts";
import type { Route } from "./+types/shelfCsv";

const measured = (m: OnShelf) => kind(m.kind).measured;

const COLUMNS: FileColumn<OnShelf>[] = [
  { head: "material", of: (m) => m.name },
  { head: "kind", of: (m) => KINDS[m.kind].label },
  ...amountColumns("on hand", (m: OnShelf) => m.onHand, measured),
  { head: "to come", of: (m) => (measured(m) === "weight" ? m.coming / 1000 : m.coming), as: "number" },
  { head: "worth", of: (m) => m.value, as: "money" },
  {
    head: "average cost of a kilogram or a piece",
    of: (m) => (m.onHand > 0 ? (m.value / m.onHand) * (measured(m) === "weight" ? 1e6 : 1) : null),
    as: "money",
  },
  { head: "low", of: (m) => (m.low ? "yes" : "no") },
];

export async function loader({ request }: Route.LoaderArgs) {
  const asked = await askedOfShelf(request);
  // With all boards closed it is the whole shelf that is looked at.
  const all = !asked.find && !asked.board;
  const materials = all ? await onShelf(db(), today(), {}, LISTED_AT_MOST) : await askedMaterials(asked, LISTED_AT_MOST);
  return csvFile("shelf", COLUMNS, materials);
}
