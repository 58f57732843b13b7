/** Beside setting out: what the batch fills, costs and takes, until when it could be capped, and what is short of it. */
import { SETTING } from "#core/batch/finishing/check";
import type { BatchSize } from "#core/batch/planning/size";
import type { BestBefore } from "#core/batch/finishing/bestBefore";
import type { Outcome } from "#core/outcome";
import type { Mg } from "#core/measure/exact";
import { money } from "#core/measure/money";
import { grams } from "#core/measure/write";
import type { MixCost } from "#core/recipe/cost";
import { showScale } from "#core/recipe/scale";
import type { Settings } from "#core/settings/settings";
import { span } from "#core/when";
import type { WrittenRecipe } from "#db/recipe/read";
import { useEffect, useState } from "react";
import { When } from "../../ui/figures/amounts.tsx";
import { Figure, HowLine, Reckoner } from "../../ui/figures/reckoner.tsx";
import { TimeOfDay } from "../../ui/figures/timeOfDay.tsx";
import { useWorkshop } from "../../ui/workshop.ts";
import { ShortOnShelf, type ShortProps } from "./shortOnShelf.tsx";

interface Size {
  id: number;
  label: string;
  fill: Mg;
  units: number;
  unitMinutes: number;
}

interface Props extends ShortProps {
  unread: string | null;
  batch: Mg;
  size: Outcome<BatchSize>;
  sizes: readonly Size[];
  cost: MixCost | null;
  potLoss: Mg;
  best: BestBefore;
  /** Lines below what the scale reads. */
  unreadable: readonly { materialId: number }[];
  w: WrittenRecipe;
  settings: Pick<Settings, "school" | "scale">;
}

export function SetOutReckoner({ unread, batch, size, sizes, cost, potLoss, best, unreadable, w, settings, name, ...shortage }: Props) {
  const { currency } = useWorkshop();
  const filled = sizes.filter((s) => s.units > 0);
  const many = sizes.length > 1;
  const { scale } = settings;
  const minutes = filled.length === 0 ? 0 : filled.reduce((a, s) => a + s.units * s.unitMinutes, w.recipe.batchMinutes);
  const sets = SETTING[w.recipe.type];
  return (
    <Reckoner unread={unread}>
      <Figure label="Batch" value={size.ok ? grams(batch) : "—"} />
      {filled.length === 0 && <Figure label="Fills" big value="—" />}
      {filled.map((s, i) => (
        <Figure
          key={s.id}
          label={i === 0 ? "Fills" : "and"}
          big
          value={`${s.units} × ${s.label}`}
          how={
            <>
              <HowLine label="Each" value={grams(s.fill)} />
              <HowLine label="Together" value={grams(s.units * s.fill)} />
            </>
          }
        />
      ))}
      {size.ok && (
        <Figure label="Left over" value={grams(size.value.leftover)} how={<HowLine label="Pot and jug" value={grams(potLoss)} />} />
      )}
      {cost?.sizes.map((c, i) => {
        const one = c.perUnit[settings.school];
        return (
          one && (
            <Figure
              key={i}
              label={many ? `Cost of one, ${sizes[i]!.label}` : "Cost of one unit"}
              value={money(one.total, currency)}
              how={
                <>
                  <HowLine label="Materials" value={money(one.materials, currency)} />
                  <HowLine label="Work" value={money(one.work, currency)} />
                  <HowLine label="Overhead" value={money(one.overhead, currency)} />
                </>
              }
            />
          )
        );
      })}
      {size.ok && minutes > 0 && (
        <Figure
          label="Work"
          value={span(Math.round(minutes))}
          how={
            <>
              <HowLine label="The pot" value={span(w.recipe.batchMinutes)} />
              <HowLine label="Filling" value={span(Math.round(minutes - w.recipe.batchMinutes))} />
              {sets && <HowLine label="Then it sets, at least" value={span(sets.minutes)} />}
            </>
          }
        />
      )}
      {size.ok && minutes > 0 && sets && <Done minutes={minutes + sets.minutes} then={sets.then} />}
      <Figure
        label="Best before, poured today"
        value={<When day={best.day} />}
        tone={best.limitedBy ? "warn" : undefined}
        how={
          <p>
            {best.limitedBy
              ? `Cut short by lot ${best.limitedBy}, the shortest-lived in it.`
              : `${w.recipe.keepsMonths} months; every lot lasts longer.`}
          </p>
        }
      />
      {unreadable.length > 0 && (
        <p className="py-2 text-honey">
          Below what the scale reads ({showScale(scale)}): {unreadable.map((l) => name.get(l.materialId)).join(", ")}. Make more, or count
          drops.
        </p>
      )}
      <ShortOnShelf {...{ ...shortage, name, sizes }} recipeId={w.recipe.id} />
    </Reckoner>
  );
}

/** When it could be done, begun now: by the page's clock, once that is known. */
function Done({ minutes, then }: { minutes: number; then: string }) {
  const [at, set] = useState<Date>();
  useEffect(() => {
    const tell = (): void => set(new Date(Date.now() + minutes * 60_000));
    tell();
    const tick = setInterval(tell, 60_000);
    return () => clearInterval(tick);
  }, [minutes]);
  return <Figure label="Begun now, it is cold by" value={at ? <TimeOfDay at={at} /> : "…"} how={<p>At the earliest; then {then}.</p>} />;
}
