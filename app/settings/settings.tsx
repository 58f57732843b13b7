/** The workshop's own choices. */
import { NET_RULE_IDS, NET_RULES } from "#core/batch/finishing/netWeight";
import { HERB_VALUES, type HerbValue } from "#core/infusion/drying";
import { refuse } from "#core/outcome";
import { isChecked, lotNumber, readScheme } from "#core/lot/number";
import { parseMoney } from "#core/measure/read";
import { PRICE_POINTS, type PricePoint } from "#core/pricing/rounding";
import { CHANNELS, CHANNEL_IDS, type Channel, type ChannelId } from "#core/pricing/pricingMethods";
import { wordList } from "#core/words";
import { showScale } from "#core/recipe/scale";
import { NUMBER_HABIT_IDS, NUMBER_HABITS } from "#core/measure/habit";
import { DATE_STYLE_IDS, DATE_STYLES } from "#core/typedDay";
import { COSTING_METHODS, COSTING_METHOD_IDS } from "#core/stock/costingMethods";
import { PAPER_SIZE_IDS, PAPER_SIZES } from "#core/settings/settings";
import { cachedSettings, moneyIsIn, saveSettings, SETTINGS } from "#db/settings/settings";
import { Link } from "react-router";
import { object } from "yup";
import { db, serving } from "../server/workshop.server.ts";
import { noteText, oneOf, reads, scaled, wholeNumber, requiredText } from "../forms/fields.ts";
import { openSheet } from "../forms/openSheet.server.ts";
import { runAct, readSheet } from "../forms/sheet.server.ts";
import { useSheet } from "../forms/useSheet.ts";
import { Area, Choice, Problem, Text } from "../ui/fields/form.tsx";
import { ActsOf } from "../book/actsOf.tsx";
import { actsOf } from "../book/lines.server.ts";
import { Heading, Part, Sheet } from "../ui/sheet/sheet.tsx";
import { Send, SheetSays } from "../forms/sheetSays.tsx";
import { CURRENCIES } from "../ui/fields/currencies.ts";
import { Table } from "../ui/lists/table.tsx";
import { useWorkshop } from "../ui/workshop.ts";
import { BooksIn } from "../workshops/booksIn.tsx";
import { FIELD_NAMES, settingsTexts } from "./settingsTexts.ts";
import { SCALES, scaleOf } from "./scales.ts";
import type { Route } from "./+types/settings";

export const meta: Route.MetaFunction = () => [{ title: "Settings · Zelbin" }];
export const loader = async () => ({
  settings: await cachedSettings(db()),
  fixed: await moneyIsIn(db()),
  opened: await openSheet(SETTINGS),
  book: await actsOf(SETTINGS),
  // The demo's books are thrown away with a press; nobody looks for them.
  booksIn: serving().kind === "own" ? (serving().house?.where ?? null) : null,
});

const CHECK_FIRST = [
  ["once", "At once"],
  ["first", "After its check"],
] as const;
const POINT_IDS = Object.keys(PRICE_POINTS) as PricePoint[];

const HERB_VALUE_IDS = Object.keys(HERB_VALUES) as HerbValue[];

const channel = () => object({ share: scaled(1, 300, "per cent", 100), fee: scaled(0, 50, "per cent", 100, 0), point: oneOf(POINT_IDS) });
const schema = object({
  workshop: requiredText("a name", 60),
  currency: oneOf(CURRENCIES),
  school: oneOf(COSTING_METHOD_IDS),
  hourly: reads(parseMoney),
  overheadHourly: reads(parseMoney),
  batchScheme: reads(readScheme),
  receiptScheme: reads(readScheme),
  jarScheme: reads((t) =>
    isChecked(t) ? refuse("badScheme", "Bottles add a letter to the jar's number, so that it takes no check character.") : readScheme(t),
  ),
  herbValue: oneOf(HERB_VALUE_IDS),
  leadDays: wholeNumber(0, 180, "days"),
  coverDays: wholeNumber(1, 730, "days"),
  scale: oneOf(SCALES.map((x) => x.id)),
  paper: oneOf(PAPER_SIZE_IDS),
  netRule: oneOf(NET_RULE_IDS),
  checkFirst: oneOf(CHECK_FIRST.map(([x]) => x)),
  dates: oneOf(DATE_STYLE_IDS),
  numbers: oneOf(NUMBER_HABIT_IDS),
  maker: requiredText("who does the work", 60),
  reachUs: noteText(300),
  cardFee: scaled(0, 20, "per cent", 100, 0),
  multiple: scaled(1, 20, "times", 100),
  margin: scaled(0, 90, "per cent", 100),
  channels: object(Object.fromEntries(CHANNEL_IDS.map((c) => [c, channel()])) as Record<ChannelId, ReturnType<typeof channel>>),
});

