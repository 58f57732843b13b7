/**
 * The model of firmness against recipes and ratios makers carry in their heads (common practice, no source), against what has to be so whatever
 * the constants, and against the two figures it can be held to from outside: where beeswax in oil melts, and the solubility law it rests on.
 */
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { lessonsOf } from "../batch/finishing/spoon.ts";
import { libraryEntry } from "../material/library.ts";
import { LIBRARY } from "../material/library.ts";
import { mg } from "../measure/exact.ts";
import { handMix, handPot, HAND_SAYS, setsOf as sets, type HandSays } from "#test/core/handSays";
import { RECIPE_TYPE_IDS, RECIPE_TYPES, type RecipeType } from "./types.ts";
import { mendWith, waxFor } from "../firmness/mend.ts";
import { fitFirmness, type FirmnessTest } from "../firmness/fit.ts";
import { firmness, mixOf, TRADE, type Constants } from "../firmness/model.ts";
import { setsBy, solidAt, type Sets } from "../firmness/solids.ts";
import { FEEL_IDS, feelOf, feelRange, FEELS, PLACES, type Feel } from "../firmness/words.ts";
import { cracksInCold, fitOf, measured, sayFit, wishOf, FIRMNESS_TARGETS, type Fit } from "./firmnessTargets.ts";

type Parts = Record<string, number>;
/** A pot by parts. */
const pot = (parts: Parts) =>
  handPot(
    Object.entries(parts)
      .map(([name, n]) => `${n} ${name}`)
      .join(" "),
  );
const at = (celsius: number, parts: Parts): number => firmness(mixOf(pot(parts)), celsius, TRADE);
const kitchen = (parts: Parts): number => at(PLACES.kitchen.celsius, parts);
const ALL_SAID = RECIPE_TYPE_IDS.flatMap((type) => HAND_SAYS[type].map((says): [RecipeType, HandSays] => [type, says]));
const off = ([, [recipe, feel]]: (typeof ALL_SAID)[number]): number =>
  Math.abs(FEEL_IDS.indexOf(feelOf(firmness(handMix(recipe), PLACES.kitchen.celsius, TRADE))) - FEEL_IDS.indexOf(feel));

