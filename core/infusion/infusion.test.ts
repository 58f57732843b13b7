/** Planning, tending and straining a jar. What is common practice is marked so; there is no published source for it. */
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { mg, micros, sum } from "../measure/exact.ts";
import { massOf, volumeMl } from "../measure/mass.ts";
import { parseAmount } from "../measure/parse.ts";
import { libraryEntry } from "../material/library.ts";
import { addDays } from "../when.ts";
import { expectedBack, oilRetention, OIL_RETAINED, PRESSED_LEAVES } from "./absorption.ts";
import { amounts, type AmountIn } from "./amounts.ts";
import { dryingState, harvestValue, readDry } from "./drying.ts";
import { METHODS, METHOD_IDS, methodsInTime, ownTimes, readyDays, suits } from "./methods.ts";
import { infusedBestBefore, strain, type StrainIn } from "./strain.ts";
import { heatLeft } from "./heatLeft.ts";
import { jarProgress, jarState, wantsShake } from "./tend.ts";
import { judgeWarmth } from "./warmth.ts";
import { jarWarnings, mayFill, usableMl, type JarFacts } from "./warnings.ts";

const unwrap = <T>(o: { ok: true; value: T } | { ok: false; problem: { say: string } }): T => {
  if (!o.ok) throw new Error(o.problem.say);
  return o.value;
};
const said = (o: { ok: boolean; problem?: { code: string } }): string => (o.ok ? "ok" : o.problem!.code);
const amount = (text: string) => unwrap(parseAmount(text));
const ml = (text: string): number => unwrap(volumeMl(amount(text))).valueOf();
const olive = libraryEntry("olive")!;
const plantain = libraryEntry("plantain")!;

describe("against common practice", () => {
  it("3 cups of oil over 2 cups of dried leaf come back as about 2½ cups (common practice, no source)", () => {
    const made = unwrap(
      amounts(
        { by: "cups", herbMl: ml("2 cups"), oilMl: ml("3 cups") },
        [{ name: "Plantain", loose: plantain.densities.dried!, parts: 1 }],
        olive.densities.liquid!,
      ),
    );
    const back = expectedBack(made.oil, [{ herb: made.herb, perGram: OIL_RETAINED.cut }], false);
    const cups = back / olive.densities.liquid! / ml("1 cup");
    expect(cups).toBeGreaterThan(2.4);
    expect(cups).toBeLessThan(2.6);
    // The same said another way: dry herb keeps about a sixth of the oil.
    expect((made.oil - back) / made.oil).toBeCloseTo(1 / 6, 1);
  });
  it("half an ounce of petals to sixteen of oil is 1 : 32 by weight (common practice, no source)", () => {
    const oil = unwrap(massOf(amount("16 oz"), { name: "Oil", form: "liquid", densities: {} }));
    const made = unwrap(amounts({ by: "ratio", oil, oilPerHerb: 32 }, [{ name: "Petals", loose: null, parts: 1 }], 913));
    const half = unwrap(massOf(amount("1/2 oz"), { name: "Petals", form: "dried", densities: {} }));
    expect(Math.abs(made.herb - half)).toBeLessThanOrEqual(1);
    expect(made.ratio).toBeCloseTo(32, 2);
  });
  it("twelve to fourteen hours at the lowest heat (common practice, no source)", () => {
    expect(METHODS.cooker.times).toMatchObject({ best: 12, latest: 14 });
    expect(METHODS.plate.times.best).toBe(12);
    expect(METHODS.cooker.how).toContain("37–49 °C (99–120 °F)");
  });
  it("four to six weeks on a dark shelf, one to six in a window, two to four hours over water (common practice, no source)", () => {
    expect(readyDays("2026-01-01", METHODS.shelf.times)).toMatchObject({ earliest: "2026-01-29", best: "2026-02-12" });
    expect(readyDays("2026-01-01", METHODS.window.times)).toEqual({ earliest: "2026-01-06", best: "2026-01-15", latest: "2026-02-12" });
    expect(readyDays("2026-01-01", METHODS.bath.times)).toEqual({ earliest: "2026-01-01", best: "2026-01-01", latest: "2026-01-01" });
  });
});

