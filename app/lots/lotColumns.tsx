/** What lists of lots say of each, wherever one is looked for. */
import { kind } from "#core/material/kinds";
import type { NamedLot } from "#db/lots/trace";
import { showInColumn, When } from "../ui/figures/amounts.tsx";
import type { Column } from "../ui/lists/table.tsx";

/** What it is of, and its size. */
export const nameOf = (l: { name: string; label: string }): string => (l.label ? `${l.name}, ${l.label}` : l.name);

export const LOT_OF: Column<NamedLot> = {
  head: "Of",
  sorts: (l) => l.name,
  plain: true,
  cell: (l) => (
    <>
      {l.name} {l.label && <span className="weight text-small text-pine-soft">{l.label}</span>}
    </>
  ),
};

export const LOT_FROM: Column<NamedLot> = {
  head: "From",
  plain: true,
  cell: (l) => (
    <>
      {l.supplier ?? (l.productId ? "our bench" : "")} <span className="weight text-fine text-pine-soft">{l.supplierLot}</span>
    </>
  ),
};

export const LOT_SINCE: Column<NamedLot> = { head: "Since", sorts: (l) => l.arrived, cell: (l) => <When day={l.arrived} /> };

export const LOT_LEFT: Column<NamedLot> = {
  head: "Left",
  as: "weight",
  cell: (l) => showInColumn(l.onHand, l.kind ? kind(l.kind).measured : "count"),
};
