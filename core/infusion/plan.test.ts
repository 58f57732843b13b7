/** A jar as planned on its sheet: every way of saying how much, every field that can be wrong, and what follows from the shelf. */
import { METHODS, readyDays } from "./methods.ts";
import type { Straining } from "./absorption.ts";
import { mg, micros } from "../measure/exact.ts";
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { expectWording } from "#test/core/said/expectWording";
import { lotsOf, readPlan, suggestName, waitDays, type JarMaterial, type PlanTexts, type JarLot } from "./plan.ts";

const DAY = "2026-11-25";
const material = (id: number, name: string, over: Partial<JarMaterial> = {}): JarMaterial => ({
  id,
  name,
  kind: "herb",
  densities: { dried: 60 },
  dropsPerMl: null,
  pieceMg: null,
  cautions: [],
  keepsSealed: 24,
  oilKept: null,
  ...over,
});
const lot = (id: number, of: number, grams: number, over: Partial<JarLot> = {}): JarLot => ({
  id,
  of,
  number: `L${id}`,
  onHand: grams * 1000,
  value: micros(grams * 10_000),
  arrived: "2026-05-01",
  bestBefore: "2028-05-01",
  hold: false,
  dryness: "dry",
  grown: 2026,
  ...over,
});
const MATERIALS = [
  material(1, "Calendula petals, dried"),
  material(2, "Plantain leaf, dried", { densities: { dried: 110 }, cautions: ["foodPlant"] }),
  material(3, "Bark, dried", { densities: {} }),
  material(4, "Olive oil", { kind: "oil", densities: { liquid: 913 } }),
  material(5, "Shea butter", { kind: "softButter", densities: { block: 920, melted: 900 } }),
  material(6, "Jojoba oil", { kind: "oil", densities: { liquid: 866 } }),
];
const LOTS = [
  lot(11, 1, 100),
  lot(12, 1, 60, { bestBefore: "2027-01-01", dryness: "damp" }),
  lot(13, 1, 999, { hold: true }),
  lot(21, 2, 80),
  lot(31, 3, 80),
  lot(41, 4, 2000),
  lot(51, 5, 900),
  lot(61, 6, 250),
];
const texts = (over: Partial<PlanTexts> = {}): PlanTexts => ({
  name: "",
  method: "shelf",
  ownDays: "14",
  ownHours: "",
  day: DAY,
  wished: "",
  by: "ratio",
  oil: "500 g",
  ratio: "10",
  herbCups: "2 cups",
  share: "50",
  vessel: "",
  holds: "1 L",
  herbs: [{ material: "calendula petals, dried", lot: "11", cut: "whole", parts: "1" }],
  carriers: [{ material: "Olive oil", lot: "", parts: "1" }],
  ...over,
});
const plan = (over: Partial<PlanTexts> = {}, past: Straining[] = []) => readPlan(texts(over), MATERIALS, LOTS, past, DAY);
const problems = (over: Partial<PlanTexts>) => plan(over).problems.map((p) => p.field);
const weights = (over: Partial<PlanTexts>) => plan(over).parts.map((p) => p.qty! / 1000);
const herb = (name: string, over: object = {}) => ({ material: name, lot: "", cut: "cut", parts: "1", ...over });
const oil = (name: string, over: object = {}) => ({ material: name, lot: "", parts: "1", ...over });

