/** The sheet of a market day that isn't closed: what goes along, what became of it, and the Reckoner beside it. */
import { Link } from "react-router";
import { micros, mulDiv, type Micros } from "#core/measure/exact";
import { moneyField } from "#core/measure/money";
import { firstUnread, orNothing, readCount, readPlain, parseMoney } from "#core/measure/read";
import { done, refuse } from "#core/outcome";
import { dayResult, leftOver } from "#core/market/day";
import { readDay } from "#core/when";
import { useMemo } from "react";
import { ActsOf, Restatements } from "../book/actsOf.tsx";
import { useSheet } from "../forms/useSheet.ts";
import { When, useSayDay } from "../ui/figures/amounts.tsx";
import { FindText, nameCell } from "../names/combo.tsx";
import { MARKETS } from "../names/finds.ts";
import type { Finds } from "../names/name.ts";
import { DayText } from "../ui/fields/dateField.tsx";
import { Area, Button, Text } from "../ui/fields/form.tsx";
import { LineTable } from "../ui/fields/lines.tsx";
import { Print } from "../ui/sheet/print.tsx";
import { Caution, Heading, Part, Sheet, SideBySide } from "../ui/sheet/sheet.tsx";
import { HeldBack, SheetSays } from "../forms/sheetSays.tsx";
import { Tip } from "../ui/sheet/tip.tsx";
import { useWorkshop } from "../ui/workshop.ts";
import { DayReckoner } from "./dayReckoner.tsx";
import { BLANK, lotLabel } from "./dayTexts.ts";
import type { Route } from "./+types/day";

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