describe("what makers say (common practice, no source)", () => {
  it("of a hundred recipes of every kind: the same word or the one beside it, and right where a hand says right, in 95 of 100", async () => {
    expect(ALL_SAID.length).toBeGreaterThan(80);
    expect(ALL_SAID.filter((s) => off(s) > 1).length).toBeLessThan(ALL_SAID.length * 0.05);
    expect(ALL_SAID.filter((s) => off(s) > 0).length).toBeLessThan(ALL_SAID.length * 0.2);
    const wrong = ALL_SAID.filter(([type, [recipe, , fit]]) => fitOf(handMix(recipe), type, TRADE) !== fit);
    expect(wrong.length).toBeLessThan(ALL_SAID.length * 0.05);
    // For makers to read, and to show what a change of the model does to them.
    const rows = ALL_SAID.map(([type, [recipe, feel, fit]]) => {
      const mix = handMix(recipe);
      const at = (c: number) => `${Math.round(firmness(mix, c, TRADE) * 100)}`;
      const by = { fit: "right", soft: "too soft", hard: "too hard" }[fit];
      const figures = `${at(20)} / ${at(31)} / ${at(35)}`;
      return `| ${RECIPE_TYPES[type].label} | ${recipe} | ${figures} | ${FEELS[feel].say}, ${by} | ${FEELS[feelOf(firmness(mix, 20, TRADE))].say}, ${sayFit(mix, type, TRADE)} |`;
    });
    const head = `# Recipes and how they set

Written by a test (\`core/recipe/firmness.test.ts\`). What a hand says is from memory. The figures are what the model says at 20, 31 and 35 °C, in per
cent of beeswax in plain oil; parts by weight.

| as | recipe | 20 / 31 / 35 °C | a hand | the model |
|---|---|---|---|---|
`;
    await expect(`${head}${rows.join("\n")}\n`).toMatchFileSnapshot("../../docs/firmness-recipes.md");
  });

  it.each<[string, RecipeType, Fit, string]>([
    ["28 wax 30 mango 22 coconut 20 oil", "lotionBar", "fit", "right for a bar"],
    ["30 wax 40 cocoa 30 oil", "lotionBar", "fit", "right for a bar"],
    ["25 wax 50 cocoa 25 oil", "lotionBar", "fit", "right for a bar"],
    ["1 wax 1 cocoa 1 oil", "lotionBar", "fit", "right for many hands, drags for some"],
    ["80 cocoa 20 shea", "massageBar", "fit", "hard to the hand, and melts on skin"],
    ["80 cocoa 20 shea", "lotionBar", "soft", "hard, and gone on warm skin: a massage bar"],
    ["75 tallow 25 oil", "balm", "fit", "scoops, and melts as it is rubbed in"],
    ["1 cocoa 1 shea 1 coconut", "bodyButter", "hard", "stiff: it whips to crumbs"],
    ["20 wax 80 oil", "salve", "hard", "hard to scoop"],
    ["10 candelilla 30 coconut 25 shea 35 oil", "lipBalm", "fit", "twists up"],
    ["8 coconut 8 mango 6.5 wax", "lotionBar", "fit", "right for a bar"],
    ["8 coconut 8 mango 8 wax", "lotionBar", "fit", "right for many hands, drags for some"],
    ["8 coconut 8 mango 5.5 wax", "lotionBar", "soft", "melts as it is picked up"],
  ])("%s as %s", (recipe, type, fit, say) => {
    expect(fitOf(handMix(recipe), type, TRADE)).toBe(fit);
    expect(sayFit(handMix(recipe), type, TRADE)).toBe(say);
  });
  it("tallow alone needs a nail; whipped shea falls in a pocket, whipped tallow holds", () => {
    expect(feelOf(kitchen({ tallow: 1 }))).toBe("firm");
    const { at: place, least } = FIRMNESS_TARGETS.bodyButter.warm!;
    expect(at(PLACES[place].celsius, { shea: 75, oil: 25 })).toBeLessThan(least);
    expect(at(PLACES[place].celsius, { tallow: 75, oil: 25 })).toBeGreaterThan(least);
  });
  it("cocoa and coconut crack in the cold, and what has oil or wax enough in it doesn't", () => {
    const cracks = (recipe: string) => cracksInCold(handMix(recipe), TRADE);
    expect(["100 coconut", "100 cocoa", "80 cocoa 20 shea"].map(cracks)).toEqual([true, true, true]);
    expect(["12 wax 88 oil", "100 shea", "100 tallow", "30 wax 40 cocoa 30 oil", "8 coconut 8 mango 6.5 wax"].map(cracks)).toEqual(
      Array(5).fill(false),
    );
  });

  it("1.5 oz of oil instead of 2.5 makes lip balm much harder, and is still a balm where it is hottest", () => {
    const usual = { oil: 2.5, wax: 1, coconut: 0.5, shea: 0.5 };
    const summer = { ...usual, oil: 1.5 };
    expect(kitchen(summer) / kitchen(usual)).toBeGreaterThan(1.25);
    expect(at(PLACES.stall.celsius, summer)).toBeGreaterThan(FIRMNESS_TARGETS.lipBalm.soft.bound);
    expect(at(PLACES.stall.celsius, summer)).toBeGreaterThan(at(PLACES.stall.celsius, usual));
  });
  it("coconut stiffens a balm below 24 °C and not above", () => {
    const [without, withIt] = [
      { wax: 10, oil: 90 },
      { wax: 10, coconut: 80, oil: 10 },
    ];
    expect(at(15, withIt)).toBeGreaterThan(at(15, without) * 1.5);
    expect(at(27, withIt)).toBeCloseTo(at(27, without), 2);
  });
  it("candelilla does beeswax's work with half to two thirds of it", () => {
    const wished = { firm: kitchen({ wax: 12, oil: 88 }), celsius: 20 };
    const [bees, other] = ["beeswax-yellow", "candelilla"].map((w) => waxFor(pot({ oil: 100 }), sets(w), wished, TRADE)!);
    expect(other! / bees!).toBeGreaterThan(0.5);
    expect(other! / bees!).toBeLessThan(0.667);
  });
  it("a whipped butter falls in the summer, a bar softens and stays a bar's shape", () => {
    expect(feelOf(at(PLACES.stall.celsius, { shea: 75, oil: 20, starch: 5 }))).toBe("pours");
    expect(at(PLACES.stall.celsius, { wax: 30, mango: 30, coconut: 25, oil: 15 })).toBeGreaterThan(FIRMNESS_TARGETS.lotionBar.warm!.least);
  });
});

