/** What is foreseen beyond how it sets: what could stand in, how long it keeps, the method, and a recipe as a file. Common practice, no source. */
import fc from "fast-check";
import Fraction from "fraction.js";
import { describe, expect, it } from "vitest";
import { firmness, mixOf, SAID_AT, TRADE } from "../firmness/model.ts";
import { kind } from "../material/kinds.ts";
import { LIBRARY, libraryChoice } from "../material/library.ts";
import { mg, micros } from "../measure/exact.ts";
import { parseAmount } from "../measure/parse.ts";
import { insteadOf, lengthened, likeKinds, onHandOf, putIn, replaceAll, standIns, WITHOUT, type StandIn } from "./instead.ts";
import { factsOf } from "./judge/judgedOf.ts";
import type { Judged, JudgedLine } from "./judge/judgement.ts";
import { judge } from "./judge/judge.ts";
import { keepingOf } from "./keeping.ts";
import { clearAt, draftMethod, readSteps, SHEA, writeSteps, type Shea } from "./method.ts";
import { fileOf, readRecipeFile, writeLines, writeRecipe } from "./portable.ts";
import type { RecipeType } from "./types.ts";

const ALL: readonly StandIn[] = LIBRARY.filter((e) => kind(e.kind).measured === "weight").map((e, i) => ({
  ...libraryChoice(e, i + 1),
  ...{ allergen: e.allergen, vegan: e.vegan, per: { value: micros(20_000_000), per: 1_000_000 } },
  lots: [{ number: `R${i}`, bestBefore: null, onHand: 1_000_000 }],
}));
const byKey = new Map(ALL.map((m) => [m.libraryKey!, m]));
const known = new Map(ALL.map((m) => [m.id, m]));
function pot(type: RecipeType, parts: [string, number][]): Judged {
  const total = mg(parts.reduce((a, [, grams]) => a + grams * 1000, 0));
  const lines = parts.map(([key, grams], row): JudgedLine => {
    const amount = { n: new Fraction(grams), unit: "g" as const };
    return { ...factsOf(byKey.get(key)!), row, amount, weight: mg(grams * 1000), share: (grams * 1000) / total, lots: [], short: false };
  });
  const by = { scale: { unit: "g", step: 100 }, usedOn: "hands", forWhom: "anyone", constants: TRADE, today: "2026-11-27" } as const;
  return { ...by, type, total, lines, keepsMonths: 12, lossBp: 200, fill: null };
}
const was = (key: string): StandIn => byKey.get(key)!;
const BALM: [string, number][] = [
  ["beeswax-yellow", 60],
  ["shea-unrefined", 80],
  ["almond", 200],
  ["eo-lavender", 4],
];