export function DaySheet({ day, texts, lots, opened, book, righted }: Route.ComponentProps["loaderData"]) {
  const sheet = useSheet(texts, opened, { draft: (v) => v.name || "A market day" });
  const v = sheet.values;
  const { errors } = sheet.formState;
  const sayIt = useSayDay();
  const finished = useMemo(
    (): Finds => ({
      of: "these",
      names: lots.map((l) => ({
        name: lotLabel(l),
        first: l.free > 0,
        aside: `${l.free} free`,
        about: l.bestBefore ? `best before ${sayIt(l.bestBefore)}` : undefined,
      })),
    }),
    [lots, sayIt],
  );
  const byNumber = new Map(lots.map((l) => [l.number.toUpperCase(), l]));
  const cash = (t: string): Micros => orNothing(t, parseMoney, micros(0));
  const whole = (t: string): number => orNothing(t, readCount, 0);
  const rows = v.lines.map((l) => {
    const lot = byNumber.get(l.lot.trim().split(" ")[0]!.toUpperCase());
    const line = { taken: whole(l.taken), sold: whole(l.sold), given: whole(l.given), damaged: whole(l.damaged), price: cash(l.price) };
    const out = line.sold + line.given + line.damaged;
    const gone = lot && lot.onHand > 0 ? micros(mulDiv(lot.value, Math.min(out, lot.onHand), lot.onHand)) : micros(0);
    return { ...line, lot, gone, costKnown: lot?.costKnown };
  });
  const hours = orNothing(v.hours, readPlain, 0);
  const costs = {
    stallFee: cash(v.stallFee),
    travel: cash(v.travel),
    byCard: cash(v.byCard),
    cardFeeBp: Math.round(orNothing(v.cardFee, readPlain, 0) * 100),
  };
  const result = dayResult({ lines: rows, ...costs, hours });
  const row = (what: string, i: number): string => `${what}, row ${i + 1}`;
  const unread = firstUnread([
    ["Stall fee", v.stallFee, parseMoney],
    ["Travel", v.travel, parseMoney],
    ["Paid by card", v.byCard, parseMoney],
    ["Card fee", v.cardFee, readPlain],
    ["Hours", v.hours, readPlain],
    ...v.lines.flatMap((l, i) => [
      [row("Lot", i), l.lot, (t: string) => (rows[i]!.lot ? done(t) : refuse("lot", "It isn't in the cabinet."))] as const,
      [row("Taken", i), l.taken, readCount] as const,
      [row("Sold", i), l.sold, readCount] as const,
      [row("Given", i), l.given, readCount] as const,
      [row("Damaged", i), l.damaged, readCount] as const,
      [row("Price", i), l.price, parseMoney] as const,
      [
        row("Sold", i),
        l.taken,
        (t: string) => (leftOver(rows[i]!) < 0 ? refuse("more", "More went than was taken along.") : done(t)),
      ] as const,
    ]),
  ]);

  const onPicked = (row: number, key: string, value: string): void => {
    const lot = key === "lot" ? byNumber.get(value.split(" ")[0]!.toUpperCase()) : undefined;
    if (lot && lot.price !== null && sheet.getValues(`lines.${row}.price`) === "")
      sheet.setValue(`lines.${row}.price`, moneyField(lot.price));
  };

  // A day that lies ahead is planned; there is nothing to close yet.
  const { today } = useWorkshop();
  const typed = readDay(sheet.values.day);
  const closes = typed.ok && typed.value <= today;
  return (
    <form onSubmit={sheet.send("keep")}>
      <Heading
        title={day?.name ?? "Plan a market day"}
        about={
          day ? (
            <>
              <When day={day.day} />. Stock stays in the cabinet until the day is closed.
            </>
          ) : (
            "Note what goes along now; come back with what was sold."
          )
        }
      >
        <Link to="/markets" className="act">
          All days
        </Link>
        {day && <Print pdf={sheet.formState.isDirty ? undefined : `/markets/${day.id}/pdf`} />}
        <Button type="submit" disabled={sheet.busy} main={!closes || day === null}>
          Save the day
        </Button>
        {closes && (
          <Button main={day !== null} disabled={sheet.busy} onClick={() => void sheet.send("close")()}>
            Close the day
          </Button>
        )}
        <HeldBack sheet={sheet} />
      </Heading>
      <SideBySide reckoner={<DayReckoner result={result} lines={rows} {...costs} hours={hours} unread={unread} />}>
        <Sheet>
          <SheetSays sheet={sheet} names={FIELD_NAMES} />
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
            <Text
              data-amount="decimal"
              label="Hours, with the drive"
              placeholder="such as 6"
              {...sheet.register("hours")}
              problem={errors.hours?.message}
            />
            <Text data-amount label="Stall fee" placeholder="none" {...sheet.register("stallFee")} problem={errors.stallFee?.message} />
            <Text data-amount label="Travel" placeholder="none" {...sheet.register("travel")} problem={errors.travel?.message} />
            <Text data-amount label="Paid by card" placeholder="none" {...sheet.register("byCard")} problem={errors.byCard?.message} />
            <Text data-amount="decimal" label="Card fee, %" {...sheet.register("cardFee")} problem={errors.cardFee?.message} />
          </div>
          <Part title="The stall">
            <LineTable
              form={sheet.form}
              name="lines"
              blank={BLANK}
              addLabel="Add a lot"
              onPicked={onPicked}
              columns={[
                { key: "lot", label: "Lot", own: nameCell(finished), width: "44%" },
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
                  label: "Free",
                  cell: (i) => {
                    const r = rows[i];
                    return (
                      r?.lot && (
                        <Tip says={`${r.lot.onHand} here, ${r.lot.free} of them free to go along`}>
                          <span className={r.taken > r.lot.free ? "font-semibold text-honey" : "text-pine-soft"}>{r.lot.free}</span>
                        </Tip>
                      )
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
          <Restatements rows={righted} />
          {rows
            .filter((r) => r.lot?.waits && r.taken > 0)
            .map((r) => (
              <Caution key={r.lot!.id}>
                Lot {r.lot!.number} {r.lot!.waits}: take it along once that is done.
              </Caution>
            ))}
          {book && <ActsOf {...book} />}
          <div className="mt-5">
            <Caution>
              Above about 28 °C whipped butter and soft balms melt on the stall: keep them in the shade or leave them at home.
            </Caution>
          </div>
        </Sheet>
      </SideBySide>
      {lots.length === 0 && <p className="mt-4 text-pine-soft">The cabinet is empty, so there is nothing to take along yet.</p>}
    </form>
  );
}
