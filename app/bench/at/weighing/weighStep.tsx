/** Weighing one line: what is wanted, what the scale shows, and what can be done when too much went in. */
import { compareToTarget, weighingFixes } from "#core/batch/weighing/weighingFixes";
import type { WeighedBy } from "#core/batch/weighing/events";
import type { Mg } from "#core/measure/exact";
import { exactWeightText } from "#core/measure/read";
import { grams } from "#core/measure/write";
import { ofSteps, onScale } from "#core/recipe/scale";
import { useState } from "react";
import type { Devices } from "../../../devices/useDevices.ts";
import { LotTag } from "../../../ui/figures/amounts.tsx";
import { useKey } from "../../../ui/frame/useKey.ts";
import { Button, Problem } from "../../../ui/fields/form.tsx";
import type { AtBenchLoaded } from "../loaded.ts";
import { InDrops } from "../../inDrops.tsx";
import { ByHand } from "./byHand.tsx";
import { backToStep } from "../focus.ts";
import { Hands } from "./hands.tsx";
import { Off, OffInPart } from "./off.tsx";
import { TooMuchOf } from "../parts/tooMuchOf.tsx";
import { isMore, lineOf, potOf } from "./pot.ts";
import { Reading, weightOf } from "./reading.tsx";
import { useDid } from "../useDid.ts";

const text = (weight: Mg | null): string => (weight === null ? "" : exactWeightText(weight));

export function WeighStep({ page, devices, next, line }: { page: AtBenchLoaded; devices: Devices; next: () => void; line: number }) {
  const { batch, takes, lots, scale: own, constants } = page;
  const take = takes[line]!;
  const lot = lots.find((l) => l.id === take.lotId);
  const did = useDid(batch.id);
  const [off, setOff] = useState<{ weight: Mg; by: WeighedBy } | null>(null);
  const { scale } = devices;
  // What the scale can tell apart is what can be asked for.
  const step = scale?.hello?.step ?? ofSteps(1, own);
  const target = onScale(take.planned, own).outOfReach ? take.planned : onScale(take.planned, own).weight;
  const weight = weightOf(scale);
  const stable = scale?.reading?.standing === "stable";
  const line_ = lineOf(takes, line);
  const part = page.parts.find((p) => p.sizeId === take.sizeId);
  const on = (): void => {
    setOff(null);
    void devices.tell("scale", "tare").then(next);
  };
  const put = (weighed: Mg, by: WeighedBy): void =>
    did.keep({ intent: "weigh", ...line_, by, weighed: text(weighed), was: text(take.weighed) }, on);
  /** What is off is asked about before it is saved. */
  const accept = (weighed: Mg, by: WeighedBy): void => {
    if (target > 0 && compareToTarget(weighed, target, step) !== "right") setOff({ weight: weighed, by });
    else put(weighed, by);
  };
  const take_ = (): void => {
    if (stable && weight !== null && weight > 0 && !did.busy) accept(weight, "scale");
  };
  useKey("Enter", take_);
  const tare = (): void => {
    void devices.tell("scale", "tare");
    backToStep();
  };
  useKey("t", tare);
  const short = weight !== null && compareToTarget(weight, target, step) === "short";
  const more = lot && take.weighed === null && take.planned > lot.onHand ? take.planned - lot.onHand : 0;
  return (
    <>
      <h2 className="font-display text-[clamp(1.7rem,4vw,2.6rem)] leading-tight">
        {isMore(takes, line) ? "… and more " : ""}
        {take.material}
      </h2>
      <p className="mt-1.5 flex flex-wrap items-baseline gap-x-4 gap-y-1">
        <span className="font-mono text-display leading-none font-bold">{grams(target, 1)}</span>
        {lot && (
          <span className="text-pine-soft">
            out of <LotTag lot={lot} />
          </span>
        )}
      </p>
      <InDrops materialId={take.materialId} liquids={page.liquids} lot={lot} weight={take.planned} step={step} />
      {part && (
        <>
          <p className="mt-1.5 text-lead">
            Stirred into <strong className="weight">{grams(part.ladled ?? part.base, 1)}</strong> of the base, ladled out of the pot, for{" "}
            {part.units} × {part.label}.
          </p>
          <TooMuchOf part={part} />
        </>
      )}
      {take.weighed !== null && (
        <p className="mt-2 rounded bg-sage-wash px-3 py-1.5 text-sage">
          <strong>{grams(take.weighed)}</strong> is kept, {take.weighedBy === "scale" ? "by the scale" : "typed"}.{" "}
          <button
            type="button"
            className="pressable"
            disabled={did.busy}
            onClick={() => did.keep({ intent: "weigh", ...line_, by: "hand", weighed: "", was: text(take.weighed) })}
          >
            Weigh it again
          </button>
        </p>
      )}
      {more > 0 && (
        <p className="mt-2 font-semibold text-honey">
          The lot has only {grams(lot!.onHand)}: add another for the rest on the whole sheet, or make less.
        </p>
      )}
      <Reading scale={scale} target={target} step={step} />
      {off && part ? (
        <OffInPart
          name={take.material}
          by={off.weight - take.planned}
          share={off.weight / (off.weight + (part.ladled ?? part.base))}
          busy={did.busy}
          keep={() => put(off.weight, off.by)}
          back={() => setOff(null)}
        />
      ) : off ? (
        <Off
          of={weighingFixes(potOf(page), line, off.weight, constants)}
          page={page}
          line={line}
          weighed={off.weight}
          busy={did.busy}
          keep={() => put(off.weight, off.by)}
          instead={(materialId, amount) =>
            did.keep(
              { intent: "standIn", ...line_, by: off.by, weighed: text(off.weight), materialId, amount: exactWeightText(amount) },
              on,
            )
          }
          mend={(intent) => did.keep({ intent, ...line_, by: off.by, weighed: text(off.weight) }, on)}
          back={() => setOff(null)}
        />
      ) : (
        <div className="flex flex-wrap gap-2">
          <Button main className="text-large" disabled={!stable || weight === null || weight <= 0 || did.busy} onClick={take_}>
            {short && stable ? `Take ${grams(weight, 1)} as it is` : "Take it"}
          </Button>
          <Button className="text-large" onClick={tare} disabled={!scale || !stable}>
            Tare
          </Button>
          <span className="self-center text-small text-pine-soft max-sm:hidden">Enter takes it, t tares, ← → move</span>
        </div>
      )}
      <Problem say={did.problem?.say} />
      {!off && <ByHand label={`Weighed: ${take.material}`} busy={did.busy} kept={(w) => accept(w, "hand")} />}
      <Hands
        devices={devices}
        device="scale"
        presses={[
          ["pour what is wanted", `add ${(target / 1000).toFixed(1)} over 3`],
          ["a gram more", "add 1"],
          ["a tenth too much", `add ${(target / 10_000).toFixed(1)}`],
          ["scoop a gram back", "take 1"],
          ["take all off", "clear"],
        ]}
      />
    </>
  );
}
