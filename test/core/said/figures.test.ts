/** Numbers, amounts, money, days and records' refusals, as they are read and said. */
import Fraction from "fraction.js";
import { it } from "vitest";
import { isActKind, isSubjectKind } from "#core/act/kinds";
import { lotNumber, numberHead, readScheme } from "#core/lot/number";
import { areCautions } from "#core/material/cautions";
import { isSettings, STARTING_SETTINGS } from "#core/settings/settings";
import { libraryByKind, libraryEntry, originsOf } from "#core/material/library";
import { allocate, mg, micros, mulDiv, shares } from "#core/measure/exact";
import { isDensities, massOf, otherOunce, volumeMl, type MassFacts } from "#core/measure/mass";
import { money, moneyField, perWeight, showUnitCost } from "#core/measure/money";
import { parseAmount, parseNumber, showAmount, type Amount } from "#core/measure/parse";
import { readMl, readWeighed, readWeight, weightText, parseMoney } from "#core/measure/read";
import { UNITS, type UnitId } from "#core/measure/units";
import { grams, gramsIn, showStock } from "#core/measure/write";
import { EditedMeanwhile, Refused } from "#core/refused";
import { readDay } from "#core/when";
import { each, expectWording, trying } from "./expectWording.ts";

const NUMBERS = [
  ..."|0|-1|− 2|–3|1-2|12|12.5|12,5|.5|1/2|1 1/2|1½|½|1/0|1/00|1/10|10/05|1,234|12,345|123,456|1234,567|0,500|x1,234|1,234x|1.234|1,234.5|1.234,5".split(
    "|",
  ),
  ..."12,345.6|12.345,6|1,234,567|1.234.567|x1.234.567|1.234.567x|1,234,5|12,34.5|a|1a|1..2|1 2|  7  |1\u00a01/2".split("|"),
];
const facts = (over: Partial<MassFacts> = {}): MassFacts => ({ name: "Shea butter", form: "block", densities: {}, ...over });
const read = (text: string): Amount => {
  const amount = parseAmount(text);
  if (!amount.ok) throw new Error(amount.problem.say);
  return amount.value;
};
const OIL = facts({ name: "Olive oil", form: "liquid", densities: { liquid: 915 } });

it("numbers", () => expectWording("numbers/numbers", each(NUMBERS, parseNumber)));
it("amounts", () =>
  expectWording("numbers/amounts", [
    ...each(
      [
        "",
        "-1 g",
        "− 2 oz",
        "a -1",
        "12",
        "12 g",
        "1 1/2 cups",
        "1½ cup",
        "1 lb 2 oz",
        "1 oz 2 cups",
        "1 lb 1 lb",
        "2 fl oz",
        "a cup",
        "3 blobs",
        "g",
        "5 %",
        "1 part",
        "1,234 g",
        "1/0 g",
        "2 oz,",
        "2 oz, 3 g",
        "10 drops",
      ],
      (t) => parseAmount(t, "g"),
    ),
    ...each(["12", "12 g"], (t) => parseAmount(t)),
    ...(Object.keys(UNITS) as UnitId[]).flatMap((unit) =>
      ["1", "2", "1/2", "1/8", "1/5", "5/4", "1/9", "0.1234"].map(
        (n) => [`${n} of ${unit}`, showAmount({ n: new Fraction(n), unit })] as const,
      ),
    ),
  ]));
it("weights", () =>
  expectWording("numbers/weights", [
    ...(
      [
        "0 g",
        "0.0004 g",
        "0.0005 g",
        "0.001 g",
        "1000000 g",
        "1000000.001 g",
        "1 cup",
        "5 %",
        "3 parts",
        "3 pcs",
        "20 drops",
        "2 oz",
      ] as const
    ).flatMap((t) => {
      const amount = parseAmount(t, "g");
      return [facts(), facts({ pieceMg: mg(350) }), OIL].map(
        (f) => [`${t} of ${f.name}${f.pieceMg ? " in pieces" : ""}`, amount.ok ? massOf(amount.value, f) : amount] as const,
      );
    }),
    ...each(["2 oz", "2 g", "2 fl oz"], (t) => [OIL, facts()].map((f) => otherOunce(read(t), f))),
    ...each(["2 oz", "2 drops", "2 ml"], (t) => volumeMl(read(t))),
    ...each(["", "60", "60 g", "2 oz", "1 cup", "x"], readWeight),
    ...each(["", "0", "500", "500 mL", "2 cups", "100 L", "100.001 L", "5 g", "x"], readMl),
    ...each(["", "0", "0 g", "0g", "0 G", "0 oz", "5", "5 g", "0.5 g", "g0"], readWeighed),
    ...[0, 1, 949, 9_999, 10_000, 999_950, 1_234_567, -5_000, -12_345].map(
      (n) => [`grams of ${n} mg`, [grams(n), grams(n, 0), grams(n, 2), gramsIn(1)(n)]] as const,
    ),
    ...[0, 999_999, 1_000_000, 1_500_500, -1_000_000].map(
      (n) => [`${n} in stock`, [showStock(n, "weight"), showStock(n, "count")]] as const,
    ),
    ["fields", [weightText(mg(1_234_500)), weightText(null)]],
  ]));
