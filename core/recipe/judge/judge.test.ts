/** What is said of a recipe, through the sheet as it is typed: what is said when, in which order, and that what mends it does. */
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { libraryEntry } from "../../material/library.ts";
import { TRADE } from "../../firmness/model.ts";
import { mg } from "../../measure/exact.ts";
import { afterSpill, mostInPot, mostOn, scentOf } from "../../scent/dilution.ts";
import { FOR_WHOM_IDS, USED_ON_IDS, type ForWhom, type UsedOn } from "../../scent/limits.ts";
import type { Lot } from "../../stock/lots.ts";
import { shelfOf } from "../../stock/shelf.ts";
import type { RecipeType } from "../types.ts";
import { readWritten, type MaterialChoice, type RecipeText } from "../written.ts";
import { answeredBy, judge } from "./judge.ts";
import { judgedOf } from "./judgedOf.ts";
import type { Judgement } from "./judgement.ts";
import { bearsWater } from "./keeping.ts";

const KEYS = [
  "beeswax-yellow",
  "mango",
  "shea-unrefined",
  "coconut-refined",
  "olive",
  "rosehip",
  "vitamin-e",
  "arrowroot",
  "mica",
  "honey",
  "eo-lavender",
  "eo-clove-bud",
  "eo-lemongrass",
  "eo-bergamot",
  "eo-lime",
  "eo-grapefruit",
  "eo-orange",
  "eo-peppermint",
  "comfrey",
] as const;
type Key = (typeof KEYS)[number];
const SHELF: readonly MaterialChoice[] = KEYS.map((key, i) => {
  const e = libraryEntry(key)!;
  return {
    id: i + 1,
    ...{ name: e.name, kind: e.kind, densities: e.densities, dropsPerMl: e.dropsPerMl, pieceMg: null, libraryKey: key },
    ...{ meltFrom: e.melts?.[0] ?? null, meltTo: e.melts?.[1] ?? null, cautions: e.cautions, keepsSealed: e.keepsSealed },
    ...{ brimMl: null, usableMl: null, innerMm: null, fillMm: null },
  };
});
const nameOf = (key: Key): string => libraryEntry(key)!.name;

const TODAY = "2026-11-27";
interface Sheet {
  type: RecipeType;
  lines: [Key, string][];
  makes?: string;
  fill?: string;
  usedOn?: UsedOn;
  forWhom?: ForWhom;
  lots?: Partial<Record<Key, string>>;
}
const texts = ({ lines, makes = "", fill = "60 g" }: Sheet): RecipeText => ({
  lines: lines.map(([key, entered]) => ({ material: nameOf(key), entered, form: "" })),
  sizes: [{ id: "", container: "", fill, minutes: "1", away: "", packaging: [] }],
  ...{ makes, overrun: "" },
});
function judged(sheet: Sheet, written = texts(sheet)): Judgement[] {
  const read = readWritten(written, SHELF);
  expect(read.problem).toBeNull();
  const lots = Object.entries(sheet.lots ?? {}).map(([key, bestBefore], i): Lot => ({
    id: i + 1,
    number: `R${i + 1}`,
    of: KEYS.indexOf(key as Key) + 1,
    onHand: 10_000_000,
    value: 0 as Lot["value"],
    arrived: TODAY,
    bestBefore,
    hold: false,
  }));
  const { type, usedOn = "hands", forWhom = "anyone" } = sheet;
  const by = { type, usedOn, forWhom, lossBp: 0, keepsMonths: 6, away: [false] };
  return judge(
    judgedOf(read, by, shelfOf(lots, TODAY), new Map(lots.map((l) => [l.id, l])), {
      today: TODAY,
      constants: TRADE,
      scale: { unit: "g", step: 100 },
    }),
  );
}
/** The sheet with a judgement's change typed in. */
function mended(written: RecipeText, { mend }: Judgement): RecipeText {
  const entered = new Map(mend!.rows.map((r) => [r.row, r.entered]));
  return {
    ...written,
    makes: mend!.makes ?? written.makes,
    lines: written.lines.map((l, i) => ({ ...l, entered: entered.get(i) ?? l.entered })),
  };
}

