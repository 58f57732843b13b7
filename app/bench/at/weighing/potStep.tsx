/** The pot before anything is in it: what it weighs tells later how much stuck to it. */
import { mg, type Mg } from "#core/measure/exact";
import { exactWeightText } from "#core/measure/read";
import { grams } from "#core/measure/write";
import { useEffect } from "react";
import type { Devices } from "../../../devices/useDevices.ts";
import { Button } from "../../../ui/fields/form.tsx";
import type { AtBenchLoaded } from "../loaded.ts";
import { OnScale } from "./onScale.tsx";
import { weightOf } from "./reading.tsx";
import { useDid } from "../useDid.ts";

export function PotStep({ page: { batch }, devices, next }: { page: AtBenchLoaded; devices: Devices; next: () => void }) {
  const did = useDid(batch.id);
  const { scale, tell } = devices;
  // What was tared before has nothing to do with this pot.
  const there = !!scale;
  useEffect(() => {
    if (there) void tell("scale", "gross");
  }, [there, tell]);
  const stable = scale?.reading?.standing === "stable";
  const weight = weightOf(scale);
  const keep = (vessel: Mg): void => {
    did.keep({ intent: "vessel", vessel: exactWeightText(vessel) }, () => void tell("scale", "tare").then(next));
  };
  return (
    <>
      <h2 className="font-display text-display leading-tight">Set the empty, dry pot on the scale</h2>
      <p className="mt-1 text-pine-soft">
        {batch.vessel === null ? "What it weighs tells afterwards how much stayed in it." : `It weighs ${grams(batch.vessel)}.`}
      </p>
      <OnScale
        devices={devices}
        did={did}
        target={null}
        step={mg(100)}
        take={{ label: "Save it and tare", ready: stable && !!weight, press: () => weight && keep(weight) }}
        byHand="What the pot weighs"
        keep={keep}
        presses={[
          ["set the pot down", "add 412.3"],
          ["take all off", "clear"],
        ]}
      >
        <Button className="text-large" onClick={next}>
          Go on without
        </Button>
      </OnScale>
    </>
  );
}
