/** The columns of movements as a file: what came in and went out of each lot, why, by which act, and where it went. */
import { amountColumns, type FileColumn } from "#core/lists/fileColumns";
import { REASONS } from "#core/ledger/reasons";
import { kind } from "#core/material/kinds";
import type { Moved } from "#db/acts/moved";

export const MOVED_FILE: FileColumn<Moved>[] = [
  { head: "movement", of: (m) => m.id, as: "number" },
  { head: "act", of: (m) => m.actId, as: "number" },
  { head: "day", of: (m) => m.day },
  { head: "what was done", of: (m) => m.summary },
  { head: "why", of: (m) => REASONS[m.reason].say },
  { head: "material or product", of: (m) => m.name },
  { head: "size", of: (m) => m.label },
  { head: "lot", of: (m) => m.number },
  ...amountColumns<Moved>(
    "in or out",
    (m) => m.qty,
    (m) => (m.kind === null ? "count" : kind(m.kind).measured),
  ),
  { head: "worth", of: (m) => m.value, as: "money" },
  { head: "batch", of: (m) => m.batchId, as: "number" },
  { head: "jar", of: (m) => m.jar },
  { head: "market", of: (m) => m.market },
  { head: "customer", of: (m) => m.customer },
  { head: "note", of: (m) => m.note },
];
