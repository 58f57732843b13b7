/** The wall of jars: what is steeping, how far it is, what wants a hand today; and what was strained before. */
import { JAR_STATES, jarProgress, jarState, wantsShake } from "#core/infusion/tend";
import { grams } from "#core/measure/write";
import { daysBetween } from "#core/when";
import { tend } from "#db/jars/fill";
import { pastJars, steepingJars, type WallJar } from "#db/jars/read";
import { Link, useFetcher } from "react-router";
import { array, object } from "yup";
import { db } from "../server/workshop.server.ts";
import { idField } from "../forms/fields.ts";
import { runAct, readSheet } from "../forms/sheet.server.ts";
import { percent, When } from "../ui/figures/amounts.tsx";
import { Jar } from "../ui/figures/drawings.tsx";
import { Button, Problem } from "../ui/fields/form.tsx";
import { Empty, Heading, Part, Sheet } from "../ui/sheet/sheet.tsx";
import { ListTable } from "../ui/lists/listTable.tsx";
import { useWorkshop } from "../ui/workshop.ts";
import { jarsFile, methodOf } from "./jarsFile.ts";
import { JarWeeks } from "./jarWeeks.tsx";
import type { Reply } from "../forms/sheet.server.ts";
import { SaveList } from "../ui/lists/saveList.tsx";
import { askedOf, partOf, useFullList } from "../ui/lists/useFullList.ts";
import type { Route } from "./+types/jars";

export const meta: Route.MetaFunction = () => [{ title: "Jars · Zelbin" }];

export async function loader({ request }: Route.LoaderArgs) {
  const { most } = askedOf(request);
  const [steeping, past] = await Promise.all([steepingJars(db()), pastJars(db(), most)]);
  return { steeping, ...partOf(past, most), token: crypto.randomUUID() };
}

const schema = object({ jars: array().of(idField()).min(1, "Choose a jar.").required() });

export async function action({ request }: Route.ActionArgs) {
  const sheet = await readSheet(request, schema);
  if (!sheet.ok) return sheet.reply;
  return runAct(() => tend(db(), { jarIds: sheet.value.jars, kind: "shaken" }, sheet.doing));
}

function OnTheWall({ jar: j, shake, busy }: { jar: WallJar; shake: (ids: number[]) => void; busy: boolean }) {
  const { today: day } = useWorkshop();
  const state = jarState(j.jar, day);
  const due = wantsShake(j.jar, j.shaken, day);
  const [at, all] = [daysBetween(j.jar.day, day), daysBetween(j.jar.day, j.jar.best)];
  return (
    <li className="flex gap-4 border-b-[3px] border-rule-strong pb-3">
      <Jar share={jarProgress(j.jar, day)} done={state !== "steeping"} label={`${j.jar.name}: ${JAR_STATES[state]}`} />
      <div className="flex min-w-0 flex-1 flex-col">
        <Link to={`/jars/${j.jar.id}`} className="font-display text-lead leading-snug hover:underline">
          {j.jar.name}
        </Link>
        <span className="text-small text-pine-soft">
          <span className="weight">{j.jar.number}</span> · {methodOf(j)}
        </span>
        <span className={`mt-1 font-semibold ${state === "late" ? "text-berry" : state === "steeping" ? "" : "text-sage"}`}>
          {state === "steeping"
            ? all > 0
              ? `Day ${at} of ${all}`
              : "Steeping"
            : JAR_STATES[state][0]!.toUpperCase() + JAR_STATES[state].slice(1)}
        </span>
        <span className="text-small">
          {state === "steeping" || state === "usable" ? "Best " : "Since "}
          <When day={j.jar.best} />
        </span>
        <span className="mt-auto pt-2">
          {due ? (
            <Button small disabled={busy} onClick={() => shake([j.jar.id])} aria-label={`Shaken: ${j.jar.name}`}>
              Shaken
            </Button>
          ) : state === "ready" || state === "late" ? (
            <Link to={`/jars/${j.jar.id}#strain`} className="act act-small">
              Strain it
            </Link>
          ) : (
            j.shaken === day && <span className="text-small text-sage">shaken today</span>
          )}
        </span>
      </div>
    </li>
  );
}

