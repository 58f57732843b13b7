/** A recall as a file to work from: one line for each of its units' whereabouts. */
import { sayReason } from "#core/lot/recall";
import { WHERE, type Where } from "#core/ledger/whereabouts";
import { writeTable } from "#core/csv";
import { kind } from "#core/material/kinds";
import { readRecall } from "#db/lots/recalls";
import { db } from "../../server/workshop.server.ts";
import { idOf } from "../../forms/ids.ts";
import type { Route } from "./+types/listCsv";
import { nameOf } from "../lotColumns.tsx";

const HEADS = ["where", "who", "how to reach them", "what", "lot", "supplier's lot", "amount", "unit", "day", "told", "came back", "note"];

export async function loader({ params }: Route.LoaderArgs) {
  const id = idOf(params.id);
  const found = await readRecall(db(), id);
  if (!found) throw new Response("Not found", { status: 404 });
  const { reach, told } = found;
  const lots = new Map(reach.lots.map((l) => [l.id, l]));
  const of = (lotId: number, amount: number): string[] => {
    const l = lots.get(lotId)!;
    const weighed = l.kind !== null && kind(l.kind).measured === "weight";
    const what = nameOf(l);
    return [what, l.number, l.supplierLot, String(weighed ? amount / 1000 : amount), weighed ? "g" : "pcs"];
  };
  const held = (where: string, all: typeof reach.people): string[][] =>
    all.flatMap((h) => {
      const said = told.find((t) => t.contactId === h.contactId);
      // Returns are per person, not per product: listed once.
      const all = h.times.flatMap((t) => t.had.map((x) => ({ ...x, day: t.day })));
      return all.map((x, i) => [
        where,
        h.name,
        h.reach,
        ...of(x.lotId, x.units),
        x.day,
        said?.toldOn ?? "",
        i === 0 && said ? String(said.back) : "",
        i === 0 ? (said?.note ?? "") : "",
      ]);
    });
  const others = WHERE.filter((w): w is Exclude<Where, "named" | "stall"> => w !== "named" && w !== "stall").flatMap((w) =>
    reach.others[w].map((o) => [w, "", "", ...of(o.lotId, o.units), o.day, "", "", sayReason(o.reason, o.note)]),
  );
  const rows = [
    ...reach.lots.filter((l) => l.onHand > 0).map((l) => ["here", "", "", ...of(l.id, l.onHand), l.arrived, "", "", l.holdReason ?? ""]),
    ...held("order", reach.people),
    ...held("stall", reach.markets),
    ...others,
  ];
  return new Response(writeTable(HEADS, rows), {
    headers: { "content-type": "text/csv; charset=utf-8", "content-disposition": `attachment; filename="recall-${id}.csv"` },
  });
}
