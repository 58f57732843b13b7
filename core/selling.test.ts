/** Prices, market days, gift orders, lot numbers, tracing and the reckon bar. Pricing schools are common practice, no source. */
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { groupBy } from "./collect.ts";
import { orderResult } from "./gift/order.ts";
import { checkOf } from "./lot/check.ts";
import { lotNumber, numberer, numberHead, readScheme } from "./lot/number.ts";
import { trace } from "./lot/trace.ts";
import { dayResult, leftOver } from "./market/day.ts";
import { micros } from "./measure/exact.ts";
import { PRICE_POINTS, roundToPoint, type PricePoint } from "./pricing/rounding.ts";
import { CHANNEL_IDS, PRICING_METHODS, priceBy, viewPrice, type PricingMethod } from "./pricing/pricingMethods.ts";
import { convert, strength } from "./reckon/answer.ts";
import { readQuestions } from "./reckon/question.ts";
import { STARTING_SETTINGS } from "./settings/settings.ts";
import { counted, wordList } from "./words.ts";

const euro = (n: number) => micros(Math.round(n * 1e6));
const cost = {
  ingredients: euro(1.5),
  packaging: euro(0.4),
  work: euro(2),
  overhead: euro(0.3),
  loss: euro(0.1),
  materials: euro(2),
  total: euro(4.3),
};
const rules = STARTING_SETTINGS.pricing;

describe("price points", () => {
  it.each<[number, PricePoint, number]>([
    [7.43, "half", 7.5],
    [7.25, "half", 7.5],
    [7.24, "half", 7],
    [7.35, "ninety", 6.9],
    [7.4, "ninety", 7.9],
    [0.1, "whole", 1],
    [0.1, "ninety", 0.9],
    [4.44, "tenth", 4.4],
    [4.444, "cent", 4.44],
  ])("%f to %s", (from, point, to) => expect(roundToPoint(euro(from), point)).toBe(euro(to)));
  it("is never further than half a step off, and always a point", () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1_000_000, max: 500_000_000 }),
        fc.constantFrom(...(Object.keys(PRICE_POINTS) as PricePoint[])),
        (n, point) => {
          const { step, ending } = PRICE_POINTS[point];
          const rounded = roundToPoint(micros(n), point);
          expect(Math.abs(rounded - n)).toBeLessThanOrEqual(step / 2);
          expect((rounded - ending) % step).toBe(0);
        },
      ),
    );
  });
});

describe("pricing schools", () => {
  it.each<[PricingMethod, "market" | "wholesale", number | null]>([
    ["multiple", "market", 7],
    ["multiple", "wholesale", 3.9],
    ["doubled", "market", 17],
    ["doubled", "wholesale", 8.6],
    ["margin", "market", 7.5],
    ["margin", "wholesale", 7.2],
    ["own", "market", null],
  ])("%s on %s", (school, channel, price) =>
    expect(priceBy(school, channel, cost, rules, null, 6)?.price ?? null).toBe(price === null ? null : euro(price)),
  );
  it("the wished margin is met on every channel before rounding to coins", () => {
    const toCents = {
      ...rules,
      channels: Object.fromEntries(CHANNEL_IDS.map((c) => [c, { ...rules.channels[c], point: "cent" as const }])) as typeof rules.channels,
    };
    for (const c of CHANNEL_IDS) expect(priceBy("margin", c, cost, toCents, null, 6)!.marginShare).toBeCloseTo(0.4, 2);
    expect(priceBy("margin", "online", cost, { ...rules, marginBp: 9500 }, null, 6)).toBeNull();
  });
  it("a wished margin is never rounded away: what is offered leaves at least that, whatever the coins, and a step less wouldn't", () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 100_000, max: 90_000_000 }).map(micros),
        fc.integer({ min: 0, max: 9000 }),
        fc.integer({ min: 0, max: 900 }),
        fc.constantFrom(...(Object.keys(PRICE_POINTS) as PricePoint[])),
        (total, marginBp, feeBp, point) => {
          const channels = { ...rules.channels, market: { shareBp: 10_000, feeBp, point } };
          const v = priceBy("margin", "market", { ...cost, total }, { ...rules, marginBp, channels }, null, 6)!;
          expect(v.marginShare).toBeGreaterThan(marginBp / 10_000 - 1e-6);
          const less = v.price - PRICE_POINTS[point].step;
          if (less > 0) expect((less * (1 - feeBp / 10_000) - total) / less).toBeLessThan(marginBp / 10_000 + 1e-6);
        },
      ),
    );
  });
  it("price is fee, costs and margin, whatever the school", () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...(Object.keys(PRICING_METHODS) as PricingMethod[])),
        fc.constantFrom(...CHANNEL_IDS),
        fc.integer({ min: 1, max: 60 }),
        (school, channel, minutes) => {
          const v = priceBy(school, channel, cost, rules, euro(9), minutes)!;
          expect(v.fee + cost.total + v.margin).toBe(v.price);
          expect(v.perHour).toBe(Math.round(((v.price - v.fee - cost.materials - cost.overhead) * 60) / minutes));
        },
      ),
    );
    expect(viewPrice(euro(5), cost, 0, 0).perHour).toBeNull();
  });
});

