/** Chilling and whipping a butter: what a thumb finds, how it is worked, how often it was scraped down, and how much air went in. */
import { CHILLED, CHILLED_IDS, filledAs, overrunOf, sayFilled, sayLeft, SCRAPES, WHIPPED, WHIPPED_IDS } from "#core/batch/planning/whip";
import { mg, mulDiv, type Mg } from "#core/measure/exact";
import { exactWeightText } from "#core/measure/read";
import { grams } from "#core/measure/write";
import { useState } from "react";
import type { Devices } from "../../../devices/useDevices.ts";
import { percent } from "../../../ui/figures/amounts.tsx";
import { TimeOfDay } from "../../../ui/figures/timeOfDay.tsx";
import { Button, Problem } from "../../../ui/fields/form.tsx";
import type { AtBenchLoaded } from "../loaded.ts";
import { ByHand } from "../weighing/byHand.tsx";
import { backToStep } from "../focus.ts";
import { Hands } from "../weighing/hands.tsx";
import { Reading, weightOf } from "../weighing/reading.tsx";
import { useDid, type Did } from "../useDid.ts";

interface Props {
  page: AtBenchLoaded;
  devices: Devices;
  next: () => void;
  done: boolean;
}

type Cup = "cupBefore" | "cupAfter";
type Events = AtBenchLoaded["events"];

/** What a cup weighed, as it was written down last. */
const cupOf = (events: Events, kind: Cup): Mg | null => events.findLast((e) => e.kind === kind)?.weight ?? null;

export function WhipStep({ page, devices, next, done }: Props) {
  const did = useDid(page.batch.id);
  const events = page.events.filter((e) => e.struckAt === null);
  const before = cupOf(events, "cupBefore");
  const after = cupOf(events, "cupAfter");
  return (
    <>
      <h2 className="font-display text-display leading-tight">Chill and whip</h2>
      <p className="mt-1 text-pine-soft">
        Half an hour to 50 minutes in a freezer, or an hour in a fridge, until it is set and still dents.
      </p>
      <Chill did={did} />
      <Work did={did} events={events} />
      <h3 className="mt-6 font-display text-large">How much air is in it</h3>
      <p className="text-pine-soft">The same cup, filled to its brim and struck off: once before it is whipped, once after.</p>
      {before !== null && (
        <p className="mt-1.5">
          Before: <strong className="weight">{grams(before)}</strong>
          {after !== null && (
            <>
              , after: <strong className="weight">{grams(after)}</strong>
            </>
          )}
        </p>
      )}
      {before !== null && after !== null && <Air page={page} overrun={overrunOf(before, after)} />}
      <Weighed key={events.length} devices={devices} did={did} of={before === null ? "cupBefore" : "cupAfter"} />
      <div className="mt-4">
        <Button main={done} className="text-large" onClick={next}>
          {done ? "Done; go on" : "Go on without a cup"}
        </Button>
      </div>
      <Problem say={did.problem?.say} />
    </>
  );
}

/** What a thumb finds, and what follows. */
function Chill({ did }: { did: Did }) {
  const [found, find] = useState<keyof typeof CHILLED | null>(null);
  return (
    <>
      <div role="group" aria-label="A thumb says" className="mt-4 flex flex-wrap gap-2">
        {CHILLED_IDS.map((c) => (
          <Button
            key={c}
            className={`text-lead ${found === c ? "border-amber! bg-honey-wash" : ""}`}
            aria-pressed={found === c}
            disabled={did.busy}
            onClick={() => {
              find(c);
              did.keep({ intent: "event", kind: "whip", note: `chilled: ${CHILLED[c].say}` });
            }}
          >
            {CHILLED[c].say[0]!.toUpperCase() + CHILLED[c].say.slice(1)}
          </Button>
        ))}
      </div>
      {found && <p className={`mt-2 text-lead ${found === "dents" ? "text-sage" : "text-honey"}`}>{CHILLED[found].then}</p>}
    </>
  );
}

