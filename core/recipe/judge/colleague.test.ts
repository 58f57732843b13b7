/**
 * What a careful colleague says of a recipe, written down before the rules that say it: thirty with something to say, and twenty harmless ones that
 * have to stay silent. From memory and common practice, no source.
 */
import { describe, expect, it } from "vitest";
import { firmnessFix } from "../../batch/finishing/spoon.ts";
import { TRADE } from "../../firmness/model.ts";
import { CAUTIONS, CAUTION_IDS, staysSaid } from "../../material/cautions.ts";
import type { Dryness } from "../../material/dryness.ts";
import { LIBRARY, libraryEntry } from "../../material/library.ts";
import { lookThrough } from "../../material/lookThrough.ts";
import { mindedOf } from "../../material/minded.ts";
import type { ForWhom, UsedOn } from "../../scent/limits.ts";
import { pot } from "#test/core/pot";
import type { RecipeType } from "../types.ts";
import { judge } from "./judge.ts";
import type { Judged } from "./judgement.ts";

type Part = [key: string, grams: number];
interface Case {
  type?: RecipeType;
  on?: UsedOn;
  whom?: ForWhom;
  parts: Part[];
}
const SALVE: Part[] = [
  ["beeswax-yellow", 12],
  ["olive", 88],
];
const LIP: Part[] = [
  ["beeswax-yellow", 22],
  ["coconut-refined", 30],
  ["olive", 48],
];
const CREAM: Part[] = [
  ["tallow-beef", 70],
  ["olive", 30],
];
const judgedOf = ({ type = "salve", on, whom = "anyone", parts }: Case): Judged => ({
  ...pot(type, parts),
  scale: { unit: "g", step: 10 },
  usedOn: on ?? (type === "lipBalm" ? "lips" : "hands"),
  forWhom: whom,
});
/** Judgements, each with what it is about: "for lips alkanet". */
const keysOf = (of: Judged): string[] =>
  judge(of).map((j) => LIBRARY.filter((e) => e.name.length > 3).reduce((k, e) => k.replace(e.name, e.key), j.key));

