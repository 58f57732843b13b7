/** Today: the day's work in the order one would do it, with what can be done in one press done here, and the week ahead beside it. */
import { Link } from "react-router";
import { backupWarning } from "#core/backups/lastBackup";
import { ago, daysBetween, sayFullDay } from "#core/when";
import { inOrder, mustBe, sayMinutes, turnOf, WORK, type Turn } from "#core/work";
import { takeOut } from "#db/cabinet/cabinet";
import { today } from "#db/clock";
import { listDrafts } from "#db/drafts";
import { packGiftOrder } from "#db/gifts/pack";
import { tend } from "#db/jars/fill";
import { findLot } from "#db/lots/trace";
import { moveOut } from "#db/shelf/lots";
import { workItems } from "#db/today/today";
import { weekAhead } from "#db/today/week";
import { array, object } from "yup";
import { db, serving } from "../server/workshop.server.ts";
import { idField, noteText, oneOf } from "../forms/fields.ts";
import { runAct, readSheet, refuseSheet } from "../forms/sheet.server.ts";
import { usePress } from "../forms/usePress.ts";
import { Button, Problem } from "../ui/fields/form.tsx";
import { Caution, Empty, Heading, Sheet } from "../ui/sheet/sheet.tsx";
import { useSayDay } from "../ui/figures/amounts.tsx";
import { useWorkshop } from "../ui/workshop.ts";
import { OrderSteps } from "../gifts/orderSteps.tsx";
import { stepSentences } from "../gifts/stepSentences.server.ts";
import { oneWalk, say, type WorkItemText, type Waits } from "./say.tsx";
import { Unfinished } from "./unfinished.tsx";
import { Week } from "./week.tsx";
import type { Route } from "./+types/today";

export const meta: Route.MetaFunction = () => [{ title: "Today · Zelbin" }];
export async function loader() {
  const [waiting, drafts, fixed] = await Promise.all([workItems(db(), today()), listDrafts(db()), weekAhead(db(), today())]);
  return {
    waiting: waiting.map(({ steps, ...w }): Waits => ({ ...w, ...(steps ? { steps: stepSentences(steps, w.id) } : {}) })),
    fixed,
    backups: await backupsOf(serving()),
    drafts: drafts.map(({ keptAt, ...d }) => ({ ...d, ago: ago(Date.now() - keptAt.getTime()) })),
  };
}

/** The state of the backups of one's own books: when the last was made and where, or what is wrong. */
async function backupsOf({ kind, backups }: ReturnType<typeof serving>) {
  if (kind !== "own" || !backups) return null;
  const { folder, made, lookedAt, trouble, work } = await backups.state();
  return { made, folder, warning: work ? null : backupWarning({ made, lookedAt, trouble }, today()) };
}

const schema = object({
  does: oneOf(["shake", "pack", "takeOff"]),
  id: idField(),
  number: noteText(60),
  jars: array().of(idField()).default([]),
});

/** What is done with one press; each is the same act as on its own sheet. */
export async function action({ request }: Route.ActionArgs) {
  const sheet = await readSheet(request, schema);
  if (!sheet.ok) return sheet.reply;
  const { does, id, number, jars } = sheet.value;
  const here = { path: () => "/" };
  if (does === "shake") return runAct(() => tend(db(), { jarIds: jars, kind: "shaken" }, sheet.doing), here);
  if (does === "pack") return runAct(() => packGiftOrder(db(), { id, only: [] }, sheet.doing), here);
  const lot = await findLot(db(), number);
  if (!lot || lot.onHand === 0) return refuseSheet([{ field: "", say: `There is nothing left of ${number}.` }]);
  const of = { lotId: lot.id, note: "past its day" };
  return lot.productId === null
    ? runAct(() => moveOut(db(), { ...of, amount: lot.onHand, reason: "wasted" }, sheet.doing), here)
    : runAct(() => takeOut(db(), { ...of, units: lot.onHand, reason: "damaged" }, sheet.doing), here);
}

