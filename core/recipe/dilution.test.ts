/** Scent in a pot, worked out by hand; every ceiling and limit from memory, as the library says itself. */
import { describe, expect, it } from "vitest";
import { libraryChoice, libraryEntry } from "../material/library.ts";
import { mg } from "../measure/exact.ts";
import { byNotes, byOils, notesOf, readParts } from "../scent/blend.ts";
import type { JudgedLine } from "./judge/judgement.ts";
import { blendWeights } from "./judge/scent.ts";
import { afterSpill, mostInPot, mostOn, scentOf, type ScentLine } from "../scent/dilution.ts";
import { readWritten } from "./written.ts";

describe("dilution, by hand", () => {
  // 3 g lavender and 1 g clove in 400 g: 1 % together, clove 0.25 % of the whole and a quarter of the blend. Clove's 0.5 % allows 2 % blend.
  const oil = (name: string, libraryKey: string, weight: number, over: Partial<ScentLine> = {}): ScentLine => ({
    ...{ name, libraryKey, weight: mg(weight), lots: [], short: false },
    ...over,
  });
  const blend = [oil("Lavender", "eo-lavender", 3000), oil("Clove", "eo-clove-bud", 1000)];
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
      { share: 0.02, by: { kind: "oil", name: "Clove", ceiling: { share: 0.005, lot: null } } },
    ]);
    expect(scentOf(blend, mg(400_000), "lips", "anyone")!.most).toEqual({ share: 0.01, by: { kind: "use" } });
  });
  it("a lot's own paper stands above the usual ceiling, stricter or not; of several lots the strictest counts; nothing is nothing", () => {
    const most = (short: boolean, ...ppm: (number | null)[]) => {
      const lots = ppm.map((scentMostPpm, i) => ({ number: `C${i}`, scentMostPpm }));
      const s = scentOf([blend[0]!, { ...blend[1]!, lots, short }], mg(400_000), "spot", "anyone")!;
      return [s.oils[1]!.ceiling, Math.round(s.most.share * 1e6) / 1e6];
    };
    expect(most(false)).toEqual([{ share: 0.005, lot: null }, 0.02]);
    expect(most(false, 2_000)).toEqual([{ share: 0.002, lot: "C0" }, 0.008]);
    expect(most(false, 8_000)).toEqual([{ share: 0.008, lot: "C0" }, 0.032]);
    expect(most(false, 8_000, null)).toEqual([{ share: 0.005, lot: null }, 0.02]);
    expect(most(false, 8_000, 3_000)).toEqual([{ share: 0.003, lot: "C1" }, 0.012]);
    // What has to be bought besides has a paper nobody has seen.
    expect(most(true, 8_000)).toEqual([{ share: 0.005, lot: null }, 0.02]);
    expect(most(true, 2_000)).toEqual([{ share: 0.002, lot: "C0" }, 0.008]);
    expect(most(false, 1_000_000)[0]).toEqual({ share: 1, lot: "C0" });
    expect(most(false, 0)).toEqual([{ share: 0, lot: "C0" }, 0]);
    expect(scentOf([{ ...blend[0]!, lots: [{ number: "L", scentMostPpm: 1_000 }] }], mg(400_000), "spot", "anyone")!.most).toEqual({
      share: 0.001,
      by: { kind: "oil", name: "Lavender", ceiling: { share: 0.001, lot: "L" } },
    });
  });
  it("shares of each sun limit add up", () => {
    // Bergamot 0.2 % of 0.4 % and lemon 1 % of 2 %: half and half, just at the limit.
    const s = scentOf([oil("Bergamot", "eo-bergamot", 200), oil("Lemon", "eo-lemon", 1000)], mg(100_000), "spot", "anyone")!;
    expect(s.sun).toBeCloseTo(1, 9);
    expect(s.most.by.kind).toBe("sun");
    expect(s.most.share).toBeCloseTo(0.012, 9);
  });
  it("one oil in two lines is one oil; a quarter for children; none is none", () => {
    expect(scentOf([...blend, ...blend], mg(400_000), "hands", "anyone")!.oils.map((o) => o.share)).toEqual([0.015, 0.005]);
    expect(mostOn("hands", "children")).toBeCloseTo(0.0075, 9);
    expect(scentOf([], mg(400_000), "hands", "anyone")).toBeNull();
  });
  it("a blend by notes, oil by oil, or as it stands, to a share of the pot and never over it", () => {
    const oils = [
      { name: "Orange", note: "top" as const, weight: 900 },
      { name: "Lemon", note: "top" as const, weight: 300 },
      { name: "Lavender", note: "middle" as const, weight: 500 },
      { name: "Cedarwood", note: "base" as const, weight: 10 },
    ];
    // 3 : 2 : 1 of six; the two tops stay three to one.
    expect(byNotes(oils, [3, 2, 1]).map((s) => Math.round(s * 1e6))).toEqual([375_000, 125_000, 333_333, 166_667]);
    expect(byOils([3, 1])).toEqual([0.75, 0.25]);
    expect(notesOf(oils.slice(2))).toEqual(["middle", "base"]);
    const lines = oils.map((o, row) => ({ row, weight: mg(o.weight) }) as JudgedLine);
    // 98.29 g of the rest; 2 % of the whole is 2.0059 g of blend, of which each oil is rounded down.
    expect(blendWeights({ total: mg(100_000) }, lines, 0.02, byNotes(oils, [3, 2, 1]))).toEqual([751, 250, 668, 334]);
    expect(blendWeights({ total: mg(100_000) }, lines, 0.02)).toEqual([1055, 351, 586, 11]);
  });
  it.each([
    ["3 : 2 : 1", 3, [3, 2, 1]],
    ["3:2,5:1", 3, [3, 2.5, 1]],
    ["½ / 1", 2, [0.5, 1]],
    ["2–1", 2, [2, 1]],
    ["3 : 2", 3, null],
    ["3 : 0 : 1", 3, null],
    ["3 : -2 : 1", 3, null],
    ["a : b", 2, null],
    ["", 2, null],
    ["1e99 : 1", 2, null],
  ] as const)("proportions as they are said: %s", (text, many, parts) => {
    const read = readParts(text, many);
    expect(read.ok ? read.value : null).toEqual(parts);
  });
  it("a spill: 90 drops for 30 makes the others three times as many", () => {
    expect(afterSpill([mg(1330), mg(660), mg(220)], 0, mg(3990))).toEqual([3990, 1980, 660]);
    expect(mostInPot(mg(99_000), 0.01)).toBe(1000);
  });
});
