/** Tables as other programs write them. */
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import type { MaterialFacts } from "../material/facts.ts";
import { dateOrder, looseDay, looseMoney, looseNumber, numberStyle } from "./loose.ts";
import { guessColumns, guessStyles, readIntake, type Intake } from "./receipt.ts";
import { MOST_ROWS, readTable, writeTable } from "./table.ts";

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
  ])("%j is written with a decimal %s", (texts, style) => expect(numberStyle(texts)).toBe(style));
  it.each([
    ["1.234,50", "comma", "1234.50"],
    ["1,234.50", "point", "1234.50"],
    ["1 234,50 €", "comma", "1234.50"],
    ["$1,234", "point", "1234"],
    ["1'234.50", "point", "1234.50"],
    ["1,234", "comma", "1.234"],
    ["EUR 7", "point", "7"],
  ] as const)("%s in %s is %s", (text, style, plain) => expect(looseNumber(text, style)).toEqual({ ok: true, value: plain }));
  it.each([
    ["", "empty"],
    ["-5", "negative"],
    ["(5)", "negative"],
    ["1,2,3", "notNumber"],
    ["twelve", "notNumber"],
  ])("%j is refused: %s", (text, want) => {
    const n = looseNumber(text, "point");
    expect(n.ok ? "ok" : n.problem.code).toBe(want);
  });
  it("any amount of cents comes back, in either style, however it is dressed", () => {
    const group = (n: number, mark: string): string => String(n).replace(/\B(?=(\d{3})+$)/g, mark);
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 99_999_999 }), fc.boolean(), fc.constantFrom("", "€ ", "EUR ", "$"), (cents, point, sign) => {
        const text = `${sign}${group(Math.floor(cents / 100), point ? "," : ".")}${point ? "." : ","}${String(cents % 100).padStart(2, "0")}`;
        expect(looseMoney(text, point ? "point" : "comma")).toEqual({ ok: true, value: cents * 10_000 });
      }),
    );
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
  ] as const)("%s in %s is %s", (text, order, day) => expect(looseDay(text, order)).toEqual({ ok: true, value: day }));
  it.each(["31.02.2026", "25/13/2026", "soon", "", "5 Foo 2026"])("%j is refused", (text) => expect(looseDay(text, "dmy").ok).toBe(false));
});

describe("receipts", () => {
  const material = (id: number, name: string, over: Partial<MaterialFacts> = {}): MaterialFacts & { id: number } => ({
    id,
    name,
    kind: "oil",
    densities: { liquid: 920 },
    dropsPerMl: null,
    pieceMg: null,
    ...over,
  });
  const known = new Map(
    [material(1, "Olive oil"), material(2, "Tin", { kind: "container", densities: {} })].map((m) => [m.name.toLowerCase(), m]),
  );
  const read = (text: string): Intake => {
    const t = table(text);
    const m = guessColumns(t.header);
    const { styles, asked } = guessStyles(t, m, "2026-11-25");
    expect(asked).toEqual({ numbers: "", dates: "" });
    const r = readIntake(t, m, styles, known, { supplier: "Mill", day: "2026-11-25" });
    if (!r.ok) throw new Error(r.problem.say);
    return r.value;
  };
  it.each([
    [["Item", "Qty", "Size", "Total"], { material: 0, packs: 1, packSize: 2, price: 3 }],
    [
      ["Order date", "Shop", "Product name", "Pack size", "Line total", "Best before", "Lot"],
      { day: 0, supplier: 1, material: 2, packSize: 3, price: 4, bestBefore: 5, supplierLot: 6 },
    ],
  ])("%j is matched by its words", (header, want) => expect(guessColumns(header)).toMatchObject(want));
  it("what a file doesn't tell is asked, with the cell that could be two things", () => {
    const t = table("item;size;total;date\nOlive oil;1 L;1,234;03/04/2026");
    const { asked } = guessStyles(t, guessColumns(t.header), "2026-11-25");
    expect(asked.numbers).toContain("“1,234”");
    expect(asked.dates).toContain("Friday 3 April 2026 or Wednesday 4 March 2026");
  });
  it("reads lines with their supplier and day, in the style of their columns", () => {
    const r = read(
      "item;qty;size;total;best before;shop;date\nOlive oil;2;1,5 L;1.024,50 €;31.12.2027;Press;3.11.2026\nTin;1;100 pcs;46;;;",
    );
    expect(r.problems).toEqual([]);
    expect(r.lines).toEqual([
      {
        row: 1,
        materialId: 1,
        packs: 2,
        packSize: "1.5 L",
        qty: 2_760_000,
        price: 1_024_500_000,
        supplierLot: "",
        bestBefore: "2027-12-31",
        supplier: "Press",
        day: "2026-11-03",
      },
      {
        row: 2,
        materialId: 2,
        packs: 1,
        packSize: "100 pcs",
        qty: 100,
        price: 46_000_000,
        supplierLot: "",
        bestBefore: null,
        supplier: "Mill",
        day: "2026-11-25",
      },
    ]);
  });
  it("a row with a problem is left out and named by its row and column; the others stand", () => {
    const r = read(
      "item;qty;size;total;best before\nOlive oil;1;1 L;9,50;2027-13-01\nGhost;1;1 kg;3,00;\nOlive oil;1,5;1 L;9,50;\nOlive oil;1;some;9,50;\nOlive oil;1;1 L;nine;\n;1;1 L;2,00;\nOlive oil;1;1 L;9,50;2027-12-01",
    );
    expect(r.lines.map((l) => l.row)).toEqual([7]);
    expect(r.problems.map((p) => `${p.row} ${p.field}`)).toEqual([
      "1 bestBefore",
      "2 material",
      "3 packs",
      "4 packSize",
      "5 price",
      "6 material",
    ]);
    expect(r.unknown).toEqual([{ name: "Ghost", rows: 1 }]);
  });
  it("wrong columns are said to be wrong", () => {
    const t = table("a;b\nc;d");
    const r = readIntake(t, guessColumns(t.header), { numbers: "point", dates: "ymd" }, known, { supplier: "", day: "2026-11-25" });
    expect(r.ok ? "" : r.problem.say).toContain("material, each holds, price of all");
  });
  it("without a supplier anywhere, each row says so", () => {
    const t = table("item;size;total\nOlive oil;1 L;9");
    const r = readIntake(t, guessColumns(t.header), { numbers: "point", dates: "ymd" }, known, { supplier: "", day: "2026-11-25" });
    expect(r.ok && r.value.problems.map((p) => p.field)).toEqual(["supplier"]);
  });
});
