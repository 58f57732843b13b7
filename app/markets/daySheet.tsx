/** The sheet of a market day: what goes along, what became of it, and the Reckoner beside it. */
import { micros, mulDiv, type Micros } from "#core/measure/exact";
import { money, moneyField, parseMoney } from "#core/measure/money";
import { dayResult, leftOver } from "#core/market/day";
import { sayDay } from "#core/when";
import { useMemo } from "react";
import { Link } from "react-router";
import { ActsOf, PutRight } from "../book/actsOf.tsx";
import { useSheet } from "../forms/useSheet.ts";
import { LotTag, When } from "../ui/amounts.tsx";
import { FindText } from "../names/combo.tsx";
import { MARKETS } from "../names/finds.ts";
import type { Finds } from "../names/name.ts";
import { DayText } from "../ui/dateField.tsx";
import { Area, Button, Text } from "../ui/form.tsx";
import { LineTable } from "../ui/lines.tsx";
import { Caution, Figure, Heading, HowLine, Part, Reckoner, Sheet, SideBySide } from "../ui/sheet.tsx";
import { HeldBack, SheetSays } from "../ui/sheetSays.tsx";
import { useWorkshop } from "../ui/workshop.ts";
import { BLANK, dayTexts, lotLabel } from "./dayTexts.ts";
import type { Route } from "./+types/day";

const whole = (t: string): number => (/^\d+$/.test(t.trim()) ? Number(t) : 0);

const FIELD_NAMES = {
  name: "Market",
  day: "Day",
  stallFee: "Stall fee",
  travel: "Travel",
  byCard: "Paid by card",
  cardFee: "Card fee, %",
  hours: "Hours",
  note: "Notes",
  lines: "The stall",
};