describe("something to say", () => {
  it.each<[string, Case, string[]]>([
    ["alkanet on lips", { type: "lipBalm", parts: [...LIP, ["alkanet", 2]] }, ["for lips alkanet"]],
    ["alkanet anywhere", { parts: [...SALVE, ["alkanet", 2]] }, ["alkaloid alkanet"]],
    [
      "cinnamon bark on lips, below its ceiling",
      { type: "lipBalm", parts: [...LIP, ["eo-cinnamon-bark", 0.06]] },
      ["for lips eo-cinnamon-bark"],
    ],
    ["zinc on lips", { type: "lipBalm", parts: [...LIP, ["zinc-oxide", 3]] }, ["for lips zinc-oxide"]],
    ["a colour nobody has papers of, on lips", { type: "lipBalm", parts: [...LIP, ["mica", 1]] }, ["lips mica"]],
    ["zinc in a face balm", { on: "lips", parts: [...SALVE, ["zinc-oxide", 3]] }, ["for lips zinc-oxide"]],
    ["clary sage in pregnancy", { whom: "pregnancy", parts: [...SALVE, ["eo-clary-sage", 0.5]] }, ["for pregnancy eo-clary-sage"]],
    ["comfrey in pregnancy", { whom: "pregnancy", parts: [...SALVE, ["comfrey", 1]] }, ["for pregnancy comfrey"]],
    ["neem in pregnancy", { whom: "pregnancy", parts: [...SALVE, ["neem", 2]] }, ["for pregnancy neem"]],
    ["eucalyptus for infants", { whom: "infants", parts: [...SALVE, ["eo-eucalyptus", 0.1]] }, ["for infants eo-eucalyptus", "scent.use"]],
    ["lavender for infants", { whom: "infants", parts: [...SALVE, ["eo-lavender", 0.2]] }, ["scent.use"]],
    [
      "peppermint for children, however little",
      { whom: "children", parts: [...SALVE, ["eo-peppermint", 0.05]] },
      ["for children eo-peppermint"],
    ],
    ["rosemary for children", { whom: "children", parts: [...SALVE, ["eo-rosemary", 0.05]] }, ["for children eo-rosemary"]],
    ["meadowsweet for children", { whom: "children", parts: [...SALVE, ["meadowsweet", 1]] }, ["for children meadowsweet"]],
    ["lanolin for sensitive skin", { whom: "sensitive", parts: [...SALVE, ["lanolin", 8]] }, ["for sensitive lanolin"]],
    ["tamanu for sensitive skin", { whom: "sensitive", parts: [...SALVE, ["tamanu", 8]] }, ["for sensitive tamanu"]],
    ["chamomile, a daisy, for infants", { whom: "infants", parts: [...SALVE, ["chamomile", 1]] }, ["for infants chamomile"]],
    ["comfrey for anyone", { parts: [...SALVE, ["comfrey", 1]] }, ["alkaloid comfrey"]],
    ["borage oil for anyone", { parts: [...SALVE, ["borage", 5]] }, ["alkaloid borage"]],
    ["spearmint over its ceiling", { parts: [...SALVE, ["eo-spearmint", 2]] }, ["scent.ceiling eo-spearmint"]],
    ["tea tree where it stays on the face", { on: "lips", parts: [...SALVE, ["eo-tea-tree", 0.5]] }, ["scent.ceiling eo-tea-tree"]],
    [
      "a deodorant with much bicarbonate",
      {
        type: "balm",
        parts: [
          ["beeswax-yellow", 12],
          ["coconut-refined", 30],
          ["shea-refined", 20],
          ["olive", 8],
          ["arrowroot", 15],
          ["baking-soda", 12],
        ],
      },
      ["much baking-soda"],
    ],
    ["rosemary extract at 2 %", { parts: [...SALVE, ["rosemary-extract", 2]] }, ["much rosemary-extract"]],
    ["cayenne stirred in", { parts: [...SALVE, ["cayenne", 1]] }, ["in cayenne"]],
    ["more zinc than stays suspended", { parts: [...SALVE, ["zinc-oxide", 35]] }, ["much zinc-oxide"]],
    ["menthol at 3 %", { parts: [...SALVE, ["menthol", 3]] }, ["much menthol"]],
    ["glycerine", { parts: [...SALVE, ["glycerine", 3]] }, ["apart glycerine"]],
    ["beetroot", { parts: [...SALVE, ["beet", 1]] }, ["in beet"]],
    ["rosewater", { parts: [...SALVE, ["rose-water", 3]] }, ["water rose-water"]],
    ["half a pot of starch", { type: "bodyButter", parts: [...CREAM, ["arrowroot", 20]] }, ["much powder"]],
  ])("%s", (_, of, keys) => {
    const said = judge(judgedOf(of));
    expect(keysOf(judgedOf(of))).toEqual(keys);
    expect(said.map((j) => j.gravity)).toEqual(said.map((j) => j.gravity).sort((a, b) => b - a));
  });
  it.each<[string, Case, number]>([
    ["on lips it is swallowed", { type: "lipBalm", parts: [...LIP, ["zinc-oxide", 3]] }, 3],
    ["on a face it is kept off them", { on: "lips", parts: [...SALVE, ["zinc-oxide", 3]] }, 2],
    ["a child's breath", { whom: "children", parts: [...SALVE, ["eo-peppermint", 0.05]] }, 3],
    ["a child's skin", { whom: "children", parts: [...SALVE, ["lanolin", 5]] }, 2],
    ["an infant's skin", { whom: "infants", parts: [...SALVE, ["lanolin", 5]] }, 3],
    ["an herb's alkaloids", { parts: [...SALVE, ["comfrey", 1]] }, 2],
    ["a seed oil's traces of them", { parts: [...SALVE, ["borage", 5]] }, 1],
  ])("how grave it is: %s", (_, of, gravity) => expect(judge(judgedOf(of)).map((j) => j.gravity)).toEqual([gravity]));
  it("a massage bar that is too soft is mended with its hard butter: wax wouldn't melt on skin", () => {
    const of = judgedOf({
      type: "massageBar",
      parts: [
        ["beeswax-yellow", 4],
        ["cocoa-raw", 46],
        ["coconut-refined", 30],
        ["olive", 20],
      ],
    });
    const said = judge(of).find((j) => j.key === "set.soft")!;
    expect(said.mend!.rows.map((r) => of.lines.find((l) => l.row === r.row)!.libraryKey)).toEqual(["cocoa-raw"]);
    const inPot = of.lines.map((l, position) => ({
      ...{ name: l.name, position, planned: l.weight, weighed: l.weight, sets: l.sets, scent: 0, carries: true, onHand: 1e9, perMg: null },
    }));
    expect(of.lines[firmnessFix(inPot, "soft", "massageBar", TRADE)!.line]!.libraryKey).toBe("cocoa-raw");
  });
  it("an old lot of what sensitises with age, and not a fresh one", () => {
    const lemon = (bestBefore: string) => {
      const of = judgedOf({ parts: [...SALVE, ["eo-lemon", 0.5]] });
      const lines = of.lines.map((l) => (l.libraryKey === "eo-lemon" ? { ...l, lots: [{ number: "L3", bestBefore }] } : l));
      return judge({ ...of, lines, keepsMonths: 1 }).map((j) => j.key);
    };
    expect(lemon("2027-01-10").some((k) => k.startsWith("old "))).toBe(true);
    expect(lemon("2028-01-10").some((k) => k.startsWith("old "))).toBe(false);
  });
  it("a herb is as wet as the lot it would be taken from", () => {
    const of = judgedOf({ parts: [...SALVE, ["calendula", 2]] });
    const from = (dryness: Dryness) =>
      judge({
        ...of,
        lines: of.lines.map((l) => (l.libraryKey === "calendula" ? { ...l, lots: [{ number: "C1", bestBefore: null, dryness }] } : l)),
      }).map((j) => j.key);
    for (const dry of ["", "dry"] as const) expect(from(dry)).toEqual([]);
    for (const wet of ["wilted", "damp", "fresh"] as const) expect(from(wet)).toEqual([`water ${libraryEntry("calendula")!.name}`]);
  });
  it("what is in a base or an infused oil is looked through", () => {
    const of = judgedOf({ whom: "children", parts: SALVE });
    const infused = of.lines.map((l) =>
      l.libraryKey === "olive" ? { ...l, libraryKey: null, name: "Meadowsweet oil", cautions: ["salicylate" as const] } : l,
    );
    expect(judge({ ...of, lines: infused }).map((j) => j.key)).toEqual(["for children Meadowsweet oil"]);
    const clary = { ...libraryEntry("eo-clary-sage")!, libraryKey: "eo-clary-sage", meltFrom: null, meltTo: null, share: 0.01 };
    const base = {
      ...of,
      forWhom: "pregnancy" as const,
      lines: of.lines.map((l) => (l.libraryKey === "olive" ? lookThrough({ ...l, makeup: [clary] }) : l)),
    };
    expect(judge(base).map((j) => j.key)).toContain(`for pregnancy ${libraryEntry("olive")!.name}`);
  });
});

