/**
 * How a batch was made, for its record: the pot, what happened when and by whom, and what went otherwise than planned. Under the headings good
 * manufacturing practice has for them (ISO 22716: 7 production, 13 deviations; from memory).
 */
import { deviations } from "#core/batch/deviations";
import { grams } from "#core/measure/write";
import { ofSteps, type Scale } from "#core/recipe/scale";
import type { BenchEvent } from "#db/bench/events";
import type { BatchSheet } from "#db/bench/read";
import { Part } from "../ui/sheet/sheet.tsx";
import { Clock } from "./at/clock.tsx";
import { sayEvent } from "./at/happened.tsx";

interface Props {
  sheet: Pick<BatchSheet, "batch" | "takes" | "sizes">;
  events: readonly BenchEvent[];
  scale: Scale;
}

export function Made({ sheet: { batch, takes, sizes }, events, scale }: Props) {
  const off = deviations(takes, sizes, ofSteps(1, scale));
  return (
    <>
      {(events.length > 0 || batch.vessel !== null) && (
        <Part title="Production">
          {batch.vessel !== null && <p className="mb-1">The empty pot weighed {grams(batch.vessel)}.</p>}
          <ol className="divide-y divide-rule border-y border-rule">
            {events.map((e) => (
              <li key={e.id} className="flex flex-wrap items-baseline gap-x-3 py-1.5">
                <Clock at={e.at} />
                <span className={`min-w-0 flex-1 basis-56 ${e.struckAt ? "text-pine-soft line-through" : ""}`}>{sayEvent(e)}</span>
                <span className="text-[0.92rem] text-pine-soft">
                  {e.struckAt ? "struck out, " : ""}
                  {e.who}
                </span>
              </li>
            ))}
          </ol>
        </Part>
      )}
      <Part title="Deviations">
        {off.length === 0 ? (
          <p className="text-pine-soft">None: every weight within a hundredth of what was planned, and filled as planned.</p>
        ) : (
          <ul className="list-disc pl-5">
            {off.map((d) => (
              <li key={d}>{d}</li>
            ))}
          </ul>
        )}
      </Part>
    </>
  );
}
