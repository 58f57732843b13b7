/** The shelf's table: each material with what is on hand, its worth, its average cost, and its lots, the one to use first in front. */
import { kind } from "#core/material/kinds";
import { money, perWeight, type UnitCost } from "#core/measure/money";
import { useFirst, type Lot } from "#core/stock/lots";
import type { OnShelf } from "#db/shelf/overview";
import { Link } from "../ui/link.tsx";
import { LotTag, PerUnit, showInColumn } from "../ui/figures/amounts.tsx";
import { Lasts } from "../ui/figures/lasts.tsx";
import { Table, type Group } from "../ui/lists/table.tsx";
import { useWorkshop } from "../ui/workshop.ts";

/** More lots than this are a number, not tags. */
const TAGS = 6;

/** What what is on hand costs; null when nothing is. */
const averageOf = (m: OnShelf): UnitCost | null => (m.onHand > 0 ? { value: m.value, per: m.onHand } : null);

function Lots({ lots }: { lots: readonly Lot[] }) {
  const own = [...lots].sort(useFirst);
  return (
    <span className="flex flex-wrap gap-1.5">
      {own.slice(0, TAGS).map((l) => (
        <LotTag key={l.id} lot={l} />
      ))}
      {own.length > TAGS && <span className="text-[0.9rem] text-pine-soft">and {own.length - TAGS} more</span>}
    </span>
  );
}

interface Props {
  boards: readonly Group<OnShelf>[];
  lots: ReadonlyMap<number, readonly Lot[]>;
  /** What is used of each in a day. */
  perDay: ReadonlyMap<number, number | null>;
}

export function ShelfTable({ boards, lots, perDay }: Props) {
  const { currency } = useWorkshop();
  // Weighed materials' average costs stand under each other, so in one unit.
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
              {m.low && <span className="ml-2 rounded-sm bg-honey-wash px-1.5 text-[0.85rem] font-semibold text-honey">low</span>}
              {m.coming > 0 && (
                <span className="ml-2 text-[0.85rem] text-pine-soft">{showInColumn(m.coming, kind(m.kind).measured)} to come</span>
              )}
            </>
          ),
        },
        { head: "On hand", as: "weight", cell: (m) => (m.onHand === 0 ? "none" : showInColumn(m.onHand, kind(m.kind).measured)) },
        { head: "Lasts", cell: (m) => <Lasts onHand={m.onHand} perDay={perDay.get(m.id) ?? null} low={m.low} /> },
        { head: "Worth", as: "figure", cell: (m) => money(m.value, currency) },
        {
          head: "Average cost",
          as: "figure",
          cell: (m) => <PerUnit cost={averageOf(m)} measured={kind(m.kind).measured} per={per} />,
        },
        {
          head: "Lots, use first in front",
          plain: true,
          headClass: "sm:pl-6!",
          className: "sm:pl-6!",
          cell: (m) => <Lots lots={lots.get(m.id) ?? []} />,
        },
      ]}
    />
  );
}
