/** Lists as makers keep them: merged cells, totals in the middle, headings again, another's way of writing numbers and days. */
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { micros } from "../measure/exact.ts";
import type { Sized } from "../recipe/productNames.ts";
import { readRows } from "../intake/table.ts";
import type { Reading } from "./cells.ts";
import { DAYS, NO_PRODUCT, readDays, sameDay } from "./days.ts";
import { FINISHED, readFinished, sameLot } from "./finished.ts";
import { listRows, listTable, writtenIn, type ListSpec } from "./list.ts";
import { kindIn, MATERIALS, readMaterials } from "./materials.ts";
import { ORDERS, readOrders, sameOrder } from "./orders.ts";
import { PRICES, readPrices } from "./prices.ts";
import { productFinder } from "./products.ts";

const TODAY = "2026-12-01";
const sized = (id: number, recipe: string, label: string, retired = false): Sized => ({ id, recipe, label, container: "Tin", retired });
const PRODUCTS = [
  sized(1, "Hand balm", "60 g"),
  sized(2, "Hand balm", "30 g"),
  sized(3, "Lip balm", "4.5 g"),
  sized(4, "Old salve", "50 g", true),
  sized(5, "Twin", "20 g"),
  sized(6, "Twin", "20 g"),
];
const euro = (n: number) => micros(Math.round(n * 1e6));

/** A list's rows, read as it is written; with what has to be said first. */
function rowsIn<F extends string>(text: string, spec: ListSpec<F>) {
  const all = readRows(text, { least: 1 });
  if (!all.ok) throw new Error(all.problem.say);
  const table = listTable(all.value, spec);
  const { rows, left } = listRows(table.rows, table.columns, spec);
  const { written, asked } = writtenIn(rows, spec, { numbers: null, dates: null }, TODAY);
  const reading: Reading = { ...written, own: "EUR", today: TODAY };
  return { rows, left: [...table.left, ...left].map((l) => [l.at, l.why]), asked, reading, columns: table.columns };
}
const finder = (matches = {}) => productFinder(PRODUCTS, matches);
const said = (problems: readonly { row: number; say: string }[]) => problems.map((p) => `${p.row}: ${p.say}`);

describe("a product's name", () => {
  it.each<[string, string, number | null]>([
    ["Hand balm", "60 g", 1],
    ["hand balm, 60g", "", 1],
    ["HAND  BALM – 30 g", "", 2],
    ["Lip balm", "4.5g", 3],
    ["Lip balm", "", 3],
    // Two sizes; no size of it; two alike; what isn't made any more, the only one of its name.
    ["Hand balm", "", null],
    ["Hand balm", "90 g", null],
    ["Twin", "20 g", null],
    ["Old salve", "50 g", 4],
    ["Hand salve", "60 g", null],
  ])("“%s” “%s” means %s", (product, size, id) => expect(finder().find(product, size)).toBe(id));
  it("means what was said of it, and nothing where it was said to be none", () => {
    const { find } = finder({ "balm, big": "1", nix: NO_PRODUCT, gone: "99" });
    expect([find("Balm", "Big"), find("Nix", ""), find("Gone", "")]).toEqual([1, null, null]);
  });
});

