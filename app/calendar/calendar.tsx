/** The calendar: everything that has its day, from today on; as a file, and as a feed for the calendar program on this computer. */
import { CALENDAR_KINDS, CALENDAR_KIND_IDS, type CalendarKind } from "#core/calendar/entries";
import { groupBy } from "#core/collect";
import { addDays, sayMonth } from "#core/when";
import { today as todayHere } from "#db/clock";
import { useEffect, useState } from "react";
import { Form, Link, useHref, useSubmit } from "react-router";
import { useSayDay } from "../ui/figures/amounts.tsx";
import { Copy } from "../ui/fields/copy.tsx";
import { Print } from "../ui/sheet/print.tsx";
import { Empty, Heading, Sheet } from "../ui/sheet/sheet.tsx";
import { Table } from "../ui/lists/table.tsx";
import { useWorkshop } from "../ui/workshop.ts";
import { addressOf, entriesAsked, kindsAsked } from "./asked.server.ts";
import type { Route } from "./+types/calendar";

export const meta: Route.MetaFunction = () => [{ title: "Calendar · Zelbin" }];

export async function loader({ request }: Route.LoaderArgs) {
  const kinds = kindsAsked(request);
  const entries = await entriesAsked(kinds);
  return {
    kinds,
    origin: new URL(request.url).origin,
    asked: addressOf(kinds),
    // Of what was, only what still waits.
    entries: entries.flatMap(({ key, kind, title, note, path, day, state }) =>
      state === "stands" && (day >= todayHere() || kind !== "lot") ? [{ key, title, note, path, day }] : [],
    ),
  };
}

type Entry = Route.ComponentProps["loaderData"]["entries"][number];

/** Further ahead than this nobody plans by the day. */
const SOON_DAYS = 120;

/** Entries in their order, by the month. */
function Months({ entries }: { entries: readonly Entry[] }) {
  const say = useSayDay();
  return (
    <Table
      groups={[...groupBy(entries, (e) => e.day.slice(0, 7))].map(([month, rows]) => ({
        key: month,
        head: <span className="font-display text-lead font-normal">{sayMonth(`${month}-01`)}</span>,
        rows,
      }))}
      by={(e) => e.key}
      quiet
      columns={[
        {
          head: "Day",
          width: "8rem",
          className: "whitespace-nowrap font-normal",
          cell: (e) => <time dateTime={e.day}>{say(e.day)}</time>,
        },
        {
          head: "What",
          plain: true,
          cell: (e) => (
            <>
              <Link to={e.path} className="font-semibold hover:underline">
                {e.title}
              </Link>
              {e.note && <span className="block text-small text-pine-soft">{e.note}</span>}
            </>
          ),
        },
      ]}
    />
  );
}

/** How it gets into a calendar program: at once, or again and again. */
function Elsewhere({ origin, asked }: { origin: string; asked: string }) {
  const at = useHref("/calendar.ics") + asked;
  const feed = origin + at;
  return (
    <aside aria-label="In your own calendar" className="no-print rounded-md border-l-4 border-amber-glass bg-paper-deep/60 px-5 py-4">
      <h2 className="mb-1 text-large">In your own calendar</h2>
      <p className="mt-2">
        <a href={at} download="zelbin.ics" className="act act-small">
          Save as a file (.ics)
        </a>
      </p>
      <p className="mt-2 text-small text-pine-soft">
        Open it with your calendar program, on a phone too. Saved again and opened again, what was changed is changed there, and what is no
        longer so is taken out.
      </p>
      <h3 className="mt-4 font-semibold">Kept up by itself</h3>
      <p className="text-small text-pine-soft">
        A calendar program on this computer can subscribe to this address. It answers here only, and only while Zelbin runs; a phone can’t
        reach it.
      </p>
      <p className="mt-1.5 flex items-start gap-2">
        <code className="min-w-0 flex-1 rounded-sm border border-rule bg-sheet px-2 py-1 font-mono text-small [overflow-wrap:anywhere]">
          {feed}
        </code>
        <Copy text={feed} of="the calendar’s address" />
      </p>
      <p className="mt-3 text-small text-pine-soft">Names of customers are in it; prices and costs are not.</p>
    </aside>
  );
}

export default function Calendar({ loaderData: { kinds, entries, origin, asked } }: Route.ComponentProps) {
  const submit = useSubmit();
  // Ticked at once; the page follows. With none ticked it shows all, and ticks them.
  const [chosen, choose] = useState<readonly CalendarKind[]>(kinds);
  useEffect(() => choose(kinds), [kinds]);
  const { today } = useWorkshop();
  const far = addDays(today, SOON_DAYS);
  const soon = entries.filter((e) => e.day <= far);
  const later = entries.filter((e) => e.day > far);
  return (
    <>
      <Heading title="Calendar" about="Everything that has its day: what is promised, what ripens, and what comes to its end.">
        <Print />
      </Heading>
      <div className="grid grid-cols-[minmax(0,1fr)] items-start gap-6 lg:grid-cols-[minmax(0,1fr)_21rem]">
        <Sheet>
          <Form method="get" className="no-print mb-5">
            <fieldset className="flex flex-wrap gap-x-5 gap-y-1">
              <legend className="sr-only">Shown</legend>
              {CALENDAR_KIND_IDS.map((k) => (
                <label key={k} className="flex min-h-7 items-center gap-2">
                  <input
                    type="checkbox"
                    className="h-4 w-4 flex-none accent-amber"
                    name="of"
                    value={k}
                    checked={chosen.includes(k)}
                    onChange={(e) => {
                      choose(e.currentTarget.checked ? [...chosen, k] : chosen.filter((c) => c !== k));
                      void submit(e.currentTarget.form, { replace: true, preventScrollReset: true });
                    }}
                  />
                  {CALENDAR_KINDS[k]}
                </label>
              ))}
            </fieldset>
          </Form>
          {entries.length === 0 ? (
            <Empty title="Nothing has its day yet">Orders, market days, jars and lots with a best-before are here, soonest first.</Empty>
          ) : (
            <>
              <Months entries={soon} />
              {later.length > 0 && (
                <details open={soon.length === 0} className="mt-4">
                  <summary className="pressable">{later.length} later</summary>
                  <Months entries={later} />
                </details>
              )}
            </>
          )}
        </Sheet>
        <Elsewhere origin={origin} asked={asked} />
      </div>
    </>
  );
}
