/** Edges of the core, each worked out by hand: where one answer ends and the next begins, and what is left out. */
import { mg, micros } from "#core/measure/exact";
import { settleNumbers } from "#core/measure/habit";
import { parseAmount, showAmount } from "#core/measure/parse";
import { forecast } from "#core/batch/weighing/cooling";
import { stuckTo } from "#core/batch/weighing/events";
import { weighOrder } from "#core/batch/planning/weighOrder";
import { readLine } from "#core/device/lines";
import { planPacking } from "#core/gift/packing";
import { claimsIn } from "#core/label/claims";
import { contentsOf } from "#core/lot/contents";
import { readScribbled, type Scribbled } from "#core/recipe/scribbled/read";
import { sizesIn } from "#core/recipe/scribbled/sizes";
import { inOtherUnits, plainAnswers } from "#core/reckon/plain";
import { readQuestions } from "#core/reckon/question";
import { sunLimitOf } from "#core/scent/limits";
import { finder } from "#core/find";
import { kind } from "#core/material/kinds";
import { ago, span } from "#core/when";
import Fraction from "fraction.js";
import { describe, expect, it } from "vitest";

const MINUTE = 60_000;
it.each([
  [0, "a moment ago"],
  [MINUTE - 1, "a moment ago"],
  [MINUTE, "1 minute ago"],
  [60 * MINUTE - 1, "59 minutes ago"],
  [60 * MINUTE, "1 hour ago"],
  [24 * 60 * MINUTE - 1, "23 hours ago"],
  [24 * 60 * MINUTE, "1 day ago"],
  [3 * 24 * 60 * MINUTE, "3 days ago"],
])("%d ms is %s", (ms, say) => expect(ago(ms)).toBe(say));

it.each([
  [0, "0 min"],
  [59, "59 min"],
  [60, "1 h"],
  [61, "1 h 1 min"],
  [600, "10 h"],
])("%d minutes are %s", (minutes, say) => expect(span(minutes)).toBe(say));

describe("at the bench", () => {
  it("what stuck to the pot is by its last weighing in effect, of both weighings, and never below nothing", () => {
    const after = (weight: number, struckAt: Date | null = null) => ({ kind: "potAfter" as const, weight: mg(weight), struckAt });
    expect(stuckTo(mg(400), [after(409), after(405)])).toBe(5);
    expect(stuckTo(mg(400), [after(409), after(405, new Date(0))])).toBe(9);
    expect(stuckTo(mg(400), [{ kind: "note", weight: mg(999), struckAt: null }])).toBeNull();
    expect(stuckTo(mg(400), [after(390)])).toBe(0);
    expect(stuckTo(null, [after(390)])).toBeNull();
  });

  it("a pot is weighed as the method names it, by a material's name or its first word if that is long enough", () => {
    const line = (position: number, material: string) =>
      ({ position, material, sizeId: null, sets: { kind: "oil" }, delicate: false }) as never;
    const order = (method: string, ...names: string[]) =>
      weighOrder(
        names.map((n, i) => line(i, n)),
        method,
      ).map((l) => (l as { material: string }).material);
    expect(order("Warm the sunflower, then add the almond.", "Almond oil, sweet", "Sunflower oil")).toEqual([
      "Sunflower oil",
      "Almond oil, sweet",
    ]);
    expect(order("Olive oil first, the rosehip last.", "Rosehip oil", "Olive oil")).toEqual(["Olive oil", "Rosehip oil"]);
  });

  it("a pot as warm as asked is there now; twice the way takes as long again for each half, and the doubt grows with what is unknown", () => {
    const c = { room: 20, now: 84, tau: 30 / Math.log(2), error: { level: 0, slope: 0, both: 0 }, at: 0 };
    // Of 64 degrees above the room half is gone in every 30 minutes (Newton's law of cooling).
    expect(forecast(c, 52)!.minutes).toBeCloseTo(30, 9);
    expect(forecast(c, 36)!.minutes).toBeCloseTo(60, 9);
    expect(forecast(c, 84)!.minutes).toBeCloseTo(0, 9);
    // All doubt is of the room then: by the difference of the inverse distances from it.
    const of = (celsius: number) => forecast(c, celsius)!.plusMinus / (c.tau * (1 / (celsius - 20) - 1 / 64));
    expect(of(52)).toBeCloseTo(of(36), 9);
    expect(forecast(c, 84)!.plusMinus).toBeCloseTo(0, 9);
    expect(forecast(c, 20)).toBeNull();
  });

  it("lines of a scale and a thermometer are read as they are written; anything else is no line", () => {
    expect(readLine("weight 12.34 g net stable")).toEqual({ of: "weight", reading: { standing: "stable", net: true, weight: 12_340 } });
    expect(readLine("weight 1 oz gross moving")).toMatchObject({ reading: { standing: "moving", net: false } });
    expect(readLine("heat 212 F")).toEqual({ of: "heat", reading: { celsius: 100 } });
    expect(readLine("heat 54.25 C")).toEqual({ of: "heat", reading: { celsius: 54.25 } });
    expect(readLine("weight over")).toEqual({ of: "weight", reading: { standing: "over" } });
    expect(readLine("heat none")).toEqual({ of: "heat", reading: { celsius: null } });
    expect(readLine("wait 3 g")).toBeNull();
  });
});

