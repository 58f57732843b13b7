/** At the bench: near enough, too much, and when it will be cool enough. */
import fc from "fast-check";
import { levenbergMarquardt } from "ml-levenberg-marquardt";
import { describe, expect, it } from "vitest";
import { mixOf, TRADE } from "../../firmness/model.ts";
import { mg } from "../../measure/exact.ts";
import { fitCooling, forecast, sayForecast, sinceWarmest, type Sample } from "./cooling.ts";
import { hintsOf } from "./events.ts";
import { measured } from "../../recipe/firmnessTargets.ts";
import { RECIPE_TYPE_IDS } from "../../recipe/types.ts";
import { NOSE_IDS, scentFix } from "../finishing/nose.ts";
import { feltOn, SPOON_IDS, firmnessFix, type SpoonVerdict } from "../finishing/spoon.ts";
import { weighingTolerance, weighingFixes, compareToTarget, substitute, type PotLine } from "./weighingFixes.ts";

const wax = { as: "wax", strength: 1, melts: 63 } as const;
const line = (over: Partial<PotLine>): PotLine => ({
  name: "Oil",
  position: 0,
  planned: mg(100_000),
  weighed: null,
  sets: { as: "liquid" },
  scent: 0,
  // What is all scent is dosed and carries nothing.
  carries: !over.scent,
  onHand: 1_000_000,
  perMg: null,
  ...over,
});

describe("off target", () => {
  const weight = fc.integer({ min: 1000, max: 500_000 }).map(mg);
  const lines = fc.array(fc.record({ planned: weight, waxy: fc.boolean(), scent: fc.constantFrom(0, 1), done: fc.boolean() }), {
    minLength: 2,
    maxLength: 8,
  });
  it("matched, every share is as it was written; kept, only that line's changed", () => {
    fc.assert(
      fc.property(lines, fc.integer({ min: 30, max: 180 }), (drawn, percent) => {
        fc.pre(percent !== 100);
        const pot = drawn.map((d, i) =>
          line({
            position: i,
            planned: d.planned,
            sets: d.waxy ? wax : { as: "liquid" },
            scent: d.scent,
            weighed: i > 0 && d.done ? d.planned : null,
          }),
        );
        const weighed = mg(Math.round((pot[0]!.planned * percent) / 100));
        const { by, keep, match } = weighingFixes(pot, 0, weighed, TRADE);
        const total = pot.reduce((a, l) => a + l.planned, 0);
        expect(weighed - by).toBe(pot[0]!.planned);
        expect(keep.total).toEqual([total, total + by]);
        expect(match.planned[0]).toBe(weighed);
        for (const [i, g] of match.planned.entries()) expect(Math.abs(g / weighed - pot[i]!.planned / pot[0]!.planned)).toBeLessThan(0.005);
        // Whatever was weighed already has to be met by more of it; in a smaller batch it would be too much.
        expect(match.off.map((m) => m.line)).toEqual(pot.flatMap((l, i) => (i > 0 && l.weighed !== null ? [i] : [])));
        if (percent > 100 || match.off.length === 0) {
          expect(Math.abs(match.firm[1] - match.firm[0])).toBeLessThan(0.003);
          expect(Math.abs(match.scent[1] - match.scent[0])).toBeLessThan(0.003);
        }
      }),
    );
  });
  it("4 g too much wax in 40: kept it sets harder, smells less and costs more; there isn't enough oil to grow by a tenth", () => {
    const pot = [
      line({ name: "Beeswax", planned: mg(40_000), sets: wax, perMg: 20 }),
      line({ position: 1, planned: mg(300_000), onHand: 320_000, perMg: 10 }),
      line({ name: "Lavender", position: 2, planned: mg(4000), weighed: mg(4000), scent: 1 }),
    ];
    const { by, keep, match } = weighingFixes(pot, 0, mg(44_000), TRADE);
    expect(by).toBe(4000);
    expect(keep.firm[1]).toBeGreaterThan(keep.firm[0] * 1.05);
    expect(keep.scent[1]).toBeLessThan(keep.scent[0]);
    expect(keep.cost).toEqual([3_800_000, 3_880_000]);
    expect(match.planned).toEqual([44_000, 330_000, 4400]);
    expect(match.short).toEqual([{ line: 1, by: 10_000 }]);
    expect(match.off).toEqual([{ line: 2, by: 400 }]);
  });
  it("of two lots of one material the other's weight stays: only all of it together has to match", () => {
    const pot = [
      line({ name: "Mango", planned: mg(60_000), weighed: mg(60_000) }),
      line({ name: "Mango", planned: mg(40_000) }),
      line({ position: 1, planned: mg(100_000) }),
    ];
    const { match } = weighingFixes(pot, 1, mg(50_000), TRADE);
    expect(match.planned).toEqual([60_000, 50_000, 110_000]);
    expect(match.off).toEqual([]);
  });
  it.each([
    [40_000, 39_500, "short"],
    [40_000, 39_600, "right"],
    [40_000, 40_400, "right"],
    [40_000, 40_500, "over"],
    // Less than the scale tells apart is near enough.
    [500, 600, "right"],
    [500, 700, "over"],
  ])("of %d mg, %d are %s", (target, weight, said) => expect(compareToTarget(weight, mg(target), mg(100))).toBe(said));
  it("is never finer than the scale", () => {
    fc.assert(
      fc.property(weight, (w) => {
        expect(weighingTolerance(w, mg(100))).toBeGreaterThanOrEqual(100);
      }),
    );
  });
});

