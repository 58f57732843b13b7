/** Two versions side by side: each weighs what it did on its day, every line appears once, and only differences are marked. */
import { TRADE } from "#core/firmness/model";
import { libraryChoice, libraryEntry } from "#core/material/library";
import { mg, micros } from "#core/measure/exact";
import type { WrittenRecipe } from "#db/recipe/read";
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import type { SheetMaterial } from "#db/shelf/sheetMaterials";
import { recipeTexts } from "../recipeTexts.ts";
import { figuresOf, pairLines, type By } from "./sideBySide.ts";

const KEYS = ["beeswax-yellow", "olive", "shea-refined", "eo-lavender"];
const STUFF: readonly SheetMaterial[] = KEYS.map((key, i) => ({
  ...libraryChoice(libraryEntry(key)!, i + 1),
  ...{ lots: [], again: { value: micros(10_000_000), per: 1_000_000 } },
}));
const NAMES = new Map(STUFF.map((m) => [m.id, m.name]));
const BY: By = {
  stuff: STUFF,
  rates: { hourly: micros(0), overheadHourly: micros(0) },
  ...{ scale: { unit: "g", step: 100 }, constants: TRADE, today: "2026-11-27", school: "again", currency: "EUR" },
};

/** A version of so many grams of each, whatever its texts would weigh by now. */
function version(n: number, lines: [id: number, entered: string, grams: number][]): WrittenRecipe {
  const total = mg(lines.reduce((a, [, , g]) => a + Math.round(g * 1000), 0));
  const head = {
    id: 7,
    versionId: n,
    n,
    name: "Salve",
    code: "SA",
    retired: false,
    type: "salve" as const,
    day: "2026-11-27",
    note: "",
    total,
  };
  const rest = {
    makes: null,
    lossBp: 0,
    keepsMonths: 12,
    batchMinutes: 0,
    overrunBp: 0,
    method: "",
    usedOn: "" as const,
    forWhom: "anyone" as const,
    answers: {},
  };
  return {
    recipe: { ...head, ...rest },
    lines: lines.map(([materialId, entered, grams], i) => ({
      id: i,
      materialId,
      name: `once called ${materialId}`,
      entered,
      form: "liquid",
      weight: mg(Math.round(grams * 1000)),
    })),
    sizes: [
      {
        ...{
          id: 1,
          recipeId: 7,
          position: 0,
          label: "50 g",
          variant: "",
          fillBy: "weight",
          fillText: "50 g",
          fill: mg(50_000),
          fillMl: null,
          containerId: null,
        },
        ...{ unitMinutesHundredths: 0, ownPrice: null, retired: false, packaging: [], additions: [] },
      },
    ],
    variants: [],
  };
}
const figures = (w: WrittenRecipe) => figuresOf(w, recipeTexts(w, NAMES), BY);

describe("line by line", () => {
  it("pairs by material, two lines of one in order; what only one has stands alone, the older's last", () => {
    const a = version(1, [
      [1, "10 g", 10],
      [2, "1 cup", 216],
      [2, "20 g", 20],
      [4, "9 drops", 0.4],
    ]);
    const b = version(2, [
      [2, "1 cup", 216],
      [3, "30 g", 30],
      [1, "12 g", 12],
    ]);
    const pairs = pairLines(a, b, NAMES).map((p) => [p.material, p.a?.entered, p.b?.entered]);
    expect(pairs).toEqual([
      ["Olive oil", "1 cup", "1 cup"],
      ["Shea butter, refined", undefined, "30 g"],
      ["Beeswax, yellow", "10 g", "12 g"],
      ["Olive oil", "20 g", undefined],
      ["Lavender essential oil", "9 drops", undefined],
    ]);
    expect(pairLines(a, b, new Map()).at(-1)!.material).toBe("once called 4");
  });
  it("every line of both stands once, with its own weight, and each version's shares add up to one", () => {
    const lines = fc.array(fc.tuple(fc.integer({ min: 1, max: 4 }), fc.constant("1 g"), fc.integer({ min: 1, max: 500 })), {
      minLength: 1,
      maxLength: 12,
    });
    fc.assert(
      fc.property(lines, lines, (a, b) => {
        const [va, vb] = [version(1, a), version(2, b)];
        const pairs = pairLines(va, vb, NAMES);
        for (const [side, of] of [
          ["a", va],
          ["b", vb],
        ] as const) {
          const there = pairs.flatMap((p) => p[side] ?? []);
          expect(there.map((l) => l.weight).sort()).toEqual(of.lines.map((l) => l.weight).sort());
          expect(there.reduce((s, l) => s + l.share, 0)).toBeCloseTo(1, 9);
        }
        expect(pairs.every((p) => p.a ?? p.b)).toBe(true);
      }),
    );
  });
});

describe("figure by figure", () => {
  it("goes by what was weighed on its day, not by what the same words would weigh now", () => {
    const then = figures(
      version(1, [
        [1, "1/4 cup", 40],
        [2, "1 cup", 160],
      ]),
    );
    expect([then.get("Batch"), then.get("Wax share")]).toEqual(["200 g", "20 %"]);
    expect(then.get("Sets, kitchen")).toContain("takes a nail");
    expect([then.get("Fills, 50 g"), then.get("Cost of one, 50 g")]).toEqual(["4", "€0.50"]);
  });
  it("is alike in all but what was changed", () => {
    const a = figures(
      version(1, [
        [1, "30 g", 30],
        [2, "170 g", 170],
      ]),
    );
    const b = figures(
      version(2, [
        [1, "30 g", 30],
        [2, "168 g", 168],
        [4, "2 g", 2],
      ]),
    );
    const differ = [...a].filter(([name, value]) => b.get(name) !== value).map(([name]) => name);
    expect(differ).toEqual(["Scent"]);
    expect([...a.keys()]).toEqual([...b.keys()]);
  });
  it("what is to be said of each is said", () => {
    expect(
      figures(
        version(1, [
          [1, "4 g", 4],
          [2, "196 g", 196],
        ]),
      ).get("To look at"),
    ).toContain("softer than a salve");
    expect(
      figures(
        version(1, [
          [1, "26 g", 26],
          [2, "174 g", 174],
        ]),
      ).get("To look at"),
    ).toBe("nothing");
  });
});
