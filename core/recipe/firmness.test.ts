/**
 * The model of firmness against the ratios makers carry in their heads (common practice, no source), against what has to be so whatever the
 * constants, and against the two figures it can be held to from outside: where beeswax in oil melts, and the solubility law it rests on.
 */
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { libraryEntry } from "../material/library.ts";
import { LIBRARY } from "../material/library.ts";
import { mg } from "../measure/exact.ts";
import type { RecipeType } from "./types.ts";
import { mendWith, waxFor } from "../firmness/mend.ts";
import { fitFirmness, type FirmnessTest } from "../firmness/fit.ts";
import { firmness, mixOf, TRADE, type Constants, type MixLine } from "../firmness/model.ts";
import { setsBy, solidAt, type Sets } from "../firmness/solids.ts";
import { FEEL_IDS, feelOf, feelRange, FEELS, PLACES, type Feel } from "../firmness/words.ts";
import { fitOf, sayFit, WISHES } from "./wishes.ts";

const sets = (key: string): Sets => {
  const e = libraryEntry(key)!;
  return setsBy({ kind: e.kind, libraryKey: key, meltFrom: e.melts?.[0] ?? null, meltTo: e.melts?.[1] ?? null, makeup: [] });
};
const NAMES = {
  wax: "beeswax-yellow",
  oil: "olive",
  coconut: "coconut-refined",
  shea: "shea-refined",
  cocoa: "cocoa-raw",
  mango: "mango",
} as const;
type Name = keyof typeof NAMES;
/** A pot by parts. */
const pot = (parts: Partial<Record<Name, number>> & Record<string, number>): MixLine[] =>
  Object.entries(parts).map(([n, w]) => ({ weight: mg(Math.round(w * 10_000)), sets: sets(n in NAMES ? NAMES[n as Name] : n) }));
const at = (celsius: number, parts: Parameters<typeof pot>[0]): number => firmness(mixOf(pot(parts)), celsius, TRADE);
const kitchen = (parts: Parameters<typeof pot>[0]): number => at(PLACES.kitchen.celsius, parts);

describe("what makers say (common practice, no source)", () => {
  it.each<[string, Feel, RecipeType, string, Parameters<typeof pot>[0]]>([
    ["6 % wax", "verySoft", "salve", "softer than a salve", { wax: 6, oil: 94 }],
    ["1 oz wax to 1 cup oil", "scoops", "salve", "scoops with a finger", { wax: 28.35, oil: 216 }],
    ["¼ cup pellets to 1 cup oil", "scoops", "salve", "scoops with a finger", { wax: 28.4, oil: 216 }],
    ["14 g to 100 g", "scoops", "salve", "scoops with a finger", { wax: 14, oil: 100 }],
    ["20 % wax", "firm", "salve", "scoops with a finger", { wax: 20, oil: 80 }],
    ["1 wax : 1 butter : 2 oil", "twists", "balm", "hard to scoop", { wax: 1, shea: 1, oil: 2 }],
    ["1 : 1 tallow and oil, one part wax in seventeen", "scoops", "salve", "scoops with a finger", { "tallow-beef": 8, oil: 8, wax: 1 }],
    ["2 : 1 : 1 shea, jojoba, coconut, whipped", "verySoft", "bodyButter", "scoops like cream", { shea: 2, jojoba: 1, coconut: 1 }],
    ["8 : 8 : 6.5 with mango", "bar", "lotionBar", "right for a bar", { coconut: 8, mango: 8, wax: 6.5 }],
    ["8 : 8 : 6.5 with shea", "bar", "lotionBar", "right for a bar", { coconut: 8, shea: 8, wax: 6.5 }],
    ["8 : 8 : 8 drags", "drags", "lotionBar", "drags on the skin", { coconut: 8, mango: 8, wax: 8 }],
    ["8 : 8 : 5.5 melts as it is picked up", "twists", "lotionBar", "melts as it is picked up", { coconut: 8, mango: 8, wax: 5.5 }],
    ["a pot for lips, 2.5 oz oil to 1 oz wax", "twists", "lipBalm", "twists up", { oil: 2.5, wax: 1, coconut: 0.5, shea: 0.5 }],
    ["equal parts wax, coconut, butter", "bar", "lotionBar", "right for a bar", { wax: 1, coconut: 1, shea: 1 }],
  ])("%s", (_, feel, type, said, parts) => {
    expect(feelOf(kitchen(parts))).toBe(feel);
    expect(sayFit(kitchen(parts), type)).toBe(said);
  });

  it("1.5 oz of oil instead of 2.5 makes lip balm much harder, and is still a balm where it is hottest", () => {
    const usual = { oil: 2.5, wax: 1, coconut: 0.5, shea: 0.5 };
    const summer = { ...usual, oil: 1.5 };
    expect(kitchen(summer) / kitchen(usual)).toBeGreaterThan(1.25);
    expect(at(PLACES.stall.celsius, summer)).toBeGreaterThan(WISHES.lipBalm.right[0]);
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
    expect(feelOf(at(PLACES.stall.celsius, { shea: 75, oil: 20, arrowroot: 5 }))).toBe("slumps");
    expect(fitOf(at(PLACES.stall.celsius, { wax: 30, mango: 30, coconut: 25, oil: 15 }), "lotionBar")).toBe("soft");
    expect(at(PLACES.stall.celsius, { wax: 30, mango: 30, coconut: 25, oil: 15 })).toBeGreaterThan(WISHES.lotionBar.warm.least);
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
    for (const { right } of Object.values(WISHES)) expect(right[0]).toBeLessThan(right[1]);
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
  const POTS: Parameters<typeof pot>[0][] = [
    { wax: 6, oil: 94 },
    { wax: 10, oil: 90 },
    { wax: 14, oil: 86 },
    { wax: 22, oil: 60, coconut: 18 },
    { wax: 28, cocoa: 30, coconut: 25, oil: 17 },
    { shea: 75, oil: 25 },
    { shea: 50, cocoa: 20, oil: 30 },
    { cocoa: 60, oil: 40 },
    { wax: 12, shea: 30, oil: 58 },
    { "tallow-beef": 60, oil: 40 },
  ];
  const WARM = [15, 20, 24, 28, 32, 36, 40];
  /** What fingers would have said, were these the constants. */
  const felt = (truth: Constants): FirmnessTest[] =>
    POTS.flatMap((p) => WARM.map((celsius) => ({ lines: pot(p), celsius, feel: feelOf(firmness(mixOf(pot(p)), celsius, truth)) })));

  it("nothing taught leaves the trade's; one test moves it a little, towards it", () => {
    expect(fitFirmness([]).constants).toEqual(TRADE);
    const soft = fitFirmness([{ lines: pot({ wax: 12, oil: 88 }), celsius: 20, feel: "firm" }]);
    expect(soft.constants.wax).toBeGreaterThan(1.02);
    expect(soft.constants.wax).toBeLessThan(1.6);
    expect(soft.rightBefore).toBe(0);
  });
  it.each<[string, Partial<Constants>]>([
    ["the trade's own", {}],
    ["a stronger wax", { wax: 1.2 }],
    ["a weaker wax that oil takes back sooner", { wax: 0.85, dissolving: 9.5 }],
    ["harder butters", { fat: 0.52 }],
    ["butters that thin out faster", { fat: 0.36, dilution: 6.5 }],
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
