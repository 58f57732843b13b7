/** Pouring: a few of what was filled are weighed against their label, and the count is saved on the sheet. */
import { Link } from "react-router";
import { shortfall } from "#core/batch/finishing/netWeight";
import { mg, type Mg } from "#core/measure/exact";
import { exactWeightText } from "#core/measure/read";
import { grams } from "#core/measure/write";
import { wordList } from "#core/words";
import { useState } from "react";
import type { WeighedBy } from "#core/batch/weighing/events";
import type { Devices } from "../../devices/useDevices.ts";
import { useKey } from "../../ui/frame/useKey.ts";
import { Button, Problem } from "../../ui/fields/form.tsx";
import { NetWeights } from "../record/netWeights.tsx";
import type { AtBenchLoaded } from "./loaded.ts";
import { Count } from "./count.tsx";
import { ByHand } from "./weighing/byHand.tsx";
import { backToStep } from "./focus.ts";
import { Hands } from "./weighing/hands.tsx";
import { Reading, weightOf } from "./weighing/reading.tsx";
import { Stuck } from "./weighing/stuck.tsx";
import { useDid } from "./useDid.ts";

interface Props {
  page: AtBenchLoaded;
  devices: Devices;
  /** What isn't ticked off yet. */
  open: readonly string[];
  /** Goes to pouring in parts. */
  inParts: () => void;
}

export function PourStep({ page, devices, open, inParts }: Props) {
  const { batch, samples, netRule } = page;
  // Of what was parted off whole nothing is left to be poured as it is.
  const sizes = page.sizes.filter((s) => s.planned > 0);
  const did = useDid(batch.id);
  const [chosen, choose] = useState(0);
  const size = sizes[Math.min(chosen, sizes.length - 1)]!;
  const { scale } = devices;
  const weight = weightOf(scale);
  const stable = scale?.reading?.standing === "stable";
  const keep = (net: Mg, by: WeighedBy): void => did.keep({ intent: "sample", sizeId: size.id, net: exactWeightText(net), by });
  const take = (): void => {
    if (stable && weight !== null && weight > 0 && !did.busy) keep(weight, "scale");
  };
  useKey("Enter", take);
  const tare = (): void => {
    void devices.tell("scale", "tare");
    backToStep();
  };
  useKey("t", tare);
  return (
    <>
      <h2 className="font-display text-display leading-tight">Pour, and weigh a few of them</h2>
      {open.length > 0 && (
        <p className="mt-3 text-lead text-honey">
          Not ticked off yet: {wordList(open.slice(0, 3))}
          {open.length > 3 && ` and ${open.length - 3} more`}.
        </p>
      )}
      <p className="mt-1 text-pine-soft">
        An empty one with its lid on the scale, tare; then one after the other of those that are filled.
      </p>
      {sizes.length > 1 && (
        <div role="group" aria-label="Which size" className="mt-3 flex flex-wrap gap-1.5">
          {sizes.map((s, i) => (
            <button
              key={s.id}
              type="button"
              aria-pressed={i === chosen}
              className={`act act-small ${i === chosen ? "border-amber! font-semibold" : ""}`}
              onClick={() => choose(i)}
            >
              {s.label}
            </button>
          ))}
        </div>
      )}
      <Count page={page} size={size} />
      <p className="mt-3 font-mono text-display leading-none font-bold">{grams(size.fill, 1)}</p>
      {size.over ? (
        <p className="mt-1 font-semibold text-honey">{size.over} Fill less of it, or the lid won’t close.</p>
      ) : (
        size.room && (
          <p className="mt-1 text-pine-soft">
            {size.room}.{page.recipe.overrunBp === 0 && " It sinks a little as it sets."}
          </p>
        )
      )}
      <Reading scale={scale} target={size.fill} step={scale?.hello?.step ?? mg(100)} />
      <div className="flex flex-wrap gap-2">
        <Button className="text-large" disabled={!stable || weight === null || weight <= 0 || did.busy} onClick={take}>
          Note this one
        </Button>
        <Button className="text-large" disabled={!stable} onClick={tare}>
          Tare
        </Button>
        <Link to={`/bench/${batch.id}#poured`} className="act act-main text-large">
          Go to the sheet and pour
        </Link>
        <button type="button" className="pressable self-center" onClick={inParts}>
          Part of it as something else
        </button>
      </div>
      <Problem say={did.problem?.say} />
      <div className="mt-4">
        {shortfall(netRule, size.fill) === null ? (
          <p className="text-pine-soft">The rule chosen in Settings says nothing of {grams(size.fill)}.</p>
        ) : (
          <NetWeights
            rule={netRule}
            declared={size.fill}
            filled={size.planned}
            samples={samples.filter((s) => s.sizeId === size.id)}
            strike={(id) => did.keep({ intent: "strikeSample", id })}
          />
        )}
      </div>
      <ByHand key={samples.length} label="Net weight of one" busy={did.busy} kept={(net) => keep(net, "hand")} />
      <Stuck page={page} devices={devices} />
      <Hands
        devices={devices}
        device="scale"
        presses={[
          ["take all off", "clear"],
          ["put an empty one on", "add 21.4"],
          ["put what is in it on", `add ${(size.fill / 1000 + 0.3).toFixed(1)}`],
          ["take it off again", `take ${(size.fill / 1000 + 0.3).toFixed(1)}`],
          ...(batch.vessel === null ? [] : [["set the pot down again", `add ${(batch.vessel / 1000 + 9.4).toFixed(1)}`] as const]),
        ]}
      />
    </>
  );
}
