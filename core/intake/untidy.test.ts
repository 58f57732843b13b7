/** Five untidy lists of an invented workshop. What is right for each was written down by hand before anything read it. */
import { describe, expect, it } from "vitest";
import { mg, micros } from "../measure/exact.ts";
import type { KindId } from "../material/kinds.ts";
import { bodyOf } from "./body.ts";
import { guessColumns, type Purpose } from "./columns.ts";
import { firstAsked, type FileChoices } from "./asked.ts";
import type { Known } from "./goods.ts";
import { readList, type IntakeLine, type ListRead } from "./read.ts";
import { readRows } from "./table.ts";

const [SHEA, WAX, OIL, LAVENDER, TIN, COCOA] = [1, 2, 3, 4, 5, 6];
const of = (id: number, name: string, kind: KindId, liquid?: number): [string, Known] => [
  name.toLowerCase(),
  { id, name, kind, densities: liquid ? { liquid } : {}, dropsPerMl: null, pieceMg: null },
];
const KNOWN = new Map([
  of(SHEA, "Shea butter", "softButter"),
  of(WAX, "Beeswax", "wax"),
  of(OIL, "Sunflower oil", "oil", 920),
  of(LAVENDER, "Lavender essential oil", "essentialOil", 880),
  of(TIN, "Tin", "container"),
  of(COCOA, "Cocoa butter", "hardButter"),
]);
const NOTHING: FileChoices = { numbers: null, dates: null, priceOf: null, blanks: {}, money: new Map(), supplier: "", day: null };

function list(text: string, said: Partial<FileChoices> = {}, purpose: Purpose = "receipt"): ListRead {
  const rows = readRows(text);
  if (!rows.ok) throw new Error(rows.problem.say);
  const body = bodyOf(rows.value);
  const read = readList(
    body,
    guessColumns(body.header, body.rows),
    { ...NOTHING, ...said },
    { known: KNOWN, purpose, own: "EUR", today: "2026-11-30" },
  );
  if (!read.ok) throw new Error(read.problem.say);
  return read.value;
}
const goods = (l: IntakeLine) => [l.row, l.materialId, l.packs, l.packSize, l.qty, l.price];
const left = (r: ListRead) => r.intake.left.map((l) => `${l.at} ${l.why}`);
const problems = (r: ListRead) => r.intake.problems.map((p) => `${p.row} ${p.field}: ${p.say}`);
const eur = (n: number) => micros(n * 1_000_000);

it("a shop's export: titles, decimal commas in one column, prices of one, merged cells, postage and a sum", () => {
  const r = list(
    [
      "Mill & Moor;;;;;;;;",
      "Order list, spring 2026;;;;;;;;",
      ";;;;;;;;",
      "Order number;Workshop;Date;Supplier;Product;Pack size;Qty;Unit price;Discount",
      "4711;North;14. April 2026;Mill & Moor;Shea butter;0,250 kg;2;6,40;0",
      "4711;North;;;Beeswax;2 x 500 g;1;12,-;0",
      "4711;North;;;Sunflower oil;1 L;3;9,50;0",
      ";;;;Shipping;;;4,90;",
      "4712;North;3.5.2026;Press house;Lavender essential oil;33 cl;1;1.066,-;5",
      "4712;North;;;Postage and packing;;1;4,90;",
      "4712;North;;;Tin;50 pcs;2;17,35;0",
      "Total;;;;;;;1.115,65;",
      "Thank you for your order;;;;;;;;",
    ].join("\n"),
  );
  expect(firstAsked(r.asked)).toBe("");
  expect(problems(r)).toEqual([]);
  expect(r.intake.lines.map(goods)).toEqual([
    [5, SHEA, 2, "0.250 kg", mg(500_000), eur(12.8)],
    [6, WAX, 2, "500 g", mg(1_000_000), eur(12)],
    [7, OIL, 3, "1 L", mg(2_760_000), eur(28.5)],
    [9, LAVENDER, 1, "33 cl", mg(290_400), eur(1066)],
    [11, TIN, 2, "50 pcs", 100, eur(34.7)],
  ]);
  expect(r.intake.lines.map((l) => `${l.day} ${l.supplier}`)).toEqual([
    ...Array<string>(3).fill("2026-04-14 Mill & Moor"),
    ...Array<string>(2).fill("2026-05-03 Press house"),
  ]);
  expect(left(r)).toEqual(["1 title", "2 title", "8 charge", "10 charge", "12 total", "13 remark"]);
});

