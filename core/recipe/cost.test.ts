/** What a unit costs, worked by hand, and what a poured batch comes to. Keeping rules are common practice, no source. */
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { bestBefore } from "../batch/finishing/bestBefore.ts";
import { finishedCost, pourResult, stockValues, type PourIn } from "../batch/finishing/result.ts";
import { mg, micros } from "../measure/exact.ts";
import type { Lot } from "../stock/lots.ts";
import { costMix, costRecipe, forMinutes, perUnitOf } from "./cost.ts";
import { stockOnHand } from "../stock/shelf.ts";

describe("cost of one unit", () => {
  const lot = (id: number, of: number, onHand: number, value: number): Lot => ({
    id,
    number: `R${id}`,
    of,
    onHand,
    value: micros(value),
    arrived: "2026-01-01",
    bestBefore: null,
    hold: false,
  });
  const work = { hourly: micros(12_000_000), overheadHourly: micros(3_000_000), batchMinutes: 30 };
  const unitMinutes = 3;
  // Worked by hand: 1000 g of oil at 10.00, 2 % loss, 98 g fills make 10 tins at 0.50; 60 minutes.
  it("worked example", () => {
    const cost = costRecipe(
      { lines: [{ of: 1, weight: mg(1_000_000) }], packaging: [{ of: 2, pieces: 1 }], fill: mg(98_000), lossBp: 200, work, unitMinutes },
      stockOnHand([lot(1, 1, 1_000_000, 10_000_000), lot(2, 2, 50, 25_000_000)], "2026-02-01"),
    );
    expect(cost.fill).toEqual({ units: 10, potLoss: 20_000, leftover: 0 });
    expect(cost.perUnit.lot).toEqual({
      ingredients: 980_000,
      packaging: 500_000,
      work: 1_200_000,
      overhead: 300_000,
      loss: 20_000,
      materials: 1_500_000,
      total: 3_000_000,
    });
    expect(cost.perUnit.average).toEqual(cost.perUnit.lot);
    expect(cost.perUnit.again).toBeNull();
  });
  it("costs the same materials less each in a larger batch, because the batch minutes are shared", () => {
    const at = (grams: number) =>
      costRecipe(
        { lines: [{ of: 1, weight: mg(grams * 1000) }], packaging: [], fill: mg(50_000), lossBp: 0, work, unitMinutes },
        stockOnHand([], "2026-02-01", new Map([[1, { value: micros(9_000_000), per: 1_000_000 }]])),
      ).perUnit.again!;
    expect(at(100).work).toBeGreaterThan(at(1000).work);
    expect(at(100).ingredients).toBe(at(1000).ingredients);
  });
  it("has no unit cost when nothing is filled", () => {
    expect(
      costRecipe(
        { lines: [{ of: 1, weight: mg(10) }], packaging: [], fill: mg(50_000), lossBp: 0, work, unitMinutes },
        stockOnHand([], "2026-02-01"),
      ).perUnit,
    ).toEqual({ lot: null, average: null, again: null });
  });
  it("two sizes from one pot: the pot is shared by weight, packaging and filling are each size's own", () => {
    const sizes = [
      { fill: mg(60_000), units: 10, unitMinutes: 1, packaging: [{ of: 2, pieces: 1 }] },
      { fill: mg(20_000), units: 15, unitMinutes: 2, packaging: [] },
    ];
    const { sizes: out } = costMix(
      { lines: [{ of: 1, weight: mg(1_000_000) }], sizes, work: { ...work, batchMinutes: 60 } },
      stockOnHand([lot(1, 1, 1_000_000, 10_000_000), lot(2, 2, 50, 25_000_000)], "2026-02-01"),
    );
    // By hand: 600 g and 300 g of a kilo at 10.00, the last 100 g lost two to one; 40 + 10 and 20 + 30 minutes at 15.00 an hour.
    expect(out.map((s) => s.minutes)).toEqual([50, 50]);
    expect(out[0]!.perUnit.lot).toMatchObject({
      ingredients: 600_000,
      packaging: 500_000,
      loss: 66_667,
      work: 1_000_000,
      overhead: 250_000,
    });
    expect(out[1]!.perUnit.lot).toMatchObject({ ingredients: 200_000, packaging: 0, loss: 22_222, work: 666_667, overhead: 166_667 });
  });
  it("parts add up to the total", () => {
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: 0, max: 1e9 }), { minLength: 5, maxLength: 5 }),
        fc.integer({ min: 1, max: 500 }),
        ([ingredients, packaging, w, overhead, loss], units) => {
          const u = perUnitOf({ ingredients: ingredients!, packaging: packaging!, work: w!, overhead: overhead!, loss: loss! }, units);
          expect(u.ingredients + u.packaging + u.loss).toBe(u.materials);
          expect(u.materials + u.work + u.overhead).toBe(u.total);
        },
      ),
    );
    expect(forMinutes(90, micros(16_000_000))).toBe(24_000_000);
  });
});