describe("nothing to say", () => {
  it.each<[string, Case]>([
    ["a plain salve", { parts: SALVE }],
    ["calendula", { parts: [...SALVE, ["calendula", 2]] }],
    ["calendula for children", { whom: "children", parts: SALVE }],
    ["a plain salve for infants", { whom: "infants", parts: SALVE }],
    ["a plain salve in pregnancy", { whom: "pregnancy", parts: SALVE }],
    ["lavender for grown people", { parts: [...SALVE, ["eo-lavender", 1]] }],
    ["a quarter per cent of lavender for children", { whom: "children", parts: [...SALVE, ["eo-lavender", 0.25]] }],
    ["half a per cent of lavender in pregnancy", { whom: "pregnancy", parts: [...SALVE, ["eo-lavender", 0.5]] }],
    ["peppermint for grown feet", { parts: [...SALVE, ["eo-peppermint", 1]] }],
    ["eucalyptus for grown people", { parts: [...SALVE, ["eo-eucalyptus", 1]] }],
    ["vitamin E", { parts: [...SALVE, ["vitamin-e", 1]] }],
    ["rosemary extract, a little", { parts: [...SALVE, ["rosemary-extract", 0.3]] }],
    ["a plain lip balm", { type: "lipBalm", parts: LIP }],
    ["a lip balm with a flavour made for it", { type: "lipBalm", parts: [...LIP, ["lip-flavour", 0.5]] }],
    ["lanolin on lips", { type: "lipBalm", parts: [...LIP, ["lanolin", 5]] }],
    ["zinc in a barrier balm", { type: "balm", parts: [...SALVE, ["zinc-oxide", 12]] }],
    ["starch in a butter", { type: "bodyButter", parts: [...CREAM, ["arrowroot", 4]] }],
    ["meadowsweet for grown people", { parts: [...SALVE, ["meadowsweet", 1]] }],
    ["sweet orange", { parts: [...SALVE, ["eo-orange", 1]] }],
    [
      "a mild deodorant",
      {
        type: "balm",
        parts: [
          ["beeswax-yellow", 14],
          ["coconut-refined", 28],
          ["shea-refined", 20],
          ["olive", 8],
          ["arrowroot", 18],
          ["magnesium-hydroxide", 10],
        ],
      },
    ],
  ])("%s", (_, of) => expect(keysOf(judgedOf(of))).toEqual([]));
});

describe("what stands on a label", () => {
  it("names each allergen and caution once, with what brings it, and leaves to the bench what is the bench's", () => {
    const material = (key: string) => ({ ...libraryEntry(key)!, libraryKey: key, makeup: [] });
    const minded = mindedOf([material("almond"), material("walnut"), material("eo-clary-sage"), material("olive")]);
    expect(minded.allergens).toEqual([{ name: "Tree nut", of: [material("almond").name, material("walnut").name] }]);
    expect(minded.cautions).toEqual([
      { id: "nut", of: [material("almond").name, material("walnut").name] },
      { id: "pregnancy", of: [material("eo-clary-sage").name] },
    ]);
    // A maker's own word is shown beside the library's; an allergen that was taken out isn't put back.
    const walnut = { libraryKey: "walnut", cautions: ["irritant" as const], allergen: "", makeup: [] };
    expect(lookThrough(walnut)).toMatchObject({ cautions: ["irritant", "nut", "delicate", "selfHeats"], allergen: "" });
  });
  it("every caution says what to do, shea and coconut are no allergens, and what a cloth soaks up is said of flax, hemp and walnut", () => {
    for (const c of CAUTION_IDS) expect(CAUTIONS[c].say).toMatch(/[.]$/);
    expect(CAUTION_IDS.filter((c) => !staysSaid(c))).toEqual(["foodPlant", "delicate", "flammable", "dust", "selfHeats"]);
    expect(["shea-refined", "coconut-virgin", "tamanu"].map((k) => libraryEntry(k)!.allergen)).toEqual(["", "", ""]);
    expect(LIBRARY.filter((e) => e.cautions.includes("selfHeats")).map((e) => e.key)).toEqual(["hemp", "flax", "walnut"]);
  });
});