export function DaySheet({ day, lots, cardFeeBp, today: now, opened, book, righted }: Route.ComponentProps["loaderData"]) {
  const { currency } = useWorkshop();
  const closed = day?.closedActId != null;
  const sheet = useSheet(dayTexts(day, { today: now, cardFeeBp }), opened, { draft: (v) => v.name || "A market day" });
  const v = sheet.values;
  const { errors } = sheet.formState;
  const finished = useMemo(
    (): Finds => ({
      of: "these",
      names: lots.map((l) => ({
        name: lotLabel(l),
        first: l.free > 0,
        aside: `${l.free} free`,
        about: l.bestBefore ? `best before ${sayDay(l.bestBefore, now)}` : undefined,
      })),
    }),
    [lots, now],
  );
  const byNumber = new Map(lots.map((l) => [l.number.toUpperCase(), l]));
  const cash = (t: string): Micros => {
    const m = parseMoney(t || "0");
    return m.ok ? m.value : micros(0);
  };
  const rows = v.lines.map((l, i) => {
    const lot = byNumber.get(l.lot.split(" ")[0]!.toUpperCase());
    const line = { taken: whole(l.taken), sold: whole(l.sold), given: whole(l.given), damaged: whole(l.damaged), price: cash(l.price) };
    const out = line.sold + line.given + line.damaged;
    const gone = closed
      ? (day.lines[i]?.gone ?? micros(0))
      : lot && lot.onHand > 0
        ? micros(mulDiv(lot.value, Math.min(out, lot.onHand), lot.onHand))
        : micros(0);
    return { ...line, lot, gone };
  });
  const hours = Number(v.hours.replace(",", ".")) || 0;
  const result = dayResult({
    lines: rows,
    stallFee: cash(v.stallFee),
    travel: cash(v.travel),
    byCard: cash(v.byCard),
    cardFeeBp: Math.round((Number(v.cardFee.replace(",", ".")) || 0) * 100),
    hours,
  });
  const carry = rows.reduce((a, r) => a + r.taken * r.price, 0);

  const onPicked = (row: number, key: string, value: string): void => {
    const lot = key === "lot" ? byNumber.get(value.split(" ")[0]!.toUpperCase()) : undefined;
    if (lot && lot.price !== null && sheet.getValues(`lines.${row}.price`) === "")
      sheet.setValue(`lines.${row}.price`, moneyField(lot.price));
  };

  return (
    <form onSubmit={sheet.send("close")}>
      <Heading
        title={day?.name ?? "Plan a market day"}
        about={
          day ? (
            <>
              <When day={day.day} />
              {closed ? ", closed." : ". Stock stays in the cabinet until the day is closed."}
            </>
          ) : (
            "Note what goes along now; come back with what was sold."
          )
        }
      >
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
            <HeldBack sheet={sheet} />
          </>
        )}
      </Heading>
      <SideBySide
        reckoner={
          <Reckoner>
            <Figure
              label="Takings"
              value={money(result.takings, currency)}
              how={rows
                .filter((r) => r.sold > 0)
                .map((r, i) => (
                  <HowLine key={i} label={`${r.sold} × ${money(r.price, currency)}`} value={money(r.sold * r.price, currency)} />
                ))}
            />
            <Figure
              label="Stock that went"
              value={`− ${money(result.stockCost, currency)}`}
              how={<p>What the materials of all units cost that were sold, given and damaged, lot by lot.</p>}
            />
            <Figure label="Stall fee" value={`− ${money(cash(v.stallFee), currency)}`} />
            <Figure label="Travel" value={`− ${money(cash(v.travel), currency)}`} />
            <Figure
              label="Card fee"
              value={`− ${money(result.cardFee, currency)}`}
              how={<HowLine label={`${v.cardFee || 0} % of`} value={money(cash(v.byCard), currency)} />}
            />
            <Figure label="Profit" big tone={result.profit < 0 ? "bad" : "good"} value={money(result.profit, currency)} />
            <Figure
              label="Each hour there"
              value={result.perHour === null ? "—" : money(result.perHour, currency)}
              how={
                <p>
                  {hours ? `Over ${hours} hours on the stall and the road.` : "Enter the hours to see it."} The hours of making are not in
                  it.
                </p>
              }
            />
            <Figure label="On the stall, at full price" value={money(carry, currency)} />
          </Reckoner>
        }
      >
        <Sheet>
          <SheetSays sheet={sheet} names={FIELD_NAMES} />
          <fieldset disabled={closed} className="contents">
            <div className="mb-6 grid grid-cols-2 gap-4 sm:grid-cols-4">
              <FindText
                control={sheet.control}
                name="name"
                finds={MARKETS}
                label="Market"
                className="col-span-2"
                problem={errors.name?.message}
              />
              <DayText label="Day" control={sheet.control} name="day" leaning="near" problem={errors.day?.message} />
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
                  { key: "lot", label: "Lot", finds: finished, width: "44%" },
                  { key: "taken", label: "Taken", right: true },
                  { key: "sold", label: "Sold", right: true },
                  { key: "given", label: "Given", right: true },
                  { key: "damaged", label: "Damaged", right: true },
                  { key: "price", label: "Price", right: true, width: "5.5rem" },
                ]}
                derived={[
                  {
                    label: "Home",
                    cell: (i) => {
                      const r = rows[i];
                      if (!r) return "";
                      const left = leftOver(r);
                      return <span className={left < 0 ? "font-semibold text-berry" : ""}>{r.taken ? left : ""}</span>;
                    },
                  },
                  {
                    label: closed ? "Here" : "Free",
                    cell: (i) => {
                      const r = rows[i];
                      return r?.lot ? (
                        <span
                          className={!closed && r.taken > r.lot.free ? "font-semibold text-honey" : "text-pine-soft"}
                          title={`${r.lot.onHand} here, ${r.lot.free} of them free to go along`}
                        >
                          {closed ? r.lot.onHand : r.lot.free}
                        </span>
                      ) : (
                        ""
                      );
                    },
                  },
                ]}
              />
            </Part>
            <Area
              className="mt-5"
              label="Notes"
              hint="Weather, what people asked for."
              {...sheet.register("note")}
              problem={errors.note?.message}
            />
          </fieldset>
          {closed && (
            <Part title="Lots that went along">
              <p className="flex flex-wrap gap-2">
                {day.lines.map((l) => (
                  <LotTag key={l.id} lot={l} />
                ))}
              </p>
            </Part>
          )}
          <PutRight rows={righted} />
          {book && <ActsOf {...book} />}
          {!closed && (
            <div className="mt-5">
              <Caution>
                Above about 28 °C whipped butter and soft balms melt on the stall: keep them in the shade or leave them at home.
              </Caution>
            </div>
          )}
        </Sheet>
      </SideBySide>
      {!closed && lots.length === 0 && <p className="mt-4 text-pine-soft">The cabinet is empty, so there is nothing to take along yet.</p>}
    </form>
  );
}
