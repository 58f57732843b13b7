/** A recipe as typed, read the way the sheet and its action read it. */
import type { KindId } from "#core/material/kinds";
import type { Densities } from "#core/measure/mass";
import { mg } from "#core/measure/exact";
import { describe, expect, it } from "vitest";
import { isBlank, readWritten, type LineText, type MaterialChoice } from "./written.ts";

const material = (id: number, name: string, kind: KindId, densities: Densities = {}, pieceMg: number | null = null): MaterialChoice => ({
  id,
  name,
  kind,
  densities,
  dropsPerMl: null,
  pieceMg: pieceMg === null ? null : mg(pieceMg),
});
const SHELF = [
  material(1, "Beeswax", "wax", { pellets: 480, block: 960 }),
  material(2, "Sunflower oil", "oil", { liquid: 915 }),
  material(3, "Nettle, dried", "herb"),
  material(4, "Tin", "container"),
  material(5, "Capsules", "antioxidant", { liquid: 950 }, 350),
];
const line = (materialName: string, entered: string, form = ""): LineText => ({ material: materialName, entered, form });
const recipe = (
  lines: LineText[],
  over: Partial<{ makes: string; fill: string; packaging: { material: string; pieces: string }[] }> = {},
) => readWritten({ lines, packaging: [], makes: "", fill: "60 g", ...over }, SHELF);
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

describe("one unit", () => {
  it.each([
    ["60 g", 60_000],
    ["2 oz", 56_699],
    ["4.5", 4_500],
  ])("filled with %s", (fill, weight) => expect(recipe([line("Beeswax", "20 g")], { fill }).fill).toEqual({ ok: true, value: weight }));
  it("says what is missing", () => {
    const empty = recipe([line("Beeswax", "20 g")], { fill: "" }).fill;
    expect(empty.ok ? null : empty.problem.say).toMatch(/what one unit is filled with/);
    expect(recipe([line("Beeswax", "20 g")], { fill: "2 cups" }).fill.ok).toBe(false);
  });
  it("packaging: known and whole, or marked", () => {
    const { packaging } = recipe([line("Beeswax", "20 g")], {
      packaging: [
        { material: "tin", pieces: "1" },
        { material: "Tin", pieces: "" },
        { material: "Tin", pieces: "1.5" },
        { material: "Tin", pieces: "0" },
        { material: "Crate", pieces: "1" },
        { material: "", pieces: "3" },
      ],
    });
    expect(packaging.map((p) => [p.material?.id ?? null, p.pieces])).toEqual([
      [4, 1],
      [4, 1],
      [4, null],
      [4, null],
      [null, 1],
    ]);
  });
});
