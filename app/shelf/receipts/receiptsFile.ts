/** Receipts as a file, and their lines as another. */
import { amountColumns, type FileColumn } from "#core/lists/fileColumns";
import { kind } from "#core/material/kinds";
import type { linesOfReceipts, listReceipts } from "#db/shelf/receipts/receipts";
import type { LinesFile } from "../../ui/lists/saveList.tsx";

type Receipt = Awaited<ReturnType<typeof listReceipts>>[number];
type Line = Awaited<ReturnType<typeof linesOfReceipts>>[number];

const columns: FileColumn<Receipt>[] = [
  { head: "day", of: (r) => r.day },
  { head: "supplier", of: (r) => r.supplier },
  { head: "lines", of: (r) => r.lines, as: "number" },
  { head: "lines to come", of: (r) => r.toCome, as: "number" },
  { head: "scans", of: (r) => r.scans, as: "number" },
  { head: "paid", of: (r) => r.paid, as: "money" },
];

const lines: LinesFile<Receipt, Line> = {
  from: "/shelf/receipts/lines",
  what: "lines of receipts",
  by: (r) => r.id,
  columns: [
    { head: "day", of: (l) => l.day },
    { head: "supplier", of: (l) => l.supplier },
    { head: "material", of: (l) => l.name },
    { head: "packs", of: (l) => l.packs, as: "number" },
    { head: "each holds", of: (l) => l.packSize },
    ...amountColumns<Line>(
      "amount",
      (l) => l.qty,
      (l) => kind(l.kind).measured,
    ),
    // In the receipt's own currency, so it isn't money of the workshop's.
    { head: "price on the receipt", of: (l) => l.price / 1e6, as: "number" },
    { head: "its currency", of: (l) => l.currency },
    { head: "cost with its shares", of: (l) => l.landed, as: "money" },
    { head: "lot", of: (l) => l.number },
    { head: "supplier's lot", of: (l) => l.supplierLot },
    { head: "best before", of: (l) => l.bestBefore },
    { head: "state", of: (l) => (l.number === null ? "to come" : "here") },
  ],
};

export const RECEIPTS_FILE = { columns, lines };