export async function action({ request }: Route.ActionArgs) {
  const sheet = await readSheet(request, schema);
  if (!sheet.ok) return sheet.reply;
  const { cardFee, multiple, margin, channels, scale, checkFirst, ...rest } = sheet.value;
  const rules = Object.fromEntries(
    CHANNEL_IDS.map((c): [ChannelId, Channel] => [c, { shareBp: channels[c].share, feeBp: channels[c].fee, point: channels[c].point }]),
  ) as Record<ChannelId, Channel>;
  const data = {
    ...rest,
    checkFirst: checkFirst === "first",
    scale: scaleOf(scale),
    cardFeeBp: cardFee,
    pricing: { multipleHundredths: multiple, marginBp: margin, channels: rules },
  };
  return runAct(() => saveSettings(db(), data, sheet.doing), { theirs: async () => settingsTexts(await cachedSettings(db())) });
}

// What was saved meanwhile, or taken back, is on a fresh sheet.
export default function SettingsPage({ loaderData }: Route.ComponentProps) {
  return <SettingsSheet key={loaderData.opened.seen} {...loaderData} />;
}

function SettingsSheet({ settings: s, fixed, opened: sheetOpened, book, booksIn }: Route.ComponentProps["loaderData"]) {
  const { today: day } = useWorkshop();
  const sheet = useSheet(settingsTexts(s), sheetOpened, { draft: "Settings" });
  const { batchScheme, receiptScheme, jarScheme } = sheet.values;
  const { errors } = sheet.formState;
  const example = (scheme: string, code: string): string =>
    readScheme(scheme).ok ? `The next one today would be like ${lotNumber(scheme, { code, day, serial: 1 })}.` : "";
  return (
    <form onSubmit={sheet.send()} className="max-w-4xl">
      <Heading title="Settings">
        <Send sheet={sheet}>Save</Send>
      </Heading>
      <Sheet>
        <SheetSays sheet={sheet} names={FIELD_NAMES} />
        <Part title="Workshop">
          <div className="grid gap-4 sm:grid-cols-3">
            <Text label="Name" {...sheet.register("workshop")} problem={errors.workshop?.message} />
            <Choice
              label="Currency"
              options={(fixed ? [s.currency] : CURRENCIES).map((c) => [c, c] as const)}
              hint={fixed ? "Fixed: there is money in the books." : undefined}
              {...sheet.register("currency")}
              problem={errors.currency?.message}
            />
            <Text
              label="Who does the work"
              hint="Shown in the book with what was done."
              {...sheet.register("maker")}
              problem={errors.maker?.message}
            />
            <Area
              label="How customers reach you"
              className="sm:col-span-2"
              placeholder="such as an address, a telephone number, an e-mail address"
              hint="Printed on recall letters and on what goes with an order."
              {...sheet.register("reachUs")}
              problem={errors.reachUs?.message}
            />
            <Choice
              label="The scale reads to"
              hint="In ounces, grams are shown beside them."
              options={SCALES.map((x) => [x.id, showScale(x.scale)] as const)}
              {...sheet.register("scale")}
            />
            <Choice
              label="Paper"
              hint="What is saved as PDF is of this size."
              options={PAPER_SIZE_IDS.map((x) => [x, PAPER_SIZES[x]] as const)}
              {...sheet.register("paper")}
              problem={errors.paper?.message}
            />
            <Choice
              label="Net weights by the rule of"
              hint={`What is filled is judged by it: ${wordList(NET_RULE_IDS.map((x) => NET_RULES[x].source))}.`}
              options={NET_RULE_IDS.map((x) => [x, NET_RULES[x].say] as const)}
              {...sheet.register("netRule")}
              problem={errors.netRule?.message}
            />
            <Choice
              label="What is poured can be sold"
              hint="After its check means on hold until somebody releases it."
              options={CHECK_FIRST}
              {...sheet.register("checkFirst")}
              problem={errors.checkFirst?.message}
            />
            <Choice
              label="Days are written"
              options={DATE_STYLE_IDS.map((x) => [x, DATE_STYLES[x]] as const)}
              {...sheet.register("dates")}
              problem={errors.dates?.message}
            />
            <Choice
              label="Numbers are typed"
              hint="Where 1,234 could be two numbers. Files for spreadsheets have numbers like it."
              options={NUMBER_HABIT_IDS.map((x) => [x, NUMBER_HABITS[x].say] as const)}
              {...sheet.register("numbers")}
              problem={errors.numbers?.message}
            />
          </div>
        </Part>
        {booksIn !== null && (
          <Part title="Where the books are">
            <p>
              All that you enter is saved in <BooksIn where={booksIn} />. Every copy of Zelbin on this machine opens it there. Copies of all
              of it are under{" "}
              <Link to="/backups" className="text-amber underline underline-offset-4">
                Backups
              </Link>
              .
            </p>
          </Part>
        )}
        <Part title="Costing">
          <div className="grid gap-4 sm:grid-cols-3">
            <Choice
              label="What a gram costs"
              hint="Used wherever one figure is shown; recipes show all three."
              options={COSTING_METHOD_IDS.map((x) => [x, COSTING_METHODS[x]] as const)}
              {...sheet.register("school")}
            />
            <Text data-amount label="An hour of your work" {...sheet.register("hourly")} problem={errors.hourly?.message} />
            <Text
              data-amount
              label="Overhead for each hour"
              hint="Power, rent, insurance."
              {...sheet.register("overheadHourly")}
              problem={errors.overheadHourly?.message}
            />
          </div>
        </Part>
        <Part title="Lot numbers">
          <p className="mb-3 text-pine-soft">
            <span className="weight">{"{P}"}</span> product letters, <span className="weight">{"{YYYY} {YY} {MM} {DD}"}</span> the date,{" "}
            <span className="weight">{"{DDD}"}</span> day of the year, <span className="weight">{"{N} {NN} {NNN}"}</span> running number; at
            the end, if you like, <span className="weight">{"{C}"}</span> a check character, which shows when a number was copied wrong.
          </p>
          <div className="grid gap-4 sm:grid-cols-3">
            <Text
              label="Batches"
              hint={example(batchScheme, "HB")}
              className="[&_input]:font-mono"
              {...sheet.register("batchScheme")}
              problem={errors.batchScheme?.message}
            />
            <Text
              label="What is received"
              hint={example(receiptScheme, "WA")}
              className="[&_input]:font-mono"
              {...sheet.register("receiptScheme")}
              problem={errors.receiptScheme?.message}
            />
            <Text
              label="Jars"
              hint={`${example(jarScheme, "J")} Bottles add A, B, C.`}
              className="[&_input]:font-mono"
              {...sheet.register("jarScheme")}
              problem={errors.jarScheme?.message}
            />
          </div>
        </Part>
        <Part title="Buying and growing">
          <div className="grid gap-4 sm:grid-cols-3">
            <Text
              data-amount
              label="Days from ordering to delivery"
              hint="When to remind follows from what is used over this time, doubled for safety."
              {...sheet.register("leadDays")}
              problem={errors.leadDays?.message}
            />
            <Text data-amount label="Days an order should last" {...sheet.register("coverDays")} problem={errors.coverDays?.message} />
            <Choice
              label="Own herbs go on the shelf"
              hint="Each harvest can be valued another way."
              options={HERB_VALUE_IDS.map((v) => [v, HERB_VALUES[v].toLowerCase()] as const)}
              {...sheet.register("herbValue")}
            />
          </div>
        </Part>
        <Part title="Pricing">
          <div className="mb-4 grid gap-4 sm:grid-cols-3">
            <Text data-amount="decimal" label="Material cost times" {...sheet.register("multiple")} problem={errors.multiple?.message} />
            <Text data-amount="decimal" label="Target margin, %" {...sheet.register("margin")} problem={errors.margin?.message} />
            <Text data-amount="decimal" label="Card fee at markets, %" {...sheet.register("cardFee")} problem={errors.cardFee?.message} />
          </div>
          <Table
            rows={CHANNEL_IDS}
            by={(c) => c}
            columns={[
              { head: "Channel", cell: (c) => CHANNELS[c] },
              {
                head: "% of the full price",
                cell: (c) => (
                  <>
                    <input
                      data-amount="decimal"
                      className="cell"
                      aria-label={`${CHANNELS[c]}: share of the full price`}
                      {...sheet.register(`channels.${c}.share`)}
                    />
                    <Problem say={errors.channels?.[c]?.share?.message} />
                  </>
                ),
              },
              {
                head: "Fee of each sale, %",
                cell: (c) => (
                  <>
                    <input
                      data-amount="decimal"
                      className="cell"
                      aria-label={`${CHANNELS[c]}: fee`}
                      {...sheet.register(`channels.${c}.fee`)}
                    />
                    <Problem say={errors.channels?.[c]?.fee?.message} />
                  </>
                ),
              },
              {
                head: "Rounded to",
                cell: (c) => (
                  <select className="cell" aria-label={`${CHANNELS[c]}: rounded to`} {...sheet.register(`channels.${c}.point`)}>
                    {POINT_IDS.map((p) => (
                      <option key={p} value={p}>
                        {PRICE_POINTS[p].label}
                      </option>
                    ))}
                  </select>
                ),
              },
            ]}
          />
        </Part>
        <ActsOf {...book} />
      </Sheet>
    </form>
  );
}
