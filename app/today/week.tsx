/** The week ahead, day by day: what has its day in it. */
import { Link } from "react-router";
import { sayAbout, whereOf } from "#core/calendar/entries";
import { addDays } from "#core/when";
import { WEEK_DAYS } from "#core/work";
import type { Fixed } from "#db/today/week";
import { useSayDay } from "../ui/figures/amounts.tsx";
import { useWorkshop } from "../ui/workshop.ts";

export function Week({ fixed }: { fixed: readonly Fixed[] }) {
  const { today } = useWorkshop();
  const sayIt = useSayDay();
  return (
    <section aria-label="The week ahead" className="rounded-md border-l-4 border-amber-glass bg-paper-deep/60 px-5 py-4">
      <h2 className="mb-1 text-large">The week ahead</h2>
      <ol className="divide-y divide-rule">
        {Array.from({ length: WEEK_DAYS }, (_, n) => {
          const day = addDays(today, n);
          const on = fixed.filter((f) => f.day === day);
          return (
            <li key={day} className="grid grid-cols-[6.3rem_1fr] gap-x-3 py-1.5">
              <time dateTime={day} className={on.length > 0 ? "font-semibold" : "text-pine-soft"}>
                {n === 0 ? "Today" : n === 1 ? "Tomorrow" : sayIt(day)}
              </time>
              {on.length === 0 ? (
                <span className="text-pine-soft">nothing fixed</span>
              ) : (
                <ul className="min-w-0 space-y-0.5">
                  {on.map((f) => (
                    <li key={`${f.kind} ${f.id} ${f.number}`}>
                      <Link to={whereOf(f.kind, f)} className="underline decoration-rule-strong underline-offset-4 hover:decoration-pine">
                        {sayAbout(f.kind, f)}
                      </Link>
                    </li>
                  ))}
                </ul>
              )}
            </li>
          );
        })}
      </ol>
      <p className="no-print mt-2">
        <Link to="/calendar" className="pressable">
          Calendar
        </Link>
      </p>
    </section>
  );
}
