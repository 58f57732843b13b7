/** What to expect beyond how it sets: how long it keeps, the method, and a recipe as a file. Common practice, no source. */
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { firmness, mixOf, TRADE } from "../firmness/model.ts";
import { mg } from "../measure/exact.ts";
import { parseAmount } from "../measure/parse.ts";
import { ALL, BALM, pot, was } from "#test/core/pot";
import { judge } from "./judge/judge.ts";
import { keepingOf } from "./keeping.ts";
import { clearAt, draftMethod, readSteps, SHEA, writeSteps, type Shea } from "./method.ts";
import { fileOf, readRecipeFile, writeLines, writeRecipe } from "./portable.ts";
import type { RecipeType } from "./types.ts";

describe("keeping", () => {
  it("is the soonest of what is taken, each material once; what has to be bought keeps from today", () => {
    const keeps = keepingOf(
      [
        {
          name: "Olive",
          keepsSealed: 18,
          short: false,
          lots: [
            { number: "A", bestBefore: "2027-09-01" },
            { number: "B", bestBefore: "2027-08-01" },
          ],
        },
        { name: "Rosehip", keepsSealed: 9, short: true, lots: [{ number: "C", bestBefore: "2027-06-01" }] },
        { name: "Hemp", keepsSealed: 4, short: true, lots: [] },
        { name: "Wax", keepsSealed: null, short: true, lots: [{ number: "D", bestBefore: null }] },
      ],
      "2026-11-27",
      12,
    );
    expect(keeps).toEqual({
      day: "2027-03-27",
      months: 4,
      weak: [
        { name: "Hemp", number: null, day: "2027-03-27" },
        { name: "Rosehip", number: "C", day: "2027-06-01" },
        { name: "Olive", number: "B", day: "2027-08-01" },
      ],
    });
    expect(keepingOf([], "2026-11-27", 12)).toEqual({ day: "2027-11-27", months: 12, weak: [] });
  });
});

describe("the method", () => {
  const texts = (type: RecipeType, shea: Shea, parts = BALM): string =>
    draftMethod(pot(type, parts), shea)
      .map((s) => s.text)
      .join("\n");
  it("melts the hardest first, adds what heat harms below its warmth, tests before it pours, and caps when it is cold", () => {
    const t = texts("balm", "gentle", [
      ["shea-unrefined", 80],
      ["beeswax-yellow", 60],
      ["cocoa-raw", 40],
      ["olive", 200],
      ["vitamin-e", 2],
      ["eo-lavender", 4],
    ]);
    expect(t).toMatch(/Melt Beeswax and Cocoa butter over hot water/);
    const order = [
      "alcohol",
      "Weigh",
      "Melt",
      "Olive",
      "off the heat",
      "Shea butter into the hot",
      "Vitamin E",
      "Lavender",
      "frozen spoon",
      "pour at",
      "Cap them",
    ];
    expect(order.map((w) => t.indexOf(w))).toEqual([...order.map((w) => t.indexOf(w))].sort((a, b) => a - b));
    expect(order.every((w) => t.includes(w))).toBe(true);
  });
  it("three schools for shea: held hot and chilled, added off the heat, or never melted", () => {
    expect(texts("balm", "hold")).toMatch(/Hold it hot for another 30 minutes[\s\S]*Chill them fast/);
    expect(texts("balm", "gentle")).toMatch(/Melt Beeswax over[\s\S]*off the heat[\s\S]*Shea butter into the hot oils/);
    expect(
      texts("bodyButter", "raw", [
        ["shea-unrefined", 200],
        ["olive", 60],
      ]),
    ).not.toMatch(/Melt|over hot water|off the heat/);
    expect(
      texts("bodyButter", "hold", [
        ["shea-unrefined", 200],
        ["olive", 60],
      ]),
    ).toMatch(/Melt[\s\S]*Chill it[\s\S]*Whip until/);
  });
  it.each<[string, [string, number][]]>([
    [
      "tubes of a quarter wax",
      [
        ["beeswax-yellow", 25],
        ["olive", 74],
        ["eo-lavender", 1],
      ],
    ],
    [
      "a candelilla bar",
      [
        ["candelilla", 20],
        ["cocoa-raw", 40],
        ["olive", 39],
        ["eo-lavender", 1],
      ],
    ],
    [
      "a soft salve",
      [
        ["beeswax-yellow", 8],
        ["olive", 91],
        ["eo-lavender", 1],
      ],
    ],
    [
      "cocoa and shea",
      [
        ["cocoa-raw", 60],
        ["shea-refined", 39],
        ["eo-lavender", 1],
      ],
    ],
  ])("%s: scent goes in last, at or just above the warmth it is poured at, and hotter than it likes is said", (_, parts) => {
    const steps = draftMethod(pot("lipBalm", parts), "hold");
    const [scent, pours] = [steps.find((s) => /clock/.test(s.text))!, steps.find((s) => /pour at about/.test(s.text))!];
    const [below, at] = [Number(/below (\d+) °C/.exec(scent.text)![1]), Number(/about (\d+) °C/.exec(pours.text)![1])];
    expect([below >= at, steps.indexOf(pours) > steps.indexOf(scent)]).toEqual([true, true]);
    expect(below > 55 ? steps.indexOf(pours) - steps.indexOf(scent) : 2).toBe(below > 55 ? 1 : 2);
    expect(/hotter than is good for it/.test(scent.why)).toBe(below > 55);
  });
  it("it pours a little above where the pot runs clear, and that is where nothing of it is set", () => {
    const of = pot("balm", BALM);
    const clear = clearAt(of);
    expect([firmness(mixOf(of.lines), clear, TRADE) < 0.001, firmness(mixOf(of.lines), clear - 1, TRADE) < 0.001]).toEqual([true, false]);
    expect(draftMethod(of, "hold").some((s) => s.text.includes(`pour at about ${clear + 5} °C`))).toBe(true);
  });
  it("steps are kept as text and read back as they were, whatever is typed", () => {
    const steps = fc.array(
      fc.record({
        text: fc
          .string({ minLength: 1 })
          .map((t) => t.replace(/\s+/g, " ").trim())
          .filter((t) => t !== "" && !/\(\d{1,3} min\)$/.test(t)),
        minutes: fc.option(fc.integer({ min: 0, max: 999 })),
      }),
    );
    fc.assert(
      fc.property(steps, (s) => {
        expect(readSteps(writeSteps(s))).toEqual(s);
      }),
    );
    for (const shea of Object.keys(SHEA) as Shea[]) {
      const draft = draftMethod(pot("balm", BALM), shea);
      expect(readSteps(writeSteps(draft))).toEqual(draft.map(({ text, minutes }) => ({ text, minutes })));
      expect(draft.every((d) => d.why !== "")).toBe(true);
    }
  });
});

