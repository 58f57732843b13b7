/** The starter library against published tables where there are some; the ranges are quoted from memory, as the library says itself. */
import { describe, expect, it } from "vitest";
import { depthMm, holds, roundCapacityMl, weightHeld } from "./container.ts";
import { headspace } from "../recipe/sizes.ts";
import { inciText, usName } from "../label/inci.ts";
import { KINDS } from "./kinds.ts";
import { LIBRARY, libraryEntry, originsOf, withLids } from "./library.ts";
import { isFelt } from "./senses.ts";
import { SOURCES } from "./library/entry.ts";

/** Codex Alimentarius CXS 210-1999, Table 2: relative density ranges of named vegetable oils; quoted from memory. */
const CODEX_210: Record<string, readonly [number, number]> = {
  peanut: [912, 920],
  babassu: [914, 917],
  "coconut-virgin": [908, 921],
  "coconut-refined": [908, 921],
  cottonseed: [918, 926],
  grapeseed: [920, 926],
  corn: [917, 925],
  "palm-kernel": [899, 914],
  rapeseed: [910, 920],
  "rice-bran": [910, 929],
  safflower: [922, 927],
  "safflower-oleic": [910, 919],
  sesame: [915, 924],
  soybean: [919, 925],
  sunflower: [918, 923],
  "sunflower-oleic": [909, 915],
};
/** Codex Alimentarius CXS 33-1981: relative density of olive oils; quoted from memory. */
const CODEX_33: readonly [number, number] = [910, 916];

const melted = (key: string): number => {
  const d = libraryEntry(key)!.densities;
  return (d.liquid ?? d.melted)!;
};

describe("densities", () => {
  it.each(Object.entries(CODEX_210))("%s lies within CXS 210-1999, Table 2 (range from memory)", (key, [low, high]) => {
    expect(libraryEntry(key)!.densitySource).toBe("codex210");
    expect(melted(key)).toBeGreaterThanOrEqual(low);
    expect(melted(key)).toBeLessThanOrEqual(high);
  });
  it("olive oil lies within CXS 33-1981 (range from memory)", () => {
    expect(melted("olive")).toBeGreaterThanOrEqual(CODEX_33[0]);
    expect(melted("olive")).toBeLessThanOrEqual(CODEX_33[1]);
  });
  it("nothing claims a table that isn't checked here", () => {
    const claimed = LIBRARY.filter((e) => e.densitySource !== "memory").map((e) => e.key);
    expect(claimed.sort()).toEqual([...Object.keys(CODEX_210), "olive"].sort());
  });
  it("loose forms weigh less than solid ones: a cup of pellets is about half the wax of a block (common practice, no source)", () => {
    for (const e of LIBRARY.filter((x) => x.kind === "wax")) {
      expect(e.densities.pellets! / e.densities.block!).toBeCloseTo(0.5, 1);
      expect(e.densities.grated!).toBeLessThan(e.densities.pellets!);
    }
  });
});

