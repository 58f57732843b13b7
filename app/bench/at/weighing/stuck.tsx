/** What stuck to the pot: it is weighed again once all is poured. */
import { stuckTo } from "#core/batch/weighing/events";
import { mg, sum, type Mg } from "#core/measure/exact";
import { exactWeightText } from "#core/measure/read";
import { grams, sayShare } from "#core/measure/write";
import { useState } from "react";
import type { Devices } from "../../../devices/useDevices.ts";
import { Button, Problem } from "../../../ui/fields/form.tsx";
import type { AtBenchLoaded } from "../loaded.ts";
import { useDid } from "../useDid.ts";
import { ByHand } from "./byHand.tsx";
import { Reading, weightOf } from "./reading.tsx";

export function Stuck({ page: { batch, recipe, takes, events }, devices: { scale, tell } }: { page: AtBenchLoaded; devices: Devices }) {
  const did = useDid(batch.id);
  const [open, setOpen] = useState(false);
  if (batch.vessel === null) return null;
  const stuck = stuckTo(batch.vessel, events);
  const inPot = sum(takes.map((t) => t.weighed ?? mg(0)));
  const weight = weightOf(scale);
  // Tared, it shows something else than the pot.
  const ready = scale?.reading?.standing === "stable" && "net" in scale.reading && !scale.reading.net;
  const keep = (potAfter: Mg): void => {
    did.keep({ intent: "event", kind: "potAfter", weight: exactWeightText(potAfter), note: "" }, () => setOpen(false));
  };
  return (
    <section className="mt-7 border-t border-rule pt-4" aria-label="What stuck to the pot">
      <h3 className="font-display text-large">What stuck to the pot</h3>
      {stuck !== null && inPot > 0 && (
        <p className="text-lead">
          <strong className="font-mono">{grams(stuck, 1)}</strong>, {sayShare(stuck / inPot)} of what went in; the recipe reckons with{" "}
          {sayShare(recipe.lossBp / 10_000)} for pot and jug.
        </p>
      )}
      {open ? (
        <>
          <p className="text-pine-soft">All off the scale, then the pot as it is. Empty it weighed {grams(batch.vessel, 1)}.</p>
          <Reading scale={scale} target={null} step={mg(100)} />
          <Button className="text-large" disabled={!ready || !weight || did.busy} onClick={() => weight && keep(weight)}>
            Save what it weighs
          </Button>
          <ByHand label="The pot with what stuck to it" busy={did.busy} kept={keep} />
          <Problem say={did.problem?.say} />
        </>
      ) : (
        <Button
          onClick={() => {
            if (scale) void tell("scale", "gross");
            setOpen(true);
          }}
        >
          Weigh the pot again
        </Button>
      )}
    </section>
  );
}
