/** Filling, solved by HiGHS, against every possibility tried by hand on small pots, and against the solver's own bound on large ones. */
import fc from "fast-check";
import loadHighs from "highs";
import { beforeAll, describe, expect, it } from "vitest";
import { solverOf } from "./solver.ts";
import { mg } from "#core/measure/exact";
import { planFill, type FillAsk } from "#core/fill/fill";
import type { Solve } from "#core/fill/wholeNumbers";

let solve: Solve;
beforeAll(async () => {
  const by = solverOf(await loadHighs());
  solve = (q) => Promise.resolve(by(q));
});

const size = (grams: number, wished: number | null = null, packaging: FillAsk["sizes"][number]["packaging"] = []) => ({
  fill: mg(Math.round(grams * 1000)),
  wished,
  packaging,
});
const ask = (grams: number, sizes: FillAsk["sizes"], over: Partial<FillAsk> = {}): FillAsk => ({
  usable: mg(Math.round(grams * 1000)),
  sizes,
  onHand: new Map(),
  by: "least",
  ...over,
});

/** Every mix that fits. */
function everyMix({ usable, sizes, onHand }: FillAsk): number[][] {
  const used = (units: readonly number[], of: number): number =>
    sizes.reduce((a, s, i) => a + (units[i] ?? 0) * s.packaging.filter((p) => p.of === of).reduce((n, p) => n + p.pieces, 0), 0);
  const mixes: number[][] = [];
  const go = (units: number[], left: number): void => {
    if (units.length === sizes.length) {
      if ([...onHand].every(([of, n]) => used(units, of) <= n)) mixes.push(units);
      return;
    }
    const { fill } = sizes[units.length]!;
    for (let n = 0; n * fill <= left; n++) go([...units, n], left - n * fill);
  };
  go([], usable);
  return mixes;
}
const weight = (a: FillAsk, units: readonly number[]): number => a.sizes.reduce((s, x, i) => s + x.fill * units[i]!, 0);
const apart = (a: FillAsk, units: readonly number[]): number =>
  a.sizes.reduce((s, x, i) => s + (x.wished === null ? 0 : Math.abs(units[i]! - x.wished)), 0);

describe("by hand", () => {
  it("500 g into 60 g and 35 g tins: six and four leave nothing, where eight of the large leave 20 g", async () => {
    const plan = await planFill(ask(500, [size(60), size(35)]), solve);
    expect(plan).toMatchObject({ units: [6, 4], left: 0, proven: true, less: 1 });
  });
  it("of those that leave as little, the fewest containers", async () => {
    expect((await planFill(ask(120, [size(10), size(60)]), solve))!.units).toEqual([0, 2]);
  });
  it("four per cent more fills one more", async () => {
    const plan = await planFill(ask(480, [size(100)]), solve);
    expect(plan).toMatchObject({ units: [4], left: 80_000, more: { units: [5] } });
    expect(plan!.more!.factor).toBeCloseTo(500 / 480, 9);
    expect((await planFill(ask(430, [size(100)]), solve))!.more).toBeNull();
  });
  it("lids that two sizes share end both; a wished mix is met as nearly as can be", async () => {
    const lid = [{ of: 7, pieces: 1 }];
    const shared = ask(1000, [size(60, 6, lid), size(30, 6, lid)], { onHand: new Map([[7, 10]]), by: "wished" });
    const plan = (await planFill(shared, solve))!;
    expect(apart(shared, plan.units)).toBe(2);
    expect(plan.units).toEqual([6, 4]);
  });
  it("nothing where not even the wished least goes in, or there is no size", async () => {
    expect(await planFill(ask(100, [size(60, 2)]), solve)).toBeNull();
    expect(await planFill(ask(100, []), solve)).toBeNull();
    expect(await planFill(ask(50, [size(60)]), solve)).toMatchObject({ units: [0], left: 50_000 });
  });
});

it("on small pots no mix that fits is better, whichever is asked for", async () => {
  const small = fc.record({
    usable: fc.integer({ min: 20, max: 400 }),
    sizes: fc.array(
      fc.record({
        fill: fc.integer({ min: 9, max: 120 }),
        wished: fc.option(fc.integer({ min: 0, max: 5 })),
        lids: fc.integer({ min: 1, max: 2 }),
      }),
      { minLength: 1, maxLength: 3 },
    ),
    lids: fc.integer({ min: 0, max: 14 }),
    by: fc.constantFrom("first" as const, "least" as const, "wished" as const),
  });
  await fc.assert(
    fc.asyncProperty(small, async ({ usable, sizes, lids, by }) => {
      const a = ask(
        usable,
        sizes.map((s) => size(s.fill, s.wished, [{ of: 1, pieces: s.lids }])),
        { onHand: new Map([[1, lids]]), by },
      );
      const fits = everyMix(a).filter((u) => by === "wished" || a.sizes.every((s, i) => u[i]! >= (s.wished ?? 0)));
      const plan = await planFill(a, solve);
      if (fits.length === 0) {
        expect(plan).toBeNull();
        return;
      }
      expect(plan!.proven).toBe(true);
      expect(fits.some((u) => u.join() === plan!.units.join())).toBe(true);
      expect(plan!.left).toBe(a.usable - weight(a, plan!.units));
      // The first size first: its number weighs more than any of the next.
      const score = (u: readonly number[]): number =>
        by === "first" ? -u.reduce((n, x) => n * 1000 + x, 0) : (by === "wished" ? apart(a, u) * 1e9 : 0) - weight(a, u);
      expect(score(plan!.units)).toBe(Math.min(...fits.map(score)));
    }),
    { numRuns: 60 },
  );
});

it("on large ones it is the solver's own bound: a 20 kg pot, seven sizes, three lids shared", async () => {
  const fills = [58.3, 11.7, 28.1, 92.4, 14.2, 4.3, 113.9];
  const big = ask(
    20_000,
    fills.map((g, i) => size(g, null, [{ of: i % 3, pieces: 1 }])),
    {
      onHand: new Map([
        [0, 120],
        [1, 90],
        [2, 200],
      ]),
    },
  );
  const plan = (await planFill(big, solve))!;
  expect(plan.proven).toBe(true);
  expect(weight(big, plan.units) + plan.left).toBe(big.usable);
});