it.each<[boolean, number, RegExp | null]>([
  [true, 25, /Hardly warm/],
  [true, 37, null],
  [true, 49, null],
  [true, 63, /Hotter than gentle/],
  [true, 85, /Too hot/],
  [false, 22, null],
  [false, 45, /Too warm/],
  [false, 85, /Too hot/],
])("a thermometer in a jar that is heated, %s, at %s °C (bounds from memory)", (heated, celsius, says) => {
  const said = judgeWarmth(heated, celsius);
  if (says === null) expect(said).toBeNull();
  else expect(said).toMatch(says);
});
describe("how much", () => {
  const herb = { name: "Calendula", loose: 60, parts: 1 };
  it("by jar fill: the herb's loose share of the jar, and oil for what the plant itself leaves free", () => {
    const made = unwrap(amounts({ by: "fill", vesselMl: 1000, fillMl: 950, share: 0.5 }, [herb], 920));
    expect(made.herb).toBe(30_000);
    expect(made.oil).toBe(Math.round((950 - 30_000 / 1400) * 920));
    expect(made.fillMl).toBeCloseTo(950, 2);
    expect(made.looseMl).toBeCloseTo(500, 5);
  });
  it("all of a lot in hand", () => {
    expect(unwrap(amounts({ by: "lot", herb: mg(83_000), oilPerHerb: 8 }, [herb], 920))).toMatchObject({ herb: 83_000, oil: 664_000 });
  });
  it.each<[AmountIn, Parameters<typeof amounts>[1], string]>([
    [{ by: "ratio", oil: mg(100), oilPerHerb: 0 }, [herb], "zero"],
    [{ by: "ratio", oil: mg(0), oilPerHerb: 8 }, [herb], "zero"],
    [{ by: "cups", herbMl: 100, oilMl: 100 }, [{ ...herb, loose: null }], "noLoose"],
    [{ by: "fill", vesselMl: 100, fillMl: 1, share: 1 }, [{ ...herb, loose: 600 }], "noRoom"],
    [{ by: "ratio", oil: mg(100), oilPerHerb: 8 }, [], "noHerb"],
  ])("%j over %j is refused", (input, herbs, code) => expect(said(amounts(input, herbs, 920))).toBe(code));
  it("a blend's herbs add up to its herb, each in its parts, to the milligram", () => {
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: 1, max: 9 }), { minLength: 1, maxLength: 5 }),
        fc.integer({ min: 1000, max: 9_000_000 }),
        (parts, oil) => {
          const made = unwrap(
            amounts(
              { by: "ratio", oil: mg(oil), oilPerHerb: 7 },
              parts.map((p) => ({ name: "x", loose: null, parts: p })),
              920,
            ),
          );
          expect(sum(made.herbs)).toBe(made.herb);
          const all = parts.reduce((a, p) => a + p, 0);
          made.herbs.forEach((h, i) => expect(Math.abs(h - (made.herb * parts[i]!) / all)).toBeLessThanOrEqual(1));
        },
      ),
    );
  });
});

describe("what the herb keeps", () => {
  const past = [
    { materialId: 1, cut: "cut" as const, herb: mg(100_000), kept: mg(240_000), pressed: false },
    { materialId: 1, cut: "cut" as const, herb: mg(50_000), kept: mg(60_000), pressed: true },
    { materialId: 1, cut: "powder" as const, herb: mg(10_000), kept: mg(40_000), pressed: false },
  ];
  it("is common practice until there is a straining, then the workshop's own, of that cut where there are some", () => {
    expect(oilRetention(2, "cut", null, past)).toEqual({ perGram: OIL_RETAINED.cut, from: "common practice", count: 0 });
    // 240 g, and 60 g that cloth alone would have made 100 g, over 150 g of herb.
    expect(oilRetention(1, "cut", null, past)).toMatchObject({ from: "own strainings", count: 2 });
    expect(oilRetention(1, "cut", null, past).perGram).toBeCloseTo((240 + 60 / PRESSED_LEAVES) / 150, 6);
    expect(oilRetention(1, "powder", null, past)).toMatchObject({ perGram: 4, count: 1 });
    expect(oilRetention(1, "whole", null, past).count).toBe(3);
    expect(oilRetention(1, "cut", 1.5, past)).toEqual({ perGram: 1.5, from: "own figure", count: 0 });
  });
  it("pressing gets more out, and never more than went in", () => {
    const herbs = [{ herb: mg(50_000), perGram: 2 }];
    expect(expectedBack(mg(500_000), herbs, false)).toBe(400_000);
    expect(expectedBack(mg(500_000), herbs, true)).toBe(440_000);
    expect(expectedBack(mg(50_000), herbs, false)).toBe(0);
  });
});

