/** What the scale shows, large, on a track with the band it has to come into. */
import { weighingTolerance, compareToTarget, type Nearness } from "#core/batch/weighing/weighingFixes";
import type { ScaleReading } from "#core/device/lines";
import { mg, type Mg } from "#core/measure/exact";
import { grams } from "#core/measure/write";
import { writeNumber } from "#core/numbers";
import type { State } from "#devices/wire";

/** The track goes a quarter beyond what is wanted. */
const BEYOND = 1.25;
const FILL: Record<Nearness, string> = { short: "bg-amber-glass", right: "bg-sage", over: "bg-berry" };

export const weightOf = (scale: State<ScaleReading>): Mg | null =>
  scale?.reading && "weight" in scale.reading ? scale.reading.weight : null;

/** @param target null where any weight will do */
export function Reading({ scale, target, step }: { scale: State<ScaleReading>; target: Mg | null; step: Mg }) {
  if (!scale?.reading)
    return (
      <p role="status" className="my-4 rounded bg-honey-wash px-4 py-3 text-lead font-semibold text-honey">
        The scale is unplugged. Weigh as you do without, and type what it shows.
      </p>
    );
  const { reading } = scale;
  if (!("weight" in reading))
    return (
      <p role="status" className="my-4 text-figure leading-tight font-bold text-berry">
        {reading.standing === "over" ? "More than it carries" : "Below nothing: tare it"}
      </p>
    );
  const { weight, standing, net } = reading;
  const most = (target ?? mg(1)) * BEYOND;
  const near = target === null ? 0 : weighingTolerance(target, step);
  const reach = target === null ? "right" : compareToTarget(weight, target, step);
  const share = (n: number): string => `${Math.max(0, Math.min(100, (n / most) * 100))}%`;
  return (
    <div className="my-3">
      <div className="flex flex-wrap items-baseline gap-x-4">
        <output aria-label="The scale shows" className="font-mono text-[clamp(3.2rem,9vw,5.6rem)] leading-none font-bold tabular-nums">
          {writeNumber(weight / 1000, 1, 1)}
          <span className="text-unit"> g</span>
        </output>
        <span className={`text-large font-semibold ${standing === "stable" ? "text-sage" : "text-pine-soft"}`}>
          {standing === "stable" ? "● stable" : "○ moving"}
          <span className="ml-3 font-normal text-pine-soft">{net ? "net" : "gross"}</span>
        </span>
      </div>
      {target !== null && (
        <>
          <div aria-hidden="true" className="relative mt-3 h-9 overflow-hidden rounded border border-rule-strong bg-paper-deep">
            <div
              className="absolute inset-y-0 border-x-2 border-sage bg-sage-wash"
              style={{ left: share(target - near), width: `max(6px, ${((2 * near) / most) * 100}%)` }}
            />
            <div className={`absolute inset-y-2 left-0 ${FILL[reach]}`} style={{ width: share(weight) }} />
          </div>
          <p aria-live="polite" className="mt-1.5 text-large font-semibold">
            {reach === "short" && <span>{grams(target - weight, 1)} to go</span>}
            {reach === "right" && <span className="text-sage">Right, within {grams(near, 1)}</span>}
            {reach === "over" && <span className="text-berry">{grams(weight - target, 1)} too much</span>}
          </p>
        </>
      )}
    </div>
  );
}
