/** Money for the accountant: a period's stock, purchases, sales and fees, each figure leading to what it is made of. */
import { calendarYear } from "#core/accounts/period";
import { feesOf, FLOWS, PARTS, placesOf, type Flow } from "#core/accounts/statement";
import { minus, sum, type Micros } from "#core/measure/exact";
import { money } from "#core/measure/money";
import { COSTING_METHODS } from "#core/stock/costingMethods";
import { sayFullDay } from "#core/when";
import { counted } from "#core/words";
import { Form, Link } from "react-router";
import { AskedDay } from "../ui/fields/dateField.tsx";
import { Problem } from "../ui/fields/form.tsx";
import { When } from "../ui/figures/amounts.tsx";
import { SaveAs } from "../ui/lists/saveAs.tsx";
import { Table } from "../ui/lists/table.tsx";
import { Print } from "../ui/sheet/print.tsx";
import { Caution, Heading, Part, Sheet } from "../ui/sheet/sheet.tsx";
import { useWorkshop } from "../ui/workshop.ts";
import { periodAsked, readPeriod } from "./read.server.ts";
import type { Route } from "./+types/accounts";

export const meta: Route.MetaFunction = () => [{ title: "Money for the accountant · Zelbin" }];

export async function loader({ request }: Route.LoaderArgs) {
  const { period, problem } = periodAsked(request);
  return { ...period, problem, ...(await readPeriod(period, new URL(request.url).searchParams.get("of"))) };
}

type Read = Route.ComponentProps["loaderData"];

const addressOf = ({ from, to }: Pick<Read, "from" | "to">, of?: Flow): string =>
  `/accounts?${new URLSearchParams({ from, to, ...(of ? { of } : {}) }).toString()}${of ? "#parts" : ""}`;

const HEADS = { start: "At the start", moved: PARTS.moved, end: "At the end" } as const;

/** Stock at the start, what moved it, and stock at the end: the lines add up. */
function Stocks({ of }: { of: Read }) {
  const { currency } = useWorkshop();
  const show = (m: Micros): string => money(m, currency);
  const group = (part: keyof typeof PARTS) => {
    const lines = of.lines.filter((l) => l.part === part && (part !== "moved" || l.amount !== 0)).map((l) => ({ ...l, sum: false }));
    const whole = { part, say: PARTS[part], amount: sum(lines.map((l) => l.amount)), sum: true, flow: undefined };
    return { key: part, head: HEADS[part], rows: part === "moved" ? lines : [...lines, whole] };
  };
  return (
    <Table
      groups={[group("start"), group("moved"), group("end")]}
      by={(r) => r.say}
      quiet
      columns={[
        {
          head: "Line",
          className: (r) => (r.sum ? "font-semibold" : "font-normal"),
          cell: (r) =>
            r.flow ? (
              <Link to={addressOf(of, r.flow)} className="underline decoration-rule-strong underline-offset-4 hover:decoration-pine">
                {r.say}
              </Link>
            ) : (
              r.say
            ),
        },
        { head: "Amount", as: "figure", className: (r) => (r.sum ? "font-semibold" : ""), cell: (r) => show(r.amount) },
      ]}
    />
  );
}

/** What one line is made of. */
function Parts({ of }: { of: Read }) {
  const { currency } = useWorkshop();
  if (!of.parts) return null;
  return (
    <Sheet className="mt-6">
      <div id="parts" />
      <Part
        title={FLOWS[of.parts.flow]}
        aside={
          <Link to={addressOf(of)} className="pressable no-print" preventScrollReset>
            Close
          </Link>
        }
      >
        <Table
          rows={of.parts.rows}
          by={(a) => a.path + a.day}
          columns={[
            { head: "Day", cell: (a) => <When day={a.day} /> },
            {
              head: "What was done",
              plain: true,
              cell: (a) => (
                <Link to={a.path} className="hover:underline">
                  {a.say}
                </Link>
              ),
            },
            {
              head: "Worth",
              as: "figure",
              foot: money(sum(of.parts.rows.map((a) => a.value)), currency),
              cell: (a) => money(a.value, currency),
            },
          ]}
        />
        {of.parts.flow === "making" && (
          <p className="mt-2 text-small text-pine-soft">What went into jars that still steep is in the stock at the end, and no loss.</p>
        )}
      </Part>
    </Sheet>
  );
}

/** Sales by channel and place, with each day or order behind them. */
function Sales({ of }: { of: Read }) {
  const { currency } = useWorkshop();
  const show = (m: Micros): string => money(m, currency);
  const groups = (["market", "order"] as const)
    .map((channel) => ({ channel, places: placesOf(of.sales, channel) }))
    .filter((g) => g.places.length > 0);
  if (groups.length === 0) return <p className="text-pine-soft">Nothing was sold in these days.</p>;
  return (
    <Table
      groups={groups.map(({ channel, places }) => ({
        key: channel,
        head: channel === "market" ? "At markets" : "Gift orders, on the day they were packed",
        rows: places,
      }))}
      by={(p) => p.place}
      columns={[
        {
          head: "Where, for whom",
          cell: (p) => (
            <>
              <span className="font-semibold">{p.place}</span>{" "}
              <span className="text-small font-normal text-pine-soft">
                {p.of.map((s, i) => (
                  <span key={s.id}>
                    {i > 0 && " · "}
                    <Link
                      to={s.channel === "market" ? `/markets/${s.id}` : `/gifts/${s.id}`}
                      className="underline decoration-rule-strong underline-offset-4 hover:decoration-pine"
                    >
                      <When day={s.day} />
                    </Link>
                  </span>
                ))}
              </span>
            </>
          ),
        },
        { head: "Takings", as: "figure", foot: show(sum(of.sales.map((s) => s.takings))), cell: (p) => show(p.takings) },
        {
          head: "Stall, travel, card",
          as: "figure",
          foot: show(sum(of.sales.map(feesOf))),
          cell: (p) => (p.fees === 0 ? "—" : show(p.fees)),
        },
      ]}
    />
  );
}