describe("something instead", () => {
  const liquid = { as: "liquid" } as const;
  const by = (strength: number, onHand = 1e9) => ({ name: "Other", sets: { ...wax, strength }, scent: 0, carries: true, onHand, perMg: 2 });
  it("of another wax as much as keeps the pot as firm: less where it is stronger and all of it, none where there isn't so much", () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 40, max: 250 }),
        fc.double({ min: 0.6, max: 1.9, noNaN: true }),
        fc.integer({ min: 0, max: 90 }),
        (grams, strength, had) => {
          const planned = mg(grams * 1000);
          const pot = [line({ position: 0, planned, sets: wax, perMg: 1 }), line({ position: 1, planned: mg(900_000), sets: liquid })];
          const weighed = mg(Math.round((planned * had) / 100));
          const does = substitute(pot, 0, weighed, by(strength), TRADE)!;
          expect(does.firm[1]).toBeCloseTo(does.firm[0], 4);
          const missing = planned - weighed;
          // Beside some of the first, a second wax has a separate part dissolved.
          if (weighed === 0 && strength > 1.05) expect(does.amount).toBeLessThan(missing);
          if (weighed === 0 && strength < 0.95) expect(does.amount).toBeGreaterThan(missing);
          expect(substitute(pot, 0, weighed, by(strength, does.amount - 1), TRADE)).toBeNull();
          expect(does.total[1] - does.total[0]).toBe(does.amount - missing);
        },
      ),
    );
  });
  it("of an oil the same weight, and what it costs", () => {
    const pot = [line({ position: 0, planned: mg(90_000), sets: liquid, perMg: 1 }), line({ position: 1, planned: mg(10_000), sets: wax })];
    const does = substitute(pot, 0, mg(50_000), { name: "Other", sets: liquid, scent: 0, carries: true, onHand: 40_000, perMg: 3 }, TRADE)!;
    expect(does.amount).toBe(40_000);
    expect(does.cost[1] - does.cost[0]).toBe(80_000);
    expect(substitute(pot, 0, mg(90_000), { name: "Other", sets: liquid, scent: 0, carries: true, onHand: 9, perMg: 3 }, TRADE)).toBeNull();
  });
});

