/** An event of a batch as a line: when, what, its photo, and a page's own button beside it. */
import { BENCH_EVENTS, type BenchEventKind } from "#core/batch/weighing/events";
import { grams } from "#core/measure/write";
import { writeNumber } from "#core/numbers";
import { span } from "#core/when";
import type { BenchEvent } from "#db/bench/weighing/events";
import type { ReactNode } from "react";
import { KeptFileLink, KeptPicture } from "../files/keptFile.tsx";
import { TimeOfDay } from "../ui/figures/timeOfDay.tsx";

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
export const sayEvent = (e: Pick<BenchEvent, "kind" | "celsius" | "minutes" | "weight" | "note">): string =>
  [
    SAID_BY_KIND.has(e.kind) ? BENCH_EVENTS[e.kind] : "",
    e.celsius !== null && `${writeNumber(e.celsius, 0, 1)} °C`,
    e.minutes !== null && span(e.minutes),
    e.weight !== null && grams(e.weight),
    e.note,
  ]
    .filter(Boolean)
    .join(", ");

export const EventLine = ({ e, children }: { e: BenchEvent; children: ReactNode }) => (
  <li className="flex flex-wrap items-baseline gap-x-3 py-1.5">
    <TimeOfDay at={e.at} />
    <span className={`min-w-0 flex-1 basis-56 ${e.struckAt ? "text-pine-soft line-through" : ""}`}>
      {sayEvent(e)}
      {e.attachmentId !== null && !e.struckAt && (
        <KeptFileLink id={e.attachmentId} className="ml-2 inline-block align-middle">
          <KeptPicture id={e.attachmentId} alt="The batch then" className="h-16" />
        </KeptFileLink>
      )}
    </span>
    {children}
  </li>
);