describe("when", () => {
  it("a method is well in time, just in time, or too late, and the slow ones that still make it are named first", () => {
    const ready = readyDays("2026-11-01", METHODS.shelf.times);
    expect([suits(ready, ready.best), suits(ready, ready.earliest), suits(ready, addDays(ready.earliest, -1))]).toEqual([
      "well",
      "just",
      "late",
    ]);
    expect(methodsInTime("2026-11-01", "2026-11-08")).toEqual(["window", "alcohol", "cooker", "plate", "bath"]);
    expect(methodsInTime("2026-11-01", "2026-11-01")).toEqual(["cooker", "bath"]);
    expect(methodsInTime("2026-11-02", "2026-11-01")).toEqual([]);
  });
  it("every method is ready in order", () => {
    for (const id of METHOD_IDS) {
      const r = readyDays("2028-02-28", METHODS[id].times);
      expect(r.earliest <= r.best && r.best <= r.latest && r.earliest >= "2028-02-28").toBe(true);
    }
    expect(readyDays("2026-01-01", ownTimes(10))).toEqual({ earliest: "2026-01-06", best: "2026-01-11", latest: "2026-01-21" });
  });
  it("a jar steeps, can be strained, is ready, is late; its fill shows how far it is", () => {
    const jar = { day: "2026-01-01", method: "shelf" as const, ...readyDays("2026-01-01", METHODS.shelf.times) };
    const at = (n: number) => addDays("2026-01-01", n);
    expect([0, 27, 28, 41, 42, 84, 85].map((n) => jarState(jar, at(n)))).toEqual([
      "steeping",
      "steeping",
      "usable",
      "usable",
      "ready",
      "ready",
      "late",
    ]);
    expect([0, 21, 42, 60].map((n) => jarProgress(jar, at(n)))).toEqual([0, 0.5, 1, 1]);
  });
  it("wants shaking daily in the first fortnight, every third day after, and not once it is ready or on heat (common practice, no source)", () => {
    const jar = { day: "2026-01-01", method: "shelf" as const, ...readyDays("2026-01-01", METHODS.shelf.times) };
    expect(wantsShake(jar, null, "2026-01-01")).toBe(false);
    expect(wantsShake(jar, null, "2026-01-02")).toBe(true);
    expect(wantsShake(jar, "2026-01-10", "2026-01-10")).toBe(false);
    expect(wantsShake(jar, "2026-01-20", "2026-01-22")).toBe(false);
    expect(wantsShake(jar, "2026-01-20", "2026-01-23")).toBe(true);
    expect(wantsShake(jar, "2026-01-20", jar.best)).toBe(false);
    expect(wantsShake({ ...jar, method: "cooker" }, null, "2026-01-05")).toBe(false);
    expect(heatLeft(90, 0, 60 * 60_000)).toBe(30);
  });
});

