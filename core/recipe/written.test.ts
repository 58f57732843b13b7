/** A recipe as typed, read the way the sheet and its action read it. */
import type { KindId } from "../material/kinds.ts";
import type { Bottle } from "../measure/drops.ts";
import type { Densities } from "../measure/mass.ts";
import { mg } from "../measure/exact.ts";
import { describe, expect, it } from "vitest";
import type { Fill } from "./sizes.ts";
import { expectWording } from "#test/core/said/expectWording";
import { isBlank, problemsOf, readWritten, type LineText, type MaterialChoice, type SizeText } from "./written.ts";

const material = (id: number, name: string, kind: KindId, densities: Densities = {}, pieceMg: number | null = null): MaterialChoice => ({
  id,
  name,
  kind,
  densities,
  dropsPerMl: null,
  pieceMg: pieceMg === null ? null : mg(pieceMg),
  ...{ brimMl: null, usableMl: kind === "container" ? 80 : null, innerMm: null, fillMm: null },
  ...{ libraryKey: null, meltFrom: null, meltTo: null, makeup: [], cautions: [], allergen: "", keepsSealed: null, scentNote: "" },
});
const SHELF = [
  material(1, "Beeswax", "wax", { pellets: 480, block: 960, melted: 860 }),
  material(2, "Sunflower oil", "oil", { liquid: 915 }),
  material(3, "Nettle, dried", "herb"),
  material(4, "Tin", "container"),
  material(6, "Box", "box"),
  material(7, "Mystery wax", "wax"),
  material(5, "Capsules", "antioxidant", { liquid: 950 }, 350),
];
const line = (materialName: string, entered: string, form = ""): LineText => ({ material: materialName, entered, form });
const recipe = (lines: LineText[], { makes = "", overrun = "", ...size }: Partial<{ makes: string; overrun: string } & SizeText> = {}) => {
  const texts = { lines, makes, overrun, sizes: [{ id: "", container: "", fill: "60 g", minutes: "2", away: "", packaging: [], ...size }] };
  const read = readWritten(texts, SHELF);
  return { ...read, problems: problemsOf(read, texts) };
};
/** Weight of a line in mg, or the code of its problem. */
const outOf = (r: ReturnType<typeof recipe>): (number | string)[] => r.lines.map((l) => (l.out.ok ? l.out.weight : l.out.problem.code));

describe("lines", () => {
  it("finds materials whatever the case, in the form that is said or the usual one", () => {
    const r = recipe([line("beeswax", "1/2 cup", "block"), line("BEESWAX", "1/2 cup"), line(" Sunflower oil ", "100 g")]);
    expect(r.lines.map((l) => [l.material?.id, l.form])).toEqual([
      [1, "block"],
      [1, "pellets"],
      [2, "liquid"],
    ]);
    expect(outOf(r)[0]).toBe(2 * (outOf(r)[1] as number));
    expect(r.total).toBe(outOf(r).reduce((a: number, w) => a + (w as number), 0));
  });
  it("drops know the bottle on the shelf", () => {
    const texts = { lines: [line("Sunflower oil", "60 drops")], makes: "", overrun: "", sizes: [] };
    const dripped = (bottles: Bottle[]) => readWritten(texts, [{ ...SHELF[1]!, lots: bottles }]).lines[0]!.dripped;
    expect([dripped([]), dripped([{ dropsPerMl: 25 }])]).toMatchObject([
      { ml: "2 mL", said: false },
      { ml: "2.4 mL", said: true },
    ]);
  });
  it("a form the material hasn't got falls back to its usual one", () => {
    expect(recipe([line("Sunflower oil", "1 cup", "pellets")]).lines[0]!.form).toBe("liquid");
  });
  it("a bare number is grams", () => expect(outOf(recipe([line("Beeswax", "12.5")]))).toEqual([12_500]));
  it("pieces count where a piece has a weight", () => {
    expect(outOf(recipe([line("Capsules", "4 pcs"), line("Beeswax", "4 pcs")]))).toEqual([1400, "wrongKind"]);
  });
  it("shows the other reading of oz for what pours", () => {
    const [oil, wax] = recipe([line("Sunflower oil", "4 oz"), line("Beeswax", "4 oz")]).lines;
    expect(oil!.asFluid).toBe(108_239);
    expect(wax!.asFluid).toBeNull();
  });
  it.each<[LineText, string, "material" | "entered"]>([
    [line("Stardust", "5 g"), "unknown", "material"],
    [line("", "5 g"), "unknown", "material"],
    [line("Tin", "1 pc"), "counted", "material"],
    [line("Beeswax", ""), "empty", "entered"],
    [line("Beeswax", "some"), "notNumber", "entered"],
    [line("Beeswax", "-4 g"), "negative", "entered"],
    [line("Beeswax", "1 cup", "grated"), "noDensity", "entered"],
    [line("Nettle, dried", "2 cups"), "noDensity", "entered"],
    [line("Sunflower oil", "0 g"), "zero", "entered"],
  ])("%j is %s, beside %s", (text, code, field) => {
    const [l] = recipe([text]).lines;
    expect(l!.out.ok ? null : l!.out.problem.code).toBe(code);
    expect(l!.field).toBe(field);
  });
  it("passes over blank lines, and one bad line spoils no other", () => {
    expect(isBlank(line(" ", ""))).toBe(true);
    expect(outOf(recipe([line("", ""), line("Stardust", "5 g"), line("Beeswax", "20 g")]))).toEqual(["blank", "unknown", 20_000]);
    expect(recipe([line("", "")]).problem?.code).toBe("noLines");
  });
});