describe("how much", () => {
  it("parts may be as small as they like", () => {
    const [most, least] = ["0.0003", "0.0001"];
    expect(weights({ herbs: [herb("Calendula petals, dried", { lot: "11", parts: least })] })).toEqual([50, 500]);
    const two = [oil("Olive oil", { parts: most }), oil("Jojoba oil", { parts: least })];
    expect(weights({ carriers: two })).toEqual([50, 375, 125]);
  });
  it("by weight, in any unit of oil", () => {
    expect(weights({})).toEqual([50, 500]);
    expect(weights({ oil: "1 L" })).toEqual([91.3, 913]);
    expect(weights({ oil: "16 oz", ratio: "32" })[0]).toBeCloseTo(14.175, 2);
    expect(weights({ oil: "400" })).toEqual([40, 400]);
  });
  it("by cups: the herb's loose weight, the oil's own; a bare number is cups", () => {
    const [calendula, olive] = weights({ by: "cups", herbCups: "2 cups", oil: "3 cups" });
    expect(calendula).toBeCloseTo(2 * 236.588 * 0.06, 2);
    expect(olive).toBeCloseTo(3 * 236.588 * 0.913, 2);
    expect(weights({ by: "cups", herbCups: "2 cups", oil: "3" })).toEqual([calendula, olive]);
  });
  it("by how full the jar is, with less headspace to fill when it is heated", () => {
    expect(weights({ by: "fill", share: "50 %" })[0]).toBe(30);
    expect(weights({ by: "fill", share: "50", method: "cooker" })[1]!).toBeLessThan(weights({ by: "fill", share: "50" })[1]!);
  });
  it("all of the lot in hand, one herb or several by what is there of each", () => {
    expect(weights({ by: "lot", ratio: "8" })).toEqual([100, 800]);
    const blend = { by: "lot", ratio: "5", herbs: [herb("Calendula petals, dried", { lot: "11" }), herb("Plantain leaf, dried")] };
    expect(weights(blend)).toEqual([100, 80, 900]);
  });
  it("a blend by its parts, and two oils by theirs", () => {
    expect(
      weights({
        herbs: [herb("Calendula petals, dried", { lot: "11", parts: "3" }), herb("Plantain leaf, dried", { parts: "1" })],
        carriers: [oil("Olive oil", { parts: "2" }), oil("Jojoba oil", { parts: "0.5" })],
      }),
    ).toEqual([37.5, 12.5, 400, 100]);
  });
  it("whatever is typed, parts never come to more or less than the whole", () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 1500 }),
        fc.integer({ min: 1, max: 60 }),
        fc.integer({ min: 1, max: 9 }),
        (grams, ratio, parts) => {
          const p = plan({
            oil: `${grams} g`,
            ratio: String(ratio),
            herbs: [herb("Calendula petals, dried", { lot: "11", parts: String(parts) }), herb("Plantain leaf, dried")],
          });
          const [a, b, o] = p.parts.map((x) => x.qty!);
          expect(o).toBe(grams * 1000);
          expect(a! + b!).toBe(p.amounts!.herb);
          expect(p.expected!).toBeLessThanOrEqual(o!);
        },
      ),
    );
  });
});

describe("from the shelf", () => {
  it("lots stand use-first, and one on hold isn't offered", () => {
    expect(lotsOf(LOTS, 1).map((l) => l.number)).toEqual(["L12", "L11"]);
    expect(plan({ herbs: [herb("Calendula petals, dried")] }).parts[0]!.lot.number).toBe("L12");
    expect(problems({ herbs: [herb("Calendula petals, dried", { lot: "13" })] })).toEqual(["herbs.0.lot"]);
    expect(problems({ herbs: [herb("Calendula petals, dried", { lot: "41" })] })).toEqual(["herbs.0.lot"]);
  });
  it("more than a lot has is said beside it with how much is short, and then nothing is costed", () => {
    const p = plan({ oil: "3 kg", ratio: "50" });
    expect(p.problems).toMatchObject([{ field: "carriers.0.lot", say: "Lot L41 has 2\u202f000 g, 1\u202f000 g less than this takes." }]);
    expect(p.cost).toBeNull();
  });
  it("costs what the very lots cost", () => {
    // Every lot here cost 0.01 a gram.
    expect(plan().cost).toBe(5_500_000);
  });
  it("what the herb keeps comes from the maker's figure, own strainings, or common practice", () => {
    expect(plan().parts[0]!.keeping).toMatchObject({ from: "common practice", perGram: 3 });
    expect(plan().expected).toBe(350_000);
    const past = [{ materialId: 1, cut: "whole" as const, herb: mg(100_000), kept: mg(400_000), pressed: false }];
    expect(plan({}, past).expected).toBe(300_000);
    const own = readPlan(texts(), [{ ...MATERIALS[0]!, oilKept: 1 }, ...MATERIALS.slice(1)], LOTS, past, DAY);
    expect(own.expected).toBe(450_000);
  });
  it("warns from the facts of the very lots chosen", () => {
    // Petals stand high in any jar; of that below.
    const codes = (over: Partial<PlanTexts>) =>
      plan(over)
        .warnings.filter((w) => w.code !== "uncovered")
        .map((w) => `${w.code} ${w.severity}`);
    expect(codes({})).toEqual([]);
    expect(codes({ herbs: [herb("Calendula petals, dried", { lot: "12" })] })).toEqual(["wet reason"]);
    expect(codes({ herbs: [herb("Plantain leaf, dried")], oil: "100 g" })).toContain("foodPlant mind");
    expect(codes({ carriers: [oil("Shea butter")] })).toContain("solid reason");
    expect(codes({ carriers: [oil("Shea butter")], method: "plate" })).toEqual([]);
    expect(codes({ holds: "300 mL" })).toContain("overfull never");
    const uncovered = (ratio: string) => plan({ ratio }).warnings.some((w) => w.code === "uncovered");
    expect([uncovered("10"), uncovered("20")]).toEqual([true, false]);
  });
});