/** A line of work. The button that does it here is apart from the link to its page. */
function Line({ of: { to, what, do: does, press, steps }, by }: { of: WorkItemText; by: string | null }) {
  const hand = usePress("/?index");
  return (
    <li className="flex flex-wrap items-center gap-x-4 gap-y-1 py-1.5">
      <Link to={to} className="flex min-w-0 flex-1 basis-72 items-baseline justify-between gap-4 py-1 hover:bg-honey-wash">
        <span className="min-w-0">
          {what}
          {by && <span className="ml-2 text-small text-honey">{by}</span>}
        </span>
        <span className="flex-none text-small font-semibold text-amber">{does}</span>
      </Link>
      {press && (
        <Button small className="no-print min-w-28" disabled={hand.busy} aria-label={press.of} onClick={() => hand.press(press.act)}>
          {press.say}
        </Button>
      )}
      <Problem say={hand.problem?.say} see={hand.problem?.see} />
      {steps && (
        <div className="basis-full pb-1 pl-5">
          <OrderSteps steps={steps} />
        </div>
      )}
    </li>
  );
}

/** By when, where that isn't said already by what it is. */
function byWhen(w: Waits, day: string): string | null {
  const by = mustBe(w, day);
  if (by === null || by <= day || !(w.kind === "toPack" || w.kind === "comingUp")) return null;
  const n = daysBetween(day, by);
  const what = w.kind === "toPack" ? "pack" : "ready";
  return n === 1 ? `${what} by tomorrow` : `${what} within ${n} days`;
}

const TURNS: Record<Exclude<Turn, "time">, string> = { now: "Today", week: "This week" };

interface Listed {
  rows: readonly Waits[];
  /** Beyond those listed. */
  more: number;
  day: string;
}

/** What has its turn, in order, and how long all of it takes. */
function TurnPart({ turn, rows, more, day }: Listed & { turn: Exclude<Turn, "time"> }) {
  if (rows.length === 0) return null;
  const shakes = rows.filter((w) => w.kind === "shake");
  const lines = shakes.length > 1 ? rows.filter((w) => w.kind !== "shake" || w === shakes[0]) : rows;
  return (
    <section className="mb-7" aria-label={TURNS[turn]}>
      <h2 className="flex flex-wrap items-baseline justify-between gap-x-4 border-b-[1.5px] border-rule-strong pb-1.5 text-large">
        {TURNS[turn]}
        <span className="font-sans text-small text-pine-soft">{sayMinutes(rows.reduce((a, w) => a + WORK[w.kind].minutes, 0))}</span>
      </h2>
      <ul className="divide-y divide-rule">
        {lines.map((w) => (
          <Line
            key={`${w.station}${w.kind}${w.id}${w.number}`}
            of={w === shakes[0] && shakes.length > 1 ? oneWalk(shakes) : say(w, day)}
            by={byWhen(w, day)}
          />
        ))}
      </ul>
      {more > 0 && <p className="pt-2 text-small text-pine-soft">And {more} more, once these are done.</p>}
    </section>
  );
}

/** How many of their kinds wait beyond those that are listed anywhere. */
function unlisted(rows: readonly Waits[], all: readonly Waits[]): number {
  const kindOf = (w: Waits): string => `${w.station} ${w.kind}`;
  const totals = new Map(rows.map((w) => [kindOf(w), w.total]));
  return [...totals].reduce((n, [k, total]) => n + total - all.filter((w) => kindOf(w) === k).length, 0);
}