function Purchases({ of: { receipts } }: { of: Read }) {
  const { currency } = useWorkshop();
  const toCome = sum(receipts.map((r) => r.toCome));
  if (receipts.length === 0) return <p className="text-pine-soft">Nothing was bought in these days.</p>;
  return (
    <>
      <Table
        rows={receipts}
        by={(r) => r.id}
        columns={[
          { head: "Day", cell: (r) => <When day={r.day} /> },
          {
            head: "Supplier",
            plain: true,
            cell: (r) => (
              <Link to={`/shelf/receipts/${r.id}`} className="font-semibold hover:underline">
                {r.supplier}
              </Link>
            ),
          },
          { head: "Paid", as: "figure", foot: money(sum(receipts.map((r) => r.paid)), currency), cell: (r) => money(r.paid, currency) },
        ]}
      />
      {toCome !== 0 && (
        <p className="mt-2 text-small text-pine-soft">
          Of this {money(toCome, currency)} is for goods that are still to come: paid for, and not yet in the stock.
        </p>
      )}
    </>
  );
}

export default function Accounts({ loaderData: of }: Route.ComponentProps) {
  const { currency, school, name } = useWorkshop();
  const { takings, fees, left } = of.sums;
  const costless = of.sales.filter((s) => !s.costKnown).length;
  return (
    <>
      <Heading title="Money for the accountant" about={`What the books of ${name} know of a year: stock, purchases, sales and fees.`}>
        <Print />
      </Heading>
      <Caution>
        A help with the books, and no tax advice: what counts as income, cost or stock is for your country’s rules and your accountant.
        Hours, overhead and whatever isn’t written here (rent, tools, insurance) are not in it.
      </Caution>
      <Form key={`${of.from} ${of.to}`} method="get" className="no-print my-5 flex flex-wrap items-end gap-3">
        <AskedDay label="From" name="from" leaning="past" defaultValue={of.from} />
        <AskedDay label="To" name="to" leaning="past" defaultValue={of.to} />
        <button className="act">Show</button>
        {of.years.map((y) => (
          <Link key={y} to={addressOf(calendarYear(y))} className="pressable mb-1.5">
            {y}
          </Link>
        ))}
        <Problem say={of.problem} />
      </Form>
      <p className="mb-4 font-display text-lead">
        {sayFullDay(of.from)} to {sayFullDay(of.to)}
      </p>
      <div className="grid grid-cols-[minmax(0,1fr)] items-start gap-6 lg:grid-cols-2">
        <Sheet>
          <Part title="Stock">
            <Stocks of={of} />
            <p className="mt-2 text-small text-pine-soft">
              By {COSTING_METHODS[school].toLowerCase()}, this workshop’s costing method
              {school === "again"
                ? "; finished units and jars at what they cost."
                : ": what was paid, with its share of postage, tax and discount."}{" "}
              Corrections count on the day of what they correct.
            </p>
          </Part>
        </Sheet>
        <div className="space-y-6">
          <Sheet>
            <Part title="What sales left">
              <Table
                rows={[
                  { say: "Takings", amount: takings },
                  { say: FLOWS.sold, amount: of.sold },
                  { say: "Stall, travel and card fees", amount: minus(fees) },
                ]}
                by={(r) => r.say}
                quiet
                columns={[
                  { head: "Line", className: "font-normal", cell: (r) => r.say, foot: "Before hours, overhead and tax" },
                  { head: "Amount", as: "figure", foot: money(left, currency), cell: (r) => money(r.amount, currency) },
                ]}
              />
              {costless > 0 && (
                <p className="mt-2 text-small text-honey">
                  {counted(costless, "sale")} of goods whose cost isn’t known here {costless === 1 ? "is" : "are"} in the takings: from
                  before the books began, or out of opening stock without a cost.
                </p>
              )}
            </Part>
          </Sheet>
          <Sheet>
            <Part title="Sales">
              <Sales of={of} />
            </Part>
          </Sheet>
        </div>
      </div>
      <Parts of={of} />
      <Sheet className="mt-6">
        <Part title="Purchases" aside={<span className="text-pine-soft">{counted(of.receipts.length, "receipt")}</span>}>
          <Purchases of={of} />
        </Part>
        <SaveAs files={[[`/accounts.csv?${new URLSearchParams({ from: of.from, to: of.to }).toString()}`, "Save all of it as CSV"]]} />
      </Sheet>
    </>
  );
}