describe("warnings", () => {
  const dry = { name: "Calendula", dryness: "dry" as const, cautions: [] };
  const oil = { name: "Olive oil", kind: "oil" as const, cautions: [], keepsSealed: 18, bestBefore: "2028-01-01" };
  const facts = (over: Partial<JarFacts> = {}): JarFacts => ({
    method: "shelf",
    herbs: [dry],
    carriers: [oil],
    day: "2026-11-01",
    ready: readyDays("2026-11-01", METHODS[over.method ?? "shelf"].times),
    vesselMl: 1000,
    fillMl: 800,
    looseMl: 400,
    ...over,
  });
  it.each([
    ["Fresh ginger", "fresh", "never"],
    ["Turmeric root", "wilted", "never"],
    ["Chilli from the garden", "damp", "never"],
    ["Burdock", "fresh", "never"],
    ["Chilli from the garden", "dry", "mind"],
    ["Calendula", "fresh", "mind"],
    ["Peppermint", "fresh", "mind"],
  ] as const)("%s, %s, over heat: %s", (name, dryness, severity) => {
    const jar = facts({ method: "bath", herbs: [{ name, dryness, cautions: [] }] });
    expect(jarWarnings(jar).find((w) => w.code === "foodPlant" || w.code === "wet")?.severity).toBe(severity);
  });
  const codes = (f: JarFacts) => jarWarnings(f).map((w) => `${w.code} ${w.severity}`);
  it("a dry herb in a good oil on a dark shelf needs none", () => expect(codes(facts())).toEqual([]));
  it.each<[string, Partial<JarFacts>, string]>([
    ["fresh herb on the shelf", { herbs: [{ ...dry, dryness: "fresh" }] }, "wet reason"],
    ["a lot that isn't dry yet", { herbs: [{ ...dry, dryness: "damp" }] }, "wet reason"],
    ["wilted herb on gentle heat", { method: "cooker", herbs: [{ ...dry, dryness: "wilted" }] }, "wet mind"],
    ["raw garlic", { herbs: [{ name: "Garlic", dryness: "fresh", cautions: ["foodPlant"] }] }, "foodPlant never"],
    ["raw garlic, heated", { method: "bath", herbs: [{ name: "Garlic", dryness: "fresh", cautions: ["foodPlant"] }] }, "foodPlant never"],
    ["dried garlic", { herbs: [{ name: "Garlic", dryness: "dry", cautions: ["foodPlant"] }] }, "foodPlant mind"],
    ["St John's wort", { herbs: [{ name: "St John's wort", dryness: "", cautions: ["photosensitising"] }] }, "photosensitising mind"],
    ["comfrey", { herbs: [{ name: "Comfrey", dryness: "", cautions: ["restricted"] }] }, "restricted mind"],
    ["shea on the shelf", { carriers: [{ ...oil, kind: "softButter" }] }, "solid reason"],
    ["an oil that is past its day", { carriers: [{ ...oil, bestBefore: "2026-10-01" }] }, "expired reason"],
    ["an oil with little life left", { carriers: [{ ...oil, bestBefore: "2027-01-01" }] }, "shortLived mind"],
    ["hemp for six weeks", { carriers: [{ ...oil, bestBefore: null, keepsSealed: 9 }] }, "shortLived mind"],
    ["rosehip in the sun", { method: "window", carriers: [{ ...oil, cautions: ["delicate"] }] }, "delicate reason"],
    ["a water bath", { method: "bath" }, "water mind"],
    ["spirit", { method: "alcohol" }, "flammable mind"],
    ["a jar too full to heat", { method: "plate", fillMl: 900 }, "overfull mind"],
    ["more than the jar holds", { fillMl: 1001 }, "overfull never"],
    ["herb above the oil", { looseMl: 900 }, "uncovered mind"],
  ])("%s", (_, over, code) => {
    expect(codes(facts(over))).toContain(code);
    for (const w of jarWarnings(facts(over))) expect(w.instead.length).toBeGreaterThan(10);
  });
  it("shea is no trouble on heat, and a heated jar needs more headspace", () => {
    expect(codes(facts({ method: "plate", carriers: [{ ...oil, kind: "softButter" }] }))).toEqual([]);
    expect(usableMl(1000, true)).toBeLessThan(usableMl(1000, false));
  });
  it("a reason stated lets a damp herb through, and nothing lets raw garlic through", () => {
    const damp = jarWarnings(facts({ herbs: [{ ...dry, dryness: "damp" }] }));
    expect([mayFill(damp, "").ok, mayFill(damp, "  ").ok, mayFill(damp, "half jar, cloth top").ok]).toEqual([false, false, true]);
    const garlic = jarWarnings(facts({ herbs: [{ name: "Garlic", dryness: "wilted", cautions: ["foodPlant"] }] }));
    expect(mayFill(garlic, "my grandmother did").ok).toBe(false);
    expect(garlic[0]!.instead).toContain("food-safety authority");
  });
});

