/** Today: what needs a hand, from every station. */
import { ago, daysBetween, sayFullDay } from "#core/when";
import { today } from "#db/clock";
import { listDrafts } from "#db/drafts";
import { whatWaits, type Waiting } from "#db/today";
import { Link, useFetcher } from "react-router";
import { db } from "../db.server.ts";
import { showBase, When } from "../ui/amounts.tsx";
import { Empty, Heading, Sheet } from "../ui/sheet.tsx";
import { useWorkshop } from "../ui/workshop.ts";
import type { Route } from "./+types/today";

export const meta: Route.MetaFunction = () => [{ title: "Today · Zelbin" }];
export async function loader() {
  const [waiting, drafts] = await Promise.all([whatWaits(db(), today()), listDrafts(db())]);
  return { waiting, drafts: drafts.map(({ keptAt, ...d }) => ({ ...d, ago: ago(Date.now() - keptAt.getTime()) })) };
}

interface Said {
  to: string;
  what: React.ReactNode;
  do: string;
}

/** A waiting thing as a sentence, and the act that settles it. */
function say(w: Waiting, day: string): Said {
  const amount = w.amount !== null && w.measured ? showBase(w.amount, w.measured) : "";
  const lot = w.number ? <span className="weight text-[0.92em]">{w.number}</span> : null;
  const jarName = (
    <>
      {w.name} {lot}
    </>
  );
  const units = `${w.amount} ${w.amount === 1 ? "unit" : "units"}`;
  switch (`${w.station} ${w.kind}`) {
    case "bench open":
      return {
        to: `/bench/${w.id}`,
        what: (
          <>
            {w.name}, {units} set out <When day={w.day} />
          </>
        ),
        do: "Go on weighing",
      };
    case "gifts toPack":
      return {
        to: `/gifts/${w.id}`,
        what: (
          <>
            Order for {w.name}, {units}, due <When day={w.day} />
            {daysBetween(day, w.day!) < 0 && <strong className="text-berry"> — late</strong>}
          </>
        ),
        do: "Pack it",
      };
    case "gifts toMake":
      return {
        to: `/gifts/${w.id}`,
        what: (
          <>
            Order for {w.name}, {units}, due <When day={w.day} />
            {daysBetween(day, w.day!) < 0 && <strong className="text-berry"> — late</strong>}: not all of it is there
          </>
        ),
        do: "See what is missing",
      };
    case "shelf held":
    case "cabinet held":
      return {
        to: `/lots/${w.number}`,
        what: (
          <>
            {w.name}, {w.measured === "count" && w.station === "cabinet" ? units : amount} in lot {lot}, on hold
          </>
        ),
        do: "Decide",
      };
    case "markets toClose":
      return {
        to: `/markets/${w.id}`,
        what: (
          <>
            {w.name} on <When day={w.day} /> isn't closed
          </>
        ),
        do: "Count the stall",
      };
    case "markets comingUp":
      return {
        to: `/markets/${w.id}`,
        what: (
          <>
            {w.name} on <When day={w.day} />, in {daysBetween(day, w.day!)} days
          </>
        ),
        do: "See what goes along",
      };
    case "shelf expired":
      return {
        to: `/shelf/${w.id}`,
        what: (
          <>
            {w.name}, {amount} in lot {lot}, was best before <When day={w.day} />
          </>
        ),
        do: "Count it out",
      };
    case "shelf soon":
      return {
        to: `/shelf/${w.id}`,
        what: (
          <>
            {w.name}, {amount} in lot {lot}, best before <When day={w.day} />
          </>
        ),
        do: "Use it first",
      };
    case "shelf drying":
      return {
        to: `/shelf/harvests/${w.id}`,
        what: (
          <>
            {w.name}, {amount} picked <When day={w.day} />, is drying
          </>
        ),
        do: "Weigh it",
      };
    case "jars shake":
      return { to: "/jars", what: jarName, do: "Shake it" };
    case "jars ready":
      return {
        to: `/jars/${w.id}`,
        what: (
          <>
            {jarName}, at its best since <When day={w.day} />
          </>
        ),
        do: "Strain it",
      };
    case "jars late":
      return { to: `/jars/${w.id}`, what: <>{jarName}, steeping too long</>, do: "Strain it now" };
    case "shelf low":
      return {
        to: `/shelf/receive?material=${w.id}`,
        what: (
          <>
            {w.name}: {w.amount ? `${amount} left` : "none left"}
          </>
        ),
        do: "Receive more",
      };
    case "cabinet expired":
      return {
        to: `/lots/${w.number}`,
        what: (
          <>
            {w.name}, {units} of lot {lot}, was best before <When day={w.day} />
          </>
        ),
        do: "Don't sell it",
      };
    case "cabinet soon":
      return {
        to: `/lots/${w.number}`,
        what: (
          <>
            {w.name}, {units} of lot {lot}, best before <When day={w.day} />
          </>
        ),
        do: "Sell it first",
      };
    default:
      return { to: `/prices/${w.id}`, what: <>{w.name} has no price</>, do: "Price it" };
  }
}

