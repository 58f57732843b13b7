/** A market day from before the books began, to be read and printed: what it took and cost. What its goods cost isn't known here. */
import { Link } from "react-router";
import { pastDayResult } from "#core/market/day";
import { money } from "#core/measure/money";
import { counted } from "#core/words";
import { ActsOf } from "../book/actsOf.tsx";
import { When } from "../ui/figures/amounts.tsx";
import { Figure, Reckoner } from "../ui/figures/reckoner.tsx";
import { Facts } from "../ui/sheet/facts.tsx";
import { Print } from "../ui/sheet/print.tsx";
import { Heading, Part, Sheet, SideBySide } from "../ui/sheet/sheet.tsx";
import { Table } from "../ui/lists/table.tsx";
import { useWorkshop } from "../ui/workshop.ts";
import { NO_COST, type MarketDay } from "./dayTexts.ts";

export function PastDayRecord({ day, book }: { day: MarketDay; book: Parameters<typeof ActsOf>[0] | null }) {
  const { currency } = useWorkshop();
  const { takings, unitsSold, left } = pastDayResult(day);
  return (
    <>
      <Heading
        title={day.name}
        about={
          <>
            <When day={day.day} />, before the books began.
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
      <SideBySide
        reckoner={
          <Reckoner>
            <Figure label="Takings" value={money(takings, currency)} />
            <Figure label="Stall fee" value={`− ${money(day.stallFee, currency)}`} />
            <Figure label="Travel" value={`− ${money(day.travel, currency)}`} />
            <Figure
              label="Left, before what the goods cost"
              big
              tone={left < 0 ? "bad" : "good"}
              value={money(left, currency)}
              how={<p>{NO_COST}</p>}
            />
          </Reckoner>
        }
      >
        <Sheet>
          <Part title="What was sold" aside={unitsSold > 0 && <span className="text-pine-soft">{counted(unitsSold, "unit")}</span>}>
            <Table
              rows={day.sales}
              by={(s) => s.id}
              columns={[
                { head: "Product", foot: "Together", cell: (s) => <span className="font-display text-lead">{s.name}</span> },
                { head: "Sold", as: "figure", cell: (s) => s.units || "", foot: unitsSold || "" },
                { head: "Takings", as: "figure", cell: (s) => money(s.takings, currency), foot: money(takings, currency) },
              ]}
            />
          </Part>
          {(day.minutes > 0 || day.note) && (
            <Part title="The day">
              <Facts rows={[["Hours, with the drive", day.minutes > 0 && day.minutes / 60]]} />
              {day.note && <p className="mt-3 max-w-prose whitespace-pre-line">{day.note}</p>}
            </Part>
          )}
          {book && <ActsOf {...book} />}
        </Sheet>
      </SideBySide>
    </>
  );
}