describe("from outside", () => {
  it("plain beeswax in oil is what the scale is made of: so much wax is said to be so much", () => {
    for (const share of [0.03, 0.06, 0.12, 0.2, 0.35]) expect(kitchen({ wax: share, oil: 1 - share })).toBeCloseTo(share, 6);
  });
  it("a tenth of beeswax in oil is melted between 43 and 53 °C (gels of beeswax in vegetable oils, range from memory)", () => {
    const melted = [...Array(400).keys()].map((i) => 30 + i / 10).find((c) => at(c, { wax: 10, oil: 90 }) === 0)!;
    expect(melted).toBeGreaterThan(43);
    expect(melted).toBeLessThan(53);
  });
  it("its constants are the ideal solubility's: R T² ÷ ΔH, with 170 J/g and 676 g/mol for beeswax, 150 J/g and 870 g/mol for a fat (from memory)", () => {
    const R = 8.314;
    expect(TRADE.dissolving).toBeCloseTo((R * 336 ** 2) / (170 * 676), 0);
    expect(Math.abs(TRADE.dilution - (R * 308 ** 2) / (150 * 870))).toBeLessThan(1.5);
  });
  it("pure waxes and butters are gone at the end of their melting range, and solid well below", () => {
    for (const e of LIBRARY.filter((l) => l.melts !== null)) {
      const s = sets(e.key);
      const mix = mixOf([{ weight: mg(1000), sets: s }]);
      expect([e.key, firmness(mix, e.melts![1] + 6, TRADE)]).toEqual([e.key, 0]);
      expect(firmness(mix, 5, TRADE)).toBeGreaterThan(FEELS.verySoft.from);
      if (s.as === "fat") expect(solidAt(s.solid, e.melts![1] + 4)).toBeLessThan(0.05);
    }
  });
});

const anyPot = fc
  .record({
    wax: fc.integer({ min: 0, max: 400 }),
    candelilla: fc.integer({ min: 0, max: 100 }),
    shea: fc.integer({ min: 0, max: 700 }),
    cocoa: fc.integer({ min: 0, max: 700 }),
    coconut: fc.integer({ min: 0, max: 700 }),
    "tallow-beef": fc.integer({ min: 0, max: 300 }),
    arrowroot: fc.integer({ min: 0, max: 60 }),
    oil: fc.integer({ min: 300, max: 900 }),
  })
  .map((p) => pot(p));
const warmth = fc.double({ min: 10, max: 50, noNaN: true });
const close = 1e-9;

describe("whatever the recipe", () => {
  it("more wax is never softer, warmer never harder, more oil never harder; the size of the pot doesn't matter", () => {
    fc.assert(
      fc.property(
        anyPot,
        warmth,
        fc.double({ min: 0, max: 15, noNaN: true }),
        fc.integer({ min: 1, max: 400_000 }),
        (p, c, more, extra) => {
          const now = firmness(mixOf(p), c, TRADE);
          const plus = (key: string) => firmness(mixOf([...p, { weight: mg(extra), sets: sets(key) }]), c, TRADE);
          expect(firmness(mixOf(p), c + more, TRADE)).toBeLessThanOrEqual(now + close);
          expect(plus("beeswax-yellow")).toBeGreaterThanOrEqual(now - close);
          expect(plus("olive")).toBeLessThanOrEqual(now + close);
          expect(firmness(mixOf(p.map((l) => ({ ...l, weight: mg(l.weight * 7) }))), c, TRADE)).toBeCloseTo(now, 9);
          expect(Number.isFinite(now) && now >= 0).toBe(true);
        },
      ),
    );
  });
  it("a line written as two is the same pot", () => {
    fc.assert(
      fc.property(anyPot, warmth, (p, c) => {
        const halves = p.flatMap((l) =>
          [Math.floor(l.weight / 3), l.weight - Math.floor(l.weight / 3)].map((w) => ({ ...l, weight: mg(w) })),
        );
        expect(firmness(mixOf(halves), c, TRADE)).toBeCloseTo(firmness(mixOf(p), c, TRADE), 9);
      }),
    );
  });
  it("what mends it does: the grams said bring it to what was wished, and a step less does not", () => {
    fc.assert(
      fc.property(anyPot, fc.constantFrom(20, 31, 35), fc.double({ min: 0.02, max: 0.4, noNaN: true }), (p, celsius, firm) => {
        const now = firmness(mixOf(p), celsius, TRADE);
        const by = sets(now < firm ? "beeswax-yellow" : "olive");
        const more = mendWith(p, by, { firm, celsius }, TRADE);
        const after = (grams: number): number => firmness(mixOf([...p, { weight: mg(grams), sets: by }]), celsius, TRADE);
        if (more === null) {
          const total = p.reduce((a, l) => a + l.weight, 0);
          expect(now < firm ? after(total) < firm : after(total) > firm).toBe(true);
          return;
        }
        expect(after(more)).toBeCloseTo(firm, 4);
        expect(
          now < firm
            ? after(more) >= firm && after(Math.max(0, more - 2)) < firm
            : after(more) <= firm && after(Math.max(0, more - 2)) > firm,
        ).toBe(true);
      }),
    );
  });
  it("every firmness has one word, and each word its range", () => {
    for (const f of FEEL_IDS) {
      const [from, to] = feelRange(f);
      expect([feelOf(from), feelOf(Math.min(to, 1) - 1e-6)]).toEqual([f, f]);
    }
  });
});

