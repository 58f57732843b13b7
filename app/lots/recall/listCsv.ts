/** A recall as a file to work from: one line for each of its units' whereabouts. */
import { sayReason } from "#core/lot/recall";
import { WHERE, type Where } from "#core/ledger/whereabouts";
import { amountColumns, type FileColumn } from "#core/lists/fileColumns";
import { kind } from "#core/material/kinds";
import { readRecall } from "#db/lots/recalls";
import { csvFile } from "../../server/csv.server.ts";
import { db } from "../../server/workshop.server.ts";
import { idOf } from "../../forms/ids.ts";
import type { Route } from "./+types/listCsv";
import { nameOf } from "../lotColumns.tsx";

type Lot = NonNullable<Awaited<ReturnType<typeof readRecall>>>["reach"]["lots"][number];

interface Line {
  where: string;
  who?: string;
  reach?: string;
  lot: Lot;
  amount: number;
  day: string;
  told?: string;
  /** Units that came back; null where nobody was asked. */
  back?: number | null;
  note: string;
}

const COLUMNS: FileColumn<Line>[] = [
  { head: "where", of: (l) => l.where },
  { head: "who", of: (l) => l.who ?? "" },
  { head: "how to reach them", of: (l) => l.reach ?? "" },
  { head: "what", of: (l) => nameOf(l.lot) },
  { head: "lot", of: (l) => l.lot.number },
  { head: "supplier's lot", of: (l) => l.lot.supplierLot },
  ...amountColumns<Line>(
    "amount",
    (l) => l.amount,
    (l) => (l.lot.kind === null ? "count" : kind(l.lot.kind).measured),
  ),
  { head: "day", of: (l) => l.day },
  { head: "told", of: (l) => l.told ?? "" },
  { head: "came back", of: (l) => l.back ?? null, as: "number" },
  { head: "note", of: (l) => l.note },
];

export async function loader({ params }: Route.LoaderArgs) {
  const id = idOf(params.id);
  const found = await readRecall(db(), id);
  if (!found) throw new Response("Not found", { status: 404 });
  const { reach, told } = found;
  const lots = new Map(reach.lots.map((l) => [l.id, l]));
  const held = (where: string, all: typeof reach.people): Line[] =>
    all.flatMap((h) => {
      const said = told.find((t) => t.contactId === h.contactId);
      return h.times
        .flatMap((t) => t.had.map((x) => ({ ...x, day: t.day })))
        .map(({ lotId, units, day }, i) => ({
          ...{ where, who: h.name, reach: h.reach, lot: lots.get(lotId)!, amount: units, day, told: said?.toldOn ?? "" },
          // Returns are per person, not per product: listed once.
          ...(i === 0 && said ? { back: said.back, note: said.note } : { note: "" }),
        }));
    });
  const others = WHERE.filter((w): w is Exclude<Where, "named" | "stall"> => w !== "named" && w !== "stall").flatMap((where) =>
    reach.others[where].map((o): Line => ({
      where,
      lot: lots.get(o.lotId)!,
      amount: o.units,
      day: o.day,
      note: sayReason(o.reason, o.note),
    })),
  );
  const here = reach.lots
    .filter((l) => l.onHand > 0)
    .map((lot): Line => ({ where: "here", lot, amount: lot.onHand, day: lot.arrived, note: lot.holdReason ?? "" }));
  return csvFile(`recall-${id}`, COLUMNS, [...here, ...held("order", reach.people), ...held("stall", reach.markets), ...others]);
}
