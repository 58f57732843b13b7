/** The pace of the cabinet, what ages before it sells, and what the heat undoes. */
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { TRADE } from "../firmness/model.ts";
import { mg } from "../measure/exact.ts";
import { addDays, type Day } from "../when.ts";
import { agesUnsold, paceOf, sayPace } from "./pace.ts";
import { notForSummer } from "./summer.ts";

const TODAY: Day = "2026-11-28";

describe("what is left on its day", () => {
  const lots = fc.array(
    fc.record({
      bestBefore: fc.option(
        fc.integer({ min: 0, max: 400 }).map((n) => addDays(TODAY, n)),
        { freq: 9 },
      ),
      onHand: fc.integer({ min: 1, max: 80 }),
    }),
    { maxLength: 6 },
  );
  /** One day after the other, of the lot whose day comes first, the whole units that have come together by then. */
  const dayByDay = (all: { bestBefore: Day | null; onHand: number }[], perDay: number): number => {
    const here = all.flatMap((l) => (l.bestBefore === null ? [] : [{ ...l, bestBefore: l.bestBefore }]));
    here.sort((a, b) => (a.bestBefore < b.bestBefore ? -1 : 1));
    let sold = 0;
    let left = 0;
    for (let n = 0; n <= 400; n++) {
      const today = addDays(TODAY, n);
      for (let can = Math.floor(perDay * n + 1e-9) - sold; can > 0; can--) {
        const next = here.find((l) => l.onHand > 0 && l.bestBefore >= today);
        if (!next) break;
        next.onHand--;
        sold++;
      }
      for (const l of here) if (l.bestBefore === today) left += l.onHand;
    }
    return left;
  };
  it("is what a day by day sale leaves, as long as there is always something to sell", () => {
    fc.assert(
      fc.property(lots, fc.integer({ min: 0, max: 40 }), (all, tenths) => {
        const perDay = tenths / 10;
        const got = agesUnsold(all, perDay, TODAY);
        expect(got).toBeGreaterThanOrEqual(0);
        expect(got).toBeLessThanOrEqual(all.reduce((a, l) => a + (l.bestBefore ? l.onHand : 0), 0));
        expect(agesUnsold(all, perDay + 1, TODAY)).toBeLessThanOrEqual(got);
        expect(got).toBe(dayByDay(structuredClone(all), perDay));
      }),
    );
  });
  it("counts nothing that is past its day already, or has none", () =>
    expect(
      agesUnsold(
        [
          { bestBefore: addDays(TODAY, -1), onHand: 9 },
          { bestBefore: null, onHand: 9 },
        ],
        0,
        TODAY,
      ),
    ).toBe(0));
});

describe("the pace", () => {
  it.each([
    [0, 100, 0, "None sold of late"],
    [30, 200, 1 / 3, "Sells 2.3 a week"],
    [9, 90, 0.1, "Sells 3.0 a month"],
    [21, 30, 0.7, "Sells 4.9 a week"],
  ])("%i sold, first made %i days ago", (sold, days, perDay, say) => {
    expect(paceOf(sold, addDays(TODAY, -days), TODAY)).toBeCloseTo(perDay, 12);
    expect(sayPace(perDay)).toBe(say);
  });
  it("isn't told of what was first made a fortnight ago", () => expect(paceOf(50, addDays(TODAY, -14), TODAY)).toBeNull());
});

describe("a summer stall", () => {
  const beeswax = (grams: number) => ({ weight: mg(grams * 1000), sets: { as: "wax" as const, strength: 1, melts: 63 } });
  const oil = (grams: number) => ({ weight: mg(grams * 1000), sets: { as: "liquid" as const } });
  it("is for what wax holds up, not for oil with a little of it, nor for air", () => {
    expect(notForSummer(false, [beeswax(25), oil(75)], TRADE)).toBeNull();
    expect(notForSummer(false, [beeswax(1), oil(99)], TRADE)).toBe("pours at 35 °C");
    expect(notForSummer(true, [beeswax(25), oil(75)], TRADE)).toBe("loses its air in the heat");
    expect(notForSummer(false, [], TRADE)).toBeNull();
  });
});
