/** One weighing on the sheet: how much is wanted, out of which lot, and what the scale said. */
import type { Mg } from "#core/measure/exact";
import { grams } from "#core/measure/write";
import { ofSteps, onScale, showSteps, type Scale } from "#core/recipe/scale";
import { lotState } from "#core/stock/lots";
import type { BatchSheet } from "#db/bench/read";
import type { UseFormRegisterReturn } from "react-hook-form";
import { STATE_WORDS, useSayDay } from "../../ui/figures/amounts.tsx";
import { Problem } from "../../ui/fields/form.tsx";
import { PickBox } from "../../ui/fields/pick.tsx";
import { useWorkshop } from "../../ui/workshop.ts";
import { InDrops, type Liquid } from "../inDrops.tsx";

interface Props {
  at: number;
  row: { material: string; materialId: number; lot: BatchSheet["lots"][number] | undefined; planned: Mg; weighed: Mg | null };
  /** The part it goes into alone. */
  into: string | null;
  /** More of the line before, out of another lot. */
  repeated: boolean;
  scale: Scale;
  liquids: readonly Liquid[];
  lots: BatchSheet["lots"];
  problem: string | undefined;
  field: UseFormRegisterReturn;
  choose: (lot: string) => void;
  split: () => void;
  remove: () => void;
  /** Goes to what is filled in after it. */
  next: (from: HTMLElement) => void;
}

export function WeighLine({ at, row, into, repeated, scale, liquids, lots, problem, field, choose, split, remove, next }: Props) {
  const { today } = useWorkshop();
  const sayIt = useSayDay();
  const { material, lot, weighed, planned } = row;
  const target = onScale(planned, scale);
  const over = lot && weighed !== null && weighed > lot.onHand;
  return (
    <li className="grid items-center gap-x-5 gap-y-1 py-3 sm:grid-cols-[1fr_15rem_10rem] print:grid-cols-[1fr_9rem_8.5rem] print:py-1.5">
      <div className="print:flex print:items-baseline print:justify-between print:gap-3">
        <p className="font-display text-large print:text-base">
          {repeated ? `… and more ${material}` : material}
          {into && <span className="font-sans text-small text-pine-soft"> into {into}</span>}
        </p>
        <p className="weight text-title font-semibold print:text-lead print:whitespace-nowrap">
          {target.outOfReach ? grams(planned) : scale.unit === "g" ? grams(target.weight) : showSteps(target.steps, scale)}
          {scale.unit === "oz" && !target.outOfReach && (
            <span className="font-sans text-small font-normal text-pine-soft"> {grams(target.weight)}</span>
          )}
          {target.outOfReach && <span className="font-sans text-small font-normal text-honey"> below what the scale reads</span>}
        </p>
        <InDrops materialId={row.materialId} liquids={liquids} lot={lot} weight={planned} step={ofSteps(1, scale)} />
      </div>
      <div>
        <PickBox
          aria-label={`Lot of ${material}, line ${at + 1}`}
          className="field weight text-small"
          value={String(lot?.id ?? "")}
          onValue={choose}
          options={lots
            .filter((l) => l.of === row.materialId && (l.onHand > 0 || l.id === lot?.id))
            .map((l) => ({
              value: String(l.id),
              name: l.number,
              aside: grams(l.onHand),
              about: [STATE_WORDS[lotState(l, today)], l.bestBefore && `best before ${sayIt(l.bestBefore)}`].filter(Boolean).join(", "),
            }))}
        />
        <span className="no-print flex gap-3 text-fine">
          <button type="button" className="pressable" onClick={split}>
            Add another lot
          </button>
          {repeated && (
            <button type="button" className="pressable" onClick={remove}>
              Remove
            </button>
          )}
        </span>
      </div>
      <div className="print:flex print:items-baseline print:justify-end print:gap-1.5">
        <input
          data-amount
          className="field peer to-write text-right font-mono text-large placeholder:text-base print:text-base"
          aria-label={`Weighed: ${material}, line ${at + 1}`}
          placeholder="weighed&nbsp;"
          autoComplete="off"
          aria-invalid={problem || over ? true : undefined}
          {...field}
          onKeyDown={(e) => {
            if (e.key !== "Enter") return;
            e.preventDefault();
            next(e.currentTarget);
          }}
        />
        <span className="hidden print:peer-placeholder-shown:inline">{scale.unit}</span>
      </div>
      <div className="sm:col-span-3 sm:text-right">
        <Problem say={problem ?? (over ? `Lot ${lot.number} has only ${grams(lot.onHand)}. Add another lot for the rest.` : null)} />
      </div>
    </li>
  );
}