describe("a drop on a cold spoon", () => {
  const pot = [
    line({ name: "Oil", planned: mg(400_000), weighed: mg(400_000) }),
    line({ name: "Wax", position: 1, planned: mg(45_000), weighed: mg(45_000), sets: wax }),
  ];
  it("too soft takes wax, the more the softer; too hard takes oil; right takes nothing", () => {
    const of = (v: SpoonVerdict) => firmnessFix(pot, v, "salve", TRADE);
    expect(of("right")).toBeNull();
    expect([of("soft")!.line, of("muchSoft")!.line, of("hard")!.line, of("muchHard")!.line]).toEqual([1, 1, 0, 0]);
    expect(of("muchSoft")!.more).toBeGreaterThan(of("soft")!.more);
    expect(of("muchHard")!.more).toBeGreaterThan(of("hard")!.more);
    expect(of("soft")!.total).toBe(445_000 + of("soft")!.more);
  });
  it("a little is a little, whatever the product: no more than half as firm again is wished, nor less than two thirds", () => {
    for (const type of RECIPE_TYPE_IDS)
      for (const verdict of ["soft", "hard"] as const) {
        const { side, firm } = feltOn(verdict, type);
        expect([type, Math.abs(Math.log(side.aim / firm)) <= Math.log(1.5) + 1e-9]).toEqual([type, true]);
        expect(verdict === "soft" ? firm < side.aim : firm > side.aim).toBe(true);
      }
  });
  it("what was felt and what is added come to what is wished, with the model off by what the hand found", () => {
    const types = fc.constantFrom(...RECIPE_TYPE_IDS);
    fc.assert(
      fc.property(types, fc.constantFrom(...SPOON_IDS), fc.integer({ min: 15_000, max: 200_000 }), (type, verdict, waxMg) => {
        const mine = [pot[0]!, { ...pot[1]!, weighed: mg(waxMg) }];
        const fix = firmnessFix(mine, verdict, type, TRADE);
        if (!fix) return;
        const { side, firm: felt } = feltOn(verdict as Exclude<SpoonVerdict, "right">, type);
        const firm = (weights: readonly number[]) =>
          measured(mixOf(mine.map((l, i) => ({ weight: mg(weights[i]!), sets: l.sets }))), side, TRADE);
        const weights = mine.map((l) => l.weighed! as number);
        const off = felt / firm(weights);
        const after = firm(weights.map((w, i) => (i === fix.line ? w + fix.more : w))) * off;
        expect(Math.abs(after / side.aim - 1)).toBeLessThan(0.02);
      }),
    );
  });
});

describe("cooling", () => {
  /** Newton's law, in closed form, read by a probe that is off by up to so much. */
  const curve = (start: number, room: number, tau: number, minutes: number, noise: (i: number) => number): Sample[] =>
    Array.from({ length: Math.floor(minutes * 6) + 1 }, (_, i) => ({
      at: i * 10_000,
      celsius: room + (start - room) * Math.exp(-i / 6 / tau) + noise(i),
    }));
  const exact = (start: number, room: number, tau: number, to: number): number => tau * Math.log((start - room) / (to - room));
  const pot = fc.record({
    start: fc.integer({ min: 65, max: 85 }),
    room: fc.integer({ min: 16, max: 26 }),
    tau: fc.integer({ min: 8, max: 40 }),
  });

  it("without noise gives the closed form's own time, to a second", () => {
    fc.assert(
      fc.property(pot, ({ start, room, tau }) => {
        const samples = curve(start, room, tau, 4, () => 0);
        const fit = fitCooling(samples, room)!;
        expect(fit.tau).toBeCloseTo(tau, 3);
        expect(forecast(fit, 50)!.minutes + 4).toBeCloseTo(exact(start, room, tau, 50), 2);
      }),
    );
  });
  it("with a probe's noise the true time lies within what is said, nineteen times in twenty", () => {
    let seed = 7;
    const chance = (): number => (seed = (seed * 16_807) % 2_147_483_647) / 2_147_483_647;
    const normal = (): number => Math.sqrt(-2 * Math.log(chance())) * Math.cos(2 * Math.PI * chance());
    let within = 0;
    const times = 400;
    for (let n = 0; n < times; n++) {
      const [start, room, tau] = [70 + chance() * 12, 18 + chance() * 6, 12 + chance() * 20];
      const minutes = 3 + chance() * 5;
      // Nobody knows the room better than this; the sheet says 21.
      const fit = fitCooling(
        curve(start, room, tau, minutes, () => normal() * 0.2),
        room + normal() * 1.5,
      );
      if (!fit) continue;
      const { minutes: left, plusMinus } = forecast(fit, 52)!;
      if (Math.abs(left + Math.floor(minutes * 6) / 6 - exact(start, room, tau, 52)) <= plusMinus + 0.05) within++;
    }
    expect(within / times).toBeGreaterThan(0.9);
  });
  it("finds what a general least-squares fit of the curve itself finds (ml-levenberg-marquardt)", () => {
    let seed = 3;
    const chance = (): number => (seed = (seed * 16_807) % 2_147_483_647) / 2_147_483_647;
    for (let n = 0; n < 20; n++) {
      const samples = curve(75, 21, 15 + n, 8, () => (chance() - 0.5) * 0.5);
      const theirs = levenbergMarquardt(
        { x: samples.map((s) => s.at / 60_000), y: samples.map((s) => s.celsius) },
        ([start, tau]: number[]) =>
          (t: number) =>
            21 + (start! - 21) * Math.exp(-t / tau!),
        { initialValues: [75, 20], maxIterations: 60, damping: 0.01 },
      );
      expect(fitCooling(samples, 21)!.tau / theirs.parameterValues[1]!).toBeCloseTo(1, 2);
    }
  });
  it("says nothing of too little, of what warms, and of what the room won't cool", () => {
    expect(
      fitCooling(
        curve(70, 21, 20, 0.5, () => 0),
        21,
      ),
    ).toBeNull();
    expect(
      fitCooling(
        [...curve(70, 21, 20, 5, () => 0)].reverse().map((s, i) => ({ ...s, at: i * 10_000 })),
        21,
      ),
    ).toBeNull();
    const fit = fitCooling(
      curve(70, 21, 20, 5, () => 0),
      21,
    )!;
    expect(forecast(fit, 22)).toBeNull();
    expect(sayForecast({ minutes: -1, plusMinus: 1 })).toBe("now");
    const warmed = [...curve(70, 21, 20, 3, () => 0), ...curve(75, 21, 20, 3, () => 0).map((s) => ({ ...s, at: s.at + 190_000 }))];
    expect(sinceWarmest(warmed)).toHaveLength(19);
  });
});

