/** One harvest: its drying log, the snap test, and the lot it becomes. */
import { Link } from "react-router";
import { isKeyOf } from "#core/objects";
import { DRYING_METHODS, dryingState, HERB_VALUES, harvestValue, type HerbValue } from "#core/infusion/drying";
import { micros } from "#core/measure/exact";
import { money } from "#core/measure/money";
import { grams } from "#core/measure/write";
import { finishHarvest, listHarvests, weighHarvest } from "#db/shelf/harvests";
import { replacementCosts } from "#db/ledger/lots";
import { cachedSettings } from "#db/settings/settings";
import { today } from "#db/clock";
import { boolean, object } from "yup";
import { ActsOf } from "../../book/actsOf.tsx";
import { actsOf } from "../../book/lines.server.ts";
import { db } from "../../server/workshop.server.ts";
import { between, orNothing, readCount, readWeight, parseMoney } from "#core/measure/read";
import { dayField, noteText, oneOf, optional, reads, wholeNumber } from "../../forms/fields.ts";
import { idOf } from "../../forms/ids.ts";
import { runAct, pressedSheet, refuseSheet } from "../../forms/sheet.server.ts";
import { useSheet } from "../../forms/useSheet.ts";
import { LotTag, PerUnit, percent, When } from "../../ui/figures/amounts.tsx";
import { DayText } from "../../ui/fields/dateField.tsx";
import { Button, Choice, Text } from "../../ui/fields/form.tsx";
import { Figure, Reckoner } from "../../ui/figures/reckoner.tsx";
import { Print } from "../../ui/sheet/print.tsx";
import { Heading, Part, Sheet, SideBySide } from "../../ui/sheet/sheet.tsx";
import { Send, SheetSays } from "../../forms/sheetSays.tsx";
import { Table } from "../../ui/lists/table.tsx";
import { useWorkshop } from "../../ui/workshop.ts";
import type { Route } from "./+types/harvest";

export const meta: Route.MetaFunction = () => [{ title: "Harvest · Zelbin" }];

export async function loader({ params }: Route.LoaderArgs) {
  const [[row], settings] = await Promise.all([listHarvests(db(), { id: idOf(params.id) }), cachedSettings(db())]);
  if (!row) throw new Response("Not found", { status: 404 });
  const again = (await replacementCosts(db(), [row.harvest.materialId])).get(row.harvest.materialId) ?? null;
  return {
    ...row,
    again,
    hourly: settings.hourly,
    herbValue: settings.herbValue,
    today: today(),
    book: await actsOf({ kind: "harvest", id: row.harvest.id }),
    token: crypto.randomUUID(),
  };
}

const VALUE_IDS = Object.keys(HERB_VALUES) as HerbValue[];
const weighSchema = object({
  day: dayField(),
  weight: reads(readWeight),
  celsius: optional(between(5, 120, "°C", 1)),
  note: noteText(200),
});
const drySchema = object({
  dry: reads(readWeight),
  snaps: boolean().default(false),
  minutes: wholeNumber(0, 10_000, "minutes", 0),
  valuedBy: oneOf(VALUE_IDS),
  market: optional(parseMoney),
  why: noteText(200),
});

export async function action({ request, params }: Route.ActionArgs) {
  const harvestId = idOf(params.id);
  const pressed = await pressedSheet(request, ["weigh", "dry"]);
  if (!pressed.ok) return pressed.reply;
  if (pressed.intent === "weigh") {
    const s = await pressed.read(weighSchema);
    if (!s.ok) return s.reply;
    if (s.value.day > today()) return refuseSheet([{ field: "day", say: "That day hasn't come yet." }]);
    return runAct(() => weighHarvest(db(), { harvestId, ...s.value }, s.doing));
  }
  const s = await pressed.read(drySchema);
  if (!s.ok) return s.reply;
  const { market, ...v } = s.value;
  if (v.valuedBy === "market" && market === null) return refuseSheet([{ field: "market", say: "Enter what a kilo of it costs to buy." }]);
  return runAct(() =>
    finishHarvest(db(), { harvestId, ...v, market: market === null ? null : { value: market, per: 1_000_000 } }, s.doing),
  );
}

type Data = Route.ComponentProps["loaderData"];

function Weigh({ harvest: h, today: day, token }: Data) {
  const sheet = useSheet(
    { day, weight: "", celsius: h.celsius === null ? "" : String(h.celsius), note: "" },
    { token },
    { draft: `Weighing ${h.name}`, sheet: "weigh" },
  );
  const { errors } = sheet.formState;
  return (
    <form onSubmit={sheet.send("weigh")} className="grid items-end gap-3 sm:grid-cols-[10rem_7rem_6rem_1fr_auto]">
      <DayText label="Day" control={sheet.control} name="day" leaning="past" problem={errors.day?.message} />
      <Text data-amount label="Weighs" placeholder="such as 180 g" {...sheet.register("weight")} problem={errors.weight?.message} />
      <Text data-amount="decimal" label="At, °C" {...sheet.register("celsius")} problem={errors.celsius?.message} />
      <Text label="Note" {...sheet.register("note")} problem={errors.note?.message} />
      <Button type="submit" disabled={sheet.busy}>
        Note it
      </Button>
      <SheetSays sheet={sheet} />
    </form>
  );
}

