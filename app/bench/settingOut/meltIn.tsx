/** Bases that are on the shelf melted down, and how much of each goes into the pot again. */
import { mg, type Mg } from "#core/measure/exact";
import { readWeight } from "#core/measure/read";
import type { Lot } from "#core/stock/lots";
import type { ReactNode } from "react";
import { LotTag, showBase } from "../../ui/figures/amounts.tsx";
import { Part } from "../../ui/sheet/sheet.tsx";

export interface Base {
  lotId: number;
  number: string;
  materialId: number;
  name: string;
}

/** Of one of them, as much as was typed. */
export type Melted = Base & { weight: Mg };

/** What is typed beside each, by its lot: bases come and go while a sheet is unfinished. */
export interface MeltedText {
  lot: string;
  amount: string;
}

/** The base a row is about; none where it isn't on the shelf any more. */
const baseOf = (bases: readonly Base[], { lot }: MeltedText): Base | undefined => bases.find((b) => String(b.lotId) === lot);

/** Rows for bases that came to the shelf since the sheet was begun. */
export const rowsMissing = (bases: readonly Base[], typed: readonly MeltedText[]): MeltedText[] =>
  bases.filter((b) => !typed.some((t) => t.lot === String(b.lotId))).map((b) => ({ lot: String(b.lotId), amount: "" }));

/** What is melted in; what can't be read is nothing yet. */
export const meltedOf = (bases: readonly Base[], typed: readonly MeltedText[]): Melted[] =>
  typed.flatMap((t) => {
    const base = baseOf(bases, t);
    const weight = readWeight(t.amount);
    return base && weight.ok && weight.value > 0 ? [{ ...base, weight: weight.value }] : [];
  });

/** Each of them may be chosen out of no other lot than its own. */
export const takesOf = ({ lotId, weight }: Melted, free: number) => ({
  takes: free > 0 ? [{ lotId, amount: mg(Math.min(weight, free)) }] : [],
  short: mg(Math.max(0, weight - free)),
});

interface Props {
  bases: readonly Base[];
  typed: readonly MeltedText[];
  lots: ReadonlyMap<number, Lot>;
  /** The field of a row, by its place. */
  field: (i: number, label: string) => ReactNode;
}

export function MeltIn({ bases, typed, lots, field }: Props) {
  // Of a base that is gone only the typed name is shown, so that it can be taken out.
  const rows = typed.map((t, i) => ({ ...t, i, base: baseOf(bases, t) })).filter((r) => r.base !== undefined || r.amount.trim() !== "");
  if (rows.length === 0) return null;
  return (
    <Part title="Melt in">
      <p className="mb-2 text-pine-soft">What was melted down goes in first; the recipe makes up the rest of the batch.</p>
      <ul className="divide-y divide-rule border-y border-rule">
        {rows.map(({ lot: of, i, base }) => {
          const lot = base && lots.get(base.lotId);
          return (
            <li key={of} className="flex flex-wrap items-start justify-between gap-x-4 gap-y-1 py-2">
              <span className="flex flex-wrap items-baseline gap-x-3 pt-1.5">
                {lot && <LotTag lot={lot} />}
                <span className="font-display text-lead">{base?.name ?? "A base that was used up meanwhile"}</span>
                {base && (
                  <span className="text-pine-soft">{lot ? `${showBase(lot.onHand, "weight")} free` : "reserved for another batch"}</span>
                )}
              </span>
              {field(i, `Melt in, of ${base?.number ?? "what is gone"}`)}
            </li>
          );
        })}
      </ul>
    </Part>
  );
}