describe("stock", () => {
  const lot = (id: number, onHand: number) =>
    ({
      id,
      of: 1,
      number: `L${id}`,
      onHand,
      value: micros(onHand * 100),
      bestBefore: "2027-01-01",
      arrived: "2026-01-01",
      hold: false,
    }) as never;
  it("a line that names a lot takes all it can of that one, and is short of the rest; the others go on from what is left", () => {
    const plans = planPacking(
      [
        { of: 1, units: 3, lotId: 7 },
        { of: 1, units: 2, lotId: null },
        { of: 1, units: 1, lotId: 99 },
      ],
      [lot(7, 2), lot(8, 9)],
      "2026-12-01",
    );
    expect(plans[0]).toMatchObject({ takes: [{ lotId: 7, amount: 2, value: 200 }], short: 1 });
    expect(plans[1]).toMatchObject({ takes: [{ lotId: 8, amount: 2 }], short: 0 });
    expect(plans[2]).toEqual({ takes: [], short: 1 });
  });

  it("what is in a lot is by every way, also over what is in itself no part of it", () => {
    const links = [
      { from: 1, to: 2, qty: 50 },
      { from: 2, to: 3, qty: 20 },
      { from: 1, to: 3, qty: 5 },
      { from: 3, to: 4, qty: 30 },
    ];
    const made = new Map([
      [2, 100],
      [3, 25],
      [4, 60],
    ] as [number, never][]);
    expect([...contentsOf(3, links, made)].sort()).toEqual([
      [1, 15],
      [2, 20],
    ]);
    expect(contentsOf(4, links, made).get(1)).toBe(18);
  });
});

describe("words", () => {
  it("claims are told in the order they stand in, each for what it is", () => {
    expect(claimsIn("SPF 15 healing balm").map((c) => c.word)).toEqual(["SPF 15", "healing"]);
    expect(claimsIn("Healing balm SPF 15").map((c) => c.word)).toEqual(["Healing", "SPF 15"]);
  });

  it("a name with the word comes before one where a word begins so, that before one that holds it, that before a slip", () => {
    const names = ["Rosewood", "Primrose", "Rosa roseata", "Rose", "Rase"];
    expect(finder(names, (name) => ({ name }))("rose").slice(0, 4)).toEqual(["Rose", "Rosewood", "Rosa roseata", "Primrose"]);
  });

  it("amounts are written as they would be read back", () => {
    for (const text of ["2 1/2 cups", "1 cup", "1.2340 g", "0.5 kg", "3 drops", "20 %", "1/3 tsp", "1.2 mL"]) {
      const a = parseAmount(text);
      expect(a.ok && showAmount(a.value)).toBe(text);
    }
    expect(showAmount({ n: new Fraction(3), unit: "cup" })).toBe("3 cups");
  });

  it("a typed number is given one reading by the workshop's habit", () => {
    expect(settleNumbers("1,234", "comma", "asked")).toBe("1234");
    expect(settleNumbers("1,234", "point", "asked")).toBe("1.2340");
    expect(settleNumbers("1,234.5", "comma", "asked")).toBe("1234.5");
    expect(settleNumbers("1.234,5", "point", "asked")).toBe("1234.5");
  });

  it("a question about an act is known by its longest word, with how many of what", () => {
    const acts = (q: string) => readQuestions(q).filter((x) => x.kind === "act");
    expect(acts("set out 24 hand balm")).toContainEqual({ kind: "act", act: "setOut", of: "hand balm", units: 24 });
    expect(acts("set out 24 x hand balm")).toContainEqual({ kind: "act", act: "setOut", of: "hand balm", units: 24 });
    expect(acts("setting sun")).toEqual([]);
    expect(plainAnswers("  2 cups in ml  ")).toEqual([{ say: "2 cups = 473.18 mL", steps: [] }]);
    expect(inOtherUnits(" 1 kg ").map((a) => a.say)).toEqual(["1 kg = 1000 g"]);
  });

  it("a citrus oil has its limit in the sun, and what is no such oil has none", () => {
    expect(sunLimitOf("eo-bergamot")).toBe(0.004);
    expect([sunLimitOf("beeswax"), sunLimitOf("toString"), sunLimitOf(null)]).toEqual([null, null, null]);
  });
});

describe("a scribble", () => {
  const oil = { name: "Olive oil", also: "", kind: "oil" as const, densities: kind("oil").start, dropsPerMl: null, pieceMg: null };
  const wax = { ...oil, name: "Beeswax, yellow", kind: "wax" as const, densities: kind("wax").start };
  const read = (text: string) => readScribbled(text, [oil, wax]) as unknown as { lines: Scribbled[] } | Scribbled[];
  const line = (text: string) => {
    const all = read(text);
    return (Array.isArray(all) ? all : all.lines)[0] as Extract<Scribbled, { as: "line" }>;
  };

  it("an ounce of what pours is asked about, with what each comes to; of a wax it is a weight", () => {
    const [ask] = line("2 oz olive oil").asks;
    expect(ask!.choices.map((c) => c.value)).toEqual(["2 oz", "2 fl oz"]);
    expect(ask!.choices.map((c) => c.say.replace(/\u00a0/g, " "))).toEqual([
      expect.stringContaining("56.7 g"),
      expect.stringMatching(/5[34]\.\d g/),
    ]);
    expect(line("2 oz beeswax").asks).toEqual([]);
    expect(line("2 fl oz olive oil").asks).toEqual([]);
  });

  it("a capital T is a tablespoon and a small one a teaspoon, with or without room or a point", () => {
    expect(["2 T olive oil", "2 T. olive oil", "2T olive oil"].map((t) => line(t).line.entered)).toEqual(["2 tbsp", "2 tbsp", "2 tbsp"]);
    expect(["2 t olive oil", "2 t. olive oil"].map((t) => line(t).line.entered)).toEqual(["2 tsp", "2 tsp"]);
  });

  it("what it fills has a number and an amount; none of nothing", () => {
    expect(sizesIn("makes 6 x 2 oz tins")).toEqual([{ units: 6, fill: "2 oz" }]);
    expect(sizesIn("makes 0 x 2 oz tins")).toBeNull();
    expect(sizesIn("makes a mess")).toBeNull();
  });
});
