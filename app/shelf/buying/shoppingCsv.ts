/** The shopping list as CSV, for a spreadsheet or to send along. */
import { amountColumns, type FileColumn } from "#core/lists/fileColumns";
import { kind } from "#core/material/kinds";
import { shoppingList } from "#core/stock/offers";
import { whatToBuy } from "#db/shelf/buying";
import { cachedSettings } from "#db/settings/settings";
import { today } from "#db/clock";
import { csvFile } from "../../server/csv.server.ts";
import { db } from "../../server/workshop.server.ts";

type Group = ReturnType<typeof shoppingList>[number];
type Line = Group["lines"][number] & { supplier: Group["supplier"]; measured: "weight" | "count" };

const COLUMNS: FileColumn<Line>[] = [
  { head: "supplier", of: (l) => l.supplier },
  { head: "material", of: (l) => l.name },
  ...amountColumns<Line>(
    "wanted",
    (l) => l.amount,
    (l) => l.measured,
  ),
  { head: "packs", of: (l) => (l.offer ? l.packs : null), as: "number" },
  { head: "each holds", of: (l) => l.offer?.packSize ?? null },
  { head: "price of all", of: (l) => (l.offer ? l.cost : null), as: "money" },
];

export async function loader() {
  const wanted = await whatToBuy(db(), today(), await cachedSettings(db()));
  const measured = new Map(wanted.map((w) => [w.materialId, kind(w.kind).measured]));
  const lines = shoppingList(wanted).flatMap(({ supplier, lines }) =>
    lines.map((l) => ({ ...l, supplier, measured: measured.get(l.materialId)! })),
  );
  return csvFile("shopping", COLUMNS, lines);
}
