/**
 * The ratios makers carry in their heads, each written as makers say it, and the make-up each product usually has.
 * All of it is common practice, no source.
 */
import { describe, expect, it } from "vitest";
import { KINDS, type KindId } from "../material/kinds.ts";
import { mg, type Mg } from "../measure/exact.ts";
import type { Form, MassFacts } from "../measure/mass.ts";
import { parseAmount } from "../measure/parse.ts";
import { weighRecipe } from "./lines.ts";

const facts = (id: KindId, form: Form): MassFacts => ({ name: KINDS[id].label, form, densities: KINDS[id].start });
const WAX = facts("wax", "pellets");
const BLOCK = facts("wax", "block");
const OIL = facts("oil", "liquid");
const BUTTER = facts("softButter", "block");
const HARD = facts("hardButter", "block");

/** Shares of the lines, in per cent to a tenth. */
function shares(lines: readonly (readonly [string, MassFacts])[], makes: Mg | null = null): number[] {
  const read = lines.map(([text, f]) => {
    const amount = parseAmount(text);
    if (!amount.ok) throw new Error(amount.problem.say);
    return { amount: amount.value, facts: f };
  });
  const { lines: out, problem } = weighRecipe(read, makes);
  if (problem) throw new Error(problem.say);
  return out.map((l) => (l.ok ? Math.round(l.share * 1000) / 10 : NaN));
}

describe("salves", () => {
  it("1 oz of wax to 1 cup of oil is the usual salve, 11 to 13 per cent", () => {
    const [wax] = shares([
      ["1 oz", WAX],
      ["1 cup", OIL],
    ]);
    expect(wax).toBeGreaterThanOrEqual(11);
    expect(wax).toBeLessThanOrEqual(13);
  });
  it("¼ cup of wax pellets to 1 cup of oil is the same salve: a quarter cup of pellets weighs an ounce", () => {
    const [byCup] = shares([
      ["¼ cup", WAX],
      ["1 cup", OIL],
    ]);
    const [byOunce] = shares([
      ["1 oz", WAX],
      ["1 cup", OIL],
    ]);
    expect(Math.abs(byCup! - byOunce!)).toBeLessThanOrEqual(0.3);
  });
  it("the same quarter cup of melted or solid wax is a firm salve instead", () => {
    const [solid] = shares([
      ["¼ cup", BLOCK],
      ["1 cup", OIL],
    ]);
    expect(solid).toBeGreaterThan(19);
    expect(solid).toBeLessThan(22);
  });
  it("14 g of wax to 100 g of oil is 12.3 per cent", () => {
    expect(
      shares([
        ["14 g", WAX],
        ["100 g", OIL],
      ]),
    ).toEqual([12.3, 87.7]);
  });
});

describe("balms, bars and butters", () => {
  it("equal parts of wax, coconut oil and butter", () => {
    expect(
      shares(
        [
          ["1 part", WAX],
          ["1 part", BUTTER],
          ["1 part", HARD],
        ],
        mg(300_000),
      ),
    ).toEqual([33.3, 33.3, 33.3]);
  });
  it("1 part wax, 1 part butter, 2 parts oil is within what a lip balm usually is", () => {
    const [wax, butter, oil] = shares(
      [
        ["1 part", WAX],
        ["1 part", BUTTER],
        ["2 parts", OIL],
      ],
      mg(400_000),
    );
    expect([wax, butter, oil]).toEqual([25, 25, 50]);
    expect(wax).toBeGreaterThanOrEqual(20);
    expect(wax).toBeLessThanOrEqual(28);
  });
  it("8 : 8 : 6.5 of coconut, butters and wax is a lotion bar, 25 to 33 per cent wax", () => {
    const [, , wax] = shares(
      [
        ["8 parts", BUTTER],
        ["8 parts", HARD],
        ["6.5 parts", BLOCK],
      ],
      mg(450_000),
    );
    expect(wax).toBe(28.9);
  });
  it("2.5 oz of oil to 1 oz of wax, ½ oz each of coconut and shea: a pot of lip balm, softer than with 1.5 oz of oil", () => {
    const pot = (oil: string): number =>
      shares([
        [oil, OIL],
        ["1 oz", WAX],
        ["½ oz", BUTTER],
        ["½ oz", BUTTER],
      ])[1]!;
    expect(pot("2.5 oz")).toBe(22.2);
    expect(pot("1.5 oz")).toBe(28.6);
  });
  it("tallow and infused oil one to one with about one part of wax in seventeen", () => {
    expect(
      shares(
        [
          ["8 parts", BUTTER],
          ["8 parts", OIL],
          ["1 part", WAX],
        ],
        mg(340_000),
      )[2],
    ).toBe(5.9);
  });
  it("2 : 1 : 1 of shea, jojoba and coconut by weight", () => {
    expect(
      shares(
        [
          ["2 parts", BUTTER],
          ["1 part", OIL],
          ["1 part", BUTTER],
        ],
        mg(600_000),
      ),
    ).toEqual([50, 25, 25]);
  });
});
