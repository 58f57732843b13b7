/** What was done to a jar while it steeped, newest first, with its photos. */
import { judgeWarmth } from "#core/infusion/warmth";
import { fahrenheitOf } from "#core/measure/heat";
import { writeNumber } from "#core/numbers";
import type { readJar } from "#db/jars/read";
import { When } from "../ui/figures/amounts.tsx";
import { Part } from "../ui/sheet/sheet.tsx";
import { KeptFileLink, KeptPicture } from "../files/keptFile.tsx";
import { Table } from "../ui/lists/table.tsx";

type Event = NonNullable<Awaited<ReturnType<typeof readJar>>>["events"][number];

const SAYS: Record<Event["kind"], string> = {
  shaken: "Shaken",
  temperature: "Temperature",
  toppedUp: "Topped up",
  photo: "Photo",
  note: "Noted",
  heatOn: "Heat on",
  heatOff: "Heat off",
};

/** @param heated whether the jar is meant to be warm */
export function JarLog({ events, heated }: { events: readonly Event[]; heated: boolean }) {
  return (
    <Part title="So far">
      <Table
        quiet
        rows={events}
        by={(e) => e.id}
        columns={[
          { head: "Day", className: "w-28", cell: (e) => <When day={e.day} /> },
          {
            head: "What",
            plain: true,
            cell: (e) => (
              <>
                {SAYS[e.kind]}
                {e.celsius !== null && ` ${writeNumber(e.celsius, 0, 1)} °C (${writeNumber(fahrenheitOf(e.celsius), 0, 0)} °F)`}
                {e.celsius !== null && judgeWarmth(heated, e.celsius) !== null && (
                  <span className="block text-small text-honey">{judgeWarmth(heated, e.celsius)}</span>
                )}
                {e.note && <span className="text-pine-soft"> · {e.note}</span>}
                {e.attachmentId !== null && (
                  <KeptFileLink id={e.attachmentId} className="ml-2 inline-block align-middle">
                    <KeptPicture id={e.attachmentId} alt="The jar that day" className="h-16" />
                  </KeptFileLink>
                )}
              </>
            ),
          },
        ]}
      />
    </Part>
  );
}
