/**
 * Net weights against the published tables, row by row. The tables are written out here a second time, from memory: Directive 76/211/EEC,
 * Annex I, 2.4 and Annex II, and NIST Handbook 133, Tables 2-1 and 2-5.
 */
import fc from "fast-check";
import jstat from "jstat";
import { describe, expect, it } from "vitest";
import { mg } from "../../measure/exact.ts";
import { judgeNet, meanLimit, sampleOf, shortfall } from "./netWeight.ts";
import { tQuantile } from "./tQuantile.ts";

const g = (n: number) => mg(Math.round(n * 1000));

describe("what one may be short by", () => {
  it.each([
    // 76/211/EEC, Annex I, 2.4: each row at its ends.
    [5, 0.5],
    [10, 0.9],
    [30, 2.7],
    [50, 4.5],
    [51, 4.5],
    [60, 4.5],
    [100, 4.5],
    [101, 4.6],
    [120, 5.4],
    [200, 9],
    [201, 9],
    [300, 9],
    [301, 9.1],
    [400, 12],
    [500, 15],
    [501, 15],
    [1000, 15],
    [1001, 15.1],
    [10_000, 150],
  ])("European: of %d g, %d g", (declared, error) => expect(shortfall("eu", g(declared))).toBe(g(error)));
  it.each([
    // Handbook 133, Table 2-5: each row at its ends.
    [4.5, 0.45],
    [35, 3.5],
    [36, 3.6],
    [54, 3.6],
    [54.1, 5.4],
    [81, 5.4],
    [81.1, 7.2],
    [117, 7.2],
    [118, 9],
    [154, 9],
    [155, 10.8],
    [208, 10.8],
    [209, 12.7],
    [263, 12.7],
    [264, 14.5],
    [317, 14.5],
    [318, 16.3],
    [381, 16.3],
    [382, 18.1],
    [426, 18.1],
    [427, 19.9],
    [489, 19.9],
    [490, 21.7],
    [571, 21.7],
    [572, 23.5],
    [635, 23.5],
    [636, 25.4],
    [698, 25.4],
    [699, 27.2],
    [771, 27.2],
    [772, 29],
    [852, 29],
    [853, 31.7],
    [970, 31.7],
  ])("American: of %d g, %d g", (declared, error) => expect(shortfall("us", g(declared))).toBe(g(error)));
  it("reaches no further than the tables stand here", () => {
    expect([shortfall("eu", g(4.9)), shortfall("eu", g(10_001)), shortfall("us", g(971)), shortfall("us", g(0))]).toEqual([
      null,
      null,
      null,
      null,
    ]);
  });
});

describe("a sample", () => {
  it.each([
    // Handbook 133, Table 2-1: sample correction factors.
    [2, 8.985],
    [3, 2.484],
    [4, 1.591],
    [5, 1.242],
    [6, 1.05],
    [7, 0.925],
    [8, 0.836],
    [9, 0.769],
    [10, 0.715],
    [11, 0.672],
    [12, 0.635],
    [24, 0.422],
    [48, 0.291],
  ])("of %d by the American rule may be off by %d of its deviations", (n, factor) => expect(meanLimit("us", n)).toBeCloseTo(factor, 2));
  it.each([
    // 76/211/EEC, Annex II, 2.3.2.2.
    [20, 0.64],
    [30, 0.503],
    [50, 0.379],
  ])("of %d by the European rule by %d", (n, factor) => expect(meanLimit("eu", n)).toBeCloseTo(factor, 3));
  it("Student's t is the reference library's (jStat)", () => {
    fc.assert(
      fc.property(fc.constantFrom(0.9, 0.95, 0.975, 0.99, 0.995), fc.integer({ min: 1, max: 200 }), (p, n) => {
        const theirs = jstat.studentt.inv(p, n);
        expect(Math.abs(tQuantile(p, n) / theirs - 1)).toBeLessThan(0.0015);
      }),
    );
  });
  it.each([
    ["us", 8, 8],
    ["us", 12, 12],
    ["us", 60, 12],
    ["us", 251, 24],
    ["us", 3201, 48],
    ["eu", 24, 24],
    ["eu", 99, 99],
    ["eu", 100, 50],
    ["eu", 501, 80],
  ] as const)("%s: of %d, %d are weighed", (rule, filled, n) => expect(sampleOf(rule, filled)).toBe(n));
});

describe("the verdict", () => {
  const of = (...weights: number[]) => weights.map(g);
  it("right on average and none too light passes by both; a hair under on average doesn't, all of them weighed", () => {
    for (const rule of ["eu", "us"] as const) {
      expect(judgeNet(rule, g(60), of(60.4, 59.8, 60.1), 3)).toMatchObject({ passes: true, short: [] });
      const light = judgeNet(rule, g(60), of(59.9, 59.8, 60.1), 3)!;
      expect(light.passes).toBe(false);
      expect(light.says[0]).toBe("0.07 g under on average: fill by as much more.");
    }
  });
  it("one far too light stops it by both; by the European one a second time at twice the error", () => {
    expect(judgeNet("us", g(60), of(62, 62, 54.5), 3)).toMatchObject({ passes: false, short: [2], far: [] });
    expect(judgeNet("us", g(60), of(63, 63, 54.7), 3)).toMatchObject({ passes: true });
    expect(judgeNet("eu", g(60), of(65, 65, 55.4), 3)).toMatchObject({ passes: false, short: [2], far: [] });
    const far = judgeNet("eu", g(60), of(70, 70, 50.9), 3)!;
    expect(far).toMatchObject({ passes: false, short: [2], far: [2] });
    expect(far.says[0]).toContain("not to be sold as 60 g");
  });
  it.each([
    [50, 3],
    [80, 5],
    [125, 7],
  ])("of a sample of %d, %d may be short (Directive 76/211/EEC, Annex II; from memory)", (sample, most) => {
    const weighed = (short: number) => Array.from({ length: sample }, (_, i) => g(i < short ? 55.4 : 62));
    expect([most, most + 1].map((short) => judgeNet("eu", g(60), weighed(short), 100_000)!.says.some((s) => /may be/.test(s)))).toEqual([
      false,
      true,
    ]);
    // Of all there are it is one in forty.
    expect(judgeNet("eu", g(60), weighed(most), sample)!.passes).toBe(most <= Math.floor(sample / 40));
  });
  it("too few weighed is no pass yet, but a fault is one at once", () => {
    expect(judgeNet("us", g(60), of(60.5, 60.2), 40)).toMatchObject({ passes: null, wanted: 12 });
    expect(judgeNet("us", g(60), of(60.5, 50), 40)).toMatchObject({ passes: false });
    expect(judgeNet("eu", g(60), [], 40)).toBeNull();
  });
  it("filling each by more never makes it worse", () => {
    const weights = fc.array(fc.integer({ min: 50_000, max: 70_000 }).map(mg), { minLength: 2, maxLength: 30 });
    fc.assert(
      fc.property(fc.constantFrom("eu" as const, "us" as const), weights, fc.integer({ min: 1, max: 5000 }), (rule, all, more) => {
        const rank = (v: boolean | null) => (v === false ? 0 : 1);
        const before = judgeNet(rule, mg(60_000), all, 60)!;
        const after = judgeNet(
          rule,
          mg(60_000),
          all.map((w) => mg(w + more)),
          60,
        )!;
        expect(rank(after.passes)).toBeGreaterThanOrEqual(rank(before.passes));
        expect(after.short.length).toBeLessThanOrEqual(before.short.length);
      }),
    );
  });
});
