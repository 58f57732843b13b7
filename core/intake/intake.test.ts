/** Tables as other programs write them. */
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { parseNumber } from "../measure/parse.ts";
import { done } from "../outcome.ts";
import { bodyOf } from "./body.ts";
import { guessColumns, priceOfHeading } from "./columns.ts";
import { ambiguousCell, dateOrder, looseDay, looseMoney, numberStyle, settled, type NumberStyle } from "./loose.ts";
import { currenciesOf, isSignOf } from "./money.ts";
import { writeTable } from "../lists/csv.ts";
import { MOST_ROWS, readRows, readTable } from "./table.ts";

const table = (text: string) => {
  const t = readTable(text);
  if (!t.ok) throw new Error(t.problem.say);
  return t.value;
};
const code = (text: string): string => {
  const t = readTable(text);
  return t.ok ? "ok" : t.problem.code;
};

describe("tables", () => {
  it.each([
    ["semicolons", "name;price\nShea;12,50"],
    ["commas and quotes", 'name,price\n"Shea","12,50"'],
    ["tabs", "name\tprice\nShea\t12,50"],
    ["a byte-order mark and Windows line ends", "\ufeffname;price\r\nShea;12,50\r\n"],
    ["blank lines around", "\n\nname;price\n;\nShea;12,50\n\n"],
  ])("%s", (_, text) => expect(table(text)).toEqual({ header: ["name", "price"], rows: [["Shea", "12,50"]] }));
  it("without names over the columns, every row counts", () =>
    expect(table("Shea;1 kg;12,50\nMango;500 g;7")).toEqual({
      header: ["Column 1", "Column 2", "Column 3"],
      rows: [
        ["Shea", "1 kg", "12,50"],
        ["Mango", "500 g", "7"],
      ],
    }));
  it.each([
    ["", "empty"],
    [" \n ", "empty"],
    ["\u0089PNG\r\n\u001a\n\u0000\u0000", "notText"],
    ["PK\u0003\u0004\u0014\u0000", "notText"],
    ["%PDF-1.7\n1 0 obj", "notText"],
    ["just\none\ncolumn", "oneColumn"],
  ])("%j is refused: %s", (text, want) => expect(code(text)).toBe(want));
  it("twenty thousand lines are read, one more is said to be too many", () => {
    const rows = "Shea;1 kg;12,50\n".repeat(MOST_ROWS);
    expect(table(`name;size;price\n${rows}`).rows).toHaveLength(MOST_ROWS);
    expect(code(`name;size;price\n${rows}Shea;1 kg;1\n`)).toBe("tooLong");
  });
  it("written, a table reads back as it was, and no cell can act as a formula", () => {
    fc.assert(
      fc.property(fc.array(fc.tuple(fc.string(), fc.stringMatching(/^[ -~äöüß€]*$/)), { minLength: 1, maxLength: 8 }), (rows) => {
        const clean = rows.map((r) => r.map((c) => `x${c.replace(/[\u0000-\u001f\ufffd\ufeff]/g, "")}x`));
        expect(table(writeTable(["first", "second"], clean)).rows).toEqual(clean.map((r) => r.map((c) => c.trim())));
      }),
    );
    expect(writeTable(["a"], [["=1+1"], ["-2"], ["@x"]])).toBe("\ufeffa\r\n'=1+1\r\n-2\r\n'@x\r\n");
    for (const cell of ["-2+3", "+1-1", "-2+cmd|' /C calc'!A0", "\t=1", "\r=1", " =1", "\u200b=1", "＝1", "＠x", "|x", "−1+1"])
      expect(writeTable([cell], []), cell).toMatch(/^\ufeff"?'/);
    for (const cell of ["12.50", "-2", "-2,5", "+3", "Shea (raw)", "a=b"]) expect(writeTable([cell], []), cell).not.toContain("'");
    expect(code("a;".repeat(300))).toBe("tooWide");
    expect(code(`name;size;price\n${"Shea;1 kg;1\n".repeat(125_000)}`)).toBe("tooLong");
  });
});

describe("numbers", () => {
  it.each([
    [["12,50", "3"], "comma"],
    [["12.50", "3"], "point"],
    [["1.234,50"], "comma"],
    [["1,234.50"], "point"],
    [["1.234.567", "2"], "comma"],
    [["1,234", "1.5"], "point"],
    [["1,234", "7"], null],
    [["7", ""], null],
    [["€ 12,50", "1.234,00 EUR"], "comma"],
    [["0,250 kg", "1,234"], "comma"],
  ])("%j is written with a decimal %s", (texts, style) => expect(numberStyle(texts)).toBe(style));
  it.each<[string, NumberStyle, number]>([
    ["1.234,50", "comma", 1234.5],
    ["1,234.50", "point", 1234.5],
    ["1 234,50 €", "comma", 1234.5],
    ["1 234.50", "point", 1234.5],
    ["$1,234", "point", 1234],
    ["1'234.50", "point", 1234.5],
    ["1,234", "comma", 1.234],
    ["EUR 7", "point", 7],
    ["7 EUR", "comma", 7],
    ["kr 7,50", "comma", 7.5],
    ["12,-", "point", 12],
    ["12.–", "comma", 12],
    [".5", "point", 0.5],
    ["0,250", "point", 0.25],
  ])("%s in %s is %s", (text, style, n) => {
    const money = looseMoney(text, style);
    expect(money.ok && [money.value.n.valueOf(), money.value.credit]).toEqual([n, false]);
  });
  it.each(["-5", "−5,00", "(5)", "5.00-", "5 CR", "5.00 cr.", "-€5", "€-5", "(5 EUR)"])("%s was given back", (text) => {
    const money = looseMoney(text, text.includes(",") ? "comma" : "point");
    expect(money.ok && [money.value.n.valueOf(), money.value.credit]).toEqual([5, true]);
  });
  it.each([
    ["", "empty"],
    ["1,2,3", "ambiguous"],
    ["twelve", "notMoney"],
    ["12 50", "ambiguous"],
    ["2 3", "ambiguous"],
    ["5k", "notMoney"],
    ["1/2", "notMoney"],
    ["9".repeat(70), "long"],
  ])("%j is refused: %s", (text, want) => {
    const n = looseMoney(text, "point");
    expect(n.ok ? "ok" : n.problem.code).toBe(want);
  });
  it("any amount of cents comes back, in either style, however it is dressed", () => {
    const group = (n: number, mark: string): string => String(n).replace(/\B(?=(\d{3})+$)/g, mark);
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 99_999_999 }), fc.boolean(), fc.constantFrom("", "€ ", "EUR ", "$"), (cents, point, sign) => {
        const text = `${sign}${group(Math.floor(cents / 100), point ? "," : ".")}${point ? "." : ","}${String(cents % 100).padStart(2, "0")}`;
        const money = looseMoney(text, point ? "point" : "comma");
        expect(money.ok && [money.value.n.mul(100).valueOf(), money.value.sign]).toEqual([cents, sign.trim()]);
      }),
    );
  });
  it("what could be two numbers is found, and what has one reading isn't", () => {
    const read = (t: string, s: NumberStyle) => {
      const n = parseNumber(settled(t, s, true), "asked");
      return n.ok ? done(n.value) : n;
    };
    expect([["7", "1,234"], ["1.234"], ["7"], ["0,250"], ["1.234,5"], ["12,5"]].map((cells) => ambiguousCell(cells, read))).toEqual([
      "1,234",
      "1.234",
      null,
      null,
      null,
      null,
    ]);
  });
});

