/** What is said of a recipe, through the sheet as it is typed: what is said when, in which order, and that what mends it does. */
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { libraryChoice, libraryEntry } from "../../material/library.ts";
import { TRADE } from "../../firmness/model.ts";
import { FOR_WHOM_IDS, USED_ON_IDS, type ForWhom, type UsedOn } from "../../scent/limits.ts";
import type { Lot } from "../../stock/lots.ts";
import { shelfOf } from "../../stock/shelf.ts";
import type { Scale } from "../scale.ts";
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
const SHELF: readonly MaterialChoice[] = KEYS.map((key, i) => libraryChoice(libraryEntry(key)!, i + 1));
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
  scale?: Scale;
}
const texts = ({ lines, makes = "", fill = "60 g" }: Sheet): RecipeText => ({
  lines: lines.map(([key, entered]) => ({ material: nameOf(key), entered, form: "" })),
  sizes: [{ id: "", container: "", fill, minutes: "1", away: "", packaging: [] }],
  ...{ makes, overrun: "" },
});
function judged(sheet: Sheet, written = texts(sheet), papers: Pick<Lot, "scentMostPpm"> = {}): Judgement[] {
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
    ...papers,
  }));
  const { type, usedOn = "hands", forWhom = "anyone" } = sheet;
  const by = { type, usedOn, forWhom, lossBp: 0, keepsMonths: 6, away: [false] };
  return judge(
    judgedOf(read, by, shelfOf(lots, TODAY), new Map(lots.map((l) => [l.id, l])), {
      today: TODAY,
      constants: TRADE,
      scale: sheet.scale ?? { unit: "g", step: 100 },
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

  it("a lot's own paper is what a scent is held against", () => {
    const clove = (scentMostPpm: number, known = {}) => {
      const sheet: Sheet = {
        type: "salve",
        lines: [...SALVE, ["eo-clove-bud", "1 g"]],
        fill: "301 g",
        lots: { "eo-clove-bud": "2030-01-01" },
      };
      return answeredBy(judged(sheet, texts(sheet), { scentMostPpm }), known).open.map((j) => [j.say, j.mend?.rows[0]?.entered ?? null]);
    };
    // What was answered to the usual ceiling is no answer to a paper.
    expect(clove(1_000, { [`scent.ceiling ${nameOf("eo-clove-bud")}`]: "mine alone" })).toHaveLength(1);
    // A gram in 301 is 0.33 %: under the usual half per cent, over what this lot may be.
    expect(clove(5_000)).toEqual([]);
    expect(clove(1_000)).toEqual([[`${nameOf("eo-clove-bud")}: 0.33 % is over the 0.10 % that lot R1 may be.`, "0.3 g"]]);
    expect(clove(0)).toEqual([[`${nameOf("eo-clove-bud")}: 0.33 % is over the 0 % that lot R1 may be.`, null]]);
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
    bergamot: fc.integer({ min: 0, max: 30 }),
    lime: fc.integer({ min: 0, max: 30 }),
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
        fc.constantFrom<Scale>({ unit: "g", step: 100 }, { unit: "g", step: 1000 }, { unit: "oz", step: 50 }),
        (a, type, usedOn, forWhom, scale) => {
          const lines = (
            [
              ["beeswax-yellow", `${a.wax} g`],
              ["olive", `${a.oil} g`],
              ["eo-lavender", `${a.lavender} g`],
              ["eo-clove-bud", `${a.clove / 10} g`],
              ["eo-bergamot", `${a.bergamot / 10} g`],
              ["eo-lime", `${a.lime / 10} g`],
              ["vitamin-e", `${a.e} g`],
            ] satisfies [Key, string][]
          ).filter(([, t]) => t !== "0 g");
          const sheet: Sheet = { type, lines, usedOn, forWhom, scale, fill: `${a.fill} g` };
          const written = texts(sheet);
          const said = judged(sheet);
          expect(said.filter((j) => j.gravity === 3).every((j) => j.mend !== null)).toBe(true);
          for (const j of said.filter((x) => x.mend)) {
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
