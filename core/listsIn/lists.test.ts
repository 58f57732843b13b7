/** Lists as makers keep them: merged cells, totals in the middle, headings again, another's way of writing numbers and days. */
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { micros } from "../measure/exact.ts";
import { finder, rowsIn, said } from "#test/core/listRows";
import { DAYS, NO_PRODUCT, readDays, sameDay } from "./days.ts";
import { FINISHED, readFinished, sameLot } from "./finished.ts";
import { ORDERS, readOrders, sameOrder } from "./orders.ts";
import { PRICES, readPrices } from "./prices.ts";

const euro = (n: number) => micros(Math.round(n * 1e6));

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
    expect(all.there).toEqual([{ row: 7, name: "On the green, Saturday 9 May 2026" }]);
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

  it("under another market's name have no day but their own; a number alone is a sum, not a market", () => {
    const { rows, left, reading } = rowsIn("Day;Took;Notes\nOld mill\n2026-05-02;100;\n300;;\nFair\n;50;rain\n2026-05-03;40;", DAYS);
    const { fresh, problems } = readDays(rows, finder(), new Set(), reading);
    expect(left).toEqual([[4, "total"]]);
    expect(fresh.map((d) => [d.market, d.day])).toEqual([
      ["Old mill", "2026-05-02"],
      ["Fair", "2026-05-03"],
    ]);
    expect(said(problems)).toEqual(["6: It doesn't say on which day."]);
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
