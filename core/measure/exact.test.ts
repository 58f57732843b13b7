/** Exact sums: allocation and money, checked by property and against decimal.js, a general-purpose decimal library. */
import { Decimal } from "decimal.js";
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { allocate, CENT, mg, micros, mulDiv } from "./exact.ts";
import { parseMoney } from "./read.ts";
import { costOf, money, showUnitCost, toCent } from "./money.ts";

const whole = (max: number) => fc.integer({ min: 0, max });
Decimal.set({ precision: 60, rounding: Decimal.ROUND_HALF_UP });

describe("mulDiv", () => {
  it("agrees with decimal.js over the whole range of money times weight", () => {
    fc.assert(
      fc.property(fc.integer({ min: -1e12, max: 1e12 }), fc.integer({ min: 0, max: 1e9 }), fc.integer({ min: 1, max: 1e9 }), (a, b, c) => {
        const exact = new Decimal(a).mul(b).div(c).toDecimalPlaces(0, Decimal.ROUND_HALF_UP);
        fc.pre(exact.abs().lte(Number.MAX_SAFE_INTEGER));
        // + 0: decimal.js keeps a negative zero, which is the same amount of money.
        expect(mulDiv(a, b, c) + 0).toBe(exact.toNumber() + 0);
      }),
    );
  });
  it("refuses to divide by nothing, and to lose digits", () => {
    expect(() => mulDiv(1, 1, 0)).toThrow(RangeError);
    expect(() => mulDiv(Number.MAX_SAFE_INTEGER, 2, 1)).toThrow(RangeError);
    expect(() => mg(1.5)).toThrow(RangeError);
    expect(() => micros(2 ** 53)).toThrow(RangeError);
  });
});

describe("allocate", () => {
  it("adds up to the last cent, keeps every share within one quantum of its due, and never gives to a weight of nothing", () => {
    fc.assert(
      fc.property(
        fc.integer({ min: -1e9, max: 1e9 }),
        fc.array(whole(1e7), { minLength: 1, maxLength: 12 }),
        fc.constantFrom(1, 10_000),
        (total, weights, quantum) => {
          const sum = weights.reduce((a, b) => a + b, 0);
          fc.pre(sum > 0);
          const shares = allocate(total, weights, quantum);
          expect(shares.reduce((a, b) => a + b, 0)).toBe(total);
          shares.forEach((s, i) => {
            expect(Math.abs(s - (total * weights[i]!) / sum)).toBeLessThanOrEqual(2 * quantum);
            if (weights[i] === 0) expect(s).toBe(0);
          });
        },
      ),
    );
  });
  it.each([
    [100, [1, 1, 1], 1, [34, 33, 33]],
    [4 * CENT, [1, 1, 1], CENT, [2 * CENT, CENT, CENT]],
    [-5, [1, 1], 1, [-3, -2]],
    [0, [0, 0], 1, [0, 0]],
  ])("shares %i over %j", (total, weights, quantum, shares) => expect(allocate(total, weights, quantum)).toEqual(shares));
  it("says so when there is nothing to share over", () => expect(() => allocate(5, [0, 0])).toThrow(RangeError));
});

describe("money", () => {
  it("multiplies a cost per gram as decimal.js does", () => {
    fc.assert(
      fc.property(whole(5_000_000), whole(50_000), fc.integer({ min: 1, max: 5_000_000 }), (amount, cents, per) => {
        const exact = new Decimal(cents).div(100).mul(amount).div(per).mul(1e6).toDecimalPlaces(0);
        expect(costOf(amount, { value: micros(cents * CENT), per })).toBe(exact.toNumber());
      }),
    );
  });
  it.each([
    ["12.50", 12_500_000],
    ["€ 12,5", 12_500_000],
    ["$1200", 1_200_000_000],
    ["EUR 3", 3_000_000],
    ["0", 0],
    [".99", 990_000],
  ])("reads %s", (text, value) => expect(parseMoney(text)).toEqual({ ok: true, value }));
  it.each([
    ["", "empty"],
    ["twelve", "notMoney"],
    ["1/2", "notMoney"],
    ["12.345", "cents"],
    ["-3", "negative"],
    ["9999999", "absurd"],
    ["1,234", "ambiguous"],
    ["1,234", "ambiguous"],
    ["12 50", "ambiguous"],
  ])("refuses %s as %s", (text, code) => {
    const r = parseMoney(text);
    expect(r.ok ? null : r.problem.code).toBe(code);
  });
  it("writes it with two decimals, and never a drop of oil as nothing", () => {
    expect(money(micros(1_250_000), "EUR")).toBe("€1.25");
    expect(money(micros(1_400), "EUR")).toBe("€0.0014");
    expect(money(micros(-2_005_000), "EUR")).toBe("-€2.01");
    expect(toCent(micros(14_999))).toBe(10_000);
    expect(showUnitCost({ value: micros(9_000_000), per: 1_000_000 }, "weight", "EUR")).toBe("€9.00/kg");
    expect(showUnitCost({ value: micros(15_000_000), per: 50_000 }, "weight", "EUR")).toBe("€0.30/g");
    expect(showUnitCost({ value: micros(46_000_000), per: 100 }, "count", "EUR")).toBe("€0.46/pc");
  });
});
