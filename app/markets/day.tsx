/** One market day: what goes along, what was sold, given and damaged, and what the day came to. */
import { micros, mulDiv, type Micros } from "#core/measure/exact";
import { money, moneyField, parseMoney } from "#core/measure/money";
import { dayResult, leftOver } from "#core/market/day";
import { Refused, type FieldProblem } from "#core/refused";
import { useFirst } from "#core/stock/lots";
import { listCabinet } from "#db/cabinet/cabinet";
import { today } from "#db/clock";
import { closeMarketDay, listMarketDays, saveMarketDay } from "#db/markets/markets";
import { chosenPrices } from "#db/prices/prices";
import { readSettings } from "#db/settings";
import { Link } from "react-router";
import { array, object, string } from "yup";
import { db } from "../db.server.ts";
import { dayField, moneyOr0, note, reads, scaled, wholeNumber, words } from "../forms/fields.ts";
import { act, readSheet, refuseSheet } from "../forms/sheet.server.ts";
import { useSheet } from "../forms/useSheet.ts";
import { LotTag, When } from "../ui/amounts.tsx";
import { Area, Button, Problem, Suggestions, Text } from "../ui/form.tsx";
import { LineTable } from "../ui/lines.tsx";
import { Caution, Figure, Heading, HowLine, Part, Reckoner, Sheet, SideBySide } from "../ui/sheet.tsx";
import { useWorkshop } from "../ui/workshop.ts";
import type { Route } from "./+types/day";

export const meta: Route.MetaFunction = ({ data }) => [{ title: `${(data as { day?: { name: string } } | undefined)?.day?.name ?? "Plan a market day"} · Zelbin` }];

export async function loader({ params }: Route.LoaderArgs) {
  const id = "id" in params ? Number(params.id) || 0 : null;
  const [days, cabinet, chosen, settings] = await Promise.all([id === null ? [] : listMarketDays(db(), [id]), listCabinet(db()), chosenPrices(db()), readSettings(db())]);
  if (id !== null && days.length === 0) throw new Response("Not found", { status: 404 });
  const lots = [...cabinet].sort(useFirst).map((l) => ({ id: l.id, number: l.number, of: l.of, name: l.name, fill: l.fill, onHand: l.onHand, value: l.value, bestBefore: l.bestBefore, hold: l.hold, price: chosen.get(l.of)?.market ?? null }));
  return { day: days[0] ?? null, lots, cardFeeBp: settings.cardFeeBp, today: today(), token: crypto.randomUUID() };
}

const count = (what: string) => wholeNumber(0, 10_000, what, 0);
const schema = object({
  intent: string().nullable(),
  name: words("the market", 80), day: dayField(), stallFee: moneyOr0(), travel: moneyOr0(), byCard: moneyOr0(), cardFee: scaled(0, 20, "per cent", 100, 0), hours: scaled(0, 48, "hours", 60, 0), note: note(),
  lines: array().of(object({ lot: note(60), taken: count("units taken"), sold: count("units sold"), given: count("units given"), damaged: count("units damaged"), price: reads((t) => parseMoney(t.trim() === "" ? "0" : t)) })).required(),
});

export async function action({ request, params }: Route.ActionArgs) {
  const sheet = await readSheet(request, schema);
  if (!sheet.ok) return sheet.reply;
  const { intent, lines, cardFee, hours, ...head } = sheet.value;
  const id = "id" in params ? Number(params.id) : undefined;
  const lots = new Map((await listCabinet(db())).map((l) => [l.number.toUpperCase(), l.id]));
  const [before] = id === undefined ? [] : await listMarketDays(db(), [id]);
  for (const l of before?.lines ?? []) lots.set(l.number.toUpperCase(), l.lotId);
  const problems: FieldProblem[] = [];
  const seen = new Set<number>();
  const read = lines.flatMap((l, i) => {
    const typed = l.lot.split(" ")[0]!.toUpperCase();
    if (typed === "") {
      if (l.taken + l.sold + l.given + l.damaged > 0) problems.push({ field: `lines.${i}.lot`, say: "Which lot?" });
      return [];
    }
    const lotId = lots.get(typed);
    if (lotId === undefined) problems.push({ field: `lines.${i}.lot`, say: `No lot ${typed} is in the cabinet.` });
    else if (seen.has(lotId)) problems.push({ field: `lines.${i}.lot`, say: `${typed} stands here twice.` });
    else seen.add(lotId);
    if (leftOver(l) < 0) problems.push({ field: `lines.${i}.sold`, say: `${l.sold + l.given + l.damaged} went, but only ${l.taken} were taken along.` });
    return lotId === undefined ? [] : [{ lotId, taken: l.taken, sold: l.sold, given: l.given, damaged: l.damaged, price: l.price }];
  });
  const takings = read.reduce((a, l) => a + l.sold * l.price, 0);
  if (intent === "close" && head.byCard > takings) problems.push({ field: "byCard", say: "More was paid by card than was taken." });
  if (intent === "close" && head.day > today()) problems.push({ field: "day", say: "That day hasn't come yet; keep it as a plan." });
  if (problems.length > 0) return refuseSheet(problems);
  const input = { ...head, cardFeeBp: cardFee, minutes: hours, lines: read };
  const doing = { day: intent === "close" ? head.day : today(), token: sheet.token };
  return act(() => {
    if (intent === "close" && read.length === 0) throw Refused.one("lines.0.lot", "Enter what was taken along.");
    return intent === "close" ? closeMarketDay(db(), input, doing, id) : saveMarketDay(db(), input, doing, id);
  });
}

