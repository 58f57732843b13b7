/** Timers of jars on gentle heat and of pots at the bench: shown on every screen, since heat must not be forgotten. */
import { Link } from "react-router";
import { heatLeft } from "#core/infusion/heatLeft";
import { span } from "#core/when";
import { useEffect, useState } from "react";

interface Heated {
  id: number;
  number: string;
  name: string;
  heatOn: Date | null;
  heatMinutes: number | null;
}

interface Running {
  id: number;
  batchId: number;
  name: string;
  note: string;
  at: Date;
  minutes: number | null;
}

/** What is left of a short time, to the second. @example countdown(65_000) // "1:05" */
const countdown = (ms: number): string => {
  const s = Math.ceil(Math.abs(ms) / 1000);
  return s >= 3600 ? span(Math.round(s / 60)) : `${Math.floor(s / 60)}:${String(s % 60).padStart(2, "0")}`;
};

export function HeatTimers({ jars, timers }: { jars: readonly Heated[]; timers: readonly Running[] }) {
  // The server's clock is not the page's: the time left is filled in once the page answers.
  const [now, setNow] = useState<number | null>(null);
  const any = jars.length + timers.length > 0;
  const every = timers.length > 0 ? 1000 : 15_000;
  useEffect(() => {
    if (!any) return;
    setNow(Date.now());
    const tick = setInterval(() => setNow(Date.now()), every);
    return () => clearInterval(tick);
  }, [any, every]);
  if (!any) return null;
  return (
    <div className="no-print border-b border-rule bg-honey-wash" aria-label="Timers" role="region">
      <ul className="mx-auto flex max-w-room flex-wrap gap-x-6 gap-y-1 px-4 py-1.5 sm:px-6">
        {timers.map((t) => {
          const left = now === null ? null : new Date(t.at).getTime() + (t.minutes ?? 0) * 60_000 - now;
          return (
            <li key={`bench ${t.id}`}>
              <Link
                to={`/bench/${t.batchId}/at`}
                className={`font-semibold hover:underline ${left !== null && left <= 0 ? "text-berry" : "text-honey"}`}
              >
                {t.name}, {t.note || "timer"}:{" "}
                <span className="weight">{left === null ? "…" : left > 0 ? countdown(left) : `time! ${countdown(left)} over`}</span>
              </Link>
            </li>
          );
        })}
        {jars.map((j) => {
          const left = now === null || j.heatOn === null ? null : heatLeft(j.heatMinutes ?? 0, new Date(j.heatOn).getTime(), now);
          return (
            <li key={j.id}>
              <Link to={`/jars/${j.id}`} className="font-semibold text-honey hover:underline">
                {j.name} <span className="weight text-part">{j.number}</span>:{" "}
                {left === null ? "on heat" : left > 0 ? `${span(left)} of heat left` : `heat off! ${span(-left)} over`}
              </Link>
            </li>
          );
        })}
      </ul>
    </div>
  );
}