describe("what brings it right", () => {
  it("soft, a mend makes it right; hard, the other: aimed well within both sides", () => {
    fc.assert(
      fc.property(
        fc.constantFrom<RecipeType>("salve", "balm", "lipBalm", "lotionBar", "bodyButter"),
        fc.integer({ min: 1, max: 50 }),
        (type, wax) => {
          const p = pot({ wax, oil: 100 - wax });
          const fit = fitOf(mixOf(p), type, TRADE);
          const [by, wished] = [sets(fit === "soft" ? "wax" : "oil"), wishOf(type, fit === "soft")];
          // What would take more than the pot holds is another recipe.
          const more = fit === "fit" ? mg(0) : mendWith(p, by, wished, TRADE);
          if (more === null) return;
          const after = mixOf([...p, { weight: more, sets: by }]);
          expect([type, wax, fitOf(after, type, TRADE)]).toEqual([type, wax, "fit"]);
        },
      ),
    );
  });
  it("what a spoon says is about the side it was felt on, and what is right about both", () => {
    const lines = pot({ wax: 30, cocoa: 40, oil: 30 });
    for (const type of RECIPE_TYPE_IDS) {
      const { soft, hard } = FIRMNESS_TARGETS[type];
      const [muchSoft, alittleSoft, right, , muchHard] = (["muchSoft", "soft", "right", "hard", "muchHard"] as const).map(
        (v) => lessonsOf(v, type, lines).says,
      );
      expect(muchSoft![0]!.within[1]).toBeLessThan(alittleSoft![0]!.within[1]);
      expect(muchSoft![0]).toMatchObject({ celsius: soft.celsius, part: soft.part });
      expect(muchHard![0]).toMatchObject({ celsius: hard.celsius, part: hard.part });
      expect(muchHard![0]!.within[0]).toBeGreaterThan(hard.bound);
      expect(right!.map((r) => r.within)).toEqual([
        [soft.bound, Infinity],
        [0, hard.bound],
      ]);
    }
    // A bar the model calls right, felt to drag: there is more of its wax on skin than the model says, and its butter has no part in it.
    const drags = fitFirmness([lessonsOf("muchHard", "lotionBar", lines)]).constants;
    expect(drags.wax).toBeGreaterThan(1.02);
    expect([drags.fat, drags.bend].map((n, i) => Math.abs(n / [TRADE.fat, TRADE.bend][i]! - 1) < 0.01)).toEqual([true, true]);
    expect(measured(mixOf(lines), FIRMNESS_TARGETS.lotionBar.hard, drags)).toBeGreaterThan(
      measured(mixOf(lines), FIRMNESS_TARGETS.lotionBar.hard, TRADE),
    );
  });
});

