/** What is read loosely: numbers, money and days as spreadsheets write them, and files. */
import { it } from "vitest";
import type { FileChoices } from "#core/intake/asked";
import { bodyOf } from "#core/intake/body";
import { guessColumns, type Mapping } from "#core/intake/columns";
import type { Known } from "#core/intake/goods";
import { dateOrder, looseDay, looseMoney, numberStyle, type DateOrder } from "#core/intake/loose";
import { readList } from "#core/intake/read";
import { writeTable } from "#core/lists/csv";
import { readRows, readTable } from "#core/intake/table";
import { each, expectWording } from "./expectWording.ts";

it("loose numbers, money and days", () =>
  expectWording("numbers/loose", [
    ...each(
      [
        "",
        " ",
        "1",
        "1.5",
        "1,5",
        "1.234",
        "1,234",
        "1.234,5",
        "1,234.5",
        "1 234,5",
        "1'234.5",
        ".5",
        ",5",
        "-1",
        "−1",
        "(1)",
        "(12",
        "12)",
        "()",
        "1..2",
        "1,2,3",
        "1.2.3",
        "1,234,567",
        "1.234.567",
        "x",
        "€5",
        "EUR 5",
        "EUR5",
        "Eur.5",
        "5 EUR",
        "5EUR",
        "5 €",
        "EURO5",
        "1.2345",
        "12,34",
        "1.234 ",
        "0.5x",
        "x.5",
        ".x",
      ],
      (t) => [
        numberStyle([t]),
        ...(["point", "comma"] as const).map((s) => {
          const o = looseMoney(t, s);
          return o.ok
            ? `${o.value.n.valueOf()}${o.value.credit ? " given back" : ""} ${o.value.sign}`.trim()
            : `${o.problem.code}: ${o.problem.say}`;
        }),
      ],
    ),
    ...(
      [
        ["1.5", "2,5"],
        ["1.5", "2,5", "3,5"],
        ["1.234", "5"],
        ["1.234", "1.5"],
        ["1,234", "1,5"],
      ] as const
    ).map((c) => [c.join(" and "), numberStyle(c)] as const),
    ...(["ymd", "dmy", "mdy"] as DateOrder[]).flatMap((o) =>
      each(
        [
          "",
          "2026-03-05",
          " 05.03.2026 ",
          "5/3/26",
          "05/03/2026",
          "13/03/2026",
          "03/13/2026",
          "26-03-05",
          "5-3-6",
          "5 3 126",
          "123/3/2026",
          "31.2.2026",
          "x",
          "5 March 2026",
        ],
        (t) => looseDay(t, o),
      ).map(([t, v]) => [`${o} ${t}`, v] as const),
    ),
    ...(
      [
        [["05/03/2026"]],
        [["05/03/2026", "13/03/2026"]],
        [["03/13/2026"]],
        [["2026-03-05"]],
        [["26-03-05"]],
        [["x"]],
        [[]],
        [["05/12/2026"]],
        [["25/11/2026"]],
        [["11/12/2026", "01/02/2026"]],
        [["05/03/2026", "x"]],
      ] as const
    ).flatMap((c) =>
      [undefined, "2026-11-25"].map(
        (latest) =>
          [
            `${c.map((x) => x.join(" and ")).join("; ")} by ${latest ?? "any day"}`,
            dateOrder(c.map((texts) => ({ texts, latest }))),
          ] as const,
      ),
    ),
  ]));
