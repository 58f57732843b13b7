/** Lots as a file: those that were asked for, or all, newest first. */
import { amountColumns, type FileColumn } from "#core/lists/fileColumns";
import { kind } from "#core/material/kinds";
import { lotsLike, type NamedLot } from "#db/lots/trace";
import { csvFile } from "../server/csv.server.ts";
import { db } from "../server/workshop.server.ts";
import { lotAsked } from "./asked.ts";
import type { Route } from "./+types/lotsCsv";

const measured = (l: NamedLot) => (l.kind === null ? "count" : kind(l.kind).measured);

const COLUMNS: FileColumn<NamedLot>[] = [
  { head: "lot", of: (l) => l.number },
  { head: "of", of: (l) => l.name },
  { head: "size", of: (l) => l.label },
  { head: "called now", of: (l) => l.calledNow },
  { head: "from", of: (l) => l.supplier ?? (l.productId === null ? "" : "our bench") },
  { head: "supplier's lot", of: (l) => l.supplierLot },
  { head: "since", of: (l) => l.arrived },
  { head: "best before", of: (l) => l.bestBefore },
  ...amountColumns<NamedLot>("left", (l) => l.onHand, measured),
  { head: "worth", of: (l) => l.value, as: "money" },
  { head: "on hold because", of: (l) => (l.hold ? l.holdReason || "on hold" : "") },
];

/** More lots than any workshop has. */
const ALL = 200_000;

export const loader = async ({ request }: Route.LoaderArgs) => csvFile("lots", COLUMNS, await lotsLike(db(), lotAsked(request), ALL));
