/** The first steps in a workshop of one's own: all of them with how far each is. */
import { FIRST_STEPS, nextStep, STEP_IDS } from "#core/settings/firstSteps";
import { counted, wordList } from "#core/words";
import { achieved, firstSteps, type Achieved } from "#db/settings/firstSteps";
import { cachedSettings, saveSettings } from "#db/settings/settings";
import { Link, redirect } from "react-router";
import { object } from "yup";
import { db, serving } from "../server/workshop.server.ts";
import { noteText, oneOf } from "../forms/fields.ts";
import { runAct, readSheet, refuseSheet } from "../forms/sheet.server.ts";
import { Heading, Sheet } from "../ui/sheet/sheet.tsx";
import { skipStep } from "./begin.server.ts";
import { ListsIn } from "./listsIn.tsx";
import { PutAway } from "./strip.tsx";
import type { Route } from "./+types/begin";

export const meta: Route.MetaFunction = () => [{ title: "First steps · Zelbin" }];

export async function loader() {
  // The demo was begun long ago.
  if ((serving().kind ?? "own") !== "own") throw redirect("/workshops");
  const [steps, { firstSteps: led }] = await Promise.all([firstSteps(db()), cachedSettings(db())]);
  return { steps, come: nextStep(steps) ? null : await achieved(db()), away: led.away, token: crypto.randomUUID() };
}

const schema = object({ intent: oneOf(["skip", "away", "back"]), step: noteText(20) });

export async function action({ request }: Route.ActionArgs) {
  const sheet = await readSheet(request, schema);
  if (!sheet.ok) return sheet.reply;
  const { intent, step } = sheet.value;
  if (intent === "skip") {
    const id = STEP_IDS.find((s) => s === step);
    return id ? skipStep(id, sheet.doing) : refuseSheet([{ field: "", say: "There is no such step." }]);
  }
  const { firstSteps: now } = await cachedSettings(db());
  return runAct(() => saveSettings(db(), { firstSteps: { ...now, away: intent === "away" } }, sheet.doing), { path: () => "/begin" });
}

/** What there is now, in words. */
const cameTo = (c: Achieved): string =>
  wordList(
    [
      [c.materials, "material"] as const,
      [c.containers, "thing to fill", "things to fill"] as const,
      [c.lots, "lot on the shelf", "lots on the shelf"] as const,
      [c.recipes, "recipe"] as const,
      [c.batches, "batch poured", "batches poured"] as const,
      [c.prices, "price"] as const,
    ].flatMap(([n, one, many]) => (n > 0 ? [counted(n, one, many)] : [])),
  );

export default function Begin({ loaderData: { steps, come, away, token } }: Route.ComponentProps) {
  const next = nextStep(steps);
  const done = steps.filter((s) => s.state === "done").length;
  return (
    <div className="max-w-3xl">
      <Heading
        title="First steps"
        about={
          next
            ? "From an empty workroom to a tin with its lot number and its price. Take them in any order; what you skip waits here."
            : `${done === steps.length ? "All of them are done" : "All of them are done or skipped"}${come && cameTo(come) ? `: ${cameTo(come)}${come.tin ? `, and tins under lot ${come.tin}` : ""}` : ""}. They stay here, should you want one again.`
        }
      >
        {(done > 0 || away) && <PutAway away={away} token={token} />}
        {next && (
          <Link to={FIRST_STEPS[next].to} className="act act-main">
            {done === 0 ? "Begin" : "Go on"}
          </Link>
        )}
      </Heading>
      <Sheet>
        <ol>
          {steps.map(({ id, state }, i) => (
            <li key={id} className="border-b border-rule last:border-0">
              <Link to={FIRST_STEPS[id].to} className="flex items-baseline gap-4 rounded px-1 py-2.5 hover:bg-honey-wash">
                <span className={`weight w-6 text-right ${state === "done" ? "font-bold text-sage" : "text-pine-soft"}`}>
                  {state === "done" ? "✓" : state === "passed" ? "–" : i + 1}
                </span>
                <span className="flex-1">
                  <span className="font-display text-lead">{FIRST_STEPS[id].say}</span>
                  <span className="block text-small text-pine-soft">{FIRST_STEPS[id].about}</span>
                </span>
                <span className={state === "done" ? "text-sage" : "text-pine-soft"}>
                  {state === "done" ? "done" : state === "passed" ? "skipped" : ""}
                </span>
              </Link>
            </li>
          ))}
        </ol>
      </Sheet>
      <ListsIn />
    </div>
  );
}
