/** Drops out of one bottle and another: the weight they come to, and how many a weight is. */
import Fraction from "fraction.js";
import { describe, expect, it } from "vitest";
import { dripsOf, inDrops, dripsByBottle } from "./drops.ts";
import { mg } from "./exact.ts";
import { massOf, type MassFacts } from "./mass.ts";
import { parseAmount } from "./parse.ts";

const facts = (dropsPerMl: number | null): MassFacts => ({ name: "Lavender", form: "liquid", densities: { liquid: 900 }, dropsPerMl });
const drops = (n: number) => ({ n: new Fraction(n), unit: "drop" as const });

describe("what a recipe's drops come to out of another bottle", () => {
  it.each([
    [
      "nobody said: asked, an orifice's drops being smaller (30 to the mL, from memory)",
      20,
      [],
      { weight: 1_800, ml: "2 mL", said: false },
    ],
    ["the usual count where the material has none", null, [], { weight: 1_800, ml: "2 mL", said: false }],
    ["a bottle that was counted says so itself", 20, [25], { weight: 2_160, ml: "2.4 mL", said: true }],
    ["one of several that was", 20, [null, 40], { weight: 1_350, ml: "1.5 mL", said: true }],
    ["a pipette: the same, and nothing more to ask", 20, [20], null],
    ["counted for the material, and nothing said of the bottle", 15, [null], null],
    ["counted for the material, and otherwise for the bottle", 15, [30], { weight: 1_800, ml: "2 mL", said: true }],
  ])("%s", (_, counts, bottles, comes) =>
    expect(
      dripsByBottle(
        drops(60),
        facts(counts),
        bottles.map((dropsPerMl) => ({ dropsPerMl })),
      ),
    ).toEqual(comes),
  );
  it("what is no drops isn't asked about, nor what has no density", () => {
    expect(dripsByBottle({ n: new Fraction(3), unit: "ml" }, facts(20), [])).toBeNull();
    expect(dripsByBottle(drops(60), { ...facts(20), densities: {} }, [])).toBeNull();
  });
  it("the volume it offers weighs what it says, read again", () => {
    for (let n = 1; n <= 400; n += 7)
      for (const perMl of [21, 25, 30, 35, 60]) {
        const out = dripsByBottle(drops(n), facts(20), [{ dropsPerMl: perMl }])!;
        const again = parseAmount(out.ml, "g");
        const weight = again.ok && massOf(again.value, facts(20));
        expect(weight && weight.ok && Math.abs(weight.value - out.weight) / out.weight, out.ml).toBeLessThan(0.0125);
      }
  });
});

describe("a weight in drops, where the scale is too coarse", () => {
  const tenth = mg(100);
  it.each([
    ["both kinds while nobody said", 1_800, null, null, [40, 60]],
    ["20 is what is taken where nobody counted", 1_800, 20, null, [40, 60]],
    ["the bottle's own", 1_800, 20, 27, [54]],
    ["the material's own count, where nothing is said of the bottle", 1_800, 15, null, [30]],
    ["the bottle before the material", 1_800, 15, 30, [60]],
    ["the scale tells it", 5_001, null, null, []],
    ["at fifty steps it still doesn't, and as many drops are more than anybody counts", 5_000, null, null, []],
    ["not a drop of it", 10, null, null, []],
    ["nothing", 0, null, null, []],
  ])("%s", (_, weight, counts, said, out) => expect(inDrops(mg(weight), tenth, { density: 900, counts }, said)).toEqual(out));
  it("a coarse scale has more to be counted", () => {
    expect(inDrops(mg(5_000), tenth, { density: 900, counts: 20 }, 20)).toEqual([111]);
    expect(inDrops(mg(5_000), mg(99), { density: 900, counts: 20 }, 20)).toEqual([]);
  });
});

it("a bottle nobody spoke of says nothing", () => expect(dripsOf([{}, { dropsPerMl: null }])).toBeNull());