describe("signs of money", () => {
  it("are the workshop's own by code, sign and custom", () => {
    expect([
      isSignOf("€", "EUR"),
      isSignOf("eur", "EUR"),
      isSignOf("$", "EUR"),
      isSignOf("$", "USD"),
      isSignOf("Fr.", "CHF"),
      isSignOf("kr", "SEK"),
    ]).toEqual([true, true, false, true, true, true]);
    expect(currenciesOf("$", ["EUR", "USD", "GBP", "CAD"])).toEqual(["USD", "CAD", "EUR", "GBP"]);
  });
});

describe("dates", () => {
  it.each([
    [["2026-11-25"], "ymd"],
    [["03/04/2026", "25/04/2026"], "dmy"],
    [["03/04/2026", "04/25/2026"], "mdy"],
    [["31/04/26", "03/04/26"], "ymd"],
    [["31/03/26"], ["31/03/26", "2031-03-26"]],
    [["03.11.2025"], "dmy"],
    [["5/5/2026", "3 Apr 2026", "2026-03-04"], "dmy"],
    [["3 Apr 2026"], "ymd"],
    [["03/04/2026"], ["03/04/2026", "2026-04-03"]],
    [["26-03-05"], ["26-03-05", "2026-03-05"]],
    [["soon", ""], "ymd"],
  ])("%j is written %s", (texts, told) => {
    const t = dateOrder([{ texts: texts }]);
    expect("order" in t ? t.order : [t.text, t.could[0]]).toEqual(told);
  });
  it("what would be after today tells a year from a day", () => {
    const texts = ["28-02-26", "26-03-05"];
    expect(dateOrder([{ texts, latest: "2026-11-25" }])).toEqual({ order: "dmy" });
    expect(dateOrder([{ texts }])).toHaveProperty("could");
  });
  it("a column is never read as days it could also not be", () => {
    const days = fc.array(
      fc.record({ y: fc.integer({ min: 2000, max: 2099 }), m: fc.integer({ min: 1, max: 12 }), d: fc.integer({ min: 1, max: 28 }) }),
      {
        minLength: 1,
        maxLength: 12,
      },
    );
    const two = (n: number): string => String(n % 100).padStart(2, "0");
    fc.assert(
      fc.property(days, fc.constantFrom("ymd", "dmy", "mdy"), fc.constantFrom("-", "/"), (all, order, mark) => {
        const texts = all.map(({ y, m, d }) =>
          order
            .split("")
            .map((c) => two({ y, m, d }[c]!))
            .join(mark),
        );
        const told = dateOrder([{ texts }]);
        if (!("order" in told)) return;
        const want = all.map(({ y, m, d }) => ({ ok: true, value: `${y}-${two(m)}-${two(d)}` }));
        expect(texts.map((t) => looseDay(t, told.order))).toEqual(want);
      }),
    );
  });
  it.each([
    ["5.3.26", "dmy", "2026-03-05"],
    ["03/05/2026", "mdy", "2026-03-05"],
    ["2026/3/5", "dmy", "2026-03-05"],
    ["5 March 2026", "dmy", "2026-03-05"],
    ["26-03-05", "ymd", "2026-03-05"],
    ["2026-03-05T10:00:00Z", "ymd", "2026-03-05"],
    ["14. April 2026", "mdy", "2026-04-14"],
    ["April 14, 2026", "dmy", "2026-04-14"],
    ["12/2027", "mdy", "2027-12-31"],
    ["Apr 2027", "ymd", "2027-04-30"],
    ["2028-02", "dmy", "2028-02-29"],
    ["5 Mar 26", "mdy", "2026-03-05"],
  ] as const)("%s in %s is %s", (text, order, day) => expect(looseDay(text, order)).toEqual({ ok: true, value: day }));
  it.each(["31.02.2026", "25/13/2026", "soon", "", "5 Foo 2026", "5 Dec", "tomorrow", "in 3 weeks", "13/2027", "x".repeat(80)])(
    "%j is refused",
    (text) => expect(looseDay(text, "dmy").ok).toBe(false),
  );
});