describe("a list in dollars, pounds and gallons", () => {
  const TEXT = [
    "Ingredient\tSize\tCount\tPrice per lb",
    "Shea butter\t1 1/2 lb\t2\t$8.00",
    "Sunflower oil\t1 gal\t1\t$4.00",
    "Beeswax\t12 50\t1\t$9.00",
    "Cocoa butter\t5k\t1\t$9.00",
    "Beeswax\t1 lb\t2 3\t$9.00",
    "Cocoa butter\t16 oz\t1\t€7.50",
  ].join("\n");
  const bought = { supplier: "Far Orchard", day: "2026-03-02" };
  it("asks what money it is before anything is read", () => {
    const r = list(TEXT, bought);
    expect(r.asked.money).toEqual([{ sign: "$", say: "“$” isn't EUR. Say what money it is, and what one of it was in EUR." }]);
    expect(r.intake.lines).toEqual([]);
    expect(list(TEXT, { ...bought, money: new Map([["$", { code: "USD", rate: null }]]) }).asked.money).toHaveLength(1);
  });
  it("reads what it can, and names what it can't by its row", () => {
    const r = list(TEXT, { ...bought, money: new Map([["$", { code: "USD", rate: 920_000 }]]) });
    expect(r.intake.lines.map((l) => [...goods(l), l.currency, l.rate])).toEqual([
      [2, SHEA, 2, "1 1/2 lb", mg(1_360_778), eur(24), "USD", 920_000],
      [3, OIL, 1, "1 gal", mg(3_482_579), eur(30.71), "USD", 920_000],
      [7, COCOA, 1, "16 oz", mg(453_592), eur(7.5), "", 1_000_000],
    ]);
    expect(problems(r)).toEqual([
      "4 packSize: “12 50” could be two numbers. Write one.",
      expect.stringContaining("5 packSize: “k” isn't a unit"),
      "6 packs: “2 3” could be two numbers. Write one.",
    ]);
  });
  it("takes the sign for nothing where that is said", () => {
    const r = list(TEXT, { ...bought, money: new Map([["$", { code: "EUR", rate: null }]]) });
    expect(r.intake.lines.map((l) => l.currency)).toEqual(["", "", ""]);
  });
  it("is never silently of today", () => {
    const r = list(TEXT, { supplier: "Far Orchard", money: new Map([["$", { code: "EUR", rate: null }]]) });
    expect(r.intake.lines).toEqual([]);
    expect(problems(r)[0]).toBe("2 day: Say when it was bought.");
    const late = list(TEXT, { ...bought, day: "2026-12-01", money: new Map([["$", { code: "EUR", rate: null }]]) });
    expect(problems(late)[0]).toBe("2 day: “2026-12-01” hasn't come yet.");
  });
});

it("what is on the shelf: amount and unit in two columns, months for best-befores, groups, and a sum without a name", () => {
  const text = [
    "What we have;;;;;",
    "Item;Quantity;Unit;Value;Best before;Lot",
    "Butters;;;;;",
    "Shea butter;2,5;kg;31,00;12/2027;S-1",
    "Cocoa butter;750;g;;Apr 2027;",
    "Oils;;;;;",
    "Sunflower oil;33;cl;2,10;;",
    "Tin;48;pcs;14,40;;",
    ";51,5;;47,50;;",
    ";;;47,50;;",
  ].join("\n");
  expect(list(text, {}, "opening").asked.priceOf).toContain("“Value” could be for one pack or for all 2,5 of them.");
  const r = list(text, { priceOf: "all" }, "opening");
  expect(problems(r)).toEqual([]);
  expect(r.intake.lines.map((l) => [...goods(l), l.bestBefore, l.supplierLot, l.day])).toEqual([
    [4, SHEA, 1, "2.5 kg", mg(2_500_000), eur(31), "2027-12-31", "S-1", null],
    [5, COCOA, 1, "750 g", mg(750_000), null, "2027-04-30", "", null],
    [7, OIL, 1, "33 cl", mg(303_600), eur(2.1), null, "", null],
    [8, TIN, 1, "48", 48, eur(14.4), null, "", null],
  ]);
  expect(left(r)).toEqual(["1 title", "3 remark", "6 remark", "9 total", "10 total"]);
  // Of the same list, what one of each unit is worth.
  expect(list(text, { priceOf: "pack" }, "opening").intake.lines.map((l) => l.price)).toEqual([eur(77.5), null, eur(69.3), eur(691.2)]);
});