it("money", () =>
  expectWording("numbers/money", [
    ...each(
      [
        "",
        " ",
        "€",
        "0",
        "12",
        "12.5",
        "12.50",
        "12,50",
        "€12.50",
        "12.50 €",
        "EUR12.50",
        "12.50EUR",
        "EUR 12.50",
        "1/2",
        "12.505",
        "-1",
        "1000000",
        "1000000.01",
        "1,234.50",
        "abc",
        " abc ",
        "EUREUR1",
      ],
      parseMoney,
    ),
    ...[0, 1, 4_999, 5_000, 9_999, 10_000, -9_999, -10_000, 1_005_000, 1_250_000].map(
      (m) => [`${m} micros`, [money(m, "EUR"), money(m, "JPY"), moneyField(m)]] as const,
    ),
    ...[99_000, 100_000, 101_000].map(
      (m) =>
        [
          `${m} micros a gram`,
          [
            perWeight([{ value: micros(m), per: 1000 }]),
            perWeight([null, { value: micros(m), per: 1000 }, { value: micros(1e6), per: 1000 }]),
            showUnitCost({ value: micros(m), per: 1000 }, "weight", "EUR"),
            showUnitCost({ value: micros(m), per: 1000 }, "count", "EUR"),
          ],
        ] as const,
    ),
  ]));
it("exact sums", () =>
  expectWording("numbers/exact", [
    ...(
      [
        [5, 1, 2],
        [-5, 1, 2],
        [5, -1, 2],
        [5, 1, -2],
        [-5, 1, -2],
        [0, 1, -2],
        [1, 1, 3],
        [1, 1, 0],
        [1.5, 1, 1],
        [1, 1.5, 1],
        [1, 1, 1.5],
        [2 ** 53 - 1, 2, 1],
      ] as const
    ).map(([a, b, c]) => [`mulDiv ${a} ${b} ${c}`, trying(() => mulDiv(a, b, c))] as const),
    ...(
      [
        [10, [1, 1, 1]],
        [-10, [1, 1, 1]],
        [10, [0, 1, 0]],
        [0, [1, 2]],
        [10, [0, 0]],
        [10, [-1, 2]],
        [10, [1.5]],
        [1.5, [1]],
        [7, [3, 3, 3, 3]],
        [7, [0, 3, 3, 3]],
      ] as const
    ).map(([t, w]) => [`${t} over ${w.join(" ")}`, trying(() => allocate(t, w))] as const),
    ...(
      [
        [25, [1, 1], 10],
        [-25, [0, 1, 1], 10],
        [20, [1, 1, 1], 10],
      ] as const
    ).map(([t, w, q]) => [`${t} over ${w.join(" ")} by ${q}`, allocate(t, w, q)] as const),
    ...(
      [
        [100, [0.1, 0.3]],
        [100, [1e-9, 3e-9]],
        [100, [5, 1e-12]],
        [100, [0, 0]],
      ] as const
    ).map(([t, w]) => [`shares ${t} of ${w.join(" ")}`, trying(() => shares(t, w))] as const),
    ["half a milligram", trying(() => mg(0.5))],
  ]));
