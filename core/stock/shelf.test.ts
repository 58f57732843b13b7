/**
 * The shelf against the plain way of asking it: every question copies, filters, sorts and groups all lots, and every product goes
 * through BigInt. Whatever the shelf, both answer to the micro.
 */
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { groupBy } from "../collect.ts";
import { micros, mulDiv, type Micros } from "../measure/exact.ts";
import type { UnitCost } from "../measure/money.ts";
import { addDays, daysBetween } from "../when.ts";
import type { Lot } from "./lots.ts";
import { costGroups, costNeeds, totalOf, type NeedCost } from "./costingMethods.ts";
import { planTakes, stockOnHand, shelfWith, type Need, type NeedPlan } from "./shelf.ts";

const TODAY = "2026-03-15";

const plainMulDiv = (a: number, b: number, c: number): number => {
  const [n, d] = [BigInt(a) * BigInt(b), BigInt(c)];
  const negative = n < 0n !== d < 0n && n !== 0n;
  const [above, below] = [n < 0n ? -n : n, d < 0n ? -d : d];
  return Number(((negative ? -1n : 1n) * (2n * above + below)) / (2n * below));
};

function plainPlan(needs: readonly Need[], lots: readonly Lot[]): NeedPlan[] {
  const usable = lots.filter((l) => l.onHand > 0 && !l.hold && (l.bestBefore === null || daysBetween(TODAY, l.bestBefore) >= 0));
  const rows = groupBy(
    usable.map((l) => ({ ...l })),
    (l) => l.of,
  );
  for (const row of rows.values())
    row.sort((a, b) => (a.bestBefore ?? "9999").localeCompare(b.bestBefore ?? "9999") || a.arrived.localeCompare(b.arrived) || a.id - b.id);
  return needs.map(({ of, amount }) => {
    let open = amount;
    const takes = (rows.get(of) ?? []).flatMap((lot) => {
      const take = Math.min(open, lot.onHand);
      if (take === 0) return [];
      const value = micros(take === lot.onHand ? lot.value : plainMulDiv(lot.value, take, lot.onHand));
      lot.onHand -= take;
      lot.value = micros(lot.value - value);
      open -= take;
      return [{ lotId: lot.id, amount: take, value }];
    });
    return { takes, short: open };
  });
}

const plainCosts = (needs: readonly Need[], lots: readonly Lot[], again: ReadonlyMap<number, UnitCost>): NeedCost[] =>
  plainPlan(needs, lots).map((plan, i) => {
    const { of, amount } = needs[i]!;
    const own = lots.filter((l) => l.of === of);
    const per = own.reduce((a, l) => a + l.onHand, 0);
    const anew = again.get(of) ?? null;
    const average = per > 0 ? { value: own.reduce((a, l) => a + l.value, 0), per } : anew;
    const price = (n: number, by: { value: number; per: number } | null): Micros | null =>
      n === 0 ? micros(0) : by && micros(plainMulDiv(n, by.value, by.per));
    const rest = price(plan.short, anew);
    return {
      plan,
      estimated: plan.short > 0,
      cost: {
        lot: rest === null ? null : micros(plan.takes.reduce((a, t) => a + t.value, 0) + rest),
        average: price(amount, average),
        again: price(amount, anew),
      },
    };
  });

const lots = fc
  .array(
    fc.record({
      of: fc.integer({ min: 1, max: 4 }),
      // Up to a tonne: products of weight and cost are far beyond what a number holds.
      onHand: fc.oneof(fc.integer({ min: 0, max: 9 }), fc.integer({ min: 0, max: 1_000_000_000 })),
      // Micros for each thousand of it.
      price: fc.integer({ min: 0, max: 10_000_000 }),
      arrived: fc.integer({ min: -400, max: 0 }).map((n) => addDays(TODAY, n)),
      bestBefore: fc.option(fc.integer({ min: -2, max: 3 }).map((n) => addDays(TODAY, n))),
      hold: fc.integer({ min: 0, max: 3 }).map((n) => n === 0),
    }),
    { maxLength: 12 },
  )
  .map((rows) =>
    rows.map(({ price, ...r }, i): Lot => ({ ...r, id: i + 1, number: `L${i}`, value: micros(Math.floor((r.onHand * price) / 1000)) })),
  );
const needs = fc.array(
  fc.record({
    of: fc.integer({ min: 1, max: 5 }),
    amount: fc.oneof(fc.integer({ min: 0, max: 20 }), fc.integer({ min: 0, max: 900_000_000 })),
  }),
  {
    maxLength: 6,
  },
);
const again = fc
  .array(
    fc.tuple(
      fc.integer({ min: 1, max: 5 }),
      fc.record({ value: fc.integer({ min: 0, max: 9_000_000 }), per: fc.integer({ min: 1, max: 1_000_000 }) }),
    ),
  )
  .map((rows) => new Map(rows.map(([of, c]) => [of, { ...c, value: micros(c.value) }])));

describe("a shelf worked out once", () => {
  it("answers every need as the plain way does, by every school, to the micro", () => {
    fc.assert(
      fc.property(lots, needs, again, (stock, asked, anew) => {
        const before = JSON.stringify(stock);
        const shelf = stockOnHand(stock, TODAY, anew);
        const costed = costNeeds(asked, shelf);
        expect(costed).toEqual(plainCosts(asked, stock, anew));
        // In groups, where nobody asks for the lots.
        const groups = [asked.slice(0, 2), asked.slice(2)];
        expect(costGroups(groups, shelf)).toEqual([totalOf(costed.slice(0, 2)), totalOf(costed.slice(2))]);
        // Asked again, and in part: what was answered before took nothing off it.
        expect(planTakes(asked.slice(1), shelf)).toEqual(plainPlan(asked.slice(1), stock));
        // With what there is of one material put back the rest is as it was.
        const fewer = stock.filter((l) => l.of !== 1 || l.id % 2 === 0);
        const partly = shelfWith(shelf, stockOnHand(fewer, TODAY, anew), [1]);
        expect(costNeeds(asked, partly)).toEqual(plainCosts(asked, fewer, anew));
        expect(JSON.stringify(stock)).toBe(before);
      }),
    );
  });
  it("multiplies and divides as exactly where the product is no safe number", () => {
    const any = fc.oneof(fc.integer({ min: -99, max: 99 }), fc.integer({ min: -3_100_000_000, max: 3_100_000_000 }), fc.maxSafeInteger());
    fc.assert(
      fc.property(any, any, any, (a, b, c) => {
        fc.pre(c !== 0 && Number.isSafeInteger(plainMulDiv(a, b, c)));
        expect(mulDiv(a, b, c)).toBe(plainMulDiv(a, b, c));
      }),
      { numRuns: 2000 },
    );
  });
});
