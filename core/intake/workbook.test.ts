/** Sheets of a spreadsheet's own file, written by another library: each cell comes back, and an untidy list is read as its like in CSV. */
import fc from "fast-check";
import { expect, it } from "vitest";
import read from "read-excel-file/node";
import writeWorkbook, { type SheetData } from "write-excel-file/node";
import { looseDay, looseMoney, numberStyle } from "./loose.ts";
import { readRows } from "./table.ts";
import { plainNumber, textOfSheet, type WorkbookCell } from "./workbook.ts";

it("a cell stays itself whatever is in it: separators, quotes, line breaks", () => {
  const cell = fc.oneof(fc.string({ maxLength: 12 }), fc.constantFrom("a, b", 'a "b"', "a;b", "a\tb", "1,5"));
  fc.assert(
    fc.property(fc.array(fc.array(cell, { minLength: 2, maxLength: 5 }), { minLength: 1, maxLength: 8 }), (rows) => {
      // What no table has: another reading refuses it.
      fc.pre(!/[\u0000-\u0008\u000e-\u001f\ufffd]/.test(JSON.stringify(rows.map((r) => r.join(""))).replace(/\\u00/g, "\0")));
      const kept = rows.map((r) => r.map((c) => c.trim())).filter((r) => r.some((c) => c !== ""));
      fc.pre(kept.length > 0);
      const back = readRows(textOfSheet(rows));
      const wide = Math.max(...rows.map((r) => r.length));
      expect(back.ok && back.value.map((r) => r.cells)).toEqual(kept.map((r) => [...r, ...Array<string>(wide - r.length).fill("")]));
    }),
  );
});

it("a number has one reading: with a decimal point, whatever its digits", () => {
  fc.assert(
    fc.property(fc.integer({ min: 1, max: 9_999_999_999 }), fc.integer({ min: 0, max: 4 }), (n, decimals) => {
      const value = n / 10 ** decimals;
      const text = plainNumber(String(value));
      expect(Number(text)).toBe(value);
      const style = numberStyle([text]);
      expect(style).not.toBe("comma");
      // Read as a whole list in one style, the style doesn't matter where it doesn't tell.
      const money = looseMoney(text, style ?? "comma");
      if (decimals <= 2 && value < 1e7) expect(money.ok && money.value.n.valueOf()).toBe(value);
    }),
  );
  expect(["1.234", "21.599999999999998", "0.1", "12", "1e-7", "n/a"].map(plainNumber)).toEqual([
    "1.2340",
    "21.6",
    "0.1",
    "12",
    "0.0000001",
    "n/a",
  ]);
});

it("a workbook as another library writes it: numbers, days, hours, yes and no, merged and empty cells, each sheet", async () => {
  const at = new Date("2026-04-14T00:00:00Z");
  const bold = { fontWeight: "bold" } as const;
  const orders: SheetData = [
    [{ value: "Mill & Moor, spring", columnSpan: 3, ...bold }],
    [],
    [{ value: "Date" }, { value: "Product" }, { value: "Total" }, { value: "Organic" }],
    [{ value: at, type: Date, format: "dd.mm.yyyy" }, { value: "Shea butter" }, { value: 12.8 }, { value: true, type: Boolean }],
    [null, { value: "Beeswax, yellow" }, { value: 1234.567 }, { value: false, type: Boolean }],
  ];
  const file = await writeWorkbook([
    { sheet: "Orders", data: orders },
    { sheet: "Notes", data: [[{ value: "nothing" }, { value: 1 }]] },
  ]).toBuffer();
  const sheets = await read(file, { parseNumber: (number) => ({ number }) });
  expect(sheets.map((s) => s.sheet)).toEqual(["Orders", "Notes"]);
  const rows = readRows(textOfSheet(sheets[0]!.data as unknown as WorkbookCell[][]));
  expect(rows.ok && rows.value).toEqual([
    { at: 1, cells: ["Mill & Moor, spring", "", "", ""] },
    { at: 3, cells: ["Date", "Product", "Total", "Organic"] },
    { at: 4, cells: ["2026-04-14", "Shea butter", "12.8", "yes"] },
    { at: 5, cells: ["", "Beeswax, yellow", "1234.5670", "no"] },
  ]);
  expect(looseDay("2026-04-14", "dmy")).toMatchObject({ ok: true, value: "2026-04-14" });
});
