/** What a base is made of: it sets, smells and melts as all that is in it does. */
import fc from "fast-check";
import { expect, it } from "vitest";
import { firmness, mixOf, SAID_AT, TRADE } from "../firmness/model.ts";
import { meltsAt, setsBy } from "../firmness/solids.ts";
import { mg } from "../measure/exact.ts";
import { draftMethod, writeSteps } from "../recipe/method.ts";
import { scentShare, scentsOfBase } from "../scent/dilution.ts";
import { pot } from "#test/core/pot";
import type { KindId } from "./kinds.ts";
import { isMakeup, makeupOf, waxShare, type Weighed } from "./makeup.ts";

const KINDS = ["wax", "hardButter", "softButter", "oil", "powder", "essentialOil"] as const satisfies KindId[];
const thing = fc.record({ n: fc.nat(11), weight: fc.integer({ min: 1000, max: 400_000 }) }).map(({ n, weight }): Weighed => ({
  ...{ name: `Thing ${n}`, kind: KINDS[n % KINDS.length]!, libraryKey: null, meltFrom: null, meltTo: null },
  weight,
  makeup: [],
}));
const things = fc.array(thing, { minLength: 1, maxLength: 8 });
const asBase = (lines: readonly Weighed[], weight: number): Weighed => ({
  ...{ name: "Base", kind: "base", libraryKey: null, meltFrom: null, meltTo: null },
  weight,
  makeup: makeupOf(lines),
});
const firmOf = (lines: readonly Weighed[]): number =>
  firmness(mixOf(lines.map((l) => ({ weight: mg(Math.round(l.weight)), sets: setsBy(l) }))), SAID_AT, TRADE);

it("melted down and melted in again, a pot is as firm, melts as high and has as much scent as what went into both, however often", () => {
  fc.assert(
    fc.property(things, things, fc.integer({ min: 1, max: 4 }), (first, more, part) => {
      const all = first.reduce((a, l) => a + l.weight, 0);
      const base = asBase(first, all / part);
      const apart = [...first.map((l) => ({ ...l, weight: l.weight / part })), ...more];
      const again = asBase([base, ...more], 1);
      expect(again.makeup.reduce((a, m) => a + m.share, 0)).toBeCloseTo(1, 9);
      expect(firmOf([base, ...more])).toBeCloseTo(firmOf(apart), 4);
      expect(firmOf([{ ...again, weight: 100_000 }])).toBeCloseTo(firmOf(apart), 3);
      expect(meltsAt(setsBy(base))).toBe(Math.max(...first.map((l) => meltsAt(setsBy(l)))));
      const scent = first.reduce((a, l) => a + (l.kind === "essentialOil" ? l.weight : 0), 0);
      expect(scentShare(base)).toBeCloseTo(scent / all, 9);
      const wax = first.reduce((a, l) => a + (l.kind === "wax" ? l.weight : 0), 0);
      expect(waxShare(base)).toBeCloseTo(wax / all, 9);
      const told = scentsOfBase({ weight: mg(1_000_000), makeup: base.makeup }).reduce((a, l) => a + l.weight, 0);
      expect(Math.abs(told - (1_000_000 * scent) / all)).toBeLessThan(4);
      expect(isMakeup(JSON.parse(JSON.stringify(again.makeup)))).toBe(true);
    }),
  );
});

it.each([[null], [[null]], [[{ name: "Wax", kind: "wax" }]], [[{ ...makeupOf([asBase([], 1)])[0], kind: "dragon" }]]])(
  "%j is no makeup",
  (v) => expect(isMakeup(v)).toBe(false),
);

it.each([
  [
    "set",
    [
      ["beeswax-yellow", 20],
      ["olive", 80],
    ],
  ],
  ["liquid", [["olive", 80]]],
] as const)("a %s base that is a line of a recipe is in the method that is drafted of it", (_, of) => {
  const judged = pot("salve", [
    ["beeswax-yellow", 20],
    ["olive", 80],
  ]);
  const makeup = makeupOf(
    pot(
      "salve",
      of.map(([key, grams]) => [key, grams]),
    ).lines,
  );
  const facts = { name: "Old salve", kind: "base", libraryKey: null, meltFrom: null, meltTo: null, makeup } as const;
  const lines = [...judged.lines, { ...judged.lines[0]!, ...facts, sets: setsBy(facts) }];
  expect(writeSteps(draftMethod({ ...judged, lines }, "hold"))).toContain("Old salve");
});
