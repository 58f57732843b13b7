/** Use-first, draws and the costing methods. Use-first and the schools are common practice, no source. */
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { micros, type Micros } from "../measure/exact.ts";
import { addDays, daysBetween, readDay, saturdayBefore, sayDay } from "../when.ts";
import { drawValue, lotState, firstExpiredFirst, type Lot } from "./lots.ts";
import type { StockFacts } from "../material/facts.ts";
import { packAmount, readStock, stockWeight } from "./packs.ts";
import { landReceipt, RATE_1 } from "./receipt.ts";
import { costNeeds } from "./costingMethods.ts";
import { planTakes, runningAverage, stockOnHand } from "./shelf.ts";

const TODAY = "2026-03-10";
const lot = (id: number, over: Partial<Lot> = {}): Lot => ({
  id,
  number: `R${id}`,
  of: 1,
  onHand: 1000,
  value: micros(500_000),
  arrived: "2026-01-01",
  bestBefore: null,
  hold: false,
  ...over,
});

const anyLot = fc.record({
  onHand: fc.integer({ min: 0, max: 5_000_000 }),
  cents: fc.integer({ min: 0, max: 20_000 }),
  days: fc.option(fc.integer({ min: -50, max: 700 })),
  age: fc.integer({ min: 0, max: 400 }),
  hold: fc.boolean(),
});
const shelf = fc.array(anyLot, { maxLength: 8 }).map((ls) =>
  ls.map((l, i) =>
    lot(i + 1, {
      onHand: l.onHand,
      value: micros(l.onHand === 0 ? 0 : l.cents * 10_000),
      bestBefore: l.days === null ? null : addDays(TODAY, l.days),
      arrived: addDays(TODAY, -l.age),
      hold: l.hold,
    }),
  ),
);

describe("lots", () => {
  it.each<[Partial<Lot>, string]>([
    [{}, "good"],
    [{ onHand: 0, hold: true }, "empty"],
    [{ hold: true }, "hold"],
    [{ bestBefore: "2026-03-09" }, "expired"],
    [{ bestBefore: TODAY }, "soon"],
    [{ bestBefore: addDays(TODAY, 60) }, "soon"],
    [{ bestBefore: addDays(TODAY, 61) }, "good"],
  ])("%j is %s", (over, state) => expect(lotState(lot(1, over), TODAY)).toBe(state));

  it("gives its whole cost away to the last micro, however it is drawn", () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 1e7 }),
        fc.integer({ min: 0, max: 1e9 }),
        fc.array(fc.double({ min: 0, max: 1, noNaN: true }), { maxLength: 20 }),
        (onHand, value, parts) => {
          const state = { onHand, value: micros(value) };
          let given = 0;
          for (const p of [...parts, 1]) {
            const amount = Math.floor(state.onHand * p);
            const v = drawValue(state, amount);
            expect(v).toBeGreaterThanOrEqual(0);
            given += v;
            state.onHand -= amount;
            state.value = micros(state.value - v);
          }
          expect(given).toBe(value);
          expect(state).toEqual({ onHand: 0, value: 0 });
        },
      ),
    );
    expect(() => drawValue({ onHand: 5, value: micros(1) }, 6)).toThrow(RangeError);
  });
});

describe("use-first", () => {
  it("takes what is asked or says exactly what is short, from usable lots only, in order", () => {
    fc.assert(
      fc.property(shelf, fc.array(fc.integer({ min: 0, max: 3_000_000 }), { minLength: 1, maxLength: 4 }), (lots, amounts) => {
        const before = JSON.stringify(lots);
        const plan = planTakes(
          amounts.map((amount) => ({ of: 1, amount })),
          stockOnHand(lots, TODAY),
        );
        expect(JSON.stringify(lots)).toBe(before);
        const usable = lots.filter((l) => ["good", "soon"].includes(lotState(l, TODAY))).sort(firstExpiredFirst);
        const has = usable.reduce((a, l) => a + l.onHand, 0);
        const wanted = amounts.reduce((a, b) => a + b, 0);
        const taken = new Map<number, number>();
        plan.forEach((p, i) => {
          expect(p.takes.reduce((a, t) => a + t.amount, 0) + p.short).toBe(amounts[i]);
          for (const t of p.takes) taken.set(t.lotId, (taken.get(t.lotId) ?? 0) + t.amount);
        });
        expect(plan.reduce((a, p) => a + p.short, 0)).toBe(Math.max(0, wanted - has));
        // Every lot before the last one touched is used up.
        const touched = usable.filter((l) => taken.has(l.id));
        expect(touched).toEqual(usable.slice(0, touched.length));
        touched.slice(0, -1).forEach((l) => expect(taken.get(l.id)).toBe(l.onHand));
      }),
    );
  });
  it("prefers the soonest best-before, then the oldest, and leaves expired and held lots alone", () => {
    const lots = [
      lot(1, { arrived: "2025-12-01" }),
      lot(2, { bestBefore: "2026-12-01" }),
      lot(3, { bestBefore: "2026-04-01" }),
      lot(4, { bestBefore: "2026-03-01" }),
      lot(5, { bestBefore: "2026-03-20", hold: true }),
      lot(6, { arrived: "2025-11-01" }),
    ];
    const [plan] = planTakes([{ of: 1, amount: 3500 }], stockOnHand(lots, TODAY));
    expect(plan!.takes.map((t) => [t.lotId, t.amount])).toEqual([
      [3, 1000],
      [2, 1000],
      [6, 1000],
      [1, 500],
    ]);
  });
});