describe("a poured batch", () => {
  const poured: PourIn = {
    weighed: mg(1_000_000),
    ingredients: micros(10_000_000),
    sizes: [{ packaging: micros(5_000_000), units: 16, fill: mg(60_000), minutes: 60 }],
    leftover: mg(25_000),
    rates: { hourly: micros(16_000_000), overheadHourly: micros(0) },
  };
  it("worked example: 16 tins of 60 g and 25 g left out of a kilo", () => {
    expect(pourResult(poured)).toEqual({
      lost: 15_000,
      lostShare: 0.015,
      yield: 0.96,
      perUnit: [
        {
          ingredients: 600_000,
          packaging: 312_500,
          work: 1_000_000,
          overhead: 0,
          loss: 25_000,
          materials: 937_500,
          total: 1_937_500,
        },
      ],
    });
  });
  it("takes tins filled a little light, but not more than can be", () => {
    const of = (units: number, leftover: number) =>
      pourResult({ ...poured, sizes: [{ ...poured.sizes[0]!, units }], leftover: mg(leftover) });
    expect(of(16, 50_000)?.lost).toBe(0);
    expect(of(17, 50_000)).toBeNull();
    expect(of(0, 25_000)).toBeNull();
    expect(of(1, 1_000_000)).toBeNull();
    expect(pourResult({ ...poured, sizes: [] })).toBeNull();
  });
  it("several sizes share all that went into the pot, to the micro", () => {
    const size = fc.record({
      units: fc.integer({ min: 1, max: 90 }),
      fill: fc.integer({ min: 1, max: 9e6 }).map(mg),
      added: fc.nat(1e9).map(mg),
      ladled: fc.option(fc.integer({ min: 1, max: 9e6 }).map(mg)),
      own: fc.nat(1e9).map(micros),
    });
    fc.assert(
      fc.property(fc.nat(1e9), fc.nat(1e8), fc.array(size, { minLength: 1, maxLength: 5 }), (ingredients, pot, sizes) => {
        const values = stockValues(micros(ingredients), mg(pot), sizes);
        expect(values.reduce((a, v) => a + v, 0)).toBe(ingredients + sizes.reduce((a, s) => a + s.own, 0));
        values.forEach((v, i) => expect(v).toBeGreaterThanOrEqual(sizes[i]!.own));
      }),
    );
  });
  it("worked example: a part is charged by what was ladled out for it, however many were filled of it", () => {
    const ladled = { units: 4, fill: mg(60_000), added: mg(12_000), ladled: mg(356_000), own: micros(70) };
    const plain = { units: 6, fill: mg(60_000), own: micros(0) };
    // A kilo in the pot, 356 g of it ladled out: 35.6 in a hundred, though four of ten were filled. What was left over changes the pot alone.
    expect(stockValues(micros(10_000_000), mg(1_000_000), [ladled, plain])).toEqual([3_560_070, 6_440_000]);
    expect(stockValues(micros(10_000_000), mg(890_000), [ladled, plain])).toEqual([4_000_070, 6_000_000]);
    // Not weighed, it is by what is in it: 228 of 588 g.
    expect(stockValues(micros(5_880_000), mg(1_000_000), [{ ...ladled, ladled: null }, plain])).toEqual([2_280_070, 3_600_000]);
    // Two sizes share what is left in the pot by what was filled.
    expect(stockValues(micros(1_000_000), mg(1_000_000), [ladled, { ...plain, units: 3 }, { ...plain, units: 1 }])).toEqual([
      356_070, 483_000, 161_000,
    ]);
    const result = pourResult({
      ...{ weighed: mg(1_012_000), ingredients: micros(10_000_000), leftover: mg(0), rates: poured.rates },
      sizes: [ladled, plain].map((s) => ({ ...s, packaging: micros(0), minutes: 0 })),
    })!;
    expect(result.perUnit.map((u) => u.materials)).toEqual([890_000, 1_073_333]);
    // The jug holds 368 g with what was stirred in, and four of 60 g are 240: the rest of it stayed in the jug, like 284 g in the pot.
    expect([result.lost, result.perUnit[0]!.ingredients]).toEqual([412_000, 570_000]);
  });
  it("one unit of a finished lot: materials as the ledger has them, and its share of the work", () => {
    const work = { units: 16, minutesHundredths: 6000, hourly: micros(16_000_000), overheadHourly: micros(4_000_000) };
    expect(finishedCost({ onHand: 4, value: micros(3_750_000) }, work)).toEqual({ materials: 937_500, full: 937_500 + 1_250_000 });
    expect(finishedCost({ onHand: 4, value: micros(3_750_000) }, { ...work, minutesHundredths: null })).toEqual({
      materials: 937_500,
      full: 937_500,
    });
  });
  it("keeps no longer than its shortest-lived lot", () => {
    expect(bestBefore("2026-01-31", 1, [])).toEqual({ day: "2026-02-28", limitedBy: null });
    fc.assert(
      fc.property(fc.array(fc.option(fc.integer({ min: 10, max: 99 }))), (years) => {
        const lots = years.map((y, i) => ({ number: `R${i}`, bestBefore: y === null ? null : `20${y}-06-01` }));
        const best = bestBefore("2026-01-10", 12, lots);
        for (const l of lots) if (l.bestBefore) expect(best.day <= l.bestBefore).toBe(true);
        expect(best.day <= "2027-01-10").toBe(true);
        expect(best.limitedBy === null).toBe(best.day === "2027-01-10");
      }),
    );
  });
});
