/** Second step: what an hour is worth, and what the scale reads. */
import { parseMoney } from "#core/measure/read";
import { moneyField } from "#core/measure/money";
import { firstSteps } from "#db/settings/firstSteps";
import { cachedSettings, saveSettings } from "#db/settings/settings";
import { object } from "yup";
import { db } from "../server/workshop.server.ts";
import { oneOf, reads } from "../forms/fields.ts";
import { runAct, readSheet } from "../forms/sheet.server.ts";
import { useSheet } from "../forms/useSheet.ts";
import { SCALES, scaleId, scaleOf } from "../settings/scales.ts";
import { showScale } from "#core/recipe/scale";
import { Choice, Text } from "../ui/fields/form.tsx";
import { Sheet } from "../ui/sheet/sheet.tsx";
import { Send, SheetSays } from "../forms/sheetSays.tsx";
import { wayOn } from "./begin.server.ts";
import { StepHeading } from "./frame.tsx";
import { Skip } from "./skip.tsx";
import type { Route } from "./+types/work";

export const meta: Route.MetaFunction = () => [{ title: "Your hour and your scale · Zelbin" }];

export async function loader() {
  const [{ hourly, overheadHourly, scale }, steps] = await Promise.all([cachedSettings(db()), firstSteps(db())]);
  return {
    hourly: moneyField(hourly),
    overheadHourly: moneyField(overheadHourly),
    scale: scaleId(scale),
    steps,
    token: crypto.randomUUID(),
  };
}

const schema = object({ hourly: reads(parseMoney), overheadHourly: reads(parseMoney), scale: oneOf(SCALES.map((x) => x.id)) });

export async function action({ request }: Route.ActionArgs) {
  const sheet = await readSheet(request, schema);
  if (!sheet.ok) return sheet.reply;
  const to = await wayOn("work");
  const { firstSteps: now } = await cachedSettings(db());
  const { scale, ...rates } = sheet.value;
  const passed = [...new Set([...now.passed, "work"])];
  return runAct(() => saveSettings(db(), { ...rates, scale: scaleOf(scale), firstSteps: { ...now, passed } }, sheet.doing), {
    path: () => to,
  });
}

export default function WorkStep({ loaderData: d }: Route.ComponentProps) {
  const sheet = useSheet(
    { hourly: d.hourly, overheadHourly: d.overheadHourly, scale: d.scale },
    { token: d.token },
    { draft: "Your hour and your scale" },
  );
  const { errors } = sheet.formState;
  return (
    <form onSubmit={sheet.send()} className="max-w-3xl">
      <StepHeading id="work" steps={d.steps} skip={<Skip id="work" token={d.token} />}>
        <Send sheet={sheet}>Go on</Send>
      </StepHeading>
      <Sheet>
        <SheetSays sheet={sheet} />
        <div className="grid gap-4 sm:grid-cols-2">
          <Text
            data-amount
            label="An hour of your work"
            hint="What you would want to be paid for it; it is in the cost of each unit."
            autoFocus
            {...sheet.register("hourly")}
            problem={errors.hourly?.message}
          />
          <Text
            data-amount
            label="Overhead for each hour"
            hint="Power, rent, insurance, while you work. 0 if you would rather not."
            {...sheet.register("overheadHourly")}
            problem={errors.overheadHourly?.message}
          />
          <Choice
            label="Your scale reads to"
            hint="In grams or ounces; what it can't weigh is said before you pour."
            options={SCALES.map((x) => [x.id, showScale(x.scale)] as const)}
            {...sheet.register("scale")}
            problem={errors.scale?.message}
          />
        </div>
      </Sheet>
    </form>
  );
}
