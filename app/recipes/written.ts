/**
 * A recipe as it stands in the sheet, read: used live on the page and again by the action that keeps it.
 */
import { factsIn, usualForm, type MaterialFacts } from "#core/material/facts";
import { kind } from "#core/material/kinds";
import { mg, type Mg } from "#core/measure/exact";
import { otherOunce, type Form } from "#core/measure/mass";
import { parseAmount, parseNumber, type Amount } from "#core/measure/parse";
import { refuse, type Outcome, type Problem } from "#core/outcome";
import { weighRecipe, type LineOut } from "#core/recipe/lines";
import { readWeight } from "../forms/fields.ts";

/** What a sheet needs to know of a material. */
export type MaterialChoice = MaterialFacts & { id: number };

export interface LineText {
  material: string;
  entered: string;
  form: string;
}

export interface PackText {
  material: string;
  pieces: string;
}

export interface ReadLine {
  material: MaterialChoice | null;
  form: Form;
  amount: Amount | null;
  out: LineOut;
  /** The other reading of "oz" for a liquid. */
  asFluid: Mg | null;
  /** Which field the problem belongs to. */
  field: "material" | "entered";
}

export interface ReadRecipe {
  lines: ReadLine[];
  packaging: { material: MaterialChoice | null; pieces: number | null }[];
  makes: Outcome<Mg> | null;
  fill: Outcome<Mg>;
  total: Mg;
  problem: Problem | null;
}

/** A line nobody has written anything in yet. */
export const isBlank = (l: LineText): boolean => l.material.trim() === "" && l.entered.trim() === "";

const bad = (problem: Problem): LineOut => ({ ok: false, problem });

/** Reads the sheet's texts. Blank lines are passed over by weighing but keep their place. */
export function readWritten(
  texts: { lines: readonly LineText[]; packaging: readonly PackText[]; makes: string; fill: string },
  materials: readonly MaterialChoice[],
): ReadRecipe {
  const byName = new Map(materials.map((m) => [m.name.toLowerCase(), m]));
  const find = (name: string): MaterialChoice | null => byName.get(name.trim().toLowerCase()) ?? null;
  const makes = texts.makes.trim() === "" ? null : readWeight(texts.makes);

  const lines = texts.lines.map((l): ReadLine => {
    const material = find(l.material);
    const forms = material ? kind(material.kind).forms : [];
    const form = forms.find((f) => f === l.form) ?? (material ? usualForm(material.kind) : "block");
    const amount = parseAmount(l.entered, "g");
    const base = { material, form, amount: amount.ok ? amount.value : null, asFluid: null, field: "entered" as const };
    if (isBlank(l)) return { ...base, out: bad({ code: "blank", say: "" }) };
    if (!material)
      return {
        ...base,
        field: "material",
        out: bad({
          code: "unknown",
          say:
            l.material.trim() === ""
              ? "Choose a material."
              : `“${l.material.trim()}” isn't on the shelf. Choose one from the list, or add it first.`,
        }),
      };
    if (kind(material.kind).measured === "count")
      return {
        ...base,
        field: "material",
        out: bad({ code: "counted", say: `${material.name} is packaging; it goes under packaging for one unit.` }),
      };
    if (!amount.ok) return { ...base, out: bad(amount.problem) };
    return { ...base, asFluid: otherOunce(amount.value, factsIn(material, form)), out: bad({ code: "open", say: "" }) };
  });
  const open = lines.filter((l) => !l.out.ok && l.out.problem.code === "open");
  const weighed = weighRecipe(
    open.map((l) => ({ amount: l.amount!, facts: factsIn(l.material!, l.form) })),
    makes?.ok ? makes.value : null,
  );
  open.forEach((l, i) => (l.out = weighed.lines[i]!));

  return {
    lines,
    packaging: texts.packaging
      .filter((p) => p.material.trim() !== "")
      .map((p) => {
        const pieces = parseNumber(p.pieces || "1");
        return {
          material: find(p.material),
          pieces: pieces.ok && pieces.value.d === 1n && pieces.value.compare(0) > 0 ? Number(pieces.value.valueOf()) : null,
        };
      }),
    makes,
    fill: texts.fill.trim() === "" ? refuse("empty", "Enter what one unit is filled with, such as 60 g.") : readWeight(texts.fill),
    total: mg(weighed.total),
    problem: weighed.problem,
  };
}