it("days, lot numbers and refusals", () =>
  expectWording("shelf/records", [
    ...each(
      [
        "",
        " ",
        "2026-11-25",
        " 2026-11-25 ",
        "2026-02-29",
        "2028-02-29",
        "1999-01-01",
        "2026-1-5",
        "x2026-11-25",
        "2026-11-25x",
        "25.11.2026",
      ],
      readDay,
    ),
    ...each(
      ["", "R{NN}", "R{NNNN}", "R{N}{N}", "{P}{YYYY}.{MM}-{DD}-{NNN}", "R {N}", "R{X}{N}", `${"A".repeat(37)}{N}`, `${"A".repeat(38)}{N}`],
      readScheme,
    ),
    ...each(["R{YY}{DDD}-{NN}", "{P}{YY}-{N}", "{P}{NNN}", "{YYYY}{MM}{DD}{N}"], (s) => [
      numberHead(s, { day: "2026-02-01" }),
      numberHead(s, { day: "2026-02-01", code: "HB" }),
      lotNumber(s, { code: "HB", day: "2026-02-01", serial: 7 }),
    ]),
    ...(
      [
        ["name", "Taken.", undefined],
        ["", "No.", []],
        ["", "No.", [{ to: "/jars/1", name: "J1" }]],
      ] as const
    ).map(([f, s, see]) => {
      const r = Refused.one(f, s, see);
      return [`refused ${f}`, [r.name, r.message, r.problems]] as const;
    }),
    [
      "refused twice",
      new Refused([
        { field: "a", say: "One." },
        { field: "b", say: "Two." },
      ]).message,
    ],
    [
      "changed",
      (({ name, message, problems, meanwhile }) => ({ name, message, problems, meanwhile }))(
        new EditedMeanwhile({ actId: 1, summary: "Kept", who: "Ines", at: "2026" }),
      ),
    ],
    ...each(["pour", "toString", "x"], isActKind),
    ...each(["jar", "toString", "x"], isSubjectKind),
  ]));
it("what is kept is what it claims to be", () => {
  const market = { ...STARTING_SETTINGS.pricing.channels.market, feeBp: "1" };
  return expectWording("shelf/kept", [
    ...[
      {},
      STARTING_SETTINGS,
      { unheard: 1 },
      { workshop: 1 },
      { hourly: null },
      { scale: "g" },
      { scale: { unit: "oz" } },
      { scale: { step: "1" } },
      { pricing: { channels: { market } } },
      { workshop: {} },
      null,
      "x",
    ].map((v) => [`settings ${JSON.stringify(v)}`, isSettings(v)] as const),
    ...[{}, { liquid: 900 }, { liquid: 900, melted: 0 }, { liquid: "900" }, { ghost: 900 }, null, 900].map(
      (v) => [`densities ${JSON.stringify(v)}`, isDensities(v)] as const,
    ),
    ...[[], ["irritant"], ["irritant", "ghost"], [1], "irritant", null].map(
      (v) => [`cautions ${JSON.stringify(v)}`, areCautions(v)] as const,
    ),
  ]);
});
it("where a material's figures come from", () => {
  const jojoba = libraryEntry("jojoba")!;
  const own = { meltFrom: null, meltTo: null, keepsSealed: null, keepsOpened: null, dropsPerMl: null, brimMl: null, emptyMg: null };
  const [from, to] = libraryEntry("beeswax-yellow")!.melts!;
  return expectWording("shelf/origins", [
    ["as the library has it", originsOf({ ...own, ...jojoba, emptyMg: null }, jojoba)],
    [
      "with figures of one's own",
      originsOf(
        { ...own, densities: { liquid: 900, block: 1, melted: 2 }, meltFrom: 1, meltTo: 2, keepsSealed: 3, keepsOpened: 4, dropsPerMl: 5 },
        jojoba,
      ),
    ],
    ["without the library", originsOf({ ...own, densities: { liquid: 900 }, meltTo: 60 }, null)],
    ...(["both", "lower", "upper", "neither"] as const).map(
      (w) =>
        [
          `melts, ${w} as in the library`,
          originsOf(
            {
              ...own,
              densities: {},
              meltFrom: from + (w === "upper" || w === "neither" ? 1 : 0),
              meltTo: to + (w === "lower" || w === "neither" ? 1 : 0),
            },
            libraryEntry("beeswax-yellow"),
          ),
        ] as const,
    ),
    ["one end of melting", originsOf({ ...own, densities: {}, meltFrom: from }, libraryEntry("beeswax-yellow"))],
    ["no entry", [libraryEntry(null), libraryEntry("no such thing")]],
    ["kinds", [...libraryByKind()].map(([k, all]) => `${k} ${all.length}`)],
  ]);
});
