/**
 * A recipe as a file that leaves and comes back: JSON with every field of the sheet as it is typed, or CSV with its lines alone. Both are
 * described in docs/formats.md; what a file says nothing of stays as it is on the sheet.
 */
import { array, number, object, string, ValidationError, type InferType } from "yup";
import { writeTable } from "../lists/csv.ts";
import { readTable } from "../intake/table.ts";
import { FOR_WHOM_IDS, USED_ON_IDS, type UsedOn } from "../scent/limits.ts";
import { done, refuse, type Outcome } from "../outcome.ts";
import { MOST_LINES } from "./scribbled/read.ts";
import { RECIPE_TYPE_IDS } from "./types.ts";

const COLUMNS = ["material", "amount", "measured as"];
const text = (most: number) => string().strict().max(most);
const cell = (most: number) => text(most).default("");
const schema = object({
  recipe: number().strict().oneOf([1]).required(),
  name: text(80),
  madeAs: string().oneOf(RECIPE_TYPE_IDS),
  batchWeight: text(60),
  lossPercent: text(12),
  airPercent: text(12),
  keepsMonths: text(12),
  batchMinutes: text(12),
  method: text(4000),
  usedOn: string().oneOf<UsedOn | "">(["", ...USED_ON_IDS]),
  forWhom: string().oneOf(FOR_WHOM_IDS),
  lines: array()
    .of(object({ material: cell(120), amount: cell(60), measuredAs: cell(20) }))
    .max(MOST_LINES),
  sizes: array()
    .of(
      object({
        container: cell(120),
        filledWith: cell(40),
        minutes: cell(12),
        packaging: array()
          .of(object({ material: cell(120), pieces: cell(12) }))
          .max(50)
          .default([]),
      }),
    )
    .max(50),
});

/** A recipe in a file; every figure is a text as it would be typed. */
export type PortableRecipe = InferType<typeof schema>;

/** @example writeRecipe({ recipe: 1, name: "Balm", lines: [{ material: "Olive oil", amount: "1 cup", measuredAs: "liquid" }] }).includes("1 cup") // true */
export const writeRecipe = (recipe: Partial<PortableRecipe>): string => `${JSON.stringify({ recipe: 1, ...recipe }, null, 2)}\n`;

/** The lines alone. @example writeLines([{ material: "Almond oil, sweet", amount: "40 g", measuredAs: "liquid" }]).includes("sweet") // true */
export const writeLines = (lines: NonNullable<PortableRecipe["lines"]>): string =>
  writeTable(
    COLUMNS,
    lines.map((l) => [l.material, l.amount, l.measuredAs]),
  );

/** Whether a text is a recipe's file, by how it begins, and which. @example fileOf("{ \"recipe\": 1 }") // "json" */
export const fileOf = (content: string): "json" | "csv" | null =>
  /^\s*\{/.test(content) ? "json" : /^\uFEFF?"?material"?\s*[,;\t]/i.test(content) ? "csv" : null;

/**
 * Reads a file back.
 * @returns problems `notJson`, `notRecipe`, `notCsv` that say what is wrong with it
 * @example readRecipeFile('{ "recipe": 1, "lines": [{ "material": "Olive oil", "amount": "1 cup" }] }').value.lines[0].amount // "1 cup"
 */
export function readRecipeFile(content: string): Outcome<PortableRecipe> {
  if (fileOf(content) === "csv") return readCsv(content);
  let parsed: unknown;
  try {
    parsed = JSON.parse(content);
  } catch {
    return refuse("notJson", "It begins like a recipe's file and breaks off: it isn't whole JSON.");
  }
  try {
    return done(schema.validateSync(parsed, { strict: false, stripUnknown: true }));
  } catch (e) {
    const at = e instanceof ValidationError && e.path ? ` Look at “${e.path}”.` : "";
    return refuse("notRecipe", `That isn't a recipe as docs/formats.md has it.${at}`);
  }
}

function readCsv(content: string): Outcome<PortableRecipe> {
  const table = readTable(content);
  if (!table.ok) return table;
  const at = COLUMNS.map((name) => table.value.header.findIndex((h) => h.trim().toLowerCase() === name));
  const lines = table.value.rows.map((row) => {
    const [material = "", amount = "", measuredAs = ""] = at.map((i) => row[i]?.trim() ?? "");
    return { material, amount, measuredAs };
  });
  return lines.some((l) => l.material !== "" && l.amount !== "")
    ? done(schema.cast({ recipe: 1, lines: lines.slice(0, MOST_LINES) }))
    : refuse("notCsv", "It has no line with a material and an amount under those headings.");
}
