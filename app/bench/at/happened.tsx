/** What has happened with this batch so far, in order; what was written by mistake is struck out, and stays. */
import { BENCH_EVENTS, type BenchEventKind } from "#core/batch/events";
import { grams, writeNumber } from "#core/measure/write";
import { useState } from "react";
import { span } from "#core/when";
import { Button, Problem, Text } from "../../ui/fields/form.tsx";
import { Part } from "../../ui/sheet/sheet.tsx";
import type { AtBenchLoaded } from "./loaded.ts";
import { TimeOfDay } from "../../ui/figures/timeOfDay.tsx";
import { KeepFile } from "../../files/keepFile.tsx";
import { KeptFileLink, KeptPicture } from "../../files/keptFile.tsx";
import { useDid } from "./useDid.ts";

type Event = AtBenchLoaded["events"][number];

/** Others say themselves what they are. */
const SAID_BY_KIND: ReadonlySet<BenchEventKind> = new Set<BenchEventKind>([
  "heat",
  "timer",
  "set",
  "whip",
  "scrape",
  "cupBefore",
  "cupAfter",
  "photo",
  "potAfter",
]);

/** An event in words. */
export const sayEvent = (e: Pick<Event, "kind" | "celsius" | "minutes" | "weight" | "note">): string =>
  [
    SAID_BY_KIND.has(e.kind) ? BENCH_EVENTS[e.kind] : "",
    e.celsius !== null && `${writeNumber(e.celsius, 0, 1)} °C`,
    e.minutes !== null && span(e.minutes),
    e.weight !== null && grams(e.weight),
    e.note,
  ]
    .filter(Boolean)
    .join(", ");

/** The photo of one, where it is one. */
export const EventPhoto = ({ e }: { e: Pick<Event, "attachmentId" | "struckAt"> }) =>
  e.attachmentId === null || e.struckAt ? null : (
    <KeptFileLink id={e.attachmentId} className="ml-2 inline-block align-middle">
      <KeptPicture id={e.attachmentId} alt="The batch then" className="h-16" />
    </KeptFileLink>
  );

export function Happened({ page: { batch, events } }: { page: AtBenchLoaded }) {
  const did = useDid(batch.id);
  const [note, type] = useState("");
  return (
    <div className="mt-6">
      <Part title="So far">
        {events.length > 0 && (
          <ol className="divide-y divide-rule border-y border-rule">
            {events.map((e) => (
              <li key={e.id} className="flex flex-wrap items-baseline gap-x-3 py-1.5">
                <TimeOfDay at={e.at} />
                <span className={`min-w-0 flex-1 basis-56 ${e.struckAt ? "text-pine-soft line-through" : ""}`}>
                  {sayEvent(e)}
                  <EventPhoto e={e} />
                </span>
                {e.kind === "timer" && !e.endedAt && !e.struckAt && (
                  <Button small disabled={did.busy} onClick={() => did.keep({ intent: "settle", id: e.id, how: "end" })}>
                    End it
                  </Button>
                )}
                {!e.struckAt && (
                  <button
                    type="button"
                    className="pressable text-[0.9rem]"
                    disabled={did.busy}
                    aria-label={`Strike out: ${sayEvent(e)}`}
                    onClick={() => did.keep({ intent: "settle", id: e.id, how: "strike" })}
                  >
                    Strike out
                  </button>
                )}
              </li>
            ))}
          </ol>
        )}
        <form
          className="mt-3 flex flex-wrap items-end gap-2"
          onSubmit={(e) => {
            e.preventDefault();
            if (note.trim() === "") return;
            did.keep({ intent: "event", kind: "note", note }, () => type(""));
          }}
        >
          <Text label="Note" className="min-w-0 flex-1 basis-64" maxLength={300} value={note} onChange={(e) => type(e.target.value)} />
          <Button type="submit" disabled={did.busy}>
            Write it down
          </Button>
        </form>
        <Problem say={did.problem?.say} />
        <p className="mt-2">
          <KeepFile to={`/bench/${batch.id}/photo`} accept="image/*" label="Keep a photo" />
        </p>
      </Part>
    </div>
  );
}
