/**
 * Recipes as a list: a row for each ingredient, under the name of its recipe. Each becomes what its sheet would say and is read as that sheet is,
 * so a recipe out of a list is never one that couldn't be typed.
 */
import { lotLetters } from "../lot/letters.ts";
import { RECIPE_TYPE_IDS, RECIPE_TYPES, type RecipeType } from "../recipe/types.ts";
import { problemsOf, readWritten, type MaterialChoice } from "../recipe/written.ts";
import { writtenParts, type WrittenParts } from "../recipe/writtenParts.ts";
import { plain } from "../find.ts";
import { settled } from "../intake/loose.ts";
import { cellsOf, type Cells, type Reading } from "./cells.ts";
import { groupsOf, heldBack } from "./groups.ts";
import type { ListRead, ListRow, ListSpec, RowProblem } from "./list.ts";
import { unknownNames } from "./products.ts";

export type RecipeField = "recipe" | "type" | "material" | "amount" | "unit" | "size" | "container" | "keeps" | "note";

export const RECIPES: ListSpec<RecipeField> = {
  fields: {
    recipe: "Recipe",
    type: "Made as",
    material: "Ingredient",
    amount: "Amount",
    unit: "Unit",
    size: "Size",
    container: "Container",
    keeps: "Keeps, months",
    note: "Method",
  },
  words: {
    material: ["ingredient", "material", "raw material", "inci", "item"],
    recipe: ["recipe", "product", "formula", "name", "title"],
    keeps: ["keeps", "shelf life", "months"],
    unit: ["unit", "measure", "uom"],
    amount: ["amount", "quantity", "qty", "weight", "grams", "=g", "per cent", "percent", "%", "parts"],
    container: ["container", "tin", "jar", "packaging"],
    size: ["size", "fill", "filled"],
    type: ["type", "made as", "kind", "category"],
    note: ["method", "note", "steps", "instructions", "remark"],
  },
  first: "recipe",
  needed: ["material", "amount"],
  group: "recipe",
  carried: ["recipe"],
  figures: ["amount"],
  days: {},
};

/** What every recipe is that doesn't say so itself. */
export interface RecipeDefaults {
  type: RecipeType | null;
  /** As typed: "60 g". */
  size: string;
  /** What a batch weighs, as typed: needed where amounts are shares. */
  makes: string;
}

export interface RecipeLine {
  row: number;
  name: string;
  code: string;
  type: RecipeType;
  keepsMonths: number;
  method: string;
  parts: WrittenParts;
}

const MOST_MONTHS = 36;

/** The type a name or a word says; the longest name of one is the surest. @example typeIn("Mint lip balm") // "lipBalm" */
export const typeIn = (text: string): RecipeType | null =>
  [...RECIPE_TYPE_IDS]
    .sort((a, b) => RECIPE_TYPES[b].label.length - RECIPE_TYPES[a].label.length)
    .find((t) => plain(text).includes(plain(RECIPE_TYPES[t].label))) ?? null;

/** The unit a heading of amounts says, for cells that are bare numbers. @example unitIn("Weight (g)") // "g" */
export const unitIn = (heading: string): string => {
  const h = ` ${heading.toLowerCase().replace(/[^\p{L}%]+/gu, " ")} `;
  if (/%| per ?cent | percentage /.test(h)) return "%";
  return ([" kg ", " oz ", " lb ", " parts "] as const).find((u) => h.includes(u))?.trim() ?? "g";
};

interface Known {
  /** By lower-case name: materials of the shelf, and those that will be put on it. */
  materials: ReadonlyMap<string, MaterialChoice>;
  /** Names of recipes there are, in small letters; and letters that are taken. */
  recipes: ReadonlySet<string>;
  letters: readonly string[];
}

/**
 * Every recipe with its ingredients and sizes.
 * @param heading of the column of amounts
 * @returns also whether some need a size, a type or a batch's weight said for all
 * @example readRecipeList([], "g", { materials: new Map(), recipes: new Set(), letters: [] }, { type: null, size: "", makes: "" }, reading).fresh // []
 */
