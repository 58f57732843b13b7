/** What a recipe's sheet reckons on the side, whatever is on it: months against date-fns, keeping, savings, and wax in whole parts. */
import { differenceInMonths } from "date-fns/differenceInMonths";
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { inParts } from "../firmness/mend.ts";
import { mg, micros } from "../measure/exact.ts";
import { readWeight } from "../measure/read.ts";
import { orElse } from "../outcome.ts";
import { addDays, addMonths } from "../when.ts";
import { forScale } from "./judge/judgement.ts";
import { rescale } from "./rescale.ts";
import { keepingOf, monthsUntil, type KeepsLine } from "./keeping.ts";
import { ofSteps } from "./scale.ts";
import { boughtFor, savings, type SavedLine } from "./savings.ts";

const TODAY = "2026-11-27";
const day = fc.integer({ min: 0, max: 1500 }).map((n) => addDays(TODAY, n));

describe("keeping", () => {
  it("counts whole months as a general-purpose library does (date-fns)", () => {
    const anyDay = fc.integer({ min: 0, max: 3000 }).map((n) => addDays("2024-01-01", n));
    fc.assert(
      fc.property(anyDay, fc.integer({ min: 0, max: 2000 }), (from, days) => {
        const to = addDays(from, days);
        const ours = monthsUntil(from, to);
        expect(addMonths(from, ours) <= to && addMonths(from, ours + 1) > to).toBe(true);
        // At the end of a month the library counts one the earlier day hasn't got.
        if (Number(from.slice(8)) <= 28) expect(ours).toBe(differenceInMonths(new Date(`${to}T12:00`), new Date(`${from}T12:00`)));
      }),
    );
  });
  it("is never longer than the product keeps nor than anything in it, and without what turns first never shorter", () => {
    const line = fc.record<KeepsLine>({
      name: fc.constantFrom("Rosehip", "Olive", "Hemp", "Shea", "Wax"),
      keepsSealed: fc.option(fc.integer({ min: 1, max: 60 })),
      lots: fc.array(fc.record({ number: fc.string({ minLength: 1 }), bestBefore: fc.option(day) }), { maxLength: 3 }),
      short: fc.boolean(),
    });
    fc.assert(
      fc.property(fc.array(line, { maxLength: 8 }), fc.integer({ min: 1, max: 36 }), (lines, keeps) => {
        const found = keepingOf(lines, TODAY, keeps);
        expect(found.day <= addMonths(TODAY, keeps)).toBe(true);
        for (const l of lines) for (const { bestBefore } of l.lots) expect(bestBefore === null || found.day <= bestBefore).toBe(true);
        expect(found.weak.map((w) => w.day)).toEqual(found.weak.map((w) => w.day).sort());
        expect(new Set(found.weak.map((w) => w.name)).size).toBe(found.weak.length);
        const rest = lines.filter((l) => l.name !== found.weak[0]?.name);
        expect(keepingOf(rest, TODAY, keeps).day >= found.day).toBe(true);
      }),
    );
  });
});

describe("savings", () => {
  const pack = fc.record({ qty: fc.integer({ min: 1_000, max: 5_000_000 }), price: fc.integer({ min: 10_000, max: 90_000_000 }) });
  const line = fc.record({
    of: fc.integer({ min: 1, max: 6 }),
    grams: fc.integer({ min: 1, max: 900 }),
    cost: fc.option(fc.integer({ min: 1, max: 50_000_000 })),
    packs: fc.array(pack, { minLength: 1, maxLength: 3 }),
  });
  const lineOf = (l: { of: number; grams: number; cost: number | null; packs: { qty: number; price: number }[] }): SavedLine => ({
    of: l.of,
    weight: mg(l.grams * 1000),
    cost: l.cost === null ? null : micros(l.cost),
    again: { value: micros(40_000_000), per: 1_000_000 },
    offers: l.packs.map((p) => ({ supplier: "Mill", packSize: "a pack", qty: p.qty, price: micros(p.price), postage: micros(0) })),
  });
  it("each material once, dearest first; shares add up to one; no pack is named that saves nothing", () => {
    fc.assert(
      fc.property(fc.array(line, { minLength: 1, maxLength: 12 }), (drawn) => {
        const saved = savings(drawn.map(lineOf));
        expect(new Set(saved.map((s) => s.of)).size).toBe(saved.length);
        expect(saved.map((s) => s.cost ?? 0)).toEqual(saved.map((s) => s.cost ?? 0).sort((a, b) => b - a));
        const all = saved.reduce((a, s) => a + s.share, 0);
        expect(all === 0 || Math.abs(all - 1) < 1e-9).toBe(true);
        expect(saved.every((s) => s.pack === null || s.pack.saves > 0)).toBe(true);
      }),
    );
  });
  it("whole packs never cost less for more of it, and pay for at least what is used", () => {
    fc.assert(
      fc.property(line, fc.integer({ min: 1, max: 9 }), (drawn, times) => {
        const one = lineOf(drawn);
        const cost = (weight: number): number => boughtFor([{ ...one, weight: mg(weight) }])!;
        expect(cost(one.weight * times)).toBeGreaterThanOrEqual(cost(one.weight));
        const cheapest = Math.min(...one.offers.map((o) => o.price / o.qty));
        expect(cost(one.weight)).toBeGreaterThanOrEqual(one.weight * cheapest - 1);
      }),
    );
  });
});

