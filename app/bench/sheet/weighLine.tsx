/** One weighing on the sheet: how much is wanted, out of which lot, and what the scale said. */
import type { Mg } from "#core/measure/exact";
import { grams } from "#core/measure/write";
import { onScale, showSteps, type Scale } from "#core/recipe/scale";
import { lotState } from "#core/stock/lots";
import type { BatchSheet } from "#db/bench/read";
import type { UseFormRegisterReturn } from "react-hook-form";
import { STATE_WORDS, useSayDay } from "../../ui/figures/amounts.tsx";
import { Problem } from "../../ui/fields/form.tsx";
import { PickBox } from "../../ui/fields/pick.tsx";
import { useWorkshop } from "../../ui/workshop.ts";

interface Props {
  at: number;
  row: { material: string; materialId: number; lot: BatchSheet["lots"][number] | undefined; planned: Mg; weighed: Mg | null };
  /** The part it goes into alone. */
  into: string | null;
  /** More of the line before, out of another lot. */
  repeated: boolean;
  scale: Scale;
  lots: BatchSheet["lots"];
  problem: string | undefined;
  field: UseFormRegisterReturn;
  choose: (lot: string) => void;
  split: () => void;
  remove: () => void;
  /** Goes to what is filled in after it. */
  next: () => void;
}

export function WeighLine({ at, row, into, repeated, scale, lots, problem, field, choose, split, remove, next }: Props) {
  const { today } = useWorkshop();
  const sayIt = useSayDay();
  const { material, lot, weighed, planned } = row;
  const target = onScale(planned, scale);
  const over = lot && weighed !== null && weighed > lot.onHand;
  return (
    <li className="grid items-center gap-x-5 gap-y-1 py-3 sm:grid-cols-[1fr_15rem_10rem]">
      <div>
        <p className="font-display text-[1.2rem]">
          {repeated ? `… and more ${material}` : material}
          {into && <span className="font-sans text-[0.95rem] text-pine-soft"> into {into}</span>}
        </p>
        <p className="weight text-[1.45rem] font-semibold">
          {target.outOfReach ? grams(planned) : scale.unit === "g" ? grams(target.weight) : showSteps(target.steps, scale)}
          {scale.unit === "oz" && !target.outOfReach && (
            <span className="font-sans text-[0.95rem] font-normal text-pine-soft"> {grams(target.weight)}</span>
          )}
          {target.outOfReach && <span className="font-sans text-[0.9rem] font-normal text-honey"> below what the scale reads</span>}
        </p>
      </div>
      <div>
        <PickBox
          aria-label={`Lot of ${material}, line ${at + 1}`}
          className="field weight text-[0.92rem]"
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
        <span className="no-print flex gap-3 text-[0.88rem]">
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
      <div>
        <input
          data-amount
          className="field text-right font-mono text-[1.3rem]"
          aria-label={`Weighed: ${material}, line ${at + 1}`}
          placeholder="weighed"
          autoComplete="off"
          aria-invalid={problem || over ? true : undefined}
          {...field}
          onKeyDown={(e) => {
            if (e.key !== "Enter") return;
            e.preventDefault();
            next();
          }}
        />
      </div>
      <div className="sm:col-span-3 sm:text-right">
        <Problem say={problem ?? (over ? `Lot ${lot.number} has only ${grams(lot.onHand)}. Add another lot for the rest.` : null)} />
      </div>
    </li>
  );
}