describe("parts and per cent", () => {
  it("need to be told the batch weight, and then add up to it", () => {
    const parts = [line("Beeswax", "1 part"), line("Sunflower oil", "4 parts")];
    expect(recipe(parts).problem?.code).toBe("partsNeedWhole");
    expect(outOf(recipe(parts, { makes: "500 g" }))).toEqual([100_000, 400_000]);
    expect(outOf(recipe(parts, { makes: "1 lb" })).reduce((a: number, w) => a + (w as number), 0)).toBe(453_592);
  });
  it("a batch weight that can't be read is its own problem", () => {
    const r = recipe([line("Beeswax", "20 g")], { makes: "a lot" });
    expect(r.makes?.ok).toBe(false);
    expect(outOf(r)).toEqual([20_000]);
  });
});

describe("one size", () => {
  const WAX = [line("Beeswax", "86 g"), line("Sunflower oil", "915 g")];
  /** Weight of one unit in mg, or the code of its problem. */
  const fillOf = (r: ReturnType<typeof recipe>) => (r.sizes[0]!.fill.ok ? r.sizes[0]!.fill.value.weight : r.sizes[0]!.fill.problem.code);
  it.each([
    ["60 g", 60_000],
    ["2 oz", 56_699],
    ["4.5", 4_500],
    // 86 g of wax at 0.86 and 915 g of oil at 0.915 take 1100 mL: 0.91 g/mL.
    ["60 mL", 54_600],
    ["2 fl oz", 53_824],
  ])("filled with %s", (fill, weight) => expect(fillOf(recipe(WAX, { fill }))).toBe(weight));
  it("a container with nothing said is filled hot to what it holds, whipped lighter and cold (oils 3 % lighter at 65 °C: from memory)", () => {
    // 1000 of 1100 mL are oil: at 65 °C it takes 1000 / 0.97 mL; the wax's density is the melt's already.
    expect(fillOf(recipe(WAX, { container: "tin", fill: "" }))).toBe(Math.round((80_000 * 1001) / (1000 / 0.97 + 100)));
    expect(fillOf(recipe(WAX, { container: "tin", fill: "", overrun: "25" }))).toBe(58_240);
    expect(fillOf(recipe(WAX, { fill: "" }))).toBe("empty");
    expect(fillOf(recipe(WAX, { container: "Box", fill: "" }))).toBe("noCapacity");
  });
  it("a volume that is typed is one at room warmth, and takes more room while it is hot; the other weight is told where they differ", () => {
    const [full, typed, weighed, whipped, waxen] = [
      recipe(WAX, { container: "tin", fill: "" }),
      recipe(WAX, { container: "tin", fill: "80 mL" }),
      recipe(WAX, { container: "tin", fill: "72.8 g" }),
      recipe(WAX, { container: "tin", fill: "", overrun: "25" }),
      recipe([line("Beeswax", "86 g")], { container: "tin", fill: "" }),
    ].map((r) => (r.sizes[0]!.fill as { value: Fill }).value);
    expect([full!.weight, full!.other]).toEqual([typed!.other, typed!.weight]);
    expect(typed!.weight).toBe(72_800);
    expect(recipe(WAX, { container: "tin", fill: "80 mL" }).sizes[0]!.over).toBeNull();
    expect(recipe(WAX, { container: "tin", fill: "81 mL" }).sizes[0]!.over).not.toBeNull();
    expect(typed!.ml).toBeCloseTo((80 * 72_800) / full!.weight, 2);
    expect(weighed!.ml).toBeCloseTo(typed!.ml!, 2);
    expect([weighed!.other, whipped!.other, waxen!.other]).toEqual([null, null, null]);
    expect([full!.ml, whipped!.ml, waxen!.ml]).toEqual([80, 80, 80]);
  });
  it("a volume needs a density of everything in the pot; a weight doesn't", () => {
    const herb = [...WAX, line("Capsules", "1 pc"), line("Mystery wax", "10 g")];
    expect(fillOf(recipe(herb, { fill: "60 mL" }))).toBe("noDensity");
    expect(fillOf(recipe(herb, { fill: "60 g" }))).toBe(60_000);
  });
  it("says that more goes in than the container holds, and what an ounce by volume would be", () => {
    // 90 g at 0.883, as it is filled hot.
    expect(recipe(WAX, { container: "Tin", fill: "90 g" }).sizes[0]!.over).toBe("102 mL is more than the 80 mL Tin holds.");
    expect(recipe(WAX, { container: "Tin", fill: "70 g" }).sizes[0]!.over).toBeNull();
    expect(recipe(WAX, { fill: "2 oz" }).sizes[0]!.asFluid).toMatchObject({ label: "2 fl oz", weight: 53_824 });
  });
  it("packaging: the container and what else is known and whole; the rest is named beside its field", () => {
    const r = recipe(WAX, {
      container: "Tin",
      packaging: [
        { material: "box", pieces: "2" },
        { material: "Box", pieces: "" },
        { material: "Box", pieces: "1.5" },
        { material: "Crate", pieces: "1" },
        { material: "", pieces: "3" },
      ],
    });
    expect(r.sizes[0]!.packaging.map((p) => [p.material.id, p.pieces])).toEqual([
      [4, 1],
      [6, 2],
      [6, 1],
    ]);
    expect(r.problems.map((p) => p.field)).toEqual(["sizes.0.packaging.2.pieces", "sizes.0.packaging.3.material"]);
    expect(recipe(WAX, { container: "Crate" }).problems.map((p) => p.field)).toEqual(["sizes.0.container"]);
    expect(recipe(WAX, { away: "yes" }).problems[0]!.say).toContain("one size at least");
  });
});