describe("which column is which", () => {
  it.each<[string, ListSpec<string>, object]>([
    ["For;Due;Product;Qty;Each;Notes", ORDERS as never, { order: null, customer: 0, due: 1, product: 2, units: 3, price: 4, note: 5 }],
    [
      "No;Name;Date;Item;Number;Line total;Delivered on",
      ORDERS as never,
      { order: 0, customer: 1, due: 2, product: 3, units: 4, total: 5, handedOver: 6 },
    ],
    ["Order date;Customer;Due;What;Count;Price", ORDERS as never, { order: null, customer: 1, due: 2, product: 3, units: 4, price: 5 }],
    [
      "Where;When;What;Size;How many;Each;Total;Pitch;Fuel",
      DAYS as never,
      { market: 0, day: 1, product: 2, size: 3, units: 4, price: 5, takings: 6, fee: 7, travel: 8 },
    ],
    [
      "Item;Container;On hand;Batch date;Batch;Use by;Unit cost",
      FINISHED as never,
      { product: 0, size: 1, units: 2, made: 3, lot: 4, bestBefore: 5, cost: 6 },
    ],
    [
      "What;Net weight;Retail;Trade;Web shop;Gift orders",
      PRICES as never,
      { product: 0, size: 1, market: 2, wholesale: 3, online: 4, gift: 5 },
    ],
  ])("%s", (heading, spec, columns) => {
    const wide = heading.split(";").length;
    expect(rowsIn(`${heading}\n${"x;".repeat(wide - 1)}x`, spec).columns).toMatchObject(columns);
  });
  it("a row with a number in it has no headings, though it has their words", () => {
    const { rows, left } = rowsIn("2026-05-02;Market at the fair place;Product name;3", DAYS);
    expect([rows.length, left]).toEqual([1, []]);
  });
});

describe("market days", () => {
  const SHEET = [
    "Where I stood;;;;;;",
    "Date;Market;Product;Size;Sold;Price;Stall fee",
    "02.05.2026;On the green;Hand balm;60 g;7;12,50;30",
    ";;Lip balm;;11;4,50;",
    "Total;;;;18;137,00;",
    "Date;Market;Product;Size;Sold;Price;Stall fee",
    "09.05.2026;;Hand balm;30 g;3;7,50;30",
    ";;;;;;",
    "13.06.2026;Old mill;Hand balm;60 g;2;12,50;",
    ";;Candle;;4;6,00;",
  ].join("\n");

  it("stand together over merged cells, without titles, sums and headings written again; one with an unknown name waits", () => {
    const { rows, left, reading } = rowsIn(SHEET, DAYS);
    const { fresh, problems, unknown } = readDays(rows, finder(), new Set(), reading);
    expect(left).toEqual([
      [1, "title"],
      [5, "total"],
      [6, "heading"],
    ]);
    expect(fresh.map((d) => [d.row, d.market, d.day, d.stallFee, d.sales.map((s) => [s.productId, s.units, s.takings])])).toEqual([
      [
        3,
        "On the green",
        "2026-05-02",
        euro(30),
        [
          [1, 7, euro(87.5)],
          [3, 11, euro(49.5)],
        ],
      ],
      [7, "On the green", "2026-05-09", euro(30), [[2, 3, euro(22.5)]]],
    ]);
    expect(unknown).toEqual([{ name: "Candle", rows: 1 }]);
    expect(said(problems)).toEqual(["10: “Candle” is no product of yours, or more than one.", "9: Its day waits for row 10."]);
    const all = readDays(rows, finder({ candle: NO_PRODUCT }), new Set([sameDay("ON THE GREEN ", "2026-05-09")]), reading);
    expect(all.fresh[1]!.sales).toEqual([
      { productId: 1, name: "Hand balm, 60 g", units: 2, takings: euro(25) },
      { productId: null, name: "Candle", units: 4, takings: euro(24) },
    ]);
    expect(all.there).toEqual([{ row: 7, name: "On the green, 2026-05-09" }]);
  });

  it("may be no more than what each took, under the market's name", () => {
    const { rows, reading } = rowsIn(
      "Day,Took,Hours,Notes\nOn the green\n2026-05-02,312.50,6.5,rain\n2026-05-09,401,,\n2027-01-09,1,,",
      DAYS,
    );
    const { fresh, problems } = readDays(rows, finder(), new Set(), reading);
    expect(fresh.map((d) => [d.market, d.day, d.minutes, d.note, d.sales])).toEqual([
      ["On the green", "2026-05-02", 390, "rain", [{ productId: null, name: "Not told by product", units: 0, takings: euro(312.5) }]],
      ["On the green", "2026-05-09", 0, "", [{ productId: null, name: "Not told by product", units: 0, takings: euro(401) }]],
    ]);
    expect(said(problems)).toEqual(["5: “2027-01-09” hasn't come yet."]);
  });

  it("says what contradicts itself, and what isn't theirs", () => {
    const { rows, reading } = rowsIn(
      [
        "Market;Day;Product;Size;Sold;Price;Takings;Fee",
        "Mill;2026-05-02;Hand balm;60 g;2;12;20;30",
        "Mill;2026-05-02;Lip balm;;1;4;;25",
        "Fair;2026-05-02;Hand balm;60 g;2;12;20;",
        "Fair;2026-05-03;Hand balm;60 g;1,5;12;;",
        "Fair;2026-05-04;Hand balm;60 g;2;$ 12;;",
        "Fair;2026-05-05;Hand balm;60 g;2;;;",
      ].join("\n"),
      DAYS,
    );
    const { fresh, problems, remarks } = readDays(rows, finder(), new Set(), { ...reading, numbers: "comma" });
    expect(fresh.map((d) => [d.day, d.sales[0]!.takings])).toEqual([["2026-05-02", euro(20)]]);
    expect(remarks.map((r) => r.row)).toEqual([2, 4]);
    expect(said(problems)).toEqual([
      "3: Another stall fee than in row 2.",
      "2: Its day waits for row 3.",
      "5: “1,5” isn't a whole number of sold.",
      "6: “$ 12” isn't in EUR. Write what it was in EUR.",
      "7: It says neither what “Hand balm, 60 g” took, nor how many at what price.",
    ]);
  });
});