describe("when", () => {
  it("is ready by its method, and a wished day is well met, just met or missed", () => {
    expect(plan().ready).toEqual(readyDays(DAY, METHODS.shelf.times));
    expect(waitDays(plan())).toBe(42);
    expect(plan().suits).toBeNull();
    expect(plan({ wished: "2027-01-06" }).suits).toBe("well");
    expect(plan({ wished: "2027-01-05" }).suits).toBe("just");
    const late = plan({ wished: "2026-12-10" });
    expect(late.suits).toBe("late");
    expect(late.inTime).toEqual(["window", "alcohol", "cooker", "plate", "bath"]);
    expect(plan({ wished: "2026-12-10", method: "window" }).inTime).not.toContain("window");
  });
  it("a way of one's own takes the days one says", () => {
    expect(plan({ method: "own", ownDays: "10" }).ready).toEqual({ earliest: "2026-11-30", best: "2026-12-05", latest: "2026-12-15" });
    expect(problems({ method: "own", ownDays: "" })).toEqual(["ownDays"]);
    expect(plan({ method: "cooker", ownHours: "2–4 h" }).times).toEqual({ earliest: 2, best: 3, latest: 4 });
    expect(plan({ method: "cooker", ownHours: "2 to 4" }).ready.best).toBe(plan({}).day);
    expect(plan({ method: "cooker", ownHours: "" }).times).toEqual(METHODS.cooker.times);
    expect(plan({ method: "shelf", ownHours: "soon" }).problems).toEqual([]);
    for (const ownHours of ["4–2", "1-2-3", "soon", "0", "400"]) expect(problems({ method: "bath", ownHours })).toEqual(["ownHours"]);
    expect(problems({ method: "shelf", ownDays: "" })).toEqual([]);
  });
});

describe("slips are said beside their field", () => {
  it.each<[Partial<PlanTexts>, string[]]>([
    [{ herbs: [herb("")] }, ["herbs.0.material"]],
    [{ carriers: [oil("")] }, ["carriers.0.material"]],
    [{ herbs: [herb("Moss")] }, ["herbs.0.material"]],
    [{ herbs: [herb("Olive oil")] }, ["herbs.0.material"]],
    [{ carriers: [oil("Calendula petals, dried")] }, ["carriers.0.material"]],
    [{ herbs: [herb("Calendula petals, dried", { lot: "11", parts: "none" })] }, ["herbs.0.parts"]],
    [{ herbs: [herb("Calendula petals, dried", { lot: "11", parts: "0" })] }, ["herbs.0.parts"]],
    [{ oil: "" }, ["oil"]],
    [{ oil: "3 bushels" }, ["oil"]],
    [{ ratio: "" }, ["ratio"]],
    [{ ratio: "-3" }, ["ratio"]],
    [{ by: "cups", oil: "500 g" }, ["oil"]],
    [{ by: "cups", herbCups: "two" }, ["herbCups"]],
    [{ by: "cups", oil: "3 cups", herbs: [herb("Bark, dried", { cut: "root" })] }, ["herbCups"]],
    [{ by: "fill", holds: "" }, ["holds"]],
    [{ by: "fill", share: "120" }, ["share"]],
    [{ by: "fill", share: "" }, ["share"]],
    [{ holds: "1 kg" }, ["holds"]],
    [{ day: "2026-11-26" }, ["day"]],
    [{ day: "yesterday" }, ["day"]],
    [{ wished: "2026-02-30" }, ["wished"]],
  ])("%j: %j", (over, fields) => expect(problems(over)).toEqual(fields));
  it("an empty sheet asks for herb and oil and for nothing else", () => {
    const p = plan({ herbs: [herb("")], carriers: [oil("")] });
    expect(p.problems.map((x) => x.field)).toEqual(["herbs.0.material", "carriers.0.material"]);
    expect([p.amounts, p.expected, p.cost, p.warnings]).toEqual([null, null, null, []]);
  });
  it("a second row nobody wrote in is passed over", () => {
    expect(problems({ herbs: [...texts().herbs, herb("")] })).toEqual([]);
  });
});

