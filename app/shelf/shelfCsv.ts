/** The shelf as a file: every material with what is on hand and its worth, or those of a board or a search. */
import { amountColumns, type FileColumn } from "#core/lists/fileColumns";
import { KINDS, kind } from "#core/material/kinds";
import type { OnShelf } from "#db/shelf/overview";
import { LISTED_AT_MOST } from "#db/lists";
import { csvFile } from "../server/csv.server.ts";
import { askedForFile } from "./asked.server.ts";
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

export const loader = async ({ request }: Route.LoaderArgs) => csvFile("shelf", COLUMNS, await askedForFile(request, LISTED_AT_MOST));
