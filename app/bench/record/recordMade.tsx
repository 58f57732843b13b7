/**
 * How a batch was made, for its record: the pot, what happened when and by whom, and what went otherwise than planned. Under the headings good
 * manufacturing practice has for them (ISO 22716: 7 production, 13 deviations; from memory).
 */
import { deviations } from "#core/batch/finishing/deviations";
import { stuckTo } from "#core/batch/weighing/events";
import { FINE } from "#core/batch/weighing/weighingFixes";
import { grams } from "#core/measure/write";
import { wordList } from "#core/words";
import type { NetRule } from "#core/batch/finishing/netWeight";
import type { Sample } from "#db/bench/weighing/samples";
import type { BenchEvent } from "#db/bench/weighing/events";
import type { BatchSheet } from "#db/bench/read";
import { NetWeights } from "./netWeights.tsx";
import { Part } from "../../ui/sheet/sheet.tsx";
import { EventLine } from "../eventLine.tsx";

/** What was written down at the bench, and what it is judged by. */
export interface HowMade {
  events: readonly BenchEvent[];
  samples: readonly Sample[];
  netRule: NetRule;
}

interface Props extends HowMade {
  sheet: Pick<BatchSheet, "batch" | "takes" | "sizes">;
  /** Of a batch that failed nobody asks how near it came to its plan. */
  failed?: boolean;
}

export function Made({ sheet: { batch, takes, sizes }, events, samples, netRule, failed = false }: Props) {
  const stuck = stuckTo(batch.vessel, events);
  const ladled = sizes.flatMap((s) => (s.ladled === null ? [] : [`${grams(s.ladled)} for ${s.label}`]));
  const off = deviations(takes, sizes, batch.scaleStep ?? FINE);
  return (
    <>
      {(events.length > 0 || batch.vessel !== null || ladled.length > 0) && (
        <Part title="Production">
          {batch.vessel !== null && (
            <p className="mb-1">
              The empty pot weighed {grams(batch.vessel)}
              {stuck !== null && `; ${grams(stuck)} stuck to it and what stood in it`}.
            </p>
          )}
          {ladled.length > 0 && <p className="mb-1">Ladled out of the pot: {wordList(ladled)}.</p>}
          <ol className="divide-y divide-rule border-y border-rule">
            {events.map((e) => (
              <EventLine key={e.id} e={e}>
                <span className="text-small text-pine-soft">
                  {e.struckAt ? "struck out, " : ""}
                  {e.who}
                </span>
              </EventLine>
            ))}
          </ol>
        </Part>
      )}
      {samples.length > 0 && (
        <Part title="Net weights">
          {sizes.map((s) => {
            const own = samples.filter((x) => x.sizeId === s.id);
            return (
              own.length > 0 && (
                <div key={s.id} className="mb-3">
                  <h3 className="font-display text-lead">{s.label}</h3>
                  <NetWeights rule={netRule} declared={s.fill} filled={s.units ?? 0} samples={own} />
                </div>
              )
            );
          })}
        </Part>
      )}
      {!failed && (
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
      )}
    </>
  );
}
