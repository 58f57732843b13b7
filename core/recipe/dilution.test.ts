/** Scent in a pot, worked out by hand; every ceiling and limit from memory, as the library says itself. */
import { describe, expect, it } from "vitest";
import { libraryChoice, libraryEntry } from "../material/library.ts";
import { mg } from "../measure/exact.ts";
import { afterSpill, mostInPot, mostOn, scentOf } from "../scent/dilution.ts";
import { readWritten } from "./written.ts";

describe("dilution, by hand", () => {
  // 3 g lavender and 1 g clove in 400 g: 1 % together, clove 0.25 % of the whole and a quarter of the blend. Clove's 0.5 % allows 2 % blend.
  const blend = [
    { name: "Lavender", libraryKey: "eo-lavender", weight: mg(3000) },
    { name: "Clove", libraryKey: "eo-clove-bud", weight: mg(1000) },
  ];
  // Light, thick and heavy: 40 drops of sweet orange are 2 mL of 0.845, 30 of castor at 15 to the mL are 2 mL of 0.961, 20 of clove 1 mL of 1.05.
  it.each([
    ["Sweet orange essential oil", "eo-orange", "40 drops", 1.69],
    ["Castor oil", "castor", "30 drops", 1.922],
    ["Clove bud essential oil", "eo-clove-bud", "20 drops", 1.05],
  ])("drops to per cent: %s", (name, key, drops, grams) => {
    const shelf = [key, "olive"].map((k, i) => libraryChoice(libraryEntry(k)!, i));
    const lines = [
      { material: name, entered: drops, form: "" },
      { material: shelf[1]!.name, entered: `${Math.round((100 - grams) * 1000)} mg`, form: "" },
    ];
    const [line] = readWritten({ lines, sizes: [], makes: "", overrun: "" }, shelf).lines;
    expect(line!.out).toMatchObject({ ok: true, weight: Math.round(grams * 1000) });
    expect(line!.out.ok && line!.out.share).toBeCloseTo(grams / 100, 4);
  });
  it("a blend's most is its strictest oil's, in the proportions it has", () => {
    const s = scentOf(blend, mg(400_000), "hands", "anyone")!;
    expect([s.share, s.oils[1]!.share, s.oils[1]!.part, s.most]).toEqual([
      0.01,
      0.0025,
      0.25,
      { share: 0.02, by: { kind: "oil", name: "Clove", ceiling: 0.005 } },
    ]);
    expect(scentOf(blend, mg(400_000), "lips", "anyone")!.most).toEqual({ share: 0.01, by: { kind: "use" } });
  });
  it("shares of each sun limit add up", () => {
    // Bergamot 0.2 % of 0.4 % and lemon 1 % of 2 %: half and half, just at the limit.
    const s = scentOf(
      [
        { name: "Bergamot", libraryKey: "eo-bergamot", weight: mg(200) },
        { name: "Lemon", libraryKey: "eo-lemon", weight: mg(1000) },
      ],
      mg(100_000),
      "spot",
      "anyone",
    )!;
    expect(s.sun).toBeCloseTo(1, 9);
    expect(s.most.by.kind).toBe("sun");
    expect(s.most.share).toBeCloseTo(0.012, 9);
  });
  it("one oil in two lines is one oil; a quarter for children; none is none", () => {
    expect(scentOf([...blend, ...blend], mg(400_000), "hands", "anyone")!.oils.map((o) => o.share)).toEqual([0.015, 0.005]);
    expect(mostOn("hands", "children")).toBeCloseTo(0.0075, 9);
    expect(scentOf([], mg(400_000), "hands", "anyone")).toBeNull();
  });
  it("a spill: 90 drops for 30 makes the others three times as many", () => {
    expect(afterSpill([mg(1330), mg(660), mg(220)], 0, mg(3990))).toEqual([3990, 1980, 660]);
    expect(mostInPot(mg(99_000), 0.01)).toBe(1000);
  });
});
