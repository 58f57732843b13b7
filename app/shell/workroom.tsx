/** The frame around every station: which workshop it is, the row of stations, the reckon bar, the note of what was just done. */
import { cachedSettings } from "#db/settings/settings";
import { whatWasDone } from "#db/acts/book";
import { today } from "#db/clock";
import { waitingCounts } from "#db/today/today";
import { draftsOn, type Draft } from "#db/drafts";
import { firstSteps } from "#db/settings/firstSteps";
import { runningTimers } from "#db/bench/weighing/events";
import { heatedJars } from "#db/jars/fill";
import { ago } from "#core/when";
import { useEffect, useRef } from "react";
import { data, Link, NavLink, Outlet, useLocation } from "react-router";
import { FirstStepsStrip } from "../begin/strip.tsx";
import { db, home, serving } from "../server/workshop.server.ts";
import { OnlyLookedAt } from "../workshops/lookedAt.tsx";
import { Away } from "../forms/beside/away.tsx";
import { DraftsContext, type KeptDraft } from "../forms/drafts/keptDrafts.ts";
import { readFlash } from "../forms/flash.server.ts";
import { WhichWorkshop } from "../workshops/which.tsx";
import type { Route } from "./+types/workroom";

import { HeatTimers } from "./heatTimers.tsx";
import { Keys } from "./keys.tsx";
import { DoneNote } from "./note.tsx";
import { ReckonBar } from "./reckonBar.tsx";
import { STATIONS } from "../ui/frame/stations.ts";
import { useScrollAnchor } from "../ui/frame/useScrollAnchor.ts";
import { useUnambiguousNumbers } from "../ui/fields/useUnambiguousNumbers.ts";
import { WorkshopContext, type Workshop } from "../ui/workshop.ts";

/** The page that is asked for, within its workshop; what it was asked for belongs to it. */
function pathOf(request: Request): string {
  const { pathname, search } = new URL(request.url);
  const at = home();
  return (at !== "/" && pathname.startsWith(at) ? pathname.slice(at.length) || "/" : pathname) + search;
}

const keptDraft = ({ sheet, token, seen, values, keptAt }: Draft): KeptDraft => ({
  sheet,
  token,
  seen,
  values,
  ago: ago(Date.now() - keptAt.getTime()),
});

export async function loader({ request }: Route.LoaderArgs) {
  const day = today();
  const told = await readFlash(request);
  const path = pathOf(request);
  const open = serving();
  const [settings, counts, heated, timers, done, own, drafts] = await Promise.all([
    cachedSettings(db()),
    waitingCounts(db(), day),
    heatedJars(db()),
    runningTimers(db()),
    told && whatWasDone(db(), told.actId),
    open.house?.of("own"),
    draftsOn(db(), path),
  ]);
  const led = open.kind === "own" && !settings.firstSteps.away ? { steps: await firstSteps(db()), token: crypto.randomUUID() } : null;
  const workshop: Workshop = {
    kind: open.kind ?? "demo",
    home: home() === "/" ? "" : home(),
    name: settings.workshop,
    currency: settings.currency,
    school: settings.school,
    today: day,
    dates: settings.dates,
    numbers: settings.numbers,
  };
  return data(
    {
      workshop,
      lookedAt: open.kind === "look" ? (open.house?.lookedAt()?.asOf ?? null) : null,
      counts,
      heated,
      timers,
      done,
      led,
      hasOwn: !!own,
      unfinished: { path, drafts: drafts.map(keptDraft) },
    },
    { headers: told?.headers },
  );
}

export default function Workroom({
  loaderData: { workshop, lookedAt, counts, heated, timers, done, led, hasOwn, unfinished },
}: Route.ComponentProps) {
  const { key, pathname } = useLocation();
  useUnambiguousNumbers(workshop.numbers);
  const work = useRef<HTMLElement>(null);
  useScrollAnchor(work);
  // Tests and pictures wait for this; before it a press would be lost.
  useEffect(() => document.documentElement.setAttribute("data-ready", "yes"), []);
  // On a phone the Line is wider than the screen: bring the open station into it.
  useEffect(() => {
    // In braces: newer browsers give a promise back, which React would take for a clean-up.
    document.querySelector(".jar[aria-current]")?.scrollIntoView({ inline: "center", block: "nearest" });
  }, [pathname]);
  return (
    <WorkshopContext value={workshop}>
      <a href="#work" className="sr-only focus:not-sr-only focus:absolute focus:z-50 focus:bg-sheet focus:p-3">
        Skip to the work
      </a>
      <header className="no-print">
        <div className="mx-auto flex max-w-room items-center justify-between gap-4 px-4 pt-2.5 sm:px-6">
          <div className="flex min-w-0 items-center gap-3">
            <Link to="/" className="font-display text-heading">
              Zelbin
            </Link>
            <WhichWorkshop hasOwn={hasOwn} />
          </div>
          <div className="flex items-center gap-2">
            <ReckonBar />
            <Keys />
            <Link to="/book" className="act act-small max-sm:hidden">
              Book
            </Link>
            <Link to="/settings" className="act act-small max-sm:hidden">
              Settings
            </Link>
          </div>
        </div>
        <nav aria-label="Stations" className="line mt-1.5 overflow-x-auto [scrollbar-width:none]" data-kind={workshop.kind}>
          <ul className="mx-auto flex min-w-max max-w-room items-end gap-1.5 px-4 pt-2 sm:px-6">
            {STATIONS.map(([to, name]) => (
              <li key={to}>
                <NavLink to={to} end={to === "/"} className="jar">
                  {name}
                  {counts[to] ? (
                    <span className="rounded-sm bg-pine px-1 font-sans text-tiny font-semibold text-sheet">
                      {counts[to]}
                      <span className="sr-only"> waiting</span>
                    </span>
                  ) : null}
                </NavLink>
              </li>
            ))}
          </ul>
        </nav>
      </header>
      <Away />
      {lookedAt && <OnlyLookedAt asOf={lookedAt} />}
      <HeatTimers jars={heated} timers={timers} />
      {led && <FirstStepsStrip {...led} />}
      <DoneNote key={key} done={done} />
      <main id="work" ref={work} className="mx-auto max-w-room px-4 py-6 sm:px-6">
        <DraftsContext value={unfinished}>
          <Outlet />
        </DraftsContext>
      </main>
    </WorkshopContext>
  );
}
