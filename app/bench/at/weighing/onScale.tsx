/**
 * One weighing: what the scale shows, the button that takes it, the weight typed by hand instead, and the simulated scale's own buttons.
 */
import type { Mg } from "#core/measure/exact";
import type { ReactNode } from "react";
import type { Devices } from "../../../devices/useDevices.ts";
import { Button, Problem } from "../../../ui/fields/form.tsx";
import type { Did } from "../useDid.ts";
import { ByHand } from "./byHand.tsx";
import { Hands } from "./hands.tsx";
import { Reading } from "./reading.tsx";

interface Props {
  devices: Devices;
  did: Did;
  /** Null where any weight will do. */
  target: Mg | null;
  step: Mg;
  /** The main press, and whether the scale has something to take. */
  take: { label: string; ready: boolean; press: () => void };
  /** The other presses. */
  children: ReactNode;
  byHand: string;
  keep: (weight: Mg) => void;
  /** What each press of the stand-in is called, and what the scale is told. */
  presses: readonly (readonly [say: string, line: string])[];
}

export function OnScale({ devices, did, target, step, take, children, byHand, keep, presses }: Props) {
  return (
    <>
      <Reading scale={devices.scale} target={target} step={step} />
      <div className="flex flex-wrap gap-2">
        <Button main className="text-large" disabled={!take.ready || did.busy} onClick={take.press}>
          {take.label}
        </Button>
        {children}
      </div>
      <Problem say={did.problem?.say} />
      <ByHand label={byHand} busy={did.busy} kept={keep} />
      <Hands devices={devices} device="scale" presses={presses} />
    </>
  );
}