it("says what is wrong beside its field, and what a sheet comes to", () => {
  const salve = [line("Beeswax", "20 g", "block"), line("Sunflower oil", "80 g")];
  const size = (over: Partial<SizeText> = {}): SizeText => ({
    id: "",
    container: "Tin",
    fill: "60 g",
    minutes: "2",
    away: "",
    packaging: [],
    ...over,
  });
  const pack = (name: string, pieces: string) => size({ packaging: [{ material: name, pieces }] });
  const shows = (lines: LineText[], sizes: SizeText[], makes = "", overrun = "") => {
    const texts = { lines, sizes, makes, overrun };
    const read = readWritten(texts, SHELF);
    return [
      JSON.stringify({ lines: lines.map((l) => `${l.entered} ${l.material}`), sizes, makes, overrun }),
      [
        read.lines.map((l) => [l.form, l.field, l.asFluid, l.out.ok ? l.out.weight : l.out.problem.code]),
        read.sizes.map((s) => [s.fill, s.asFluid?.label, s.over, s.packaging.map((p) => `${p.pieces} ${p.material.name}`)]),
        read.density,
        problemsOf(read, texts),
      ],
    ] as const;
  };
  return expectWording("workroom/recipes", [
    shows(salve, [size()]),
    shows([], []),
    shows([line(" ", " ")], [size({ away: "yes" })]),
    shows([line("", "5 g"), line(" Ghost ", "5 g"), line("Tin", "5"), line("Beeswax", ""), line("Beeswax", "0 %")], [size()]),
    shows([line("Sunflower oil", "2 oz"), line("Capsules", "3 pcs"), line("Nettle, dried", "1 g")], [size()]),
    shows([line("Mystery wax", "20 g"), line("Sunflower oil", "80 g")], [size({ fill: "60 mL" }), size({ fill: "" }), size()]),
    ...["1 part", "0 parts", "100 %", "50 %", "101 %", "0.0001 g"].flatMap((entered) =>
      ["", "100 g", "x", "2 cups", " "].map((makes) => shows([line("Sunflower oil", entered), line("Beeswax", "10 g")], [size()], makes)),
    ),
    shows([line("Sunflower oil", "60 %"), line("Beeswax", "30 %")], [size()], "100 g"),
    shows([line("Sunflower oil", "60 %"), line("Beeswax", "40 %")], [size()], "100 g"),
    shows([line("Sunflower oil", "60 g"), line("Beeswax", "40 %"), line("Mystery wax", "1 part")], [size()], "100 g"),
    shows([line("Sunflower oil", "60 g"), line("Beeswax", "39.99 %"), line("Mystery wax", "1 part")], [size()], "100 g"),
    ...["60 g", "60 mL", "2 oz", "2 fl oz", "81 g", "75 g", "0 g", "0.0001 mL", " ", "5 %", "3 pcs", "x", "20 drops"].map((fill) =>
      shows(salve, [size({ fill })]),
    ),
    ...["", " tin ", "Ghost", "Beeswax", "Box"].map((container) => shows(salve, [size({ container, fill: "" })])),
    shows(salve, [
      pack("Box", "1"),
      pack("box", ""),
      pack("Box", "0"),
      pack("Box", "1.5"),
      pack(" Ghost ", "1"),
      pack("Beeswax", "1"),
      pack(" ", "x"),
    ]),
    shows(salve, [size(), size({ fill: " 60 g ", container: " TIN " })]),
    shows(salve, [size({ away: "yes" }), size()]),
    shows(salve, [size(), size({ away: "yes" })]),
    shows(salve, [size(), size({ fill: "61 g" }), size({ container: "Box" }), size({ fill: "61 g" })]),
    ...["10", "x", "50.5"].map((overrun) => shows(salve, [size({ fill: "60 mL" })], "", overrun)),
  ]);
});