describe("orders", () => {
  const SHEET = [
    "For;Due;Product;Size;Qty;Each;Status",
    "The choir;19.12.2026;Hand balm;60 g;12;11,00;open",
    ";;Lip balm;;12;4,00;",
    "Nora;20.12.2025;Hand balm;30 g;2;7,50;",
    "Book circle;14.11.2026;Hand balm;60 g;1;12,50;sent",
    "Nora;21.12.2026;Twin;20 g;1;5;",
  ].join("\n");
  it("are told by whom and when; what was due long ago is asked about", () => {
    const { rows, reading } = rowsIn(SHEET, ORDERS);
    const first = readOrders(rows, finder(), new Set(), null, reading);
    expect(first.asksBefore).toBe(true);
    const { fresh, problems } = readOrders(rows, finder(), new Set(), "out", reading);
    expect(fresh.map((o) => [o.row, o.customer, o.due, o.handedOver, o.items.map((i) => [i.productId, i.units, i.price])])).toEqual([
      [
        2,
        "The choir",
        "2026-12-19",
        null,
        [
          [1, 12, euro(11)],
          [3, 12, euro(4)],
        ],
      ],
      [4, "Nora", "2025-12-20", "2025-12-20", [[2, 2, euro(7.5)]]],
      [5, "Book circle", "2026-11-14", "2026-11-14", [[1, 1, euro(12.5)]]],
    ]);
    expect(said(problems)).toEqual(["6: “Twin, 20 g” is no product of yours, or more than one."]);
    expect(readOrders(rows, finder(), new Set(), "open", reading).fresh[1]!.handedOver).toBeNull();
    expect(readOrders(rows, finder({ "twin, 20 g": "6" }), new Set([sameOrder("nora", "2026-12-21")]), "out", reading).there).toEqual([
      { row: 6, name: "Nora" },
    ]);
  });
  it("say what is missing, and share a line's price only where it comes to whole cents", () => {
    const { rows, reading } = rowsIn(
      [
        "Order no,Customer,Due,Product,Size,Units,Total,Delivered",
        "1,Ada,2026-11-02,Hand balm,60 g,4,44.00,2026-11-01",
        "1,Ada,2026-11-02,Hand balm,30 g,3,20.00,2026-11-01",
        "2,Ada,2026-11-02,Hand balm,30 g,2,14.00,2026-11-03",
        "3,,2026-11-02,Hand balm,30 g,2,14.00,2026-11-03",
        "4,Bo,,Hand balm,30 g,0,14.00,",
        "5,Cy,2026-12-02,Hand balm,30 g,1,,2026-12-02",
      ].join("\n"),
      ORDERS,
    );
    const { fresh, problems } = readOrders(rows, finder(), new Set(), null, reading);
    expect(fresh.map((o) => [o.row, o.handedOver, o.items[0]!.price])).toEqual([[4, "2026-11-03", euro(7)]]);
    expect(said(problems)).toEqual([
      "3: 20.00 for 3 doesn't come to whole cents each.",
      "2: Its order waits for row 3.",
      "5: It doesn't say who it is for.",
      "6: It doesn't say when it is due.",
      "6: It doesn't say how many of “Hand balm, 30 g”.",
      "7: It doesn't say what one of “Hand balm, 30 g” was sold for.",
      "7: “2026-12-02” hasn't come yet.",
    ]);
  });
});

