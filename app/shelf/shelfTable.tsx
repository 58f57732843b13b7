/** The shelf's table: each material with what is on hand, its worth, its average cost, and its lots, the one to use first in front. */
import { Link } from "react-router";
import { kind } from "#core/material/kinds";
import { money, perWeight, type UnitCost } from "#core/measure/money";
import type { Lot } from "#core/stock/lots";
import type { OnShelf } from "#db/shelf/overview";
import { LotTag, PerUnit, showInColumn } from "../ui/figures/amounts.tsx";
import { Lasts } from "../ui/figures/lasts.tsx";
import { Table, type Group } from "../ui/lists/table.tsx";
import { useWorkshop } from "../ui/workshop.ts";

/** A material as it is on the shelf, with its lots in the order they are used. */
export interface Shown extends OnShelf {
  /** What is used of it in a day. */
  perDay: number | null;
  tags: readonly Pick<Lot, "number" | "onHand" | "bestBefore" | "hold">[];
  untagged: number;
}

/** The cost per unit of what is on hand; null when nothing is. */
const averageOf = (m: Shown): UnitCost | null => (m.onHand > 0 ? { value: m.value, per: m.onHand } : null);

function Lots({ of: { tags, untagged } }: { of: Shown }) {
  return (
    <span className="flex flex-wrap gap-1.5">
      {tags.map((l) => (
        <LotTag key={l.number} lot={l} />
      ))}
      {untagged > 0 && <span className="text-small text-pine-soft">and {untagged} more</span>}
    </span>
  );
}

export function ShelfTable({ boards }: { boards: readonly Group<Shown>[] }) {
  const { currency } = useWorkshop();
  // Weighed materials' average costs are compared down the column, so in one unit.
  const weighed = boards.flatMap((b) => b.rows).filter((m) => kind(m.kind).measured === "weight");
  const per = perWeight(weighed.map(averageOf));
  return (
    <Table
      groups={boards}
      by={(m) => m.id}
      columns={[
        {
          head: "Material",
          cell: (m) => (
            <>
              <Link to={`/shelf/${m.id}`} className="font-semibold hover:underline">
                {m.name}
              </Link>
              {m.low && <span className="ml-2 rounded-sm bg-honey-wash px-1.5 text-fine font-semibold text-honey">low</span>}
              {m.coming > 0 && (
                <span className="ml-2 text-fine text-pine-soft">{showInColumn(m.coming, kind(m.kind).measured)} to come</span>
              )}
            </>
          ),
        },
        { head: "On hand", as: "weight", cell: (m) => (m.onHand === 0 ? "none" : showInColumn(m.onHand, kind(m.kind).measured)) },
        { head: "Lasts", cell: (m) => <Lasts onHand={m.onHand} perDay={m.perDay} low={m.low} /> },
        { head: "Worth", as: "figure", cell: (m) => money(m.value, currency) },
        {
          head: "Average cost",
          as: "figure",
          cell: (m) => <PerUnit cost={averageOf(m)} measured={kind(m.kind).measured} per={per} />,
        },
        {
          head: "Lots, best before first",
          plain: true,
          headClass: "sm:pl-6!",
          className: "sm:pl-6!",
          cell: (m) => <Lots of={m} />,
        },
      ]}
    />
  );
}