describe("whatever is in the pot", () => {
  const types = fc.constantFrom<RecipeType>("salve", "balm", "lipBalm", "lotionBar", "bodyButter");
  const parts = fc.uniqueArray(fc.tuple(fc.constantFrom(...ALL.map((m) => m.libraryKey!)), fc.integer({ min: 1, max: 400 })), {
    minLength: 1,
    maxLength: 12,
    selector: ([key]) => key,
  });
  it("every ingredient has its place in the method, in each school", () => {
    fc.assert(
      fc.property(types, parts, fc.constantFrom(...(Object.keys(SHEA) as Shea[])), (type, p, shea) => {
        const steps = draftMethod(pot(type, p), shea)
          .map((s) => s.text)
          .join("\n");
        for (const [key] of p) expect([key, steps.includes(was(key).name.split(",")[0]!)]).toEqual([key, true]);
        expect(steps).toMatch(/alcohol[\s\S]*Cap them/);
      }),
    );
  });
  it("what is said is whole sentences with figures in them, worst first, each key once, and mends are amounts that can be read", () => {
    fc.assert(
      fc.property(types, parts, fc.integer({ min: 5_000, max: 300_000 }), (type, p, fill) => {
        const said = judge({ ...pot(type, p), fill: mg(fill) });
        expect(said.map((j) => j.gravity)).toEqual(said.map((j) => j.gravity).sort((a, b) => b - a));
        expect(new Set(said.map((j) => j.key)).size).toBe(said.length);
        for (const j of said) {
          expect(`${j.say} ${j.why} ${j.figure}`).not.toMatch(/NaN|Infinity|undefined|null|e-\d|-\d/);
          expect([j.say, j.why].every((t) => /[.?]$/.test(t))).toBe(true);
          for (const r of j.mend?.rows ?? []) expect([r.entered, parseAmount(r.entered).ok]).toEqual([r.entered, true]);
        }
      }),
    );
  });
});

describe("as a file", () => {
  const lines = [
    { material: "Almond oil, sweet", amount: "1/2 cup", measuredAs: "liquid" },
    { material: 'A "raw" butter', amount: "40 g", measuredAs: "block" },
  ];
  const sizes = [{ container: "Tin", filledWith: "60 g", minutes: "2", packaging: [{ material: "Label", pieces: "1" }] }];
  it("comes back as it went, by JSON and by CSV", () => {
    const json = readRecipeFile(writeRecipe({ name: "Balm", madeAs: "balm", lines, sizes, method: "Melt.\nPour." }));
    expect(json).toMatchObject({ ok: true, value: { name: "Balm", madeAs: "balm", lines, sizes, method: "Melt.\nPour." } });
    expect(readRecipeFile(writeLines(lines))).toMatchObject({ ok: true, value: { lines } });
    expect(readRecipeFile("\ufeffMaterial;Amount\nShea;40 g\n")).toMatchObject({
      ok: true,
      value: { lines: [{ material: "Shea", amount: "40 g", measuredAs: "" }] },
    });
  });
  it.each([
    ['{ "recipe": 1, "lines": [', "notJson"],
    ['{ "recipe": 2 }', "notRecipe"],
    ["{}", "notRecipe"],
    ['{ "recipe": 1, "lines": [{ "material": 5, "amount": "1 g" }] }', "notRecipe"],
    ['{ "recipe": 1, "madeAs": "soap" }', "notRecipe"],
    ["material,amount\n,\n", "notCsv"],
  ])("what isn't one is said so: %s", (text, code) => expect(readRecipeFile(text)).toMatchObject({ ok: false, problem: { code } }));
  it("free text is no file", () => expect(["40 g material", "Materials\n40 g wax", " { not it"].map(fileOf)).toEqual([null, null, "json"]));
});
