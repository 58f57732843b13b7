/** Market days as a file, and their lines as another. */
import type { FileColumn } from "#core/lists/fileColumns";
import type { LinesFile } from "../ui/lists/saveList.tsx";
import type { LineOfDay } from "./lines.ts";
import type { Route } from "./+types/markets";

type Day = Route.ComponentProps["loaderData"]["rows"][number];

const head: FileColumn<Day>[] = [
  { head: "day", of: (d) => d.day },
  { head: "market", of: (d) => d.name },
  { head: "units taken along", of: (d) => (d.beforeBooks ? null : d.taken), as: "number" },
];
const costs: FileColumn<Day> = { head: "stall fee and travel", of: (d) => d.fees, as: "money" };

const lines: LinesFile<Day, LineOfDay> = {
  from: "/markets/lines",
  what: "lines of market days",
  by: (d) => d.id,
  columns: [
    { head: "day", of: (l) => l.day },
    { head: "market", of: (l) => l.market },
    { head: "product", of: (l) => l.name },
    { head: "size", of: (l) => l.label },
    { head: "lot", of: (l) => l.number },
    { head: "taken along", of: (l) => (l.number ? l.taken : null), as: "number" },
    // Before the day is closed nothing is known of these.
    { head: "sold", of: (l) => (l.closed ? l.sold : null), as: "number" },
    { head: "given", of: (l) => (l.closed && l.number ? l.given : null), as: "number" },
    { head: "damaged", of: (l) => (l.closed && l.number ? l.damaged : null), as: "number" },
    { head: "price of one", of: (l) => (l.number ? l.price : null), as: "money" },
    { head: "takings", of: (l) => (l.closed ? l.takings : null), as: "money" },
    { head: "cost of stock gone", of: (l) => (l.closed ? l.gone : null), as: "money" },
  ],
};

export const DAYS_TO_COME_FILE = { columns: [...head, costs], lines };

export const CLOSED_DAYS_FILE = {
  columns: [
    ...head,
    { head: "units sold", of: (d) => d.unitsSold, as: "number" },
    { head: "takings", of: (d) => d.takings, as: "money" },
    { head: "cost of stock gone", of: (d) => d.known?.stockCost ?? null, as: "money" },
    costs,
    { head: "card fees", of: (d) => d.cardFee, as: "money" },
    { head: "profit", of: (d) => d.known?.profit ?? null, as: "money" },
    { head: "hours there", of: (d) => d.hours, as: "number" },
    { head: "profit for each hour", of: (d) => d.known?.perHour ?? null, as: "money" },
  ] satisfies FileColumn<Day>[],
  lines,
};