function Finish({ harvest: h, checks, again, hourly, herbValue, token }: Data) {
  const { currency } = useWorkshop();
  const sheet = useSheet(
    {
      dry: "",
      snaps: false,
      minutes: String(h.minutes),
      valuedBy: herbValue,
      why: "",
      market: again ? (((again.value / again.per) * 1_000_000) / 1e6).toFixed(2) : "",
    },
    { token },
    { draft: `Drying ${h.name}`, sheet: "dry" },
  );
  const v = sheet.values;
  const { errors } = sheet.formState;
  const dry = readWeight(v.dry);
  const last = checks.at(-1);
  const heavier = dry.ok && last !== undefined && dry.value > last.weight;
  const market = parseMoney(v.market || "0");
  const value =
    dry.ok && isKeyOf(HERB_VALUES, v.valuedBy)
      ? harvestValue(v.valuedBy, {
          dry: dry.value,
          minutes: orNothing(v.minutes, readCount, 0),
          hourly: micros(hourly),
          market: market.ok ? { value: market.value, per: 1_000_000 } : null,
        })
      : null;
  return (
    <form onSubmit={sheet.send("dry")} className="mt-7">
      <Part title="Dry? Put it on the shelf">
        <SheetSays sheet={sheet} />
        <div className="grid gap-4 sm:grid-cols-4">
          <Text data-amount label="Dry weight" placeholder="such as 60 g" {...sheet.register("dry")} problem={errors.dry?.message} />
          <Text data-amount label="Minutes in all" {...sheet.register("minutes")} problem={errors.minutes?.message} />
          <Choice label="Valued" options={VALUE_IDS.map((x) => [x, HERB_VALUES[x]] as const)} {...sheet.register("valuedBy")} />
          {v.valuedBy === "market" && (
            <Text data-amount label="A kilo costs to buy" {...sheet.register("market")} problem={errors.market?.message} />
          )}
        </div>
        {heavier && (
          <Text
            className="mt-3 max-w-md"
            label={`Why it is heavier than the ${grams(last.weight)} weighed last`}
            {...sheet.register("why")}
            problem={errors.why?.message}
          />
        )}
        <label className="mt-3 flex items-center gap-2">
          <input type="checkbox" className="h-5 w-5 accent-amber" {...sheet.register("snaps")} /> It snaps: stems break, leaves crumble
        </label>
        <p className="mt-1 text-small text-pine-soft">
          Without the snap it goes on the shelf as not yet dry, and no shelf infusion takes it without a reason.
        </p>
        <div className="mt-4 flex flex-wrap items-center gap-4">
          <Send sheet={sheet}>Put it on the shelf</Send>
          {value !== null && dry.ok && (
            <p>
              Worth {money(value, currency)}, <PerUnit cost={{ value, per: dry.value }} measured="weight" />
            </p>
          )}
        </div>
      </Part>
    </form>
  );
}

export default function Harvest({ loaderData }: Route.ComponentProps) {
  const { harvest: h, material, checks, number, onHand, bestBefore, token } = loaderData;
  const { currency } = useWorkshop();
  const open = h.driedActId === null;
  const state = dryingState(
    h.fresh,
    checks.map((c) => c.weight),
  );
  const now = h.dry ?? checks.at(-1)?.weight ?? h.fresh;
  return (
    <>
      <Heading
        title={material}
        about={
          <>
            Picked <When day={h.picked} />
            {h.place && `, ${h.place}`}
          </>
        }
      >
        <Link to="/shelf/harvests" className="act">
          All harvests
        </Link>
        <Print />
      </Heading>
      <SideBySide
        reckoner={
          <Reckoner>
            <Figure label="Fresh" value={grams(h.fresh)} />
            <Figure label={open ? "Now" : "Dry"} big value={grams(now)} />
            <Figure
              label="Left of the fresh weight"
              value={percent(now / h.fresh, 0)}
              how={<p>Most leaf and flower dry to between a fifth and a quarter; from memory.</p>}
            />
            {open ? (
              <p className="py-2 font-semibold text-honey">{state.say}</p>
            ) : (
              <>
                <Figure label="Snaps" value={h.snaps ? "yes" : "no"} tone={h.snaps ? "good" : "bad"} />
                <Figure label={`Valued ${HERB_VALUES[h.valuedBy!].toLowerCase()}`} value={money(h.value!, currency)} />
                <div className="py-2">{number && <LotTag lot={{ number, onHand: onHand ?? 0, bestBefore, hold: false }} />}</div>
              </>
            )}
          </Reckoner>
        }
      >
        <Sheet>
          <Part title="Drying log">
            <Table
              rows={[
                {
                  id: 0,
                  day: h.picked,
                  weight: h.fresh,
                  celsius: h.celsius,
                  note: `picked, ${DRYING_METHODS[h.method].toLowerCase()}${h.note && ` · ${h.note}`}`,
                },
                ...checks,
              ]}
              by={(c) => c.id}
              columns={[
                { head: "Day", cell: (c) => <When day={c.day} /> },
                { head: "Weighs", as: "weight", cell: (c) => grams(c.weight) },
                { head: "Left", as: "figure", cell: (c) => percent(c.weight / h.fresh, 0) },
                { head: "°C", as: "figure", cell: (c) => c.celsius },
                { head: "Note", plain: true, headClass: "pl-6!", className: "pl-6!", cell: (c) => c.note },
              ]}
            />
            {open && (
              <div className="mt-4" key={token}>
                <Weigh {...loaderData} />
              </div>
            )}
          </Part>
          {open && <Finish {...loaderData} />}
          <ActsOf {...loaderData.book} />
        </Sheet>
      </SideBySide>
    </>
  );
}
