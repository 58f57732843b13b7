/** A period's money as a file: every line of the statement, every receipt, and every day or order that something was sold by. */
import type { Period } from "#core/accounts/period";
import { PARTS } from "#core/accounts/statement";
import type { FileColumn } from "#core/lists/fileColumns";
import { minus } from "#core/measure/exact";
import { csvFile } from "../server/csv.server.ts";
import { periodAsked, readPeriod, type PeriodRead } from "./read.server.ts";
import type { Route } from "./+types/accountsCsv";

interface Line {
  part: string;
  line: string;
  who: string;
  day: string;
  amount: number;
}

const COLUMNS: FileColumn<Line>[] = [
  { head: "part", of: (l) => l.part },
  { head: "line", of: (l) => l.line },
  { head: "who or where", of: (l) => l.who },
  { head: "day", of: (l) => l.day },
  { head: "amount", of: (l) => l.amount, as: "money" },
];

function linesOf(p: PeriodRead, { from, to }: Period): Line[] {
  const days = { start: from, moved: "", end: to };
  return [
    ...p.lines.map(({ part, say, amount }) => ({ part: PARTS[part].toLowerCase(), line: say, who: "", day: days[part], amount })),
    ...p.receipts.map((r) => ({ part: "purchases", line: `receipt ${r.id}`, who: r.supplier, day: r.day, amount: r.paid })),
    ...p.sales.flatMap((s) => {
      const of = { who: s.place, day: s.day };
      const line = `${s.channel === "market" ? "market day" : "order"} ${s.id}`;
      const fees = [
        ["stall fees", s.stall],
        ["travel", s.travel],
        ["card fees", s.card],
      ] as const;
      return [
        { part: s.channel === "market" ? "sales at markets" : "sales by order", line, ...of, amount: s.takings },
        ...fees.filter(([, amount]) => amount !== 0).map(([part, amount]) => ({ part, line, ...of, amount: minus(amount) })),
      ];
    }),
  ];
}

export async function loader({ request }: Route.LoaderArgs) {
  const { period } = periodAsked(request);
  return csvFile(`money-${period.from}-to-${period.to}`, COLUMNS, linesOf(await readPeriod(period), period));
}
