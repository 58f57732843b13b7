/** One step of the method, with the clock and the thermometer it speaks of. */
import { fitCooling, forecast, sayForecast, sinceWarmest } from "#core/batch/weighing/cooling";
import { hintsOf } from "#core/batch/weighing/events";
import { fahrenheitOf } from "#core/measure/heat";
import { readPlain } from "#core/measure/read";
import { writeNumber } from "#core/numbers";
import { useState } from "react";
import type { Devices } from "../../../devices/useDevices.ts";
import { Button, Problem, Text } from "../../../ui/fields/form.tsx";
import { useKey } from "../../../ui/frame/useKey.ts";
import { span } from "#core/when";
import type { AtBenchLoaded } from "../loaded.ts";
import { Hands } from "../weighing/hands.tsx";
import { MeltOrder } from "./meltOrder.tsx";
import { useDid, type Did } from "../useDid.ts";

/** How warm a kitchen is taken to be: common practice, no source. */
const KITCHEN = 21;
const degrees = (c: number): string => `${writeNumber(c, 1, 1)} °C`;

interface Props {
  page: AtBenchLoaded;
  devices: Devices;
  next: () => void;
  at: number;
  text: string;
  done: boolean;
}

export function MethodStep({ page, devices, next, at, text, done }: Props) {
  const { batch, events } = page;
  const did = useDid(batch.id);
  const hints = hintsOf(text);
  const wanted = hints.below ?? hints.about;
  const finish = (): void => did.keep({ intent: "event", kind: "step", step: at, note: text }, next);
  useKey("Enter", () => (done ? next() : finish()));
  const own = events.find((e) => e.kind === "step" && e.step === at && e.struckAt === null);
  const timed = events.some((e) => e.kind === "timer" && e.step === at && e.endedAt === null && e.struckAt === null);
  return (
    <>
      <h2 className="max-w-reading font-display text-[clamp(1.5rem,3.4vw,2.1rem)] leading-snug">{text}</h2>
      <MeltOrder page={page} />
      {wanted !== null && <Warmth devices={devices} wanted={wanted} below={hints.below !== null} did={did} step={at} />}
      <div className="mt-5 flex flex-wrap gap-2">
        {done ? (
          <>
            <Button main className="text-large" onClick={next}>
              Done; go on
            </Button>
            <Button disabled={did.busy} onClick={() => own && did.keep({ intent: "settle", id: own.id, how: "strike" })}>
              Not done after all
            </Button>
          </>
        ) : (
          <Button main className="text-large" disabled={did.busy} onClick={finish}>
            Done
          </Button>
        )}
        {hints.minutes !== null && !timed && (
          <Button
            className="text-large"
            disabled={did.busy}
            onClick={() => did.keep({ intent: "event", kind: "timer", minutes: hints.minutes, step: at, note: text.split(/[.;,]/)[0] })}
          >
            Start {span(hints.minutes)}
          </Button>
        )}
      </div>
      <Problem say={did.problem?.say} />
      {wanted === null && <Noting did={did} step={at} devices={devices} />}
      <Hands
        devices={devices}
        device="thermometer"
        presses={[
          ["put the pot over the heat", "heat on"],
          ["take it off", "heat off"],
          ["let time fly", "hurry 40"],
          ["and go on as it does", "hurry 1"],
        ]}
      />
    </>
  );
}

/** How warm it is, how warm it may be, and when it will be that. */
function Warmth({ devices, wanted, below, did, step }: { devices: Devices; wanted: number; below: boolean; did: Did; step: number }) {
  const { thermometer, warmths } = devices;
  const celsius = thermometer?.reading?.celsius ?? null;
  const fit = fitCooling(sinceWarmest(warmths), KITCHEN);
  const when = fit && celsius !== null && celsius > wanted ? forecast(fit, wanted) : null;
  const right = celsius !== null && (below ? celsius <= wanted : Math.abs(celsius - wanted) <= 3);
  return (
    <div className="mt-4">
      {celsius === null ? (
        <p role="status" className="rounded bg-honey-wash px-4 py-2.5 font-semibold text-honey">
          {thermometer === null ? "The thermometer is unplugged. Read another, and type what it shows." : "The probe is out of the pot."}
        </p>
      ) : (
        <div className="flex flex-wrap items-baseline gap-x-5 gap-y-1">
          <output
            aria-label="The thermometer shows"
            className="font-mono text-[clamp(2.6rem,7vw,4.2rem)] leading-none font-bold tabular-nums"
          >
            {degrees(celsius)}
          </output>
          <span className="text-lead text-pine-soft">{writeNumber(fahrenheitOf(celsius), 0, 0)} °F</span>
          <span aria-live="polite" className={`text-large font-semibold ${right ? "text-sage" : "text-honey"}`}>
            {right
              ? below
                ? `below ${wanted} °C: now`
                : "as it should be: now"
              : celsius > wanted
                ? `too warm: ${below ? "below" : "at about"} ${wanted} °C`
                : `too cool: at about ${wanted} °C`}
            {when && <span className="font-normal"> {sayForecast(when)}</span>}
          </span>
        </div>
      )}
      <Noting did={did} step={step} devices={devices} />
    </div>
  );
}

/** Writes a warmth down: what the thermometer shows, or what another does. */
function Noting({ did, step, devices }: { did: Did; step: number; devices: Devices }) {
  const celsius = devices.thermometer?.reading?.celsius ?? null;
  const [text, type] = useState("");
  const [problem, say] = useState<string>();
  const keep = (c: number): void => {
    did.keep({ intent: "event", kind: "heat", celsius: Math.round(c * 10) / 10, step }, () => type(""));
  };
  return (
    <form
      className="mt-4 flex flex-wrap items-start gap-2"
      onSubmit={(e) => {
        e.preventDefault();
        const read = readPlain(text);
        say(read.ok ? undefined : read.problem.say);
        if (read.ok) keep(read.value);
      }}
    >
      {celsius !== null && (
        <Button className="mt-6" disabled={did.busy} onClick={() => keep(celsius)}>
          Write {degrees(celsius)} down
        </Button>
      )}
      <Text
        data-amount="decimal"
        label="Warmth, °C"
        placeholder="by hand"
        className="w-32"
        value={text}
        onChange={(e) => type(e.target.value)}
        problem={problem}
      />
      <Button type="submit" className="mt-6" disabled={did.saving || text.trim() === ""}>
        Write it down
      </Button>
    </form>
  );
}