describe("selling", () => {
  it("a market day, worked by hand", () => {
    const day = {
      lines: [{ taken: 10, sold: 6, given: 1, damaged: 1, price: euro(8), gone: euro(16) }],
      stallFee: euro(20),
      travel: euro(4),
      byCard: euro(30),
      cardFeeBp: 175,
      hours: 4,
    };
    expect(dayResult(day)).toEqual({
      takings: euro(48),
      unitsSold: 6,
      stockCost: euro(16),
      cardFee: euro(0.525),
      profit: euro(7.475),
      perHour: euro(1.86875),
    });
    expect(leftOver(day.lines[0]!)).toBe(2);
    expect(dayResult({ ...day, lines: [], byCard: euro(0), hours: 0 })).toMatchObject({ profit: euro(-24), perHour: null });
  });
  it("a gift order, worked by hand: discount to the cent, wrapping and time in the cost", () => {
    const r = orderResult({
      items: [{ units: 3, price: euro(7.35), cost: euro(9) }],
      wrapping: [{ pieces: 3, cost: euro(1.5) }],
      wrapMinutes: 15,
      hourly: euro(16),
      extra: euro(5),
      discountBp: 500,
    });
    expect(r).toEqual({ goods: euro(22.05), price: euro(25.7), cost: euro(14.5), margin: euro(11.2), marginShare: 11.2 / 25.7 });
  });
});

describe("lot numbers", () => {
  it.each([
    ["{P}{YY}{MM}{DD}-{N}", "HB260201-7"],
    ["R{YYYY}.{DDD}.{NNN}", "R2026.032.007"],
    ["{NN}", "07"],
    ["{P}{YY}{MM}{DD}-{N}{C}", `HB260201-7${checkOf("HB2602017")}`],
  ])("%s", (scheme, number) => {
    expect(readScheme(scheme).ok).toBe(true);
    expect(lotNumber(scheme, { code: "HB", day: "2026-02-01", serial: 7 })).toBe(number);
    expect(number.startsWith(numberHead(scheme, { code: "HB", day: "2026-02-01" }))).toBe(true);
  });
  it.each(["{P}{YY}", "{N} {YY}", "{X}{N}", "lot/{N}", `${"a".repeat(60)}{N}`, "{N}{C}-", "{C}{N}", "{N}{C}{C}"])("refuses %s", (scheme) =>
    expect(readScheme(scheme).ok).toBe(false),
  );
  it("gives each number once", () => {
    const next = numberer("{P}-{NN}", "2026-02-01", new Set(["A-02"]));
    const given = Array.from({ length: 120 }, (_, i) => next(i % 2 ? "A" : "B"));
    expect(new Set(given).size).toBe(120);
    expect(given.slice(0, 4)).toEqual(["B-01", "A-01", "B-02", "A-03"]);
    expect(numberHead("R{P}-{N}", { day: "2026-02-01" })).toBe("R");
  });
});