const PARTS: readonly { title: string; has: (w: Waiting) => boolean; all?: readonly [to: string, name: string] }[] = [
  { title: "On the bench", has: (w) => w.station === "bench" },
  { title: "In jars", has: (w) => w.station === "jars" },
  { title: "Drying", has: (w) => w.kind === "drying" },
  { title: "Promised", has: (w) => w.station === "gifts" || w.station === "markets" },
  { title: "On hold", has: (w) => w.kind === "held" },
  { title: "Past its day", has: (w) => w.kind === "expired" },
  { title: "Use or sell first", has: (w) => w.kind === "soon" },
  { title: "Running low", has: (w) => w.kind === "low", all: ["/shelf/shopping", "The shopping list"] },
  { title: "Without a price", has: (w) => w.kind === "unpriced" },
];

/** How many more there are than the list shows, and where to see them all. */
function More({ rows, all }: { rows: Waiting[]; all?: readonly [to: string, name: string] }) {
  const totals = new Map(rows.map((w) => [`${w.station} ${w.kind}`, w.total]));
  const more = [...totals.values()].reduce((a, n) => a + n, 0) - rows.length;
  if (more === 0 && !all) return null;
  return (
    <p className="pt-2 text-[0.92rem] text-pine-soft">
      {more > 0 && `And ${more} more. `}
      {all && (
        <Link to={all[0]} className="text-amber underline underline-offset-4">
          {all[1]}
        </Link>
      )}
    </p>
  );
}

/** Sheets that were begun and not kept: each is taken up where it was left, or thrown away. */
function Unfinished({ drafts }: { drafts: Route.ComponentProps["loaderData"]["drafts"] }) {
  const drop = useFetcher();
  return (
    <section className="mb-7 break-inside-avoid" aria-label="Left unfinished">
      <h2 className="border-b-[1.5px] border-rule-strong pb-1.5 text-[1.25rem]">Left unfinished</h2>
      <ul className="divide-y divide-rule">
        {drafts.map((d) => (
          <li key={d.id} className="flex items-baseline gap-4 py-1">
            <Link to={d.path} className="flex min-w-0 flex-1 items-baseline justify-between gap-4 py-1 hover:bg-honey-wash">
              <span className="min-w-0">
                {d.title}
                <span className="text-pine-soft">, {d.ago}</span>
              </span>
              <span className="flex-none text-[0.92rem] font-semibold text-amber">Go on with it</span>
            </Link>
            <button
              type="button"
              className="pressable flex-none text-[0.92rem]"
              aria-label={`Throw away: ${d.title}`}
              onClick={() =>
                void drop.submit(
                  { path: d.path, sheet: d.sheet, title: "", values: null },
                  { method: "post", action: "/drafts", encType: "application/json" },
                )
              }
            >
              Throw away
            </button>
          </li>
        ))}
      </ul>
    </section>
  );
}

export default function Today({ loaderData: { waiting, drafts } }: Route.ComponentProps) {
  const { today: day, name } = useWorkshop();
  const parts = PARTS.map((p) => ({ ...p, rows: waiting.filter(p.has) })).filter((p) => p.rows.length > 0);
  return (
    <>
      <Heading title={sayFullDay(day)} about={waiting.length > 0 || drafts.length > 0 ? `What needs a hand in ${name}.` : undefined} />
      {parts.length === 0 && drafts.length === 0 ? (
        <Empty
          title="Nothing waits"
          act={
            <>
              <Link to="/bench/set-out" className="act act-main">
                Set out a batch
              </Link>
              <Link to="/shelf/receive" className="act">
                Receive a purchase
              </Link>
            </>
          }
        >
          Nothing is open on the bench, promised, running low or near its best-before.
        </Empty>
      ) : (
        <Sheet>
          <div className="columns-1 gap-14 lg:columns-2 lg:[column-rule:1px_solid_var(--color-rule)]">
            {drafts.length > 0 && <Unfinished drafts={drafts} />}
            {parts.map((p) => (
              <section key={p.title} className="mb-7 break-inside-avoid" aria-label={p.title}>
                <h2 className="border-b-[1.5px] border-rule-strong pb-1.5 text-[1.25rem]">{p.title}</h2>
                <ul className="divide-y divide-rule">
                  {p.rows.map((w) => {
                    const s = say(w, day);
                    return (
                      <li key={`${w.kind}${w.id}${w.number}`}>
                        <Link to={s.to} className="flex items-baseline justify-between gap-4 py-2 hover:bg-honey-wash">
                          <span className="min-w-0">{s.what}</span>
                          <span className="flex-none text-[0.92rem] font-semibold text-amber">{s.do}</span>
                        </Link>
                      </li>
                    );
                  })}
                </ul>
                <More rows={p.rows} all={p.all} />
              </section>
            ))}
          </div>
        </Sheet>
      )}
    </>
  );
}
