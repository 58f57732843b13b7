/** Noting a picking. */
import { Link } from "react-router";
import { DRYING_METHODS, DRY_AT, HOTTEST_DRYING, type DryingMethod } from "#core/infusion/drying";
import { pick } from "#db/shelf/harvests";
import { materialsOfKind } from "#db/shelf/materials";
import { today } from "#db/clock";
import { object } from "yup";
import { db } from "../../server/workshop.server.ts";
import { between, orNothing, readPlain, readWeight } from "#core/measure/read";
import { dayField, noteText, oneOf, optional, reads, wholeNumber, requiredText } from "../../forms/fields.ts";
import { runAct, readSheet, refuseSheet } from "../../forms/sheet.server.ts";
import { useSheet } from "../../forms/useSheet.ts";
import { FindText } from "../../names/combo.tsx";
import { HERBS } from "../../names/finds.ts";
import { DayText } from "../../ui/fields/dateField.tsx";
import { Area, Choice, Text } from "../../ui/fields/form.tsx";
import { Caution, Heading, Sheet } from "../../ui/sheet/sheet.tsx";
import { Send, SheetSays } from "../../forms/sheetSays.tsx";
import type { Route } from "./+types/pick";

export const meta: Route.MetaFunction = () => [{ title: "Note a picking · Zelbin" }];

export const loader = () => ({ today: today(), token: crypto.randomUUID() });

const METHOD_IDS = Object.keys(DRYING_METHODS) as DryingMethod[];
const schema = object({
  herb: requiredText("the herb"),
  picked: dayField(),
  place: noteText(80),
  fresh: reads(readWeight),
  method: oneOf(METHOD_IDS),
  celsius: optional(between(5, 120, "°C", 1)),
  minutes: wholeNumber(0, 10_000, "minutes", 0),
  note: noteText(500),
});

export async function action({ request }: Route.ActionArgs) {
  const sheet = await readSheet(request, schema);
  if (!sheet.ok) return sheet.reply;
  const { herb, ...v } = sheet.value;
  const found = (await materialsOfKind(db(), "herb")).find((h) => !h.retired && h.name.toLowerCase() === herb.trim().toLowerCase());
  if (!found) return refuseSheet([{ field: "herb", say: `“${herb}” isn't a herb of your shelf. Choose one, or add it first.` }]);
  if (v.picked > today()) return refuseSheet([{ field: "picked", say: "That day hasn't come yet." }]);
  return runAct(() => pick(db(), { materialId: found.id, ...v }, sheet.doing));
}

export default function Pick({ loaderData: { today: day, token } }: Route.ComponentProps) {
  const sheet = useSheet(
    { herb: "", picked: day, place: "", fresh: "", method: "air", celsius: "", minutes: "", note: "" },
    { token },
    { draft: (v) => (v.herb ? `A picking of ${v.herb}` : "A picking") },
  );
  const { errors } = sheet.formState;
  const hot = orNothing(sheet.values.celsius, readPlain, 0) > HOTTEST_DRYING;
  return (
    <form onSubmit={sheet.send()} className="max-w-3xl">
      <Heading title="Note a picking" about="Picked when the dew is off. Weigh it fresh, then as it dries.">
        <Link to="/shelf/harvests" className="act">
          Leave
        </Link>
        <Send sheet={sheet}>Set it to dry</Send>
      </Heading>
      <Sheet>
        <SheetSays sheet={sheet} />
        <div className="grid gap-4 sm:grid-cols-2">
          <FindText control={sheet.control} name="herb" finds={HERBS} label="Herb" problem={errors.herb?.message} />
          <Text data-amount label="Fresh weight" placeholder="such as 600 g" {...sheet.register("fresh")} problem={errors.fresh?.message} />
          <DayText label="Picked on" control={sheet.control} name="picked" leaning="past" problem={errors.picked?.message} />
          <Text label="Where" placeholder="such as south bed" {...sheet.register("place")} problem={errors.place?.message} />
          <Choice label="Dried" options={METHOD_IDS.map((m) => [m, DRYING_METHODS[m]] as const)} {...sheet.register("method")} />
          <Text
            data-amount="decimal"
            label="At, °C"
            placeholder="such as 45"
            hint="Empty in air."
            {...sheet.register("celsius")}
            problem={errors.celsius?.message}
          />
          <Text
            data-amount
            label="Minutes so far"
            placeholder="none"
            hint="Picking and garbling, for a value by hours."
            {...sheet.register("minutes")}
            problem={errors.minutes?.message}
          />
          <Area label="Note" rows={1} {...sheet.register("note")} problem={errors.note?.message} />
        </div>
        {hot && (
          <div className="mt-4">
            <Caution>Above about {HOTTEST_DRYING} °C leaf and flower lose what they are dried for.</Caution>
          </div>
        )}
        <p className="mt-4 text-small text-pine-soft">
          {DRY_AT} Be sure of what you pick, and take only where you may. Fresh plants go into oil only once they are dry.
        </p>
      </Sheet>
    </form>
  );
}
