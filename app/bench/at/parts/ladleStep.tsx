/** Ladling what a part takes out of the pot: weighed, it is what the part is charged by, and what is stirred in follows it. */
import { compareToTarget } from "#core/batch/weighing/weighingFixes";
import type { Mg } from "#core/measure/exact";
import { exactWeightText } from "#core/measure/read";
import { grams } from "#core/measure/write";
import { ofSteps } from "#core/recipe/scale";
import type { Devices } from "../../../devices/useDevices.ts";
import { Button } from "../../../ui/fields/form.tsx";
import { useKey } from "../../../ui/frame/useKey.ts";
import { backToStep } from "../focus.ts";
import type { AtBenchLoaded } from "../loaded.ts";
import { useDid } from "../useDid.ts";
import { OnScale } from "../weighing/onScale.tsx";
import { weightOf } from "../weighing/reading.tsx";

interface Props {
  page: AtBenchLoaded;
  devices: Devices;
  next: () => void;
  sizeId: number;
}

export function LadleStep({ page: { batch, parts, scale: own }, devices, next, sizeId }: Props) {
  const part = parts.find((p) => p.sizeId === sizeId)!;
  const did = useDid(batch.id);
  const { scale, tell } = devices;
  const step = scale?.hello?.step ?? ofSteps(1, own);
  const weight = weightOf(scale);
  const ready = scale?.reading?.standing === "stable" && weight !== null && weight > 0 && !did.busy;
  const keep = (weighed: Mg | null): void => {
    const text = (w: Mg | null): string => (w === null ? "" : exactWeightText(w));
    did.keep({ intent: "ladle", sizeId, weighed: text(weighed), was: text(part.ladled) }, () => {
      if (weighed !== null) void tell("scale", "tare").then(next);
    });
  };
  const off = ready && compareToTarget(weight, part.base, step) !== "right";
  const take = (): void => {
    if (ready) keep(weight);
  };
  // A jug that wasn't tared is no weight of the base: what is off wants its own press.
  useKey("Enter", () => !off && take());
  const tare = (): void => {
    void tell("scale", "tare");
    backToStep();
  };
  useKey("t", tare);
  return (
    <>
      <h2 className="font-display text-[clamp(1.7rem,4vw,2.6rem)] leading-tight">Ladle out for {part.label}</h2>
      <p className="mt-1.5 font-mono text-display leading-none font-bold">{grams(part.base, 1)}</p>
      <p className="mt-1.5 text-pine-soft">
        A dry jug on the scale, tare, then ladle the base into it. What the part costs goes by this weight, and so does what is stirred in.
      </p>
      {part.ladled !== null && (
        <p className="mt-2 rounded bg-sage-wash px-3 py-1.5 text-sage">
          <strong>{grams(part.ladled)}</strong> is kept.{" "}
          <button type="button" className="pressable" disabled={did.busy} onClick={() => keep(null)}>
            Weigh it again
          </button>
        </p>
      )}
      <OnScale
        devices={devices}
        did={did}
        target={part.base}
        step={step}
        take={{ label: off ? `Take ${grams(weight, 1)} as it is` : "Take it", ready, press: take }}
        byHand="What was ladled out"
        keep={keep}
        presses={[
          ["an empty jug", "add 131.6"],
          ["ladle what is wanted", `add ${(part.base / 1000).toFixed(1)} over 3`],
          ["a ladle more", "add 12"],
          ["take all off", "clear"],
        ]}
      >
        <Button className="text-large" onClick={tare} disabled={!scale}>
          Tare
        </Button>
        <Button className="text-large" onClick={next}>
          Go on without
        </Button>
      </OnScale>
    </>
  );
}
