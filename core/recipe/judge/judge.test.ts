/** The judgements on a recipe as it is typed: which appear when, and in which order. */
import { describe, expect, it } from "vitest";
import { judged, nameOf, SALVE, texts, type Sheet } from "#test/core/typedSheet";
import { libraryChoice, libraryEntry } from "../../material/library.ts";
import { answeredBy } from "./judge.ts";
import { factsOf } from "./judgedOf.ts";
import { bearsWater } from "./keeping.ts";

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
      "a firm butter of shea falls where it is warm; one of tallow holds",
      {
        type: "bodyButter",
        lines: [
          ["shea-unrefined", "240 g"],
          ["olive", "60 g"],
        ],
      },
      ["set.warm"],
    ],
    [
      "whipped tallow",
      {
        type: "bodyButter",
        lines: [
          ["tallow-beef", "240 g"],
          ["olive", "60 g"],
        ],
      },
      [],
    ],
    [
      "a bar of wax that drags",
      {
        type: "lotionBar",
        lines: [
          ["beeswax-yellow", "120 g"],
          ["mango", "90 g"],
          ["olive", "90 g"],
        ],
      },
      ["set.hard"],
    ],
    [
      "a massage bar is right, and cracks in the cold",
      {
        type: "massageBar",
        lines: [
          ["cocoa-raw", "240 g"],
          ["shea-unrefined", "60 g"],
        ],
      },
      ["set.cold"],
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
    for (const name of ["Rosewater", "Witch hazel", "Arnica tincture", "Lavender hydrolate"])
      expect([name, wet(name, "oil")]).toEqual([name, true]);
    for (const name of ["Green tea leaf", "Watercress", "Willow bark"]) expect([name, wet(name, "herb")]).toEqual([name, false]);
    expect(wet("Vegetable glycerine", "watery")).toBe(false);
    expect([
      wet("Aloe oil", "oil"),
      wet("Honey powder", "powder"),
      wet("Green tea, dried", "herb"),
      wet("Honey & milk", "fragrance"),
      wet("Watercress oil", "oil"),
    ]).toEqual([false, false, false, false, false]);
  });
});

it("drops are counted as the bottle on the shelf drips, once somebody said", () => {
  const lavender = libraryChoice(libraryEntry("eo-lavender")!, 1);
  expect([[], [{ dropsPerMl: null }], [{}, { dropsPerMl: 30 }]].map((lots) => factsOf({ ...lavender, lots }).dropsPerMl)).toEqual([
    20, 20, 30,
  ]);
});