describe("tracing", () => {
  const links = fc.array(fc.record({ from: fc.integer({ min: 0, max: 15 }), to: fc.integer({ min: 0, max: 15 }) }), { maxLength: 40 });
  it("ends on any links, loops included, names each lot once, and back is the mirror of forward", () => {
    fc.assert(
      fc.property(links, (ls) => {
        const reach = new Map(Array.from({ length: 16 }, (_, i) => [i, new Set(trace(i, ls, "forward").map((s) => s.lot))]));
        for (const [start, forward] of reach) {
          const back = trace(start, ls, "back").map((s) => s.lot);
          expect(new Set(back).size).toBe(back.length);
          for (const b of back) expect(reach.get(b)!.has(start)).toBe(true);
          for (const f of forward) expect(trace(f, ls, "back").some((s) => s.lot === start)).toBe(true);
        }
      }),
    );
  });
  it("goes nearest first and remembers the way", () => {
    expect(
      trace(
        3,
        [
          { from: 1, to: 2 },
          { from: 2, to: 3 },
          { from: 4, to: 3 },
        ],
        "back",
      ),
    ).toEqual([
      { lot: 2, depth: 1, via: 3 },
      { lot: 4, depth: 1, via: 3 },
      { lot: 1, depth: 2, via: 2 },
    ]);
  });
});

describe("the reckon bar", () => {
  const lavender = { name: "Lavender", form: "liquid" as const, densities: { liquid: 885 }, dropsPerMl: 20 };
  it.each([
    ["2 1/2 cups olive oil in g", { kind: "convert", material: "olive oil", to: "g" }],
    ["30 drops lavender in 400 g", { kind: "strength", material: "lavender" }],
    ["30 drops of lavender in 400 g", { kind: "strength", material: "lavender" }],
    ["cost 60 × 2 oz hand balm", { kind: "cost", units: 60, product: "2 oz hand balm" }],
    ["cost 12 salve", { kind: "cost", units: 12, product: "salve" }],
    ["HB261125-1", { kind: "find", text: "HB261125-1" }],
    ["olive oil in the sun", { kind: "find" }],
    ["60 g beeswax + 1 cup olive oil", { kind: "together", parts: [{ material: "beeswax" }, { material: "olive oil" }], into: null }],
    [
      "60 g beeswax pellets, 240 g olive oil and 30 g shea into 6 tins",
      { kind: "together", parts: [{ form: "pellets" }, {}, { material: "shea" }], into: 6 },
    ],
    ["500 g into 16 pots", { kind: "together", parts: [{ material: "" }], into: 16 }],
    ["hand balm for 20 tins", { kind: "makes", units: 20 }],
  ])("%s", (text, question) => expect(readQuestions(text)[0]).toMatchObject(question));
  const ask = (text: string) => {
    const q = readQuestions(text)[0]!;
    const r =
      q.kind === "convert" ? convert(q.amount, q.to!, lavender) : q.kind === "strength" ? strength(q.amount, lavender, q.whole) : null;
    return r === null ? null : r.ok ? r.value.say : r.problem.code;
  };
  it.each([
    ["60 drops lavender in mL", "60 drops Lavender = 3 mL"],
    ["2 mL lavender in drops", "2 mL Lavender = 40 drops"],
    ["1 oz lavender in g", "1 oz Lavender = 28.35 g"],
    ["8.85 g lavender in mL", "8.85 g Lavender = 10 mL"],
    ["2 tbsp lavender in tsp", "2 tbsp Lavender = 6 tsp"],
    ["20 drops lavender in 885 g", "20 drops Lavender in 885 g is 0.10\u00a0%"],
    ["500 g lavender in 400 g", "overWhole"],
    ["2 g lavender in 1 cup", "wholeIsWeight"],
    ["2 g lavender in parts", "noTarget"],
  ])("%s", (text, say) => expect(ask(text)).toBe(say));
});

it("gathers and lists", () => {
  expect([...groupBy([1, 2, 3], (n) => n % 2)]).toEqual([
    [1, [1, 3]],
    [0, [2]],
  ]);
  expect([wordList([]), wordList(["a"]), wordList(["a", "b", "c"])]).toEqual(["", "a", "a, b and c"]);
  expect([counted(1, "tin"), counted(2, "tin")]).toEqual(["1 tin", "2 tins"]);
});