describe("a year of orders with what went back", () => {
  const TEXT = [
    "Date,Vendor,Item,Pack,Qty,Line total",
    "2026-02-01,Mill & Moor,Shea butter,1 kg,3,36.00",
    "2026-02-09,Mill & Moor,Shea butter,1 kg,-1,-12.00",
    "2026-02-09,Mill & Moor,Beeswax,500 g,1,9.50 CR",
    "2026-02-10,Mill & Moor,Beeswax,500 g,2,(19.00)",
    "2026-02-10,Mill & Moor,Refund,,,-5.00",
    "2026-02-11,Mill & Moor,Cocoa butter,500 g,1,8.00",
    "2026-02-11,Mill & Moor,,1 kg,1,15.00",
    ",Mill & Moor,Tin,10 pcs,1,2.00",
  ].join("\n");
  it("asks about cells that may be merged or forgotten", () =>
    expect(list(TEXT).asked.blanks).toEqual({ material: "1 row names no material, row 8.", day: "1 row names no day, row 9." }));
  it("reads rows below zero as sent back", () => {
    const r = list(TEXT, { blanks: { material: "above", day: "out" } });
    expect(r.intake.lines.map(goods)).toEqual([
      [2, SHEA, 3, "1 kg", mg(3_000_000), eur(36)],
      [7, COCOA, 1, "500 g", mg(500_000), eur(8)],
      [8, COCOA, 1, "1 kg", mg(1_000_000), eur(15)],
    ]);
    expect(r.intake.back.map(goods)).toEqual([
      [3, SHEA, 1, "1 kg", mg(1_000_000), eur(12)],
      [4, WAX, 1, "500 g", mg(500_000), eur(9.5)],
      [5, WAX, 2, "500 g", mg(1_000_000), eur(19)],
    ]);
    expect(problems(r)).toEqual(["6 material: “Refund” isn't on the shelf."]);
    expect(left(r)).toEqual(["9 blank"]);
    expect(list(TEXT, { blanks: { material: "out", day: "above" } }).intake.lines.map((l) => `${l.row} ${l.day}`)).toEqual([
      "2 2026-02-01",
      "7 2026-02-11",
      "9 2026-02-11",
    ]);
  });
  it("puts nothing below zero on a shelf", () =>
    expect(problems(list("Item,Amount,Cost\nShea butter,-1 kg,5\nBeeswax,1 kg,-5", {}, "opening"))).toEqual([
      "2 packSize: Amounts can't be below zero.",
      "3 packs: Nothing on a shelf is below zero.",
    ]));
});

it("three thousand lines, whose last tells how numbers are written and whose middle how dates are", () => {
  const TEN = [
    "Shea butter;2 x 500 g;1;1.200",
    "Beeswax;1 kg;1;8",
    "Sunflower oil;1 L;2;2.300",
    "Lavender essential oil;10 ml;5;45",
    "Cocoa butter;250 g;4;9",
  ];
  const lines = Array.from({ length: 300 }, (_, block) => {
    const date = block === 150 ? "25/04/2026" : "03/04/2026";
    return [...TEN, ...TEN].map((l, i) => `${i === 0 ? `${date};Mill & Moor` : ";"};${l}`);
  }).flat();
  lines[2999] = ";;Cocoa butter;250 g;4;7,50";
  const r = list(`Order date;Shop;Article;Contents;Pieces;Sum\n${lines.join("\n")}\n;;;;Total;2.137.198,50\n`);
  expect([firstAsked(r.asked), problems(r), left(r)]).toEqual(["", [], ["3002 total"]]);
  const all = r.intake.lines;
  // Ten lines are 7,124.00, three hundred times, less 1.50.
  expect([all.length, all.reduce((a, l) => a + l.price! / 1_000_000, 0)]).toEqual([3000, 2_137_198.5]);
  const weight = (id: number) => all.filter((l) => l.materialId === id).reduce((a, l) => a + l.qty, 0) / 1_000_000;
  expect([SHEA, WAX, OIL, LAVENDER, COCOA].map(weight)).toEqual([600, 600, 1104, 26.4, 600]);
  expect([...new Set(all.map((l) => l.day))]).toEqual(["2026-04-03", "2026-04-25"]);
});

