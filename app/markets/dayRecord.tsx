/** A market day that is closed, to be read and printed. */
import { Link } from "react-router";
import { dayResult, leftOver, salesOf } from "#core/market/day";
import { money } from "#core/measure/money";
import { ActsOf, Restatements } from "../book/actsOf.tsx";
import { LotTag, When } from "../ui/figures/amounts.tsx";
import { Facts } from "../ui/sheet/facts.tsx";
import { Print } from "../ui/sheet/print.tsx";
import { Heading, Part, Sheet, SideBySide } from "../ui/sheet/sheet.tsx";
import { Table } from "../ui/lists/table.tsx";
import { useWorkshop } from "../ui/workshop.ts";
import { DayReckoner } from "./dayReckoner.tsx";
import type { MarketDay } from "./dayTexts.ts";

type Told = Pick<Parameters<typeof Restatements>[0], "rows">["rows"];

interface Props {
  day: MarketDay;
  book: Parameters<typeof ActsOf>[0] | null;
  righted: Told;
}

export function DayRecord({ day, book, righted }: Props) {
  const { currency } = useWorkshop();
  const hours = day.minutes / 60;
  const result = dayResult({ ...day, hours });
  const total = (of: (l: MarketDay["lines"][number]) => number): number => day.lines.reduce((a, l) => a + of(l), 0);
  return (
    <>
      <Heading
        title={day.name}
        about={
          <>
            <When day={day.day} />, closed.
          </>
        }
      >
        <Link to="/markets" className="act">
          All days
        </Link>
        <Link to={`/markets/new?like=${day.id}`} className="act">
          Plan another like it
        </Link>
        <Print pdf={`/markets/${day.id}/pdf`} />
      </Heading>
      <SideBySide reckoner={<DayReckoner {...day} result={result} hours={hours} />}>
        <Sheet>
          <Part title="The stall">
            <Table
              rows={day.lines}
              by={(l) => l.id}
              columns={[
                {
                  head: "Product",
                  foot: "Together",
                  cell: (l) => (
                    <>
                      <span className="font-display text-lead">{l.name}</span>{" "}
                      <span className="weight text-small text-pine-soft">{l.label}</span>
                    </>
                  ),
                },
                { head: "Lot", plain: true, cell: (l) => <LotTag lot={l} /> },
                { head: "Taken", as: "figure", cell: (l) => l.taken, foot: total((l) => l.taken) },
                { head: "Sold", as: "figure", className: "font-semibold", cell: (l) => l.sold, foot: total((l) => l.sold) },
                { head: "Given", as: "figure", cell: (l) => l.given || "", foot: total((l) => l.given) || "" },
                { head: "Damaged", as: "figure", cell: (l) => l.damaged || "", foot: total((l) => l.damaged) || "" },
                { head: "Came home", as: "figure", cell: (l) => leftOver(l), foot: total(leftOver) },
                { head: "Price", as: "figure", cell: (l) => money(l.price, currency) },
                {
                  head: "Takings",
                  as: "figure",
                  cell: (l) => money(l.sold * l.price, currency),
                  foot: money(salesOf(day.lines).takings, currency),
                },
              ]}
            />
          </Part>
          <Part title="The day">
            <Facts
              rows={[
                ["Hours, with the drive", hours > 0 && hours],
                ["Stall fee", money(day.stallFee, currency)],
                ["Travel", money(day.travel, currency)],
                ["Paid by card", money(day.byCard, currency)],
                ["Card fee", `${day.cardFeeBp / 100} %`],
              ]}
            />
            {day.note && <p className="mt-3 max-w-prose whitespace-pre-line">{day.note}</p>}
          </Part>
          <Restatements rows={righted} />
          {book && <ActsOf {...book} />}
        </Sheet>
      </SideBySide>
    </>
  );
}