const SALVE: [Key, string][] = [
  ["beeswax-yellow", "36 g"],
  ["olive", "264 g"],
];

describe("what is said", () => {
  it.each<[string, Sheet, string[]]>([
    ["a good salve is passed in silence", { type: "salve", lines: SALVE }, []],
    [
      "too soft",
      {
        type: "salve",
        lines: [
          ["beeswax-yellow", "12 g"],
          ["olive", "288 g"],
        ],
      },
      ["set.soft"],
    ],
    [
      "too hard",
      {
        type: "salve",
        lines: [
          ["beeswax-yellow", "90 g"],
          ["olive", "210 g"],
        ],
      },
      ["set.hard"],
    ],
    [
      "a firm butter",
      {
        type: "bodyButter",
        lines: [
          ["shea-unrefined", "240 g"],
          ["olive", "60 g"],
        ],
      },
      [],
    ],
    [
      "whipped, half oil",
      {
        type: "bodyButter",
        lines: [
          ["shea-unrefined", "165 g"],
          ["olive", "135 g"],
        ],
      },
      ["set.warm"],
    ],
    ["honey", { type: "salve", lines: [...SALVE, ["honey", "30 g"]], fill: "110 g" }, ["water Honey"]],
    [
      "clove over its ceiling",
      { type: "salve", lines: [...SALVE, ["eo-clove-bud", "3 g"]], fill: "101 g" },
      [`scent.ceiling ${nameOf("eo-clove-bud")}`],
    ],
    [
      "three citrus oils, each under its limit, together over",
      { type: "salve", lines: [...SALVE, ["eo-bergamot", "0.6 g"], ["eo-lime", "1 g"], ["eo-grapefruit", "4 g"]], fill: "305.6 g" },
      ["scent.sun"],
    ],
    ["sweet orange has no such limit", { type: "salve", lines: [...SALVE, ["eo-orange", "6 g"]], fill: "306 g" }, []],
    ["3 % on lips", { type: "salve", usedOn: "lips", lines: [...SALVE, ["eo-lavender", "9 g"]], fill: "309 g" }, ["scent.use"]],
    [
      "1 % for children's hands",
      { type: "salve", forWhom: "children", lines: [...SALVE, ["eo-lavender", "3 g"]], fill: "303 g" },
      ["scent.use"],
    ],
    ["60 drops", { type: "salve", lines: [...SALVE, ["eo-lavender", "60 drops"]], fill: "302.7 g" }, [`drops ${nameOf("eo-lavender")}`]],
    [
      "colour on lips",
      {
        type: "lipBalm",
        lines: [
          ["beeswax-yellow", "72 g"],
          ["olive", "216 g"],
          ["mica", "12 g"],
        ],
      },
      [`lips ${nameOf("mica")}`],
    ],
    [
      "below the scale's reach",
      { type: "salve", lines: [...SALVE, ["eo-lavender", "0.04 g"]], fill: "300.04 g" },
      [`reach ${nameOf("eo-lavender")}`],
    ],
    ["vitamin E at 5 %", { type: "salve", lines: [...SALVE, ["vitamin-e", "16 g"]], fill: "316 g" }, [`much ${nameOf("vitamin-e")}`]],
    ["a tenth of starch", { type: "salve", lines: [...SALVE, ["arrowroot", "34 g"]], fill: "334 g" }, ["much powder"]],
    ["half a tin over", { type: "salve", lines: SALVE, fill: "56 g" }, ["left over"]],
    [
      "a weak lot",
      {
        type: "salve",
        lines: [
          ["beeswax-yellow", "36 g"],
          ["olive", "234 g"],
          ["rosehip", "30 g"],
        ],
        lots: { rosehip: "2027-01-30" },
      },
      [`keeps ${nameOf("rosehip")}`],
    ],
    [
      "worst first",
      {
        type: "salve",
        lines: [
          ["beeswax-yellow", "9 g"],
          ["olive", "261 g"],
          ["honey", "30 g"],
          ["eo-lavender", "40 drops"],
        ],
        fill: "301.8 g",
      },
      ["water Honey", "set.soft", `drops ${nameOf("eo-lavender")}`],
    ],
  ])("%s", (_, sheet, keys) => {
    const said = judged(sheet);
    expect(said.map((j) => j.key)).toEqual(keys);
    for (const j of said) expect([j.say, j.why, j.figure].every((t) => t.length > 0 && !/NaN|Infinity|undefined/.test(t))).toBe(true);
  });

  it("what was answered stands apart with its word, and comes back when it is another thing", () => {
    const said = judged({ type: "salve", lines: [...SALVE, ["honey", "30 g"]], fill: "110 g" });
    expect(answeredBy(said, { "water Honey": "for me alone" })).toMatchObject({
      open: [],
      known: [{ key: "water Honey", word: "for me alone" }],
    });
    expect(answeredBy(said, { "water Milk": "old" }).open).toHaveLength(1);
  });
  it("water is told from the oil, powder or wax of the same plant", () => {
    const wet = (name: string, kind: Parameters<typeof bearsWater>[0]["kind"]) => bearsWater({ name, kind });
    expect([wet("Honey", "oil"), wet("Aloe vera juice", "powder"), wet("Fresh nettle", "herb"), wet("Rose hydrosol", "watery")]).toEqual([
      true,
      true,
      true,
      true,
    ]);
    expect([
      wet("Aloe oil", "oil"),
      wet("Honey powder", "powder"),
      wet("Green tea, dried", "herb"),
      wet("Honey & milk", "fragrance"),
      wet("Watercress oil", "oil"),
    ]).toEqual([false, false, false, false, false]);
  });
});

