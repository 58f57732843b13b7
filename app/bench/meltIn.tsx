/** Bases that stand on the shelf melted down, and how much of each goes into the pot again. */
import { mg, type Mg } from "#core/measure/exact";
import { readWeight } from "#core/measure/read";
import type { Lot } from "#core/stock/lots";
import type { ReactNode } from "react";
import { LotTag, showBase } from "../ui/figures/amounts.tsx";
import { Part } from "../ui/sheet/sheet.tsx";

export interface Base {
  lotId: number;
  number: string;
  materialId: number;
  name: string;
}

/** Of one of them, as much as was typed. */
export type Melted = Base & { weight: Mg };

/** What is melted in, by what was typed beside each; what can't be read is nothing yet. */
export const meltedOf = (bases: readonly Base[], typed: readonly { amount: string }[]): Melted[] =>
  bases.flatMap((b, i) => {
    const weight = readWeight(typed[i]?.amount ?? "");
    return weight.ok && weight.value > 0 ? [{ ...b, weight: weight.value }] : [];
  });

/** Each of them may be chosen out of no other lot than its own. */
export const takesOf = ({ lotId, weight }: Melted, free: number) => ({
  takes: free > 0 ? [{ lotId, amount: mg(Math.min(weight, free)) }] : [],
  short: mg(Math.max(0, weight - free)),
});

/** @param field the field of one, by its place */
export function MeltIn({
  bases,
  lots,
  field,
}: {
  bases: readonly Base[];
  lots: ReadonlyMap<number, Lot>;
  field: (i: number, label: string) => ReactNode;
}) {
  if (bases.length === 0) return null;
  return (
    <Part title="Melt in">
      <p className="mb-2 text-pine-soft">What was melted down goes in first; the recipe makes up the rest of the batch.</p>
      <ul className="divide-y divide-rule border-y border-rule">
        {bases.map((b, i) => {
          const lot = lots.get(b.lotId);
          return (
            <li key={b.lotId} className="flex flex-wrap items-start justify-between gap-x-4 gap-y-1 py-2">
              <span className="flex flex-wrap items-baseline gap-x-3 pt-1.5">
                {lot && <LotTag lot={lot} />}
                <span className="font-display text-[1.1rem]">{b.name}</span>
                <span className="text-pine-soft">{lot ? `${showBase(lot.onHand, "weight")} free` : "promised to another batch"}</span>
              </span>
              {field(i, `Melt in, of ${b.number}`)}
            </li>
          );
        })}
      </ul>
    </Part>
  );
}