describe("materials of the maker's own", () => {
  const own = (kind: "wax" | "hardButter" | "softButter" | "oil", from: number | null, to: number | null): Sets =>
    setsBy({ kind, libraryKey: null, meltFrom: from, meltTo: to, makeup: [] });
  it("go by their kind and melting range", () => {
    expect(own("wax", null, null)).toEqual({ as: "wax", strength: 1, melts: 63 });
    expect(own("wax", 70, 75)).toEqual({ as: "wax", strength: 1, melts: 75 });
    expect(own("oil", null, null)).toEqual({ as: "liquid" });
    for (const [kind, key] of [
      ["hardButter", "mango"],
      ["softButter", "shea-refined"],
    ] as const) {
      const e = libraryEntry(key)!;
      const mine = firmness(mixOf([{ weight: mg(1000), sets: own(kind, e.melts![0], e.melts![1]) }]), 20, TRADE);
      const theirs = firmness(mixOf([{ weight: mg(1000), sets: sets(key) }]), 20, TRADE);
      expect(Math.abs(mine - theirs) / theirs).toBeLessThan(0.45);
    }
  });
});

describe("what a workshop's own tests teach", () => {
  const bounds = (celsius: number, feel: Feel): Pick<FirmnessTest, "says"> => ({
    says: [{ celsius, part: "all", within: feelRange(feel) }],
  });
  const POTS: Parts[] = [
    { wax: 6, oil: 94 },
    { wax: 10, oil: 90 },
    { wax: 14, oil: 86 },
    { wax: 22, oil: 60, coconut: 18 },
    { wax: 28, cocoa: 30, coconut: 25, oil: 17 },
    { shea: 75, oil: 25 },
    { shea: 50, cocoa: 20, oil: 30 },
    { cocoa: 60, oil: 40 },
    { cocoa: 1 },
    { shea: 1 },
    { tallow: 1 },
    { wax: 12, shea: 30, oil: 58 },
    { tallow: 60, oil: 40 },
  ];
  const WARM = [15, 20, 24, 28, 32, 36, 40];
  /** What fingers would have said, were these the constants. */
  const felt = (truth: Constants): FirmnessTest[] =>
    POTS.flatMap((p) => WARM.map((celsius) => ({ lines: pot(p), ...bounds(celsius, feelOf(firmness(mixOf(pot(p)), celsius, truth))) })));

  it("nothing taught leaves the trade's; one test moves it a little, towards it", () => {
    expect(fitFirmness([]).constants).toEqual(TRADE);
    const soft = fitFirmness([{ lines: pot({ wax: 12, oil: 88 }), ...bounds(20, "firm") }]);
    expect(soft.constants.wax).toBeGreaterThan(1.02);
    expect(soft.constants.wax).toBeLessThan(1.6);
    expect(soft.rightBefore).toBe(0);
  });
  it.each<[string, Partial<Constants>]>([
    ["the trade's own", {}],
    ["a stronger wax", { wax: 1.2 }],
    ["a weaker wax that oil takes back sooner", { wax: 0.85, dissolving: 9.5 }],
    ["harder butters", { fat: 1 }],
    ["soft butters softer beside hard ones", { bend: 2.1 }],
    ["butters that thin out faster", { fat: 0.7, dilution: 6.5 }],
  ])(
    "seventy tests bring known constants back: %s: wax within 6 %, butters and dissolving within 15 %, thinning within a quarter, and what is felt within an eighth",
    (_, moved) => {
      const truth = { ...TRADE, ...moved };
      const fit = fitFirmness(felt(truth));
      expect(Math.abs(fit.constants.wax / truth.wax - 1)).toBeLessThan(0.06);
      for (const [name, within] of [
        ["fat", 0.15],
        ["dissolving", 0.15],
        ["dilution", 0.25],
      ] as const)
        expect([name, Math.abs(fit.constants[name] / truth[name] - 1) < within]).toEqual([name, true]);
      expect(fit.rightNow).toBeGreaterThanOrEqual(fit.rightBefore);
      expect(fit.rightNow / fit.tests).toBeGreaterThan(0.9);
      for (const p of POTS) {
        const [a, b] = [fit.constants, truth].map((c) => firmness(mixOf(pot(p)), 20, c));
        expect(Math.abs(a! / b! - 1)).toBeLessThan(0.125);
      }
    },
  );
});
