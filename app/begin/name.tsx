/** First step: what the workshop is called, who works in it, and what it counts in. */
import { NUMBER_HABIT_IDS, NUMBER_HABITS } from "#core/measure/habit";
import { DATE_STYLE_IDS, DATE_STYLES } from "#core/typedDay";
import { cachedSettings, moneyIsIn, saveSettings } from "#db/settings/settings";
import { firstSteps } from "#db/settings/firstSteps";
import { Link } from "react-router";
import { object } from "yup";
import { db } from "../server/workshop.server.ts";
import { noteText, oneOf, requiredText } from "../forms/fields.ts";
import { runAct, readSheet } from "../forms/sheet.server.ts";
import { useSheet } from "../forms/useSheet.ts";
import { CURRENCIES } from "../ui/fields/currencies.ts";
import { Choice, Text } from "../ui/fields/form.tsx";
import { Sheet } from "../ui/sheet/sheet.tsx";
import { Send, SheetSays } from "../forms/sheetSays.tsx";
import { wayOn } from "./begin.server.ts";
import { StepHeading } from "./frame.tsx";
import { Skip } from "./skip.tsx";
import type { Route } from "./+types/name";
import { STARTING_SETTINGS } from "#core/settings/settings";

export const meta: Route.MetaFunction = () => [{ title: "Name and currency · Zelbin" }];

export async function loader() {
  const [{ workshop, maker, currency, dates, numbers }, fixed, steps] = await Promise.all([
    cachedSettings(db()),
    moneyIsIn(db()),
    firstSteps(db()),
  ]);
  // The placeholder for "nobody said" is not offered as an answer.
  const said = (text: string, unsaid: string): string => (text === unsaid ? "" : text);
  return {
    workshop: said(workshop, STARTING_SETTINGS.workshop),
    maker: said(maker, STARTING_SETTINGS.maker),
    currency,
    dates,
    numbers,
    fixed,
    steps,
    token: crypto.randomUUID(),
  };
}

const schema = object({
  workshop: requiredText("a name", 60),
  maker: noteText(60),
  currency: oneOf(CURRENCIES),
  dates: oneOf(DATE_STYLE_IDS),
  numbers: oneOf(NUMBER_HABIT_IDS),
});

export async function action({ request }: Route.ActionArgs) {
  const sheet = await readSheet(request, schema);
  if (!sheet.ok) return sheet.reply;
  const { maker, ...rest } = sheet.value;
  const to = await wayOn("name");
  const { firstSteps: now } = await cachedSettings(db());
  const passed = [...new Set([...now.passed, "name"])];
  return runAct(
    () => saveSettings(db(), { ...rest, maker: maker || STARTING_SETTINGS.maker, firstSteps: { ...now, passed } }, sheet.doing),
    {
      path: () => to,
    },
  );
}

export default function NameStep({ loaderData: d }: Route.ComponentProps) {
  const sheet = useSheet(
    { workshop: d.workshop, maker: d.maker, currency: d.currency, dates: d.dates, numbers: d.numbers },
    { token: d.token },
    { draft: "Name and currency" },
  );
  const { errors } = sheet.formState;
  return (
    <form onSubmit={sheet.send()} className="max-w-3xl">
      <StepHeading id="name" steps={d.steps} skip={<Skip id="name" token={d.token} />}>
        <Send sheet={sheet}>Go on</Send>
      </StepHeading>
      <Sheet>
        <SheetSays sheet={sheet} />
        <div className="grid gap-4 sm:grid-cols-2">
          <Text
            label="Your workshop is called"
            className="sm:col-span-2"
            autoFocus
            {...sheet.register("workshop")}
            problem={errors.workshop?.message}
          />
          <Text
            label="Who does the work"
            hint="Shown in the book with what was done; can be added later."
            {...sheet.register("maker")}
            problem={errors.maker?.message}
          />
          <Choice
            label="Currency"
            hint={d.fixed ? "Fixed: there is money in the books." : "It can be changed until the first money is in the books."}
            options={(d.fixed ? [d.currency] : CURRENCIES).map((c) => [c, c] as const)}
            {...sheet.register("currency")}
            problem={errors.currency?.message}
          />
          <Choice
            label="Days are written"
            options={DATE_STYLE_IDS.map((x) => [x, DATE_STYLES[x]] as const)}
            {...sheet.register("dates")}
            problem={errors.dates?.message}
          />
          <Choice
            label="Numbers are typed"
            hint="Where 1,234 could be two numbers."
            options={NUMBER_HABIT_IDS.map((x) => [x, NUMBER_HABITS[x].say] as const)}
            {...sheet.register("numbers")}
            problem={errors.numbers?.message}
          />
        </div>
        <p className="mt-4 text-small text-pine-soft">
          Are your books on another computer?{" "}
          <Link to="/backups" className="text-amber underline underline-offset-4">
            Open an archive of them
          </Link>{" "}
          instead.
        </p>
      </Sheet>
    </form>
  );
}
