/**
 * A year of an invented maker's spreadsheets, as untidy as they come: titles above headings, merged cells, totals in the middle, blank rows, two
 * currencies, decimal commas in one and points in the other. One is a spreadsheet's own file.
 */
import type { SheetData } from "write-excel-file/node";

/** What was on the shelf on the first day: CSV with semicolons and decimal commas, a sum in the middle. */
export const SHELF = [
  "Shelf on 1 December;;;;",
  ";;;;",
  "Ingredient;Amount;Cost;Lot;Best before",
  "Beeswax, yellow;1,2 kg;21,60;;",
  "Olive oil;3 kg;24,00;L-88;30.04.2027",
  ";1,5 kg;13,50;L-91;31.08.2027",
  ";;;;",
  "Total;5,7 kg;59,10;;",
  "Shea butter;800 g;9,60;;",
].join("\n");

/** What was bought abroad and at home: two currencies in one column, points for decimals, dates of one receipt written once. */
export const BOUGHT = [
  "Date,Shop,Item,Qty,Size,Line total",
  "2026-10-05,Press house,Olive oil,1,1 kg,€ 8.20",
  ",,Shea butter,2,500 g,€ 11.40",
  "2026-10-19,Island herbs,Calendula flowers,1,250 g,£ 9.00",
  "Shipping,,,,,£ 3.50",
].join("\n");

const day = (text: string) => ({ value: new Date(`${text}T00:00:00Z`), type: Date, format: "dd.mm.yyyy" }) as const;
const v = (value: string | number) => ({ value });
const bold = (value: string, columnSpan = 1) => ({ value, columnSpan, fontWeight: "bold" }) as const;

/** Recipes, what was finished, and prices: three sheets of one workbook. */
export const WORKBOOK: { sheet: string; data: SheetData }[] = [
  {
    sheet: "Recipes",
    data: [
      [bold("My recipes, all in grams", 4)],
      [],
      [bold("Recipe"), bold("Ingredient"), bold("Weight (g)"), bold("Size")],
      [v("Willow hand salve"), v("Beeswax, yellow"), v(60), v("60 g / 30 g")],
      [null, v("Olive oil"), v(240), null],
      [null, v("Total"), v(300), null],
      [],
      [v("Mint lip balm"), v("Beeswax, yellow"), v(25), v("4.5 g")],
      [null, v("Olive oil"), v(60.5), null],
      [null, v("Shea buter"), v(20), null],
    ],
  },
  {
    sheet: "Finished",
    data: [
      [bold("What"), bold("How many"), bold("Poured"), bold("Keeps until"), bold("Batch"), bold("Unit cost")],
      [v("Willow hand salve 60g"), v(18), day("2026-10-12"), null, v("W17"), v(2.1666666667)],
      [v("Willow hand salve, 30 g"), v(7), null, day("2027-03-31"), null, null],
      [v("Mint lip balm"), v(40), day("2026-11-02"), null, null, null],
      [v("Total"), v(65), null, null, null, null],
    ],
  },
  {
    sheet: "Prices",
    data: [
      [bold("Product"), bold("Size"), bold("At the stall"), bold("Wholesale")],
      [v("Willow hand salve"), v("60 g"), v(12.5), v(7)],
      [null, v("30 g"), v(7.5), null],
      [v("Mint lip balm"), v("4.5 g"), v(4.5), v(2.4)],
    ],
  },
];

/** Market days of a year: the market's name over its days, a sum under each month, one day of nothing but its takings. */
export const DAYS = [
  "Where I stood;;;;;;;",
  "Market;Date;What;Sold;Each;Takings;Stall;Notes",
  "On the green;02.05.2026;Willow hand salve 60 g;7;12,00;;30;sunny",
  ";;Mint lip balm;11;4,50;;;",
  ";16.05.2026;;;;212,50;30;nobody counted",
  "Sum of May;;;;;346,00;;",
  "Old mill;13.12.2025;Willow hand salve 30 g;10;7,00;65,00;;mulled wine",
  ";;Beeswax candle;4;6,00;;;",
].join("\n");

/** Orders: points for decimals, one half written, one for next week. */
export const ORDERS = [
  "Order,Customer,Needed by,Product,Qty,Each,Status",
  "1,Nora,2025-12-20,Willow hand salve 60 g,2,12.00,collected",
  ",,,Mint lip balm,2,4.50,",
  ",,,,,,",
  "2,The choir,2026-12-19,Mint lip balm,12,4.00,open",
  "3,Nora,2026-12-21,Rose soap,1,6.00,open",
].join("\n");