const BLANK = { lot: "", taken: "", sold: "", given: "", damaged: "", price: "" };
const whole = (t: string): number => (/^\d+$/.test(t.trim()) ? Number(t) : 0);
const zeroBlank = (n: number): string => (n === 0 ? "" : String(n));

export default function MarketDay({ loaderData: { day, lots, cardFeeBp, today: now, token } }: Route.ComponentProps) {
  const { currency } = useWorkshop();
  const closed = day?.closedActId != null;
  const label = (l: { number: string; name: string; fill: number }): string => `${l.number} ${l.name}`;
  const sheet = useSheet(
    {
      name: day?.name ?? "", day: day?.day ?? now, stallFee: day ? moneyField(day.stallFee) : "", travel: day ? moneyField(day.travel) : "", byCard: day && day.byCard > 0 ? moneyField(day.byCard) : "",
      cardFee: String((day?.cardFeeBp ?? cardFeeBp) / 100), hours: day && day.minutes > 0 ? String(day.minutes / 60) : "", note: day?.note ?? "",
      lines: day && day.lines.length > 0 ? day.lines.map((l) => ({ lot: label(l), taken: zeroBlank(l.taken), sold: zeroBlank(l.sold), given: zeroBlank(l.given), damaged: zeroBlank(l.damaged), price: moneyField(l.price) })) : [BLANK],
    },
    token,
  );
  const v = sheet.values;
  const { errors } = sheet.formState;
  const byNumber = new Map(lots.map((l) => [l.number.toUpperCase(), l]));
  const cash = (t: string): Micros => {
    const m = parseMoney(t || "0");
    return m.ok ? m.value : micros(0);
  };
  const rows = v.lines.map((l, i) => {
    const lot = byNumber.get(l.lot.split(" ")[0]!.toUpperCase());
    const line = { taken: whole(l.taken), sold: whole(l.sold), given: whole(l.given), damaged: whole(l.damaged), price: cash(l.price) };
    const out = line.sold + line.given + line.damaged;
    const gone = closed ? (day!.lines[i]?.gone ?? micros(0)) : lot && lot.onHand > 0 ? micros(mulDiv(lot.value, Math.min(out, lot.onHand), lot.onHand)) : micros(0);
    return { ...line, lot, gone };
  });
  const hours = Number(v.hours.replace(",", ".")) || 0;
  const result = dayResult({ lines: rows, stallFee: cash(v.stallFee), travel: cash(v.travel), byCard: cash(v.byCard), cardFeeBp: Math.round((Number(v.cardFee.replace(",", ".")) || 0) * 100), hours });
  const carry = rows.reduce((a, r) => a + r.taken * r.price, 0);

  const onPicked = (row: number, key: string, value: string): void => {
    const lot = key === "lot" ? byNumber.get(value.split(" ")[0]!.toUpperCase()) : undefined;
    if (lot && lot.price !== null && sheet.getValues(`lines.${row}.price`) === "") sheet.setValue(`lines.${row}.price`, moneyField(lot.price));
  };

  return (
    <form onSubmit={sheet.send("close")}>
      <Heading title={day?.name ?? "Plan a market day"} about={day ? <><When day={day.day} />{closed ? ", closed." : ". Stock stays in the cabinet until the day is closed."}</> : "Note what goes along now; come back with what was sold."}>
        <Link to="/markets" className="act">
          All days
        </Link>
        {!closed && (
          <>
            <Button onClick={() => void sheet.send("keep")()} disabled={sheet.busy} main={!day}>
              Keep as it is
            </Button>
            <Button type="submit" main={!!day} disabled={sheet.busy}>
              Close the day
            </Button>
          </>
        )}
      </Heading>
      <SideBySide
        reckoner={
          <Reckoner>
            <Figure label="Takings" value={money(result.takings, currency)} how={rows.filter((r) => r.sold > 0).map((r, i) => <HowLine key={i} label={`${r.sold} × ${money(r.price, currency)}`} value={money(r.sold * r.price, currency)} />)} />
            <Figure label="Stock that went" value={`− ${money(result.stockCost, currency)}`} how={<p>What the materials of all units cost that were sold, given and damaged, lot by lot.</p>} />
            <Figure label="Stall fee" value={`− ${money(cash(v.stallFee), currency)}`} />
            <Figure label="Travel" value={`− ${money(cash(v.travel), currency)}`} />
            <Figure label="Card fee" value={`− ${money(result.cardFee, currency)}`} how={<HowLine label={`${v.cardFee || 0} % of`} value={money(cash(v.byCard), currency)} />} />
            <Figure label="Profit" big tone={result.profit < 0 ? "bad" : "good"} value={money(result.profit, currency)} />
            <Figure label="Each hour there" value={result.perHour === null ? "—" : money(result.perHour, currency)} how={<p>{hours ? `Over ${hours} hours on the stall and the road.` : "Enter the hours to see it."} The hours of making are not in it.</p>} />
            <Figure label="On the stall, at full price" value={money(carry, currency)} />
          </Reckoner>
        }
      >
        <Sheet>
          <Problem say={sheet.problem} />
          <fieldset disabled={closed} className="contents">
            <div className="mb-6 grid grid-cols-2 gap-4 sm:grid-cols-4">
              <Text label="Market" className="col-span-2" {...sheet.register("name")} problem={errors.name?.message} />
              <Text label="Day" type="date" {...sheet.register("day")} problem={errors.day?.message} />
              <Text label="Hours, with the drive" placeholder="6" {...sheet.register("hours")} problem={errors.hours?.message} />
              <Text label="Stall fee" placeholder="0.00" {...sheet.register("stallFee")} problem={errors.stallFee?.message} />
              <Text label="Travel" placeholder="0.00" {...sheet.register("travel")} problem={errors.travel?.message} />
              <Text label="Paid by card" placeholder="0.00" {...sheet.register("byCard")} problem={errors.byCard?.message} />
              <Text label="Card fee, %" {...sheet.register("cardFee")} problem={errors.cardFee?.message} />
            </div>
            <Part title="The stall">
              <LineTable
                form={sheet}
                name="lines"
                blank={BLANK}
                addLabel="Add a lot"
                fixed={closed}
                onPicked={onPicked}
                columns={[
                  { key: "lot", label: "Lot", list: "finished", width: "36%" },
                  { key: "taken", label: "Taken", right: true },
                  { key: "sold", label: "Sold", right: true },
                  { key: "given", label: "Given", right: true },
                  { key: "damaged", label: "Damaged", right: true },
                  { key: "price", label: "Price", right: true, width: "5.5rem" },
                ]}
                derived={[
                  { label: "Home", cell: (i) => { const r = rows[i]; if (!r) return ""; const left = leftOver(r); return <span className={left < 0 ? "font-semibold text-berry" : ""}>{r.taken ? left : ""}</span>; } },
                  { label: "Here", cell: (i) => { const r = rows[i]; return r?.lot ? <span className={!closed && r.taken > r.lot.onHand ? "font-semibold text-honey" : "text-pine-soft"}>{r.lot.onHand}</span> : ""; } },
                ]}
              />
              <Suggestions id="finished" names={lots.map(label)} />
            </Part>
            <Area className="mt-5" label="Notes" hint="Weather, what people asked for." {...sheet.register("note")} problem={errors.note?.message} />
          </fieldset>
          {closed && (
            <Part title="Lots that went along">
              <p className="flex flex-wrap gap-2">
                {day!.lines.map((l) => (
                  <LotTag key={l.id} lot={{ ...l, hold: false }} />
                ))}
              </p>
            </Part>
          )}
          {!closed && <div className="mt-5"><Caution>Above about 28 °C whipped butter and soft balms melt on the stall: keep them in the shade or leave them at home.</Caution></div>}
        </Sheet>
      </SideBySide>
      {!closed && lots.length === 0 && <p className="mt-4 text-pine-soft">The cabinet is empty, so there is nothing to take along yet.</p>}
    </form>
  );
}
