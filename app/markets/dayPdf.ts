/** A market day as PDF: a list to take along and fill in while it is open, its record once it is closed. */
import { beforeCosts, COST_KNOWN } from "#core/stock/costKnown";
import { costlessUnits, dayResult, leftOver, pastDayResult, salesOf } from "#core/market/day";
import type { Cell, Column, Part } from "../paper/paper.ts";
import { pdfFile, type Said } from "../paper/pdf.server.ts";
import { loader as page } from "./day.tsx";
import { NO_COST, type MarketDay } from "./dayTexts.ts";
import type { Route } from "./+types/dayPdf";

const lotOf = (l: MarketDay["lines"][number]): Cell[] => [{ text: l.name, note: l.label }, l.number];
const PRODUCT: Column[] = [{ head: "Product" }, { head: "Lot", as: "lot" }];

/** What goes along, with room for what is sold. */
const ahead = ({ lines, note }: MarketDay, { money }: Said): Part[] => [
  { heading: "What goes along" },
  {
    columns: [
      ...PRODUCT,
      { head: "Price", as: "figure" },
      { head: "Taken", as: "figure" },
      { head: "Sold", as: "write" },
      { head: "Given", as: "write" },
    ],
    groups: [{ rows: lines.map((l): Cell[] => [...lotOf(l), money(l.price), String(l.taken), "", ""]) }],
    foot: ["Together", "", "", String(lines.reduce((a, l) => a + l.taken, 0)), "", ""],
  },
  {
    toWrite: [
      ["Cash at the start", ""],
      ["Cash at the end", ""],
      ["Paid by card", ""],
      ["Hours, with the drive", "", "h"],
    ],
  },
  ...(note ? [{ text: note }] : []),
];

function closed(day: MarketDay, { money }: Said): Part[] {
  const { lines } = day;
  const hours = day.minutes / 60;
  const result = dayResult({ ...day, hours });
  const costless = costlessUnits(day.lines);
  const total = (of: (l: MarketDay["lines"][number]) => number): string => String(lines.reduce((a, l) => a + of(l), 0));
  const some = (n: number): string => (n === 0 ? "" : String(n));
  return [
    { heading: "The stall" },
    {
      columns: [
        ...PRODUCT,
        ...["Taken", "Sold", "Given", "Damaged", "Home", "Price", "Takings"].map((head) => ({ head, as: "figure" as const })),
      ],
      groups: [
        {
          rows: lines.map((l): Cell[] => [
            ...lotOf(l),
            String(l.taken),
            { text: String(l.sold), strong: true },
            some(l.given),
            some(l.damaged),
            String(leftOver(l)),
            money(l.price),
            money(l.sold * l.price),
          ]),
        },
      ],
      foot: [
        "Together",
        "",
        total((l) => l.taken),
        total((l) => l.sold),
        total((l) => l.given),
        total((l) => l.damaged),
        total(leftOver),
        "",
        money(salesOf(lines).takings),
      ],
    },
    { heading: "The day" },
    {
      facts: [
        ["Takings", money(result.takings)],
        ["Stock that went", costless > 0 && result.stockCost === 0 ? COST_KNOWN.none : `−${money(result.stockCost)}`],
        ["Stall fee", `−${money(day.stallFee)}`],
        ["Travel", `−${money(day.travel)}`],
        [`Card fee, ${day.cardFeeBp / 100} % of ${money(day.byCard)}`, `−${money(result.cardFee)}`],
        [costless > 0 ? beforeCosts(costless) : "Profit", money(result.profit)],
        ["Hours, with the drive", hours > 0 && String(hours)],
        ["Each hour there", result.perHour !== null && costless === 0 && money(result.perHour)],
      ],
      as: "figure",
    },
    { text: "The hours of making are not in it.", as: "soft" },
    ...(day.note ? [{ text: day.note }] : []),
  ];
}

function beforeBooks(day: MarketDay, { money }: Said): Part[] {
  const { takings, unitsSold, left } = pastDayResult(day);
  return [
    { heading: "What was sold" },
    {
      columns: [{ head: "Product" }, { head: "Sold", as: "figure" }, { head: "Takings", as: "figure" }],
      groups: [{ rows: day.sales.map((s): Cell[] => [s.name, s.units === 0 ? "" : String(s.units), money(s.takings)]) }],
      foot: ["Together", unitsSold === 0 ? "" : String(unitsSold), money(takings)],
    },
    { heading: "The day" },
    {
      facts: [
        ["Takings", money(takings)],
        ["Stall fee", `−${money(day.stallFee)}`],
        ["Travel", `−${money(day.travel)}`],
        ["Left, before what the goods cost", money(left)],
        ["Hours, with the drive", day.minutes > 0 && String(day.minutes / 60)],
      ],
      as: "figure",
    },
    { text: NO_COST, as: "soft" },
    ...(day.note ? [{ text: day.note }] : []),
  ];
}

export async function loader(at: Route.LoaderArgs) {
  const { day } = await page(at as never);
  if (!day) throw new Response("Not found", { status: 404 });
  const over = day.closedActId !== null;
  return pdfFile((said) => ({
    title: day.name,
    file: `market-${day.day}`,
    about: `${said.day(day.day)}${day.beforeBooks ? ", before the books began" : over ? ", closed" : ""}`,
    parts: day.beforeBooks ? beforeBooks(day, said) : over ? closed(day, said) : ahead(day, said),
  }));
}
