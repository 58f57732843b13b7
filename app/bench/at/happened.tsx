/** What has happened with this batch so far, in order; what was written by mistake is struck out, and stays. */
import { useState } from "react";
import { Button, Problem, Text } from "../../ui/fields/form.tsx";
import { Part } from "../../ui/sheet/sheet.tsx";
import type { AtBenchLoaded } from "./loaded.ts";
import { EventLine, sayEvent } from "../eventLine.tsx";
import { KeepFile } from "../../files/keepFile.tsx";
import { useDid } from "./useDid.ts";

export function Happened({ page: { batch, events } }: { page: AtBenchLoaded }) {
  const did = useDid(batch.id);
  const [note, type] = useState("");
  return (
    <div className="mt-6">
      <Part title="So far">
        {events.length > 0 && (
          <ol className="divide-y divide-rule border-y border-rule">
            {events.map((e) => (
              <EventLine key={e.id} e={e}>
                {e.kind === "timer" && !e.endedAt && !e.struckAt && (
                  <Button small disabled={did.busy} onClick={() => did.keep({ intent: "settle", id: e.id, how: "end" })}>
                    End it
                  </Button>
                )}
                {!e.struckAt && (
                  <button
                    type="button"
                    className="pressable text-small"
                    disabled={did.busy}
                    aria-label={`Strike out: ${sayEvent(e)}`}
                    onClick={() => did.keep({ intent: "settle", id: e.id, how: "strike" })}
                  >
                    Strike out
                  </button>
                )}
              </EventLine>
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
          <Button type="submit" disabled={did.saving}>
            Write it down
          </Button>
        </form>
        <Problem say={did.problem?.say} />
        <p className="mt-2">
          <KeepFile to={`/bench/${batch.id}/photo`} accept="image/*" label="Add a photo" />
        </p>
      </Part>
    </div>
  );
}