it("files", () => {
  const oil: Known = {
    id: 1,
    name: "Olive oil",
    kind: "oil",
    densities: { liquid: 915 },
    dropsPerMl: null,
    pieceMg: null,
  };
  const known = new Map([
    ["olive oil", oil],
    ["tin", { ...oil, id: 2, name: "Tin", kind: "container" as const, densities: {} }],
  ]);
  const said: FileChoices = {
    numbers: null,
    dates: null,
    priceOf: "all",
    blanks: {},
    money: new Map(),
    supplier: "Far Shore",
    day: "2026-11-20",
  };
  const take = (text: string, over: Partial<Mapping> = {}, more: Partial<FileChoices> = {}) => {
    const t = readRows(text);
    if (!t.ok) return t;
    const body = bodyOf(t.value);
    const m = { ...guessColumns(body.header, body.rows), ...over };
    const got = readList(body, m, { ...said, ...more }, { known, purpose: "receipt", own: "EUR", today: "2026-11-25" });
    if (!got.ok) return got;
    const { told, asked, intake } = got.value;
    return [[told.numbers, told.dates], asked, intake];
  };
  const head = "Item;Qty;Size;Total;Lot;Best before;Supplier;Date";
  const row = (...cells: string[]) => `${head}\n${cells.join(";")}`;
  return expectWording("shelf/files", [
    ...each(
      [
        "",
        " \n",
        "a",
        "a\nb",
        "a;b",
        "a;b\n1;2",
        "Shea;1 kg;12",
        "\ufeffa;b\nc;d",
        "x\ufeff;b",
        " a ; b \n c ; d ",
        "a,b\nc,d,e",
        "%PDF x;y",
        "x %PDF;y",
        "{\\rtf;y",
        "\u0000;b",
        "a;\u0008",
        "a;\ufffd",
        "name;12x\nb;3",
        "name;;price\nb;;3",
        "1;2\n3;4",
      ],
      (t) => readTable(t),
    ),
    [
      "written",
      writeTable(
        ["a", "b"],
        [
          ["=1", "+1"],
          ["-1", "@x"],
          ["\tx", 'q"q'],
          ["-x", "5"],
        ],
      ),
    ],
    ...(
      [
        ["Item", "Total"],
        [" ITEM ", "Pack size", "Price of all"],
        ["Product name", "Net weight", "Gross price", "Price"],
        ["Lot", "Supplier's lot", "Batch no"],
        ["Date", "Order date", "Use by"],
        ["x", "y"],
        ["Price", "Price"],
      ] as const
    ).map((h) => [h.join(", "), guessColumns(h, [])] as const),
    ...[
      row("Olive oil", "2", "500 g", "12,50", "L1", "2027-05-01", "Mill", "2026-11-01"),
      row(" olive OIL ", "", "1.234,5 g", "12,50", "", "", "", ""),
      row("", "2", "500 g", "12", "", "", "", ""),
      `${head}\nGhost;1;1 kg;1;;;;\nGhost;1;1 kg;1;;;;\nSpook;1;1 kg;1;;;;`,
      row("Olive oil", "0", "500 g", "12", "", "", "", ""),
      row("Olive oil", "1.5", "500 g", "12", "", "", "", ""),
      row("Olive oil", "x", "500 g", "12", "", "", "", ""),
      row("Olive oil", "1", "", "12", "", "", "", ""),
      row("Olive oil", "1", "0,5kg", "-1", "", "x", "", "y"),
      row("Olive oil", "1", "5", "1.234", "", "05/03/2027", "", "06/03/2026"),
      row("Tin", "10", "5", "1", "L".repeat(70), "", "S".repeat(130), ""),
      row("Tin", "1", "500 g", "1", "", "", "", ""),
      row("Tin", "1", " x1", "1", "", "", "", ""),
    ].map((t) => [t.replace(/.*\n/, ""), take(t)] as const),
    ["no supplier", take(row("Olive oil", "1", "1 kg", "1", "", "", "", ""), { supplier: null }, { supplier: "" })],
    ["columns not said", take(row("Olive oil", "1", "1 kg", "1", "", "", "", ""), { packSize: null, packs: null, price: null })],
    ["without packs and day", take(row("Olive oil", "7", "1 kg", "1", "", "", "", "2026-01-01"), { packs: null, day: null })],
  ]);
});