describe("straining", () => {
  const base: StrainIn = {
    oilIn: mg(600_000),
    herbIn: mg(50_000),
    value: micros(7_000_001),
    back: mg(500_000),
    secondBack: mg(490_000),
    sediment: mg(5_000),
    bottles: [mg(240_000), mg(240_000)],
    expected: mg(495_000),
  };
  it("all the cost falls on the bottles, by what is in each", () => {
    const s = unwrap(strain(base));
    expect(s).toMatchObject({ kept: 100_000, keptPerGram: 2, bottled: 480_000, lost: 15_000 });
    expect(sum(s.values)).toBe(7_000_001);
    expect(s.yield).toBeCloseTo(0.8, 6);
    expect(s.against).toBeCloseTo(500 / 495, 6);
  });
  it.each<[Partial<StrainIn>, string]>([
    [{ back: mg(600_001) }, "back"],
    [{ secondBack: mg(500_001) }, "secondBack"],
    [{ bottles: [] }, "bottles.0.amount"],
    [{ bottles: [mg(0)] }, "bottles.0.amount"],
    [{ bottles: [mg(490_000)] }, "bottles.0.amount"],
  ])("%j is refused beside its field", (over, code) => expect(said(strain({ ...base, ...over }))).toBe(code));
  it("value is never made or lost, whatever the bottles", () => {
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 1, max: 100_000 }), { minLength: 1, maxLength: 9 }), fc.nat(1e9), (bottles, value) => {
        const back = mg(bottles.reduce((a, b) => a + b, 0));
        const s = unwrap(
          strain({
            ...base,
            oilIn: mg(back + 10),
            back,
            secondBack: null,
            sediment: mg(0),
            bottles: bottles.map(mg),
            value: micros(value),
          }),
        );
        expect(sum(s.values)).toBe(value);
        expect(s.lost).toBe(0);
        s.values.forEach((v, i) => expect(Math.abs(v - (value * bottles[i]!) / back)).toBeLessThanOrEqual(1));
      }),
    );
  });
  it("keeps no longer than its carriers, a year from dry herb, three months from wet (from memory)", () => {
    expect(infusedBestBefore("2026-11-01", ["2027-03-01", null], ["dry"])).toBe("2027-03-01");
    expect(infusedBestBefore("2026-11-01", ["2029-01-01"], ["dry", ""])).toBe("2027-11-01");
    expect(infusedBestBefore("2026-11-01", ["2029-01-01"], ["dry", "wilted"])).toBe("2027-02-01");
  });
});

describe("drying", () => {
  it("is over when the weight has stopped falling, and says when that can't be", () => {
    const state = (...grams: number[]) =>
      dryingState(
        mg(500_000),
        grams.map((g) => mg(g * 1000)),
      );
    expect(state().say).toContain("Weigh it again");
    expect(state(300, 180)).toMatchObject({ steady: false, left: 0.36 });
    expect(state(120, 119)).toMatchObject({ steady: true });
    expect(state(120, 119).say).toContain("snaps");
    expect(state(400, 399).say).toContain("drying at all");
  });
  it("more than was picked, or a snap in wet herb, is refused", () => {
    expect([said(readDry(mg(100), mg(101), false)), said(readDry(mg(100), mg(61), true)), said(readDry(mg(100), mg(61), false))]).toEqual([
      "heavier",
      "wet",
      "ok",
    ]);
  });
  it("is valued at nothing, at the hours, or at the market price", () => {
    const h = { dry: mg(110_000), minutes: 90, hourly: micros(16_000_000), market: { value: micros(40_000_000), per: 1_000_000 } };
    expect([harvestValue("nothing", h), harvestValue("hours", h), harvestValue("market", h)]).toEqual([0, 24_000_000, 4_400_000]);
  });
});
