/** Recipes as makers keep them in a sheet: under their names, in per cent, with what nobody knows. */
import { describe, expect, it } from "vitest";
import { LIBRARY, libraryChoice } from "../material/library.ts";
import { readRows } from "../intake/table.ts";
import { listRows, listTable, writtenIn } from "./list.ts";
import { readRecipeList, RECIPES, typeIn, unitIn, type RecipeDefaults } from "./recipes.ts";

const MATERIALS = LIBRARY.map((e, i) => libraryChoice(e, i + 1));
const named = (name: string) => MATERIALS.find((m) => m.name === name)!;
const NONE: RecipeDefaults = { type: null, size: "", makes: "" };

function read(text: string, defaults: Partial<RecipeDefaults> = {}, recipes: string[] = [], letters: string[] = []) {
  const all = readRows(text);
  if (!all.ok) throw new Error(all.problem.say);
  const table = listTable(all.value, RECIPES);
  const { rows } = listRows(table.rows, table.columns, RECIPES);
  const { written } = writtenIn(rows, RECIPES, { numbers: null, dates: null }, "2026-12-01");
  const known = { materials: new Map(MATERIALS.map((m) => [m.name.toLowerCase(), m])), recipes: new Set(recipes), letters };
  const heading = table.columns.amount === null ? "" : table.header[table.columns.amount]!;
  return readRecipeList(rows, heading, known, { ...NONE, ...defaults }, { ...written, own: "EUR", today: "2026-12-01" });
}
const said = (problems: readonly { row: number; say: string }[]) => problems.map((p) => `${p.row}: ${p.say}`);

describe("recipes", () => {
  it("stand under their names or beside them, with their sizes, and weigh what their lines say", () => {
    const { fresh, problems } = read(
      [
        "Recipe;Ingredient;Amount;Unit;Size",
        "Mint lip balm;Beeswax, yellow;20;g;4,5 g; ",
        ";Olive oil;60,5;g;",
        "Total;;80,5;;",
        "Winter salve",
        ";Beeswax, yellow;1;oz;60 g / 30 g",
        ";Olive oil;0,2;kg;",
      ].join("\n"),
      {},
      [],
      ["MLB"],
    );
    expect(said(problems)).toEqual([]);
    const olive = named("Olive oil").id;
    expect(
      fresh.map((r) => [r.row, r.name, r.code, r.type, r.keepsMonths, r.parts.total, r.parts.sizes.map((s) => [s.label, s.fill])]),
    ).toEqual([
      [2, "Mint lip balm", "MLBA", "lipBalm", 12, 80_500, [["4.5 g", 4500]]],
      [
        6,
        "Winter salve",
        "WS",
        "salve",
        12,
        228_350,
        [
          ["60 g", 60_000],
          ["30 g", 30_000],
        ],
      ],
    ]);
    expect(fresh[0]!.parts.lines[1]).toMatchObject({ materialId: olive, entered: "60,5 g", weight: 60_500 });
  });

  it("in per cent want a batch's weight; what says neither type nor size wants those", () => {
    const text = "Product,Material,%\nNight butter,Beeswax, yellow,10".replace("Beeswax, yellow", '"Beeswax, yellow"') + "\n,Olive oil,90";
    const bare = read(text);
    expect(bare.wants).toEqual({ type: true, size: true, makes: true });
    expect(said(bare.problems)).toEqual([
      "2: Say what “Night butter” is made as.",
      "2: Say what “Night butter” is filled into.",
      "3: Its recipe waits for row 2.",
    ]);
    const [r] = read(text, { type: "balm", size: "50 g", makes: "1 kg" }).fresh;
    expect(r!.parts.lines.map((l) => [l.entered, l.weight])).toEqual([
      ["10 %", 100_000],
      ["90 %", 900_000],
    ]);
    expect(r!.parts.makes).toBe(1_000_000);
  });

  it("wait whole for one ingredient nobody knows, an amount that is none, or a second of their name", () => {
    const { fresh, problems, unknown, there } = read(
      [
        "Name;Ingredient;Grams;Size",
        "Balm one;Olive oil;90;30 g",
        "Balm one;Moon dust;10;",
        "Balm two;Olive oil;a bit;30 g",
        "Balm two;;10;",
        "Known balm;Olive oil;10;30 g",
        "Salve;Olive oil;10;30 g",
      ].join("\n"),
      {},
      ["known balm"],
    );
    expect(fresh.map((r) => r.name)).toEqual(["Salve"]);
    expect(unknown).toEqual([{ name: "Moon dust", rows: 1 }]);
    expect(there).toEqual([{ row: 6, name: "Known balm" }]);
    expect(said(problems).map((s) => s.slice(0, 34))).toEqual([
      "3: “Moon dust” isn't on the shelf.",
      "2: Its recipe waits for row 3.",
      "5: No ingredient is named.",
      "4: Its recipe waits for row 5.",
    ]);
  });

  it.each([
    ["Weight (g)", "g"],
    ["Amount in %", "%"],
    ["Percentage", "%"],
    ["Amount, oz", "oz"],
    ["Parts", "parts"],
    ["", "g"],
  ])("“%s” heads amounts in %s", (heading, unit) => expect(unitIn(heading)).toBe(unit));
  it.each([
    ["Mint lip balm", "lipBalm"],
    ["Hand balm", "balm"],
    ["LOTION BAR", "lotionBar"],
    ["Night cream", null],
  ])("“%s” is made as %s", (name, type) => expect(typeIn(name)).toBe(type));
});