describe("finished goods", () => {
  const KEEPS = new Map([[1, 12]]);
  it("have the day they keep to, or say that it is worked out, past, or sooner than they were made", () => {
    const { rows, reading } = rowsIn(
      [
        "Product;Size;In stock;Made on;Best before;Lot;Cost",
        "Hand balm;60 g;24;12.10.2026;;H-17;2,10",
        ";30 g;5 pcs;;30.11.2026;H-9;",
        "Lip balm;;3;12.10.2026;01.10.2026;;",
        "Lip balm;;0;;;;",
        "Hand balm;60 g;24;12.10.2026;;H-17;2,10",
        "Hand balm;60 g;24;12.10.2026;;H-18;2,10",
      ].join("\n"),
      FINISHED,
    );
    const there = new Set([sameLot({ productId: 1, lotOnIt: "h-18", made: "2026-10-12", bestBefore: null })]);
    const { fresh, problems, remarks, there: known } = readFinished(rows, finder(), KEEPS, there, reading);
    const first = { productId: 1, units: 24, cost: euro(2.1), lotOnIt: "H-17", made: "2026-10-12", bestBefore: "2027-10-12", worked: true };
    // Two lines alike are two lots.
    expect(fresh).toEqual([
      { row: 2, ...first },
      { row: 3, productId: 2, units: 5, cost: null, lotOnIt: "H-9", made: null, bestBefore: "2026-11-30", worked: false },
      { row: 6, ...first },
    ]);
    expect(remarks.map((r) => r.row)).toEqual([3]);
    expect(known).toEqual([{ row: 7, name: "Hand balm, 60 g" }]);
    expect(said(problems)).toEqual([
      "4: It is best before a day sooner than it was made on.",
      "5: It doesn't say how many there are of “Lip balm”.",
    ]);
  });
});

describe("prices", () => {
  it("are those that are another than today's; a product has one row", () => {
    const { rows, reading, columns } = rowsIn(
      "Product;Size;Market: price;Market: left;Wholesale: price\nHand balm;60 g;12,50;3;7,00\n;30 g;7,50;;\nHand balm;60 g;13;;\nLip balm;;0;;\nTwin;20 g;1;;\nLip balm;4.5 g;;;",
      PRICES,
    );
    expect(columns).toMatchObject({ market: 2, wholesale: 4, online: null, gift: null });
    const now = new Map([
      [1, { market: euro(12.5), wholesale: euro(6) }],
      [2, { market: euro(7.5) }],
    ]);
    const { fresh, there, problems, unknown } = readPrices(rows, finder(), now, reading);
    expect(fresh).toEqual([{ row: 2, productId: 1, prices: { wholesale: euro(7) } }]);
    expect(there).toEqual([{ row: 3, name: "Hand balm, 30 g" }]);
    expect(unknown).toEqual([{ name: "Twin, 20 g", rows: 1 }]);
    expect(said(problems)).toEqual([
      "4: “Hand balm, 60 g” is in row 2 already.",
      "5: The price on market is nothing.",
      "6: “Twin, 20 g” is no product of yours, or more than one.",
      "7: “Lip balm, 4.5 g” has no price.",
    ]);
  });
});