describe("what mends it", () => {
  const amounts = {
    wax: fc.integer({ min: 2, max: 150 }),
    oil: fc.integer({ min: 100, max: 400 }),
    lavender: fc.integer({ min: 0, max: 30 }),
    clove: fc.integer({ min: 0, max: 12 }),
    e: fc.integer({ min: 0, max: 40 }),
    fill: fc.integer({ min: 20, max: 90 }),
  };
  it("each press takes away what it was said for, and leaves every line with an amount", () => {
    fc.assert(
      fc.property(
        fc.record(amounts),
        fc.constantFrom<RecipeType>("salve", "lipBalm", "lotionBar"),
        fc.constantFrom(...USED_ON_IDS),
        fc.constantFrom(...FOR_WHOM_IDS),
        (a, type, usedOn, forWhom) => {
          const lines = (
            [
              ["beeswax-yellow", `${a.wax} g`],
              ["olive", `${a.oil} g`],
              ["eo-lavender", `${a.lavender} g`],
              ["eo-clove-bud", `${a.clove / 10} g`],
              ["vitamin-e", `${a.e} g`],
            ] satisfies [Key, string][]
          ).filter(([, t]) => t !== "0 g");
          const sheet: Sheet = { type, lines, usedOn, forWhom, fill: `${a.fill} g` };
          const written = texts(sheet);
          for (const j of judged(sheet).filter((x) => x.mend)) {
            const after = mended(written, j);
            expect(readWritten(after, SHELF).lines.every((l) => l.out.ok)).toBe(true);
            expect([j.key, judged(sheet, after).map((x) => x.key)].flat().filter((k) => k === j.key)).toEqual([j.key]);
          }
        },
      ),
    );
  });
  it("with shares on the sheet no grams are pressed into it, and the whole is made larger instead", () => {
    const shares: Sheet = {
      type: "salve",
      makes: "300 g",
      fill: "56 g",
      lines: [
        ["beeswax-yellow", "4 %"],
        ["olive", "96 %"],
      ],
    };
    const said = judged(shares);
    expect(said.map((j) => [j.key, j.mend])).toEqual([
      ["set.soft", null],
      ["left over", expect.objectContaining({ rows: [], makes: "280.0 g" })],
    ]);
  });
});

