/** Timers of jars on gentle heat: they show on every screen, since a warm jar must not be forgotten. */
import { heatLeft } from "#core/infusion/tend";
import { useEffect, useState } from "react";
import { Link } from "../link.tsx";

interface Heated {
  id: number;
  number: string;
  name: string;
  heatOn: Date | null;
  heatMinutes: number | null;
}

/** Minutes as a timer says them: "2 h 15 min". */
export const span = (minutes: number): string => {
  const [h, m] = [Math.floor(minutes / 60), minutes % 60];
  return h === 0 ? `${m} min` : m === 0 ? `${h} h` : `${h} h ${m} min`;
};

export function HeatTimers({ jars }: { jars: readonly Heated[] }) {
  // The server's clock is not the page's: the time left is filled in once the page answers.
  const [now, setNow] = useState<number | null>(null);
  useEffect(() => {
    if (jars.length === 0) return;
    setNow(Date.now());
    const tick = setInterval(() => setNow(Date.now()), 15_000);
    return () => clearInterval(tick);
  }, [jars.length]);
  if (jars.length === 0) return null;
  return (
    <div className="no-print border-b border-rule bg-honey-wash" aria-label="Jars on heat" role="region">
      <ul className="mx-auto flex max-w-[82rem] flex-wrap gap-x-6 gap-y-1 px-4 py-1.5 sm:px-6">
        {jars.map((j) => {
          const left = now === null || j.heatOn === null ? null : heatLeft(j.heatMinutes ?? 0, new Date(j.heatOn).getTime(), now);
          return (
            <li key={j.id}>
              <Link to={`/jars/${j.id}`} className="font-semibold text-honey hover:underline">
                {j.name} <span className="weight text-[0.9em]">{j.number}</span>:{" "}
                {left === null ? "on heat" : left > 0 ? `${span(left)} of heat left` : `heat off! ${span(-left)} over`}
              </Link>
            </li>
          );
        })}
      </ul>
    </div>
  );
}