describe("columns", () => {
  it.each([
    [["Item", "Qty", "Size", "Total"], { material: 0, packs: 1, packSize: 2, price: 3 }],
    [
      ["Order date", "Shop", "Product name", "Pack size", "Line total", "Best before", "Lot"],
      { day: 0, supplier: 1, material: 2, packSize: 3, price: 4, bestBefore: 5, supplierLot: 6 },
    ],
    [
      ["Order number", "Workshop", "Discount", "Article no.", "Net weight", "Batch number", "Total weight"],
      { material: null, packs: null, packSize: 4, price: null, supplierLot: 5, supplier: null, day: null },
    ],
    [["Material", "Unit price", "Units", "Number of packs"], { material: 0, price: 1, packs: 2 }],
    [["Item", "Size", "Postage cost"], { packSize: 1, price: null }],
    [["Item", "Price per unit", "Best-before", "Supplier’s lot"], { price: 1, packs: null, bestBefore: 2, supplierLot: 3 }],
  ])("%j is matched by whole words", (header, want) => expect(guessColumns(header, [])).toMatchObject(want));
  it("“Amount” and “Unit” are told by their cells", () => {
    const rows = (...cells: string[][]) => cells.map((c, i) => ({ at: i + 2, cells: c }));
    expect(guessColumns(["Item", "Size", "Amount"], rows(["Shea", "1 kg", "12.50"], ["Wax", "1 kg", "9"]))).toMatchObject({
      packSize: 1,
      price: 2,
    });
    expect(guessColumns(["Item", "Amount", "Cost"], rows(["Shea", "1 kg", "12.50"]))).toMatchObject({ packSize: 1, price: 2 });
    expect(guessColumns(["Item", "Qty", "Unit"], rows(["Shea", "1", "kg"], ["Tin", "4", "pcs"]))).toMatchObject({ packs: 1, unit: 2 });
    expect(guessColumns(["Item", "Qty", "Unit"], rows(["Shea", "1", "9.50"]))).toMatchObject({ unit: null });
  });
  it.each([
    ["Unit price", "pack"],
    ["Price each", "pack"],
    ["Price per kg", "kg"],
    ["€/kg", "kg"],
    ["per 100 g", "hg"],
    ["Cost per litre", "l"],
    ["price/lb", "lb"],
    ["Price of all", "all"],
    ["Line total", "all"],
    ["Price", null],
    ["Cost", null],
  ])("%s is the price of %s", (heading, of) => expect(priceOfHeading(heading)).toBe(of));
});

describe("the goods of a list", () => {
  const body = (text: string) => {
    const rows = readRows(text);
    if (!rows.ok) throw new Error(rows.problem.say);
    return bodyOf(rows.value);
  };
  it("begin below the headings, wherever those are, in the rows the file has", () => {
    const b = body("Mill, Harbour Street 5\n\nItem;Size;Total\nShea;1 kg;9\n\nItem;Size;Total\nWax;1 kg;8");
    expect(b.header).toEqual(["Item", "Size", "Total"]);
    expect(b.rows.map((r) => r.at)).toEqual([4, 7]);
    expect(b.left).toEqual([
      { at: 1, text: "Mill, Harbour Street 5", why: "title" },
      { at: 6, text: "Item · Size · Total", why: "heading" },
    ]);
  });
  it("are every row where nothing is a heading", () => {
    expect(body("Shea;1 kg;12,50\nMango;500 g;7").rows).toHaveLength(2);
    expect(body("Ware;Menge\nBase for an item;1 kg").header).toEqual(["Ware", "Menge"]);
    expect(body("Beurre;brut\nKarité;1 kg").header).toEqual(["Beurre", "brut"]);
  });
});