describe("one row by itself", () => {
  const HEAD = "item;size;qty;price;date;shop;best before";
  const row = (cells: string, said: Partial<FileChoices> = {}) => list(`${HEAD}\n${cells}`, said);
  it("asks what a price is of only where that is a difference, and is told by whoever looks before the heading", () => {
    expect(firstAsked(row("Shea butter;1 kg;1;9;2026-01-05;Mill;").asked)).toBe("");
    expect(firstAsked(row("Shea butter;1 kg;2;9;2026-01-05;Mill;").asked)).toContain("“price” could be for one pack or for all 2 of them");
    const unit = `item;size;qty;unit price;date;shop\nShea butter;1 kg;2;9;2026-01-05;Mill`;
    expect([list(unit), list(unit, { priceOf: "all" }), list(unit, { priceOf: "kg" })].map((r) => r.intake.lines[0]!.price)).toEqual([
      eur(18),
      eur(9),
      eur(18),
    ]);
  });
  it.each([
    ["Shea butter;1 kg;1;12,345;2026-01-05;Mill;", "price: Money has at most two decimals here."],
    ["Shea butter;1 kg;1;12;2026-12-01;Mill;", "day: “2026-12-01” hasn't come yet."],
    ["Shea butter;1 kg;1;12;2026-02-01;Mill;2026-01-31", "bestBefore: That is before the day it arrived."],
    ["Shea butter;1 kg;1;12;2026-02-01;;", "supplier: Say who it came from."],
    ["Tin;500 g;1;12;2026-02-01;Mill;", "packSize: Tin is counted, not measured in g. Enter a number of pieces."],
    [`${"x".repeat(81)};1 kg;1;12;2026-02-01;Mill;`, `material: “${"x".repeat(20)}…” is over 80 characters.`],
  ])("%s is refused", (cells, say) => expect(problems(row(cells, { numbers: "comma" }))).toEqual([`2 ${say}`]));
  it("with four decimals was worked out by a spreadsheet, and is rounded to the cent", () =>
    expect(
      ["12.3450", "1234.5678", "0.004999"].map(
        (p) => row(`Shea butter;1 kg;1;${p};2026-01-05;Mill;`, { numbers: "point" }).intake.lines[0]?.price,
      ),
    ).toEqual([eur(12.35), eur(1234.57), eur(0)]));
  it("may be of today", () => expect(row("Shea butter;1 kg;1;12;2026-11-30;Mill;2026-11-30").intake.lines).toHaveLength(1));
});

it("a name over its lines is theirs once that is said, and a name is asked about even where all of a receipt's cells are merged", () => {
  const grouped = "Item;Amount;Cost\nShea butter;;\n;1 kg;12\n;500 g;7\n";
  expect(list(grouped, {}, "opening").asked.blanks).toEqual({ material: "2 rows name no material, rows 3, 4." });
  expect(list(grouped, { blanks: { material: "above" } }, "opening").intake.lines.map((l) => [l.row, l.materialId])).toEqual([
    [3, SHEA],
    [4, SHEA],
  ]);
  const merged = "date;shop;item;size;total\n2026-01-05;Mill;Shea butter;1 kg;9\n;;;500 g;5\n";
  expect(list(merged).asked.blanks).toEqual({ material: "1 row names no material, row 3." });
});

it("a material is one whatever its first word, and an unknown name is asked for", () => {
  const r = list("Item;Amount;Cost\nPacking paper;1 kg;3\nSumac;1 kg;4\n", {}, "opening");
  expect([r.intake.unknown.map((u) => u.name), r.intake.left]).toEqual([["Packing paper", "Sumac"], []]);
});

it("opening stock need not say when all of it was bought", () => {
  const r = list("Item;Amount;Bought\nShea butter;1 kg;2026-01-05\nBeeswax;1 kg;\n", {}, "opening");
  expect([firstAsked(r.asked), r.intake.lines.map((l) => l.day)]).toEqual(["", ["2026-01-05", null]]);
});