/** What isn't urgent, kind by kind. */
const KEPT: readonly { title: string; has: (w: Waits) => boolean; all?: readonly [to: string, name: string] }[] = [
  { title: "Orders for later", has: (w) => w.station === "gifts" || w.station === "markets" },
  { title: "In jars", has: (w) => w.station === "jars" },
  { title: "On hold", has: (w) => w.kind === "held" },
  { title: "Sell first", has: (w) => w.kind === "soon" && w.station === "cabinet" },
  { title: "Use first", has: (w) => w.kind === "soon" && w.station === "shelf" },
  { title: "Running low", has: (w) => w.kind === "low", all: ["/shelf/shopping", "The shopping list"] },
  { title: "Without a price", has: (w) => w.kind === "unpriced" },
];
/** Of each kind so many are read at a glance. */
const GLANCE = 4;

function KeptPart({ title, rows, more, day, all }: Listed & { title: string; all?: readonly [string, string] }) {
  const lines = rows.map((w) => <Line key={`${w.station}${w.kind}${w.id}${w.number}`} of={say(w, day)} by={null} />);
  return (
    <section className="mb-6 break-inside-avoid" aria-label={title}>
      <h3 className="border-b border-rule-strong pb-1 font-display text-lead">{title}</h3>
      <ul className="divide-y divide-rule">{lines.slice(0, GLANCE)}</ul>
      {lines.length > GLANCE && (
        <details>
          <summary className="pressable py-1 text-small">{lines.length - GLANCE} more</summary>
          <ul className="divide-y divide-rule">{lines.slice(GLANCE)}</ul>
        </details>
      )}
      {(more > 0 || all) && (
        <p className="pt-1 text-small text-pine-soft">
          {more > 0 && `And ${more} more. `}
          {all && (
            <Link to={all[0]} className="text-amber underline underline-offset-4">
              {all[1]}
            </Link>
          )}
        </p>
      )}
    </section>
  );
}

function LastBackup({ made, folder, warning }: NonNullable<Route.ComponentProps["loaderData"]["backups"]>) {
  const say = useSayDay();
  const to = (
    <Link to="/backups" className="text-amber underline underline-offset-4">
      Backups
    </Link>
  );
  if (warning !== null)
    return (
      <Caution>
        {warning} {to}
      </Caution>
    );
  return made === null ? null : (
    <p className="no-print text-small text-pine-soft [overflow-wrap:anywhere]">
      Last backup {say(made.slice(0, 10))}, {made.slice(11, 16)}, in {folder}. {to}
    </p>
  );
}

export default function Today({ loaderData: { waiting, drafts, fixed, backups } }: Route.ComponentProps) {
  const { today: day, name } = useWorkshop();
  const work = inOrder(waiting, day);
  const turn = (t: Turn) => work.filter((w) => turnOf(w, day) === t);
  const kept = KEPT.map((p) => ({ ...p, rows: turn("time").filter(p.has) })).filter((p) => p.rows.length > 0);
  const pressing = turn("now").length + turn("week").length > 0;
  const empty = waiting.length === 0 && drafts.length === 0;
  return (
    <>
      <Heading title={sayFullDay(day)} about={empty ? undefined : `What needs a hand in ${name}, in the order one would do it.`} />
      <div className="grid grid-cols-[minmax(0,1fr)] items-start gap-6 lg:grid-cols-[minmax(0,1fr)_21rem]">
        {empty ? (
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
            {drafts.length > 0 && <Unfinished drafts={drafts} />}
            <TurnPart turn="now" rows={turn("now")} more={unlisted(turn("now"), waiting)} day={day} />
            <TurnPart turn="week" rows={turn("week")} more={0} day={day} />
            {kept.length > 0 && (
              <>
                {pressing && <h2 className="mb-2 text-large">When there is time</h2>}
                <div className="columns-1 gap-10 md:columns-2">
                  {kept.map(({ title, rows, all }) => (
                    <KeptPart key={title} title={title} rows={rows} more={unlisted(rows, waiting)} day={day} all={all} />
                  ))}
                </div>
              </>
            )}
          </Sheet>
        )}
        <div className="space-y-4">
          <Week fixed={fixed} />
          {backups && <LastBackup {...backups} />}
        </div>
      </div>
    </>
  );
}