describe("standing in", () => {
  it("candelilla for beeswax: half to two thirds of it, and it sets the same", () => {
    const of = pot("balm", BALM);
    const stand = insteadOf(of, of.lines[0]!, was("candelilla"), known)!;
    expect(stand.weight / of.lines[0]!.weight).toBeGreaterThan(0.5);
    expect(stand.weight / of.lines[0]!.weight).toBeLessThan(0.667);
    expect(stand.firm).toBeCloseTo(firmness(mixOf(of.lines), SAID_AT, TRADE), 3);
    expect(stand.reasons).toEqual(expect.arrayContaining(["enough on hand", "stronger, so less of it", "no bee product", "vegan"]));
    expect(stand.dearer).toBeLessThan(0);
  });
  it("liquid for liquid gram for gram; a butter with its wax put right; a strong scent only up to its ceiling", () => {
    const of = pot("balm", BALM);
    expect(insteadOf(of, of.lines[2]!, was("olive"), known)!.weight).toBe(of.lines[2]!.weight);
    const cocoa = insteadOf(of, of.lines[1]!, was("cocoa-raw"), known)!;
    expect([cocoa.weight, cocoa.wax!.weight < of.lines[0]!.weight]).toEqual([of.lines[1]!.weight, true]);
    expect(cocoa.firm).toBeCloseTo(firmness(mixOf(of.lines), SAID_AT, TRADE), 2);
    const clove = insteadOf(of, of.lines[3]!, was("eo-clove-bud"), known)!;
    expect(clove.weight / clove.pot.total).toBeCloseTo(0.005, 4);
    expect([clove.worse.map((j) => j.key), clove.reasons]).toEqual([[], ["enough on hand", "its ceiling allows less of it"]]);
  });
  it("what it costs counts the wax that goes with it; where something has no cost, nothing is said of it", () => {
    const of = pot("balm", BALM);
    const cocoa = insteadOf(of, of.lines[1]!, was("cocoa-raw"), known)!;
    // Everything is two cents a gram here: what is saved is the wax.
    expect(cocoa.dearer).toBe((cocoa.wax!.weight - of.lines[0]!.weight) * 20);
    const dear = new Map(known).set(was("cocoa-raw").id, { ...was("cocoa-raw"), per: { value: micros(50_000_000), per: 1_000_000 } });
    expect(insteadOf(of, of.lines[1]!, was("cocoa-raw"), dear)!.dearer).toBe(80_000 * 30 + cocoa.dearer!);
    expect(insteadOf(of, of.lines[1]!, was("cocoa-raw"), new Map())!.dearer).toBeNull();
  });
  it("a weak lot replaced is a weak lot gone; a stand-in's own lots count, as many as it takes", () => {
    const of = pot("balm", BALM);
    const weak = { ...of.lines[2]!, lots: [{ number: "A1", bestBefore: "2027-02-01" }] };
    const old = { ...of, lines: of.lines.map((l) => (l.row === 2 ? weak : l)) };
    const by = (lots: StandIn["lots"]) => insteadOf(old, weak, { ...was("olive"), lots }, known)!;
    expect(by(was("olive").lots).better.map((j) => j.key)).toEqual([`keeps ${was("almond").name}`]);
    const two = [
      { number: "B1", bestBefore: "2027-09-01", onHand: 150_000 },
      { number: "B2", bestBefore: "2027-05-01", onHand: 900_000 },
    ];
    expect(by(two).worse.map((j) => j.say)).toEqual(["Made today it keeps 5 months, not 12."]);
    expect(by([{ ...two[0]!, onHand: 200_000 }, two[1]!]).worse.map((j) => j.say)).toEqual(["Made today it keeps 9 months, not 12."]);
  });
  it("what lengthens it most stands for what turns first: the longest, then the cheapest; none, where nothing keeps longer", () => {
    const of = pot("balm", BALM);
    const old = { ...of, lines: of.lines.map((l) => (l.row === 2 ? { ...l, lots: [{ number: "A1", bestBefore: "2027-02-01" }] } : l)) };
    const cheap = { ...was("jojoba"), per: { value: micros(1_000_000), per: 1_000_000 } };
    const soon = { ...was("grapeseed"), lots: [{ number: "G1", bestBefore: "2027-01-01", onHand: 1_000_000 }] };
    const own = of.lines.map((l) => known.get(l.of)!);
    const found = lengthened(old, [...own, was("olive"), cheap, soon])!;
    expect([found.line.row, found.instead.by.name, found.months]).toEqual([2, was("jojoba").name, 12]);
    expect(putIn(old, found.line, found.instead).rows).toEqual([
      { row: 2, entered: "200.0 g", material: was("jojoba").name, form: "liquid" },
    ]);
    expect(lengthened(old, [...own, soon])).toBeNull();
    expect(lengthened(of, ALL)).toBeNull();
  });
  it("only its like stands in for a thing, never itself nor what is in it already, best first", () => {
    const of = pot("balm", BALM);
    for (const l of of.lines) {
      const found = standIns(of, l, ALL);
      expect(found.length).toBeGreaterThan(2);
      expect(found.every((s) => likeKinds(l.kind).includes(s.by.kind) && !of.lines.some((x) => x.of === s.by.id))).toBe(true);
      expect(found.map((s) => s.rank)).toEqual([...found.map((s) => s.rank)].sort((a, b) => a - b));
    }
  });
  it.each(["bee", "nut", "animal"] as const)("one press makes it free of it: %s", (w) => {
    const of = pot("balm", BALM);
    const { rows, left } = replaceAll(
      of,
      ALL,
      (l) => WITHOUT[w].fits(known.get(l.of)!),
      (m) => !WITHOUT[w].fits(m),
    );
    expect(left).toEqual([]);
    const there = of.lines.map((l) => {
      const material = rows.find((r) => r.row === l.row)?.material;
      return ALL.find((m) => m.name === material) ?? known.get(l.of)!;
    });
    expect(there.some((m) => WITHOUT[w].fits(m))).toBe(false);
  });
  it("made from what there is: only what there is enough of comes in; what nothing stands in for is named", () => {
    const of = pot("balm", BALM);
    const few = [...of.lines.map((l) => known.get(l.of)!), was("olive"), { ...was("eo-orange"), lots: [] }];
    const { rows, left } = replaceAll(
      of,
      few,
      (l) => l.row >= 2,
      (m, weight) => onHandOf(m) >= weight,
    );
    expect([rows.map((r) => [r.row, r.material]), left]).toEqual([[[2, was("olive").name]], [was("eo-lavender").name]]);
  });
  it("nothing stands in while shares would move with it", () => {
    const of = pot("balm", BALM);
    const shared = { ...of, lines: of.lines.map((l) => ({ ...l, amount: { ...l.amount, unit: "part" as const } })) };
    expect(standIns(shared, shared.lines[0]!, ALL)).toEqual([]);
  });
});

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