describe("the library", () => {
  it("every scent has its note, every fat its feel and smell, and nothing else has any; what is said is said of what there is", () => {
    for (const e of LIBRARY) {
      expect([e.key, e.scentNote !== ""]).toEqual([e.key, e.kind === "essentialOil"]);
      expect([e.key, e.feel !== "", e.smell !== ""]).toEqual([e.key, isFelt(e), isFelt(e)]);
    }
    expect(["eo-lemon", "eo-lavender", "eo-vetiver"].map((k) => libraryEntry(k)!.scentNote)).toEqual(["top", "middle", "base"]);
    expect(["jojoba", "castor"].map((k) => libraryEntry(k)!.feel)).toEqual(["light", "rich"]);
  });
  it("has at least 120 materials, each named once, with every figure its kind is measured by", () => {
    expect(LIBRARY.length).toBeGreaterThanOrEqual(120);
    expect(new Set(LIBRARY.map((e) => e.key)).size).toBe(LIBRARY.length);
    expect(new Set(LIBRARY.map((e) => e.name.toLowerCase())).size).toBe(LIBRARY.length);
    for (const e of LIBRARY) {
      if (KINDS[e.kind].measured === "count") continue;
      for (const form of Object.keys(e.densities)) expect(KINDS[e.kind].forms, `${e.key} ${form}`).toContain(form);
      expect(Object.keys(e.densities).length, e.key).toBeGreaterThan(0);
      expect(e.inci, e.key).not.toBe("");
      // Honey and glycerine are the heaviest there is in a kitchen.
      for (const d of Object.values(e.densities)) expect(d >= 40 && d <= (e.kind === "watery" ? 1450 : 1100), `${e.key} ${d}`).toBe(true);
      expect(e.keepsSealed! >= e.keepsOpened!, e.key).toBe(true);
      if (e.melts) expect(e.melts[0] < e.melts[1], e.key).toBe(true);
    }
  });
  it("containers and moulds hold something, weigh something and have the lid they name", () => {
    const holding = LIBRARY.filter((e) => e.kind === "container" || e.kind === "mould");
    expect(holding.length).toBeGreaterThan(25);
    for (const e of holding) {
      // The size in its name is what is put in; there is a little room above it, and a mould is filled to the brim.
      const ml = Number(/(\d+) mL/.exec(e.name)![1]);
      expect(e.brimMl! / ml, e.key).toBeGreaterThanOrEqual(e.kind === "mould" ? 1 : 1.03);
      expect(e.brimMl! / ml, e.key).toBeLessThanOrEqual(1.25);
      expect(e.emptyG! > 0 && e.emptyG! < 200, e.key).toBe(true);
      expect(e.madeOf, e.key).not.toBe("");
      if (e.lid) expect(libraryEntry(e.lid)?.kind, e.key).toBe("closure");
    }
    expect(withLids(["jar-60", "jar-60", "tin-60", "gone"]).map((e) => e.key)).toEqual(["jar-60", "tin-60", "lid-53"]);
  });
  it("names ingredients by the European Union's list, and says what the United States call otherwise (from memory)", () => {
    const eu = (key: string) => libraryEntry(key)!.inci;
    expect(["beeswax-yellow", "tallow-beef", "water", "honey", "eo-spearmint", "eo-geranium"].map(eu)).toEqual([
      "Cera Alba",
      "Adeps Bovis",
      "Aqua",
      "Mel",
      "Mentha Viridis Leaf Oil",
      "Pelargonium Graveolens Flower Oil",
    ]);
    expect(["beeswax-yellow", "tallow-beef", "water", "honey", "olive"].map(usName)).toEqual(["Beeswax", "Tallow", "Water", "Honey", null]);
    // No entry of the library has a name of theirs by itself.
    const theirs = LIBRARY.flatMap((e) => usName(e.key) ?? []);
    expect(LIBRARY.filter((e) => theirs.includes(e.inci)).map((e) => e.key)).toEqual([]);
    expect([inciText("Mel", "honey"), inciText("Honey", "honey"), inciText("", "honey")]).toEqual(["Mel (EU), Honey (US)", "Honey", ""]);
  });
  it("melts in the order of the trade: wax, hard butters, soft ones, coconut (common practice, no source)", () => {
    const from = (key: string): number => libraryEntry(key)!.melts![0];
    const order = ["carnauba", "candelilla", "beeswax-yellow", "kokum", "cocoa-raw", "coconut-virgin"].map(from);
    expect([...order].sort((a, b) => b - a)).toEqual(order);
  });
  it("says of each figure where it comes from, and shows a maker's own as theirs", () => {
    const jojoba = libraryEntry("jojoba")!;
    const mine = {
      densities: { liquid: 870 },
      meltFrom: null,
      meltTo: null,
      keepsSealed: jojoba.keepsSealed,
      keepsOpened: 12,
      dropsPerMl: null,
      brimMl: null,
      emptyMg: null,
    };
    expect(originsOf(mine, jojoba)).toEqual([
      { figure: "density, liquid", source: "yours" },
      { figure: "keeps unopened", source: "from memory" },
      { figure: "keeps once opened", source: "yours" },
    ]);
    const olive = libraryEntry("olive")!;
    expect(originsOf({ ...mine, densities: olive.densities }, olive)[0]!.source).toBe(SOURCES.codex33);
    expect(originsOf({ ...mine, densities: { liquid: 900 } }, null)[0]!.source).toBe("yours");
    const tin = { ...mine, densities: {}, keepsSealed: null, keepsOpened: null, brimMl: 67, emptyMg: 13_500 };
    expect(originsOf(tin, libraryEntry("tin-60"))).toEqual([
      { figure: "holds, to the brim", source: "from memory" },
      { figure: "weighs empty", source: "yours" },
    ]);
  });
});

describe("containers", () => {
  it("a lip tube takes 4.25 to 4.7 g of what a lip balm weighs (from memory)", () => {
    for (const key of ["tube-lip", "tube-lip-oval"]) {
      const { ml } = holds({ ...libraryEntry(key)!, usableMl: null, innerMm: null, fillMm: null })!;
      for (const density of [900, 920])
        expect([key, weightHeld(ml, density) >= 4_250 && weightHeld(ml, density) <= 4_700]).toEqual([key, true]);
    }
  });
  it("a round tin holds π d² h / 4", () => {
    expect(roundCapacityMl(60, 25)).toBeCloseTo(70.686, 3);
    // A cylinder as wide as high, of one litre: d³ = 4/π dm³.
    const d = Math.cbrt(4 / Math.PI) * 100;
    expect(roundCapacityMl(d, d)).toBeCloseTo(1000, 9);
    expect(weightHeld(70.686, 900)).toBe(63_617);
  });
  it("a measured capacity goes before its size, its size before its brim", () => {
    const none = { brimMl: null, usableMl: null, innerMm: null, fillMm: null };
    expect(holds(none)).toBeNull();
    expect(holds({ ...none, brimMl: 100 })).toEqual({ ml: 95, by: "its brim" });
    expect(holds({ ...none, brimMl: 100, innerMm: 60, fillMm: 25 })?.by).toBe("its size");
    expect(holds({ brimMl: 100, usableMl: 88, innerMm: 60, fillMm: 25 })).toEqual({ ml: 88, by: "measured" });
  });
  it("how deep it stands is the cylinder the other way round, and what stays free is said as far as it was measured", () => {
    for (const [ml, mm] of [
      [70.686, 60],
      [12, 27],
    ] as const)
      expect(roundCapacityMl(mm, depthMm(ml, mm))).toBeCloseTo(ml, 9);
    const none = { brimMl: null, usableMl: null, innerMm: null, fillMm: null };
    const said = [
      none,
      { ...none, usableMl: 70 },
      { ...none, brimMl: 80 },
      { ...none, brimMl: 80, innerMm: 60, fillMm: 25 },
      { ...none, brimMl: 60 },
    ];
    expect(said.map((c) => headspace(66, c))).toEqual([
      "",
      "66 mL as it is filled, of the 70 mL it holds",
      "66 mL as it is filled, 14 mL free below the brim",
      "66 mL as it is filled, 23 mm deep, 14 mL free below the brim",
      "66 mL as it is filled, of the 57 mL it holds",
    ]);
  });
});