describe("the name", () => {
  it.each([
    [["Calendula petals, dried"], "Olive oil", "Calendula petals in olive oil"],
    [
      ["Calendula petals, dried", "Plantain leaf, dried"],
      "Sunflower oil, high oleic",
      "Calendula petals and plantain leaf in sunflower oil",
    ],
    [["A", "B", "C"], "Jojoba oil", "A, b and c in jojoba oil"],
    [[], "Olive oil", ""],
    [["A"], "", ""],
  ])("%j in %s is %s", (herbs, carrier, name) => expect(suggestName(herbs, carrier)).toBe(name));
  it("is the maker's where they give one", () => {
    expect(plan().name).toBe("Calendula petals in olive oil");
    expect(plan({ name: " Gold " }).name).toBe("Gold");
  });
});

it("says what is wrong beside its field, and what a plan comes to", () => {
  const sheets: Partial<PlanTexts>[] = [
    {},
    { herbs: [], carriers: [] },
    { herbs: [herb(" ")], carriers: [oil("")] },
    { herbs: [herb("Olive oil"), herb("")], carriers: [oil("Bark, dried"), oil(" ")] },
    { herbs: [herb(" Bark, dried ", { lot: "11" })], carriers: [oil("Jojoba oil", { lot: "99" })] },
    { herbs: [herb("Calendula petals, dried", { parts: "0", cut: "shredded" })], carriers: [oil("Olive oil", { parts: "1001" })] },
    { herbs: [herb("Calendula petals, dried", { parts: " " })], carriers: [oil("Olive oil", { parts: "1000" })] },
    { method: "own", ownDays: "" },
    { method: "own", ownDays: "x" },
    { method: "own", ownDays: "0.2" },
    ...[
      "",
      " ",
      "2–4",
      "2 - 4 h",
      "2 to 4 hours.",
      "12hrs",
      "12 hr",
      "12 hour",
      "4–2",
      "3-3",
      "1-2-3",
      "168",
      "169",
      "h",
      "2–x",
      "x 2",
      "h 2",
    ].map((ownHours) => ({ method: "bath", ownHours })),
    { method: "nothing known" },
    { day: "", wished: " " },
    { day: "2026-11-26", wished: "x" },
    { day: "2026-11-01", wished: "2026-12-20" },
    { day: "2026-11-01", wished: "2026-11-03" },
    { holds: "" },
    { holds: " ", by: "fill" },
    { holds: "x" },
    { by: "fill", share: "" },
    { by: "fill", share: "50 %" },
    { by: "fill", share: "100" },
    { by: "fill", share: "101" },
    { by: "fill", herbs: [herb("Bark, dried")] },
    { by: "fill", herbs: [herb("Calendula petals, dried", { cut: "powder" })] },
    { ratio: "" },
    { ratio: "x", by: "lot" },
    { by: "lot", ratio: "10" },
    { by: "lot", ratio: "10", herbs: [herb("Calendula petals, dried"), herb("Plantain leaf, dried")] },
    { oil: "" },
    { oil: "5 %" },
    { oil: "1 cup", carriers: [oil("Shea butter")] },
    { oil: "2 kg", ratio: "20" },
    { oil: "2.001 kg", ratio: "20.01" },
    { oil: "1000 g", ratio: "10" },
    { by: "cups", herbCups: "" },
    { by: "cups", herbCups: "2 cups", oil: "3" },
    { by: "cups", herbCups: "2 cups", oil: " 1 1/2 " },
    { by: "cups", herbCups: "2 cups", oil: "3 cups" },
    { by: "cups", herbCups: "2 cups", oil: "700 mL" },
    { by: "cups", herbCups: "2 cups", oil: "300 g" },
    { by: "cups", herbCups: "2 cups", oil: "" },
    { by: "cups", herbCups: "2 cups", oil: "0" },
    { by: "cups", herbCups: "2 cups", oil: "5 %" },
    { by: "cups", herbs: [herb("Bark, dried")], oil: "3 cups" },
    { name: " Summer oil ", carriers: [oil("Olive oil"), oil("Jojoba oil", { parts: "3" })], oil: "100 g" },
  ];
  return expectWording(
    "workroom/plans",
    sheets.map((over) => {
      const p = plan(over);
      const took = p.parts.map((x) => `${x.role} ${x.lot.number} ${x.cut ?? ""} ${x.parts} ${x.qty}`);
      return [
        JSON.stringify(over),
        [p.name, p.method, p.times, p.ready, p.suits, p.inTime, p.vesselMl, took, p.amounts, p.expected, p.cost, p.problems],
      ];
    }),
  );
});