describe("what is worth changing first", () => {
  const pack = (grams: number, price: number) => ({
    supplier: "S",
    packSize: `${grams} g`,
    qty: grams * 1000,
    price: micros(price),
    postage: micros(0),
  });
  it("ranks materials once each by what they cost, a tenth of it, and the cheapest pack against having it again", () => {
    const again = { value: micros(40_000_000), per: 1_000_000 };
    const [shea, oil] = savings([
      { of: 2, weight: mg(200_000), cost: micros(2_000_000), again: null, offers: [] },
      { of: 1, weight: mg(100_000), cost: micros(4_000_000), again, offers: [pack(100, 5_000_000), pack(1000, 30_000_000)] },
      { of: 1, weight: mg(50_000), cost: micros(2_000_000), again, offers: [pack(100, 5_000_000), pack(1000, 30_000_000)] },
    ]);
    expect(shea).toMatchObject({
      of: 1,
      cost: 6_000_000,
      share: 0.75,
      tenth: 600_000,
      pack: { offer: { qty: 1_000_000 }, saves: 1_500_000 },
    });
    expect(oil).toMatchObject({ of: 2, share: 0.25, pack: null });
  });
  it("two tins out of whole packs are ruinous, forty out of the same are cheap", () => {
    const of = (grams: number) => [{ of: 1, weight: mg(grams * 1000), offers: [pack(100, 5_000_000), pack(1000, 30_000_000)] }];
    expect([boughtFor(of(60))! / 2, boughtFor(of(900))! / 30]).toEqual([2_500_000, 1_000_000]);
    expect(boughtFor([{ of: 1, weight: mg(1), offers: [] }])).toBeNull();
  });
});

describe("scaling to what a scale reads", () => {
  it("conserves the whole exactly before rounding, is off by half a step at most after, and its least batch is weighed within a tenth", () => {
    const scales = fc.constantFrom({ unit: "g", step: 1000 } as const, { unit: "g", step: 10 } as const, { unit: "oz", step: 50 } as const);
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: 1, max: 400_000 }), { minLength: 1, maxLength: 40 }),
        fc.integer({ min: 1, max: 9_000_000 }),
        scales,
        (ws, to, scale) => {
          const weights = ws.map(mg);
          const then = rescale(weights, mg(to), scale);
          const half = ofSteps(1, scale) / 2 + 1;
          expect(then.lines.reduce((a, l) => a + l.weight, 0)).toBe(to);
          expect(Math.abs(then.total - to)).toBeLessThanOrEqual(half * weights.length);
          for (const l of then.lines) expect(Math.abs(l.reading.weight - l.weight)).toBeLessThanOrEqual(half);
          expect(then.lines.reduce((a, l) => a + l.share, 0)).toBeCloseTo(1, 9);
          expect(then.least === null).toBe(then.lines.every((l) => !l.unsure));
          // A hair more for the rounding of the batch itself.
          if (then.least !== null) expect(rescale(weights, mg(Math.ceil(then.least * 1.001) + weights.length), scale).least).toBeNull();
        },
      ),
    );
  });
});

it("wax in whole parts is within a fortieth of what was worked out, in numbers a head keeps", () => {
  fc.assert(
    fc.property(fc.double({ min: 0.5, max: 60, noNaN: true }), (ratio) => {
      const [one, other] = inParts(ratio);
      expect(Math.abs(other / one / ratio - 1)).toBeLessThanOrEqual(1 / 40 + 1e-9);
      expect([Number.isInteger(one), Number.isInteger(other), one <= 40]).toEqual([true, true, true]);
    }),
  );
});

describe("as it is typed for the workshop's scale", () => {
  const kitchen = { unit: "g", step: 1000 } as const;
  const fine = { unit: "g", step: 10 } as const;
  const ounces = { unit: "oz", step: 50 } as const;
  it.each([
    ["to the reading", forScale(mg(78_742), fine), "78.74 g"],
    ["to the gram", forScale(mg(78_742), kitchen), "79 g"],
    ["in ounces", forScale(mg(28_350), ounces), "1.00 oz"],
    ["below its reach, to the milligram", forScale(mg(312), kitchen), "0.312 g"],
    ["never with thousands parted", forScale(mg(1_234_500), fine), "1234.50 g"],
    ["never less, where it may be no less", forScale(mg(78_001), kitchen, "up"), "79 g"],
    ["never more, where it may be no more, in ounces too", forScale(mg(30_000), ounces, "down"), "1.05 oz"],
    ["unless that would change the recipe", forScale(mg(1_400), kitchen, "up"), "1.4 g"],
  ])("%s", (_, typed, text) => expect(typed).toBe(text));
  it("is read back as what the scale shows, up is never under, and down never over", () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 90_000_000 }), fc.constantFrom(kitchen, fine, ounces), (weight, scale) => {
        const read = (text: string): number => orElse(readWeight(text), -1);
        const step = ofSteps(1, scale);
        expect(Math.abs(read(forScale(mg(weight), scale)) - weight)).toBeLessThanOrEqual(step / 2 + 1);
        expect(read(forScale(mg(weight), scale, "up"))).toBeGreaterThanOrEqual(weight - 1);
        expect(read(forScale(mg(weight), scale, "down"))).toBeLessThanOrEqual(weight + 1);
      }),
    );
  });
});
