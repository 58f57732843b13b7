/** A list as a file: its headings, its figures, and that it is read back as it was. */
import fc from "fast-check";
import Papa from "papaparse";
import { describe, expect, it } from "vitest";
import { numberCell, numbersInFiles, writeList } from "./csv.ts";
import { amountColumns, type FileColumn } from "./fileColumns.ts";
import { NUMBER_HABITS, NUMBER_HABIT_IDS } from "../measure/habit.ts";
import { readTable } from "../intake/table.ts";

interface Row {
  name: string | null;
  mg: number | null;
  micros: number;
  share: number;
  weighed: boolean;
}
const COLUMNS: FileColumn<Row>[] = [
  { head: "name", of: (r) => r.name },
  { head: "fill", of: (r) => r.mg, as: "grams" },
  { head: "paid", of: (r) => r.micros, as: "money" },
  { head: "wax", of: (r) => r.share, as: "percent" },
  ...amountColumns<Row>(
    "on hand",
    (r) => r.mg,
    (r) => (r.weighed ? "weight" : "count"),
  ),
];
const ROWS: Row[] = [
  { name: "Shea, raw", mg: 12_345, micros: 12_500_000, share: 0.25, weighed: true },
  { name: null, mg: null, micros: -1, share: 0, weighed: false },
  { name: "=1+1", mg: 7, micros: 0, share: 1, weighed: false },
];

describe("a list as a file", () => {
  it("has its headings with their units, and figures without a digit lost", () => {
    expect(writeList(COLUMNS, ROWS, { numbers: "point", currency: "EUR" })).toBe(
      [
        "\ufeffname,fill (g),paid (EUR),wax (%),on hand,unit",
        '"Shea, raw",12.345,12.5,25,12.345,g',
        ",,-0.000001,0,,pcs",
        "'=1+1,0.007,0,100,7,pcs",
        "",
      ].join("\r\n"),
    );
  });

  it("is parted by semicolons where spreadsheets read a decimal comma", () => {
    expect(writeList(COLUMNS.slice(0, 3), ROWS.slice(0, 1), { numbers: "comma", currency: "CHF" })).toBe(
      "\ufeffname;fill (g);paid (CHF)\r\nShea, raw;12,345;12,5\r\n",
    );
    expect(NUMBER_HABIT_IDS.map((h) => [NUMBER_HABITS[h].say, numbersInFiles(h)])).toEqual([
      ["Ask when unsure", "point"],
      ["1,234.5", "point"],
      ["1.234,5", "comma"],
      ["1 234,5", "comma"],
      ["1’234.5", "point"],
    ]);
  });

  it("is read back, whatever is in it, by the library that reads files (Papa Parse) and by our own step for lists", () => {
    // A letter in front: what a spreadsheet would run is written otherwise, which is tested above.
    const cell = fc.string({ maxLength: 12, unit: fc.constantFrom("a", "é", '"', ",", ";", "\n", "1", ".", " ", "x") }).map((t) => `a${t}`);
    fc.assert(
      fc.property(
        fc.array(fc.tuple(cell, fc.integer({ min: -1e12, max: 1e12 })), { minLength: 2, maxLength: 6 }),
        fc.constantFrom("point" as const, "comma" as const),
        (rows, numbers) => {
          const columns: FileColumn<(typeof rows)[number]>[] = [
            { head: "text", of: ([t]) => t },
            { head: "money", of: ([, n]) => n, as: "money" },
          ];
          const file = writeList(columns, rows, { numbers, currency: "EUR" });
          const { data } = Papa.parse<string[]>(file.slice(1).trimEnd(), { delimiter: numbers === "comma" ? ";" : "," });
          expect(data[0]).toEqual(["text", "money (EUR)"]);
          expect(data.slice(1).map(([, n]) => Math.round(Number(n!.replace(",", ".")) * 1e6))).toEqual(rows.map(([, n]) => n));
          expect(data.slice(1).map(([t]) => t)).toEqual(rows.map(([t]) => t));
        },
      ),
    );
    const read = readTable(writeList(COLUMNS, ROWS, { numbers: "comma", currency: "EUR" }));
    expect(read.ok && read.value.header).toEqual(["name", "fill (g)", "paid (EUR)", "wax (%)", "on hand", "unit"]);
    expect(read.ok && read.value.rows[0]).toEqual(["Shea, raw", "12,345", "12,5", "25", "12,345", "g"]);
  });

  it.each([
    [0, "0"],
    [100, "100"],
    [1e-6, "0.000001"],
    [1e-9, "0"],
    [1234567.25, "1234567.25"],
    [1_000_000.123_456, "1000000.123456"],
  ])("writes %f as %s, never with an exponent", (n, text) => {
    expect(numberCell(n, "point")).toBe(text);
    expect(numberCell(n, "comma")).toBe(text.replace(".", ","));
  });
});
