/** The shopping list as CSV, for a spreadsheet or to send along. */
import { writeTable } from "#core/intake/table";
import { kind } from "#core/material/kinds";
import { moneyField } from "#core/measure/money";
import { shoppingList } from "#core/stock/offers";
import { whatToBuy } from "#db/shelf/buying";
import { cachedSettings } from "#db/settings/settings";
import { today } from "#db/clock";
import { db } from "../../server/workshop.server.ts";

export async function loader() {
  const settings = await cachedSettings(db());
  const wanted = await whatToBuy(db(), today(), settings);
  const unit = new Map(wanted.map((w) => [w.materialId, kind(w.kind).measured]));
  const rows = shoppingList(wanted).flatMap((g) =>
    g.lines.map((l) => {
      const weighed = unit.get(l.materialId) === "weight";
      return [
        g.supplier ?? "",
        l.name,
        String(weighed ? l.amount / 1000 : l.amount),
        weighed ? "g" : "pcs",
        l.offer ? String(l.packs) : "",
        l.offer?.packSize ?? "",
        l.offer ? moneyField(l.cost) : "",
        l.offer ? settings.currency : "",
      ];
    }),
  );
  const csv = writeTable(["supplier", "material", "wanted", "unit", "packs", "each holds", "price of all", "currency"], rows);
  return new Response(csv, {
    headers: { "content-type": "text/csv; charset=utf-8", "content-disposition": `attachment; filename="shopping-${today()}.csv"` },
  });
}