/** How it is worked, and how often it was scraped down. */
function Work({ did, events }: { did: Did; events: Events }) {
  const scraped = events.filter((e) => e.kind === "scrape").length;
  return (
    <div className="mt-4 flex flex-wrap items-center gap-2">
      {WHIPPED_IDS.map((w) => {
        const began = events.find((e) => e.kind === "whip" && e.note === WHIPPED[w]);
        return began ? (
          <span key={w} className="rounded bg-sage-wash px-3 py-1.5 text-sage">
            {WHIPPED[w]}, since <TimeOfDay at={began.at} />
          </span>
        ) : (
          <Button
            key={w}
            className="text-lead"
            disabled={did.busy}
            onClick={() => did.keep({ intent: "event", kind: "whip", note: WHIPPED[w] })}
          >
            {WHIPPED[w][0]!.toUpperCase() + WHIPPED[w].slice(1)}
          </Button>
        );
      })}
      <Button className="text-lead" disabled={did.busy} onClick={() => did.keep({ intent: "event", kind: "scrape" })}>
        Scraped down
      </Button>
      <span className={scraped >= SCRAPES ? "text-sage" : "text-pine-soft"}>
        {scraped} of about {SCRAPES}
      </span>
    </div>
  );
}

/** The overrun beside what was counted on, and what it does to each size. */
function Air({ page: { batch, recipe, sizes }, overrun }: { page: AtBenchLoaded; overrun: number }) {
  // Where nobody counted on air, nobody planned how high a jar is filled.
  const counts = recipe.overrunBp > 0;
  const pot = mg(batch.plannedMg - mulDiv(batch.plannedMg, recipe.lossBp, 10_000));
  const left = sayLeft(
    pot,
    sizes.map((s) => ({ ...s, units: s.planned })),
    recipe.overrunBp,
    overrun,
  );
  const said = !counts
    ? ["Write it into the recipe as its air, and what a jar holds is reckoned by it."]
    : [
        ...sizes.flatMap((s) => (s.planned > 0 ? (sayFilled(s.label, s.fill, filledAs(s.fill, recipe.overrunBp, overrun)) ?? []) : [])),
        ...(left === null ? [] : [left]),
      ];
  return (
    <div className="mt-2 rounded bg-paper px-4 py-2.5">
      <p className="text-large">
        <strong>{percent(overrun)} air</strong>; the recipe counts on {counts ? percent(recipe.overrunBp / 10_000) : "none"}.
      </p>
      {said.map((s) => (
        <p key={s} className="text-honey">
          {s}
        </p>
      ))}
    </div>
  );
}

function Weighed({ devices, did, of }: { devices: Devices; did: Did; of: Cup }) {
  const { scale } = devices;
  const weight = weightOf(scale);
  const stable = scale?.reading?.standing === "stable";
  const keep = (cup: Mg): void => did.keep({ intent: "event", kind: of, weight: exactWeightText(cup) });
  const what = of === "cupBefore" ? "A cup before" : "A cup after";
  return (
    <>
      <Reading scale={scale} target={null} step={scale?.hello?.step ?? mg(100)} />
      <div className="flex flex-wrap gap-2">
        <Button
          className="text-large"
          disabled={!stable || weight === null || weight <= 0 || did.busy}
          onClick={() => weight !== null && keep(weight)}
        >
          {what} weighs that
        </Button>
        <Button
          className="text-large"
          disabled={!stable}
          onClick={() => {
            void devices.tell("scale", "tare");
            backToStep();
          }}
        >
          Tare
        </Button>
      </div>
      <ByHand label={what} busy={did.busy} kept={keep} />
      <Hands
        devices={devices}
        device="scale"
        presses={[
          ["take all off", "clear"],
          ["put a full cup on", of === "cupBefore" ? "add 212" : "add 158"],
        ]}
      />
    </>
  );
}