export function readRecipeList(
  rows: readonly ListRow<RecipeField>[],
  heading: string,
  known: Known,
  defaults: RecipeDefaults,
  reading: Reading,
): ListRead<RecipeLine> & { wants: { size: boolean; type: boolean; makes: boolean } } {
  const out: ListRead<RecipeLine> = { fresh: [], there: [], problems: [], unknown: [], remarks: [] };
  const unknown = unknownNames();
  const wants = { size: false, type: false, makes: false };
  const letters = [...known.letters];
  const bare = unitIn(heading);
  // Named as the list names them, so that a line finds the answer to its name.
  const materials = [...known.materials].map(([name, m]) => ({ ...m, name }));

  /** "12,5" in a column headed "%" is "12.5 %". */
  const amountOf = (row: ListRow<RecipeField>): string => {
    const amount = settled(row.text("amount"), reading.numbers, false);
    const unit = row.text("unit");
    if (amount === "") return "";
    return unit !== "" ? `${amount} ${unit}` : /[\p{L}%]/u.test(amount) ? amount : `${amount} ${bare}`;
  };

  for (const { rows: own } of groupsOf(rows, (r) => r.text("recipe").toLowerCase())) {
    const problems: RowProblem[] = [];
    const first = own[0]!;
    const cells: Cells<RecipeField>[] = own.map((row) => cellsOf(row, reading, RECIPES.fields));
    const name = cells[0]!.text("recipe", 80);
    if (known.recipes.has(name.toLowerCase()) && name !== "") {
      out.there.push({ row: first.at, name });
      continue;
    }
    if (name === "") cells[0]!.fail("It doesn't say which recipe this is part of.");
    // A row may say a size or a step alone.
    const lineRows = own.filter((r) => r.text("material") !== "" || r.text("amount") !== "");
    for (const row of lineRows) {
      const material = row.text("material");
      const say = cells[own.indexOf(row)]!;
      if (material === "") say.fail("No ingredient is named.");
      else if (!known.materials.has(material.toLowerCase())) {
        unknown.add(material);
        say.fail(`“${material}” isn't on the shelf.`);
      }
    }
    const type = typeIn(own.map((r) => r.text("type")).join(" ")) ?? typeIn(name) ?? defaults.type;
    if (type === null) {
      wants.type = true;
      cells[0]!.fail(`Say what “${name}” is made as.`);
    }
    const keeps = own.map((_, i) => cells[i]!.whole("keeps", MOST_MONTHS)).find((n) => n !== null) ?? null;
    const said = own.flatMap((r) =>
      r
        .text("size")
        .split(/[;/\n]/)
        .flatMap((t) => (t.trim() === "" ? [] : [{ fill: settled(t.trim(), reading.numbers, false), container: r.text("container") }])),
    );
    const sized = said.filter((s, i) => said.findIndex((o) => o.fill === s.fill && o.container === s.container) === i);
    if (sized.length === 0 && defaults.size.trim() === "") {
      wants.size = true;
      cells[0]!.fail(`Say what “${name}” is filled into.`);
    }
    problems.push(...cells.flatMap((c) => c.problems));
    const sizes = (sized.length > 0 ? sized : [{ fill: defaults.size, container: "" }]).map((s) => ({
      ...{ id: "", minutes: "", away: "" },
      ...s,
      packaging: [],
    }));
    const texts = {
      lines: lineRows.map((r) => ({ material: r.text("material"), entered: amountOf(r), form: "" })),
      sizes,
      makes: defaults.makes,
      overrun: "",
    };
    const read = readWritten(texts, materials);
    if (read.problem?.code === "partsNeedWhole") wants.makes = true;
    // What was said above of a name that isn't known, or of no size, needn't be said again.
    if (problems.length === 0)
      problems.push(
        ...problemsOf(read, texts).map(({ field, say }) => ({
          row: /^lines\.(\d+)/.test(field) ? lineRows[Number(field.split(".")[1])]!.at : first.at,
          say,
        })),
      );
    const code = lotLetters(name, letters);
    if (code === "" && problems.length === 0) problems.push({ row: first.at, say: `No letters are free for the lots of “${name}”.` });
    if (problems.length > 0 || type === null) {
      const of = own.map((r) => r.at);
      out.problems.push(...problems, ...heldBack(of, problems, "recipe"));
      continue;
    }
    letters.push(code);
    out.fresh.push({
      row: first.at,
      ...{ name, code, type },
      keepsMonths: keeps || RECIPE_TYPES[type].keepsMonths,
      method: own
        .map((r) => r.text("note"))
        .filter((t, i, all) => t !== "" && all.indexOf(t) === i)
        .join("\n"),
      parts: writtenParts(read, texts),
    });
  }
  return { ...out, unknown: unknown.all(), wants };
}