describe("costing methods", () => {
  const lots = [
    lot(1, { onHand: 1000, value: micros(1_000_000), bestBefore: "2026-06-01" }),
    lot(2, { onHand: 3000, value: micros(9_000_000) }),
  ];
  const shelf = stockOnHand(lots, TODAY, new Map([[1, { value: micros(5_000_000), per: 1000 }]]));
  it("worked example: 2 g of a cheap old gram and dear new ones", () => {
    const [c] = costNeeds([{ of: 1, amount: 2000 }], shelf);
    expect(c!.cost).toEqual({ lot: 1_000_000 + 3_000_000, average: 5_000_000, again: 10_000_000 });
    expect(c!.estimated).toBe(false);
  });
  it("prices what is missing at today's price, and says it is an estimate", () => {
    const [c] = costNeeds([{ of: 1, amount: 5000 }], shelf);
    expect([c!.cost.lot, c!.estimated]).toEqual([10_000_000 + 5_000_000, true]);
  });
  it("has no answer for what was never bought", () => {
    expect(costNeeds([{ of: 9, amount: 1 }], shelf)[0]!.cost).toEqual({ lot: null, average: null, again: null });
    expect(runningAverage([])).toBeNull();
  });
});

describe("purchases", () => {
  const shea: StockFacts = { name: "Shea", form: "block", densities: { block: 920 }, measured: "weight" };
  const tins: StockFacts = { name: "Tins", form: "block", densities: {}, measured: "count" };
  it.each<[number, string, StockFacts, number]>([
    [2, "500 g", shea, 1_000_000],
    [1, "1 L", shea, 920_000],
    [3, "1 lb", shea, 1_360_777 + 1],
    [2, "48", tins, 96],
    [1, "50 pcs", tins, 50],
  ])("%i × %s", (packs, size, facts, base) => {
    const r = packAmount(packs, size, facts);
    expect(r.ok && Math.abs(r.value - base)).toBeLessThanOrEqual(2);
  });
  it.each<[string, StockFacts, string]>([
    ["500", shea, "noUnit"],
    ["3 cups", tins, "wrongKind"],
    ["2.5", tins, "wholePieces"],
    ["0 g", shea, "zero"],
    ["9000000 pcs", tins, "absurd"],
  ])("refuses a pack of %s", (size, facts, code) => {
    const r = packAmount(1, size, facts);
    expect(r.ok ? null : r.problem.code).toBe(code);
  });
  it("counts nothing as nothing", () => expect(readStock("0", shea)).toEqual({ ok: true, value: 0 }));
  it("weighs what is weighed, and pieces by what one of them weighs", () => {
    expect(stockWeight(1500, shea, null)).toBe(1500);
    expect(stockWeight(10, tins, null)).toBeNull();
    expect(stockWeight(10, tins, 14_000)).toBe(140_000);
    expect(stockWeight(10, { ...tins, pieceMg: 350 }, 14_000)).toBe(3500);
  });
  it("shares postage by value to the last cent, evenly when all was free", () => {
    const landedCosts = (prices: readonly Micros[], postage: Micros): Micros[] => {
      const r = landReceipt({
        lines: prices.map((price) => ({ price, weight: null })),
        postage,
        tax: micros(0),
        discount: micros(0),
        spreadBy: "value",
        rate: RATE_1,
      });
      if (!r.ok) throw new Error(r.problem.say);
      return r.value.lines.map((l) => l.landed);
    };
    expect(landedCosts([micros(10_000_000), micros(30_000_000)], micros(4_000_000))).toEqual([11_000_000, 33_000_000]);
    expect(landedCosts([micros(0), micros(0)], micros(10_000))).toEqual([10_000, 0]);
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: 0, max: 1e5 }), { minLength: 1, maxLength: 10 }),
        fc.integer({ min: 0, max: 1e5 }),
        (cents, postage) => {
          const landed = landedCosts(
            cents.map((c) => micros(c * 10_000)),
            micros(postage * 10_000),
          );
          expect(landed.reduce((a, b) => a + b, 0)).toBe((cents.reduce((a, b) => a + b, 0) + postage) * 10_000);
          landed.forEach((l) => expect(l % 10_000).toBe(0));
        },
      ),
    );
  });
});

describe("days", () => {
  it.each([
    ["2026-02-30", false],
    ["2024-02-29", true],
    ["14.12.2026", false],
    ["1999-12-31", false],
    ["", false],
  ])("%s", (text, ok) => expect(readDay(text).ok).toBe(ok));
  it("counts them and says them", () => {
    expect(daysBetween("2026-02-27", "2026-03-02")).toBe(3);
    expect(sayDay("2026-12-14", TODAY)).toBe("Mon 14 Dec");
    expect(sayDay("2027-01-23", TODAY)).toBe("23 Jan 2027");
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 3000 }), (n) => {
        const day = addDays("2020-01-01", n);
        const back = daysBetween(saturdayBefore(day), day);
        expect(back).toBeGreaterThanOrEqual(0);
        expect(back).toBeLessThan(7);
        expect(sayDay(saturdayBefore(day), day.slice(0, 4) === saturdayBefore(day).slice(0, 4) ? day : saturdayBefore(day))).toContain(
          "Sat",
        );
      }),
    );
  });
});