describe("whatever a list holds", () => {
  const cell = fc.constantFrom(
    "",
    "Hand balm",
    "Lip balm",
    "60 g",
    "3",
    "12,50",
    "02.05.2026",
    "Mill",
    "Total",
    "x".repeat(130),
    "-4",
    "1e9",
  );
  const table = fc.array(fc.array(cell, { minLength: 8, maxLength: 8 }), { minLength: 1, maxLength: 12 });
  const HEAD = "Market;Day;Product;Size;Sold;Price;Takings;Fee";
  it("no row is lost: each is in something new, known, said why not, left out, or names those beneath it", () =>
    fc.assert(
      fc.property(table, (cells) => {
        const { rows, left, reading } = rowsIn([HEAD, ...cells.map((r) => r.join(";"))].join("\n"), DAYS);
        const { fresh, problems } = readDays(rows, finder(), new Set(), reading);
        const named = cells.flatMap((r, i) => (r.filter((c) => c !== "").length <= 1 ? [i + 2] : []));
        const days = new Set(fresh.map((d) => sameDay(d.market, d.day)));
        for (const [i] of cells.entries()) {
          const at = i + 2;
          const row = rows.find((r) => r.at === at);
          if (!row) expect(left.some(([l]) => l === at) || named.includes(at)).toBe(true);
          else if (!problems.some((p) => p.row === at))
            expect([...days].some((d) => d.startsWith(row.text("market").toLowerCase()))).toBe(true);
        }
        // Money is kept: what the days took is what their rows say.
        for (const d of fresh) expect(d.sales.every((s) => s.takings >= 0 && Number.isSafeInteger(s.takings))).toBe(true);
      }),
      { numRuns: 300 },
    ));
});

describe("materials", () => {
  it("are the library's where it has the name, else of the kind they say; a name alone is one too", () => {
    const { rows, reading } = rowsIn(
      [
        "Name;Type;Holds ml;Keeps months;Allergens;Notes",
        "Olive oil;;;;;cold pressed",
        "Jojoba oil",
        "Hill wax;Waxes;;24;;",
        "Square tin;tin;27,5;;;",
        "Olive oil;;;;;",
        "Moon dust;spell;;;;",
        "Sal buter;;;;nuts;",
        "Known oil;oil;;;;",
        "Loud oil;oil;30;;;",
      ].join("\n"),
      MATERIALS,
    );
    const read = (matches = {}) => readMaterials(rows, new Set(["known oil"]), matches, reading);
    const { fresh, there, problems, unknown } = read({ "sal buter": "library:sal" });
    const none = { brimMl: null, keepsSealed: null, allergen: "", note: "" };
    expect(fresh).toEqual([
      { row: 2, name: "Olive oil", libraryKey: "olive", kind: "oil", ...none, note: "cold pressed" },
      { row: 3, name: "Jojoba oil", libraryKey: "jojoba", kind: "oil", ...none },
      { row: 4, name: "Hill wax", libraryKey: null, kind: "wax", ...none, keepsSealed: 24 },
      { row: 5, name: "Square tin", libraryKey: null, kind: "container", ...none, brimMl: 27.5 },
      { row: 8, name: "Sal butter", libraryKey: "sal", kind: "hardButter", ...none, allergen: "nuts" },
    ]);
    expect(there).toEqual([{ row: 9, name: "Known oil" }]);
    expect(unknown).toEqual([{ name: "Moon dust", rows: 1 }]);
    expect(said(problems)).toEqual([
      "6: “Olive oil” is in row 2 already.",
      "7: It doesn't say what “Moon dust” is.",
      "10: Only containers and moulds hold so many mL.",
    ]);
    expect(read({ "moon dust": "kind:powder", "sal buter": "Known oil" }).fresh.map((m) => m.name)).toContain("Moon dust");
    expect(read({ "sal buter": "Known oil" }).there.map((t) => t.name)).toEqual(["Sal buter", "Known oil"]);
  });
  it.each([
    ["Liquid oils", "oil"],
    ["carrier oil", "oil"],
    ["EO", "essentialOil"],
    ["Jars", "container"],
    ["screw cap", "closure"],
    ["spell", null],
    ["", null],
  ])("“%s” is the kind %s", (text, kind) => expect(kindIn(text)).toBe(kind));
});