describe("dilution, by hand", () => {
  // 3 g lavender and 1 g clove in 400 g: 1 % together, clove 0.25 % of the whole and a quarter of the blend. Clove's 0.5 % allows 2 % blend.
  const blend = [
    { name: "Lavender", libraryKey: "eo-lavender", weight: mg(3000) },
    { name: "Clove", libraryKey: "eo-clove-bud", weight: mg(1000) },
  ];
  // Light, thick and heavy: 40 drops of sweet orange are 2 mL of 0.845, 30 of castor at 15 to the mL are 2 mL of 0.961, 20 of clove 1 mL of 1.05.
  it.each([
    ["Sweet orange essential oil", "eo-orange", "40 drops", 1.69],
    ["Castor oil", "castor", "30 drops", 1.922],
    ["Clove bud essential oil", "eo-clove-bud", "20 drops", 1.05],
  ])("drops to per cent: %s", (name, key, drops, grams) => {
    const e = libraryEntry(key)!;
    const oil = { ...SHELF[0]!, id: 99, name, kind: e.kind, densities: e.densities, dropsPerMl: e.dropsPerMl, libraryKey: key };
    const lines = [
      { material: name, entered: drops, form: "" },
      { material: nameOf("olive"), entered: `${Math.round((100 - grams) * 1000)} mg`, form: "" },
    ];
    const [line] = readWritten({ ...texts({ type: "salve", lines: [] }), lines }, [...SHELF, oil]).lines;
    expect(line!.out).toMatchObject({ ok: true, weight: Math.round(grams * 1000) });
    expect(line!.out.ok && line!.out.share).toBeCloseTo(grams / 100, 4);
  });
  it("a blend's most is its strictest oil's, in the proportions it has", () => {
    const s = scentOf(blend, mg(400_000), "hands", "anyone")!;
    expect([s.share, s.oils[1]!.share, s.oils[1]!.part, s.most]).toEqual([
      0.01,
      0.0025,
      0.25,
      { share: 0.02, by: { kind: "oil", name: "Clove", ceiling: 0.005 } },
    ]);
    expect(scentOf(blend, mg(400_000), "lips", "anyone")!.most).toEqual({ share: 0.01, by: { kind: "use" } });
  });
  it("shares of each sun limit add up", () => {
    // Bergamot 0.2 % of 0.4 % and lemon 1 % of 2 %: half and half, just at the limit.
    const s = scentOf(
      [
        { name: "Bergamot", libraryKey: "eo-bergamot", weight: mg(200) },
        { name: "Lemon", libraryKey: "eo-lemon", weight: mg(1000) },
      ],
      mg(100_000),
      "spot",
      "anyone",
    )!;
    expect(s.sun).toBeCloseTo(1, 9);
    expect(s.most.by.kind).toBe("sun");
    expect(s.most.share).toBeCloseTo(0.012, 9);
  });
  it("one oil in two lines is one oil; a quarter for children; none is none", () => {
    expect(scentOf([...blend, ...blend], mg(400_000), "hands", "anyone")!.oils.map((o) => o.share)).toEqual([0.015, 0.005]);
    expect(mostOn("hands", "children")).toBeCloseTo(0.0075, 9);
    expect(scentOf([], mg(400_000), "hands", "anyone")).toBeNull();
  });
  it("a spill: 90 drops for 30 makes the others three times as many", () => {
    expect(afterSpill([mg(1330), mg(660), mg(220)], 0, mg(3990))).toEqual([3990, 1980, 660]);
    expect(mostInPot(mg(99_000), 0.01)).toBe(1000);
  });
});