export default function Jars({ loaderData }: Route.ComponentProps) {
  const { steeping, token } = loaderData;
  const { rows: past, more, ask } = useFullList<WallJar>(loaderData);
  const { today: day } = useWorkshop();
  const hand = useFetcher<Reply | null>();
  const shake = (jars: number[]): void => void hand.submit({ jars, token }, { method: "post", encType: "application/json" });
  const due = steeping.filter((j) => wantsShake(j.jar, j.shaken, day)).map((j) => j.jar.id);
  return (
    <>
      <Heading
        title="Jars"
        about={steeping.length > 0 ? `${steeping.length === 1 ? "One jar is" : `${steeping.length} jars are`} steeping.` : undefined}
      >
        {due.length > 1 && (
          <Button disabled={hand.state !== "idle"} onClick={() => shake(due)}>
            All {due.length} shaken
          </Button>
        )}
        <Link to="/jars/blend" className="act">
          Blend oils
        </Link>
        <Link to="/jars/fill" className="act act-main">
          Fill a jar
        </Link>
      </Heading>
      <Problem say={hand.data?.problems[0]?.say} />
      {steeping.length === 0 ? (
        <Empty
          title="No jar is steeping"
          act={
            <Link to="/jars/fill" className="act act-main">
              Fill a jar
            </Link>
          }
        >
          Herbs steep in oil here, by shelf, window or gentle heat, until they are strained into bottles that go on the shelf.
        </Empty>
      ) : (
        <ul className="grid gap-x-8 gap-y-6 sm:grid-cols-2 lg:grid-cols-3">
          {steeping.map((j) => (
            <OnTheWall key={j.jar.id} jar={j} shake={shake} busy={hand.state !== "idle"} />
          ))}
        </ul>
      )}
      <SaveList what="steeping jars" rows={steeping} columns={jarsFile(day)} />
      {steeping.length > 1 && <JarWeeks jars={steeping.map((j) => j.jar)} />}
      {past.length > 0 && (
        <div className="mt-8">
          <Sheet>
            <Part title="Strained before">
              <ListTable
                what="jars"
                more={more}
                ask={ask}
                rows={past}
                by={(j) => j.jar.id}
                under={(found) => <SaveList what="jars" rows={found} columns={jarsFile(day)} more={more} ask={ask} />}
                finds={(j) => `${j.jar.name} ${j.jar.number} ${methodOf(j)} ${j.contents}`}
                columns={[
                  {
                    head: "Jar",
                    sorts: (j) => j.jar.name,
                    cell: (j) => (
                      <>
                        <Link to={`/jars/${j.jar.id}`} className="font-semibold hover:underline">
                          {j.jar.name}
                        </Link>{" "}
                        <span className="weight text-part text-pine-soft">{j.jar.number}</span>
                      </>
                    ),
                  },
                  { head: "Method", cell: (j) => methodOf(j) },
                  { head: "Filled", sorts: (j) => j.jar.day, cell: (j) => <When day={j.jar.day} /> },
                  { head: "Oil in", as: "weight", sorts: (j) => j.oil, cell: (j) => grams(j.oil, 0) },
                  {
                    head: "Oil back",
                    as: "weight",
                    cell: (j) =>
                      j.jar.spoiledActId !== null ? <span className="font-sans text-berry">spoiled</span> : grams(j.jar.back ?? 0, 0),
                  },
                  {
                    head: "Against expected",
                    as: "figure",
                    cell: (j) =>
                      j.jar.back !== null && j.jar.spoiledActId === null && j.jar.expected > 0
                        ? percent(j.jar.back / j.jar.expected, 0)
                        : "—",
                  },
                ]}
              />
            </Part>
          </Sheet>
        </div>
      )}
    </>
  );
}