it.each([
  ["Put the moulds in the fridge for 30 to 40 minutes, then press the bars out.", { minutes: 40, below: null, about: null }],
  ["Leave the bars for 24 hours before they are wrapped.", { minutes: 1440, below: null, about: null }],
  ["Stir in lavender below 50 °C, for two minutes by the clock; wear gloves.", { minutes: null, below: 50, about: null }],
  ["Wipe the jug and pour at about 130 °F, before its wall skins over.", { minutes: null, below: null, about: 54 }],
  ["Melt the wax.", { minutes: null, below: null, about: null }],
])("%s", (text, hints) => expect(hintsOf(text)).toEqual(hints));

describe("the nose", () => {
  const pot = fc
    .array(fc.record({ weight: fc.integer({ min: 5000, max: 400_000 }), scent: fc.boolean() }), { minLength: 2, maxLength: 6 })
    .filter((l) => l.some((x) => x.scent) && l.some((x) => !x.scent))
    // Scent is little beside the rest.
    .map((l) => l.map((x, i) => line({ position: i, weighed: mg(x.scent ? Math.ceil(x.weight / 40) : x.weight), scent: x.scent ? 1 : 0 })));
  it("has too faint a pot made as much stronger as it asks, never over what the blend may be; too strong a one thinned; its proportions kept", () => {
    fc.assert(
      fc.property(
        pot,
        fc.constantFrom(...NOSE_IDS),
        fc.option(fc.double({ min: 0.001, max: 0.2, noNaN: true })),
        (lines, verdict, most) => {
          const fix = scentFix(lines, verdict, most);
          expect(fix === null).toBe(verdict === "right");
          if (verdict === "right") return;
          const [before, after] = fix!.scent;
          const added = lines.map((l, i) => l.weighed! + (fix!.adds.find((a) => a.line === i)?.more ?? 0));
          const total = added.reduce((a, w) => a + w, 0);
          expect(fix!.total).toBe(total);
          expect(added.reduce((a, w, i) => a + w * lines[i]!.scent, 0) / total).toBeCloseTo(after, 9);
          const stronger = verdict === "faint" || verdict === "muchFaint";
          if (stronger) expect(after).toBeLessThanOrEqual(Math.max(before, most ?? 1) + 1e-9);
          const times = { muchFaint: 1.5, faint: 1.25, strong: 0.8, muchStrong: 2 / 3 }[verdict];
          // To the milligram that is added.
          if (!fix!.capped) expect(Math.abs(after - before * times) * total).toBeLessThan(2);
          // Nothing else is touched, and what is grows alike.
          for (const { line: at, more } of fix!.adds) {
            expect(lines[at]!.scent === 1).toBe(stronger);
            const all = fix!.adds.reduce((a, x) => a + x.more, 0);
            const of = lines.reduce((a, l) => a + (l.scent === lines[at]!.scent ? l.weighed! : 0), 0);
            expect(Math.abs(more - (all * lines[at]!.weighed!) / of)).toBeLessThan(2);
          }
        },
      ),
    );
  });
  it("says nothing of a pot without scent, and adds nothing to a blend at its ceiling", () => {
    expect(scentFix([line({ weighed: mg(100_000) })], "faint", null)).toBeNull();
    const full = [line({ weighed: mg(99_000) }), line({ position: 1, weighed: mg(1000), scent: 1 })];
    expect(scentFix(full, "faint", 0.01)).toMatchObject({ adds: [], capped: true, scent: [0.01, 0.01] });
  });
});
