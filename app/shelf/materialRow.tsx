/** A material's row on the shelf: on hand, worth, average cost, and its lots with the one to use first in front. */
import { kind } from "#core/material/kinds";
import { money, perWeight, type PerWeight, type UnitCost } from "#core/measure/money";
import { useFirst, type Lot } from "#core/stock/lots";
import type { OnShelf } from "#db/shelf/overview";
import type { ReactNode } from "react";
import { LotTag, PerUnit, showInColumn } from "../ui/amounts.tsx";
import { useWorkshop } from "../ui/workshop.ts";

/** More lots than this are a number, not tags. */
const TAGS = 6;

export function ShelfTable({ children }: { children: ReactNode }) {
  return (
    <table className="ruled stack">
      <thead>
        <tr>
          <th scope="col">Material</th>
          <th scope="col" className="text-right!">
            On hand
          </th>
          <th scope="col" className="text-right!">
            Worth
          </th>
          <th scope="col" className="text-right!">
            Average cost
          </th>
          <th scope="col" className="pl-6!">
            Lots, use first in front
          </th>
        </tr>
      </thead>
      {children}
    </table>
  );
}

/** What what is on hand costs; null when nothing is. */
const averageOf = (m: OnShelf): UnitCost | null => (m.onHand > 0 ? { value: m.value, per: m.onHand } : null);

/** The unit weighed materials' average costs are told in, under each other. */
export const perWeightOf = (materials: readonly OnShelf[]): PerWeight =>
  perWeight(materials.filter((m) => kind(m.kind).measured === "weight").map(averageOf));

export function MaterialRow({ material: m, lots, per }: { material: OnShelf; lots: readonly Lot[]; per: PerWeight }) {
  const { currency } = useWorkshop();
  const measured = kind(m.kind).measured;
  const own = [...lots].sort(useFirst);
  return (
    <tr>
      <td>
        <a href={`/shelf/${m.id}`} className="font-semibold hover:underline">
          {m.name}
        </a>
        {m.low && <span className="ml-2 rounded-sm bg-honey-wash px-1.5 text-[0.85rem] font-semibold text-honey">low</span>}
        {m.coming > 0 && <span className="ml-2 text-[0.85rem] text-pine-soft">{showInColumn(m.coming, measured)} to come</span>}
      </td>
      <td data-label="On hand" className="num weight">
        {m.onHand === 0 ? "none" : showInColumn(m.onHand, measured)}
      </td>
      <td data-label="Worth" className="num">
        {money(m.value, currency)}
      </td>
      <td data-label="Average cost" className="num">
        <PerUnit cost={averageOf(m)} measured={measured} per={per} />
      </td>
      <td className="pl-6!">
        <span className="flex flex-wrap gap-1.5">
          {own.slice(0, TAGS).map((l) => (
            <LotTag key={l.id} lot={l} />
          ))}
          {own.length > TAGS && <span className="text-[0.9rem] text-pine-soft">and {own.length - TAGS} more</span>}
        </span>
      </td>
    </tr>
  );
}
