/**
 * Reads a recipe's sheet: used live on the page and again by the action that saves it.
 */
import type { SetsFacts } from "../firmness/solids.ts";
import type { CautionId } from "../material/cautions.ts";
import type { ContainerFacts } from "../material/container.ts";
import { factsIn, usualForm, type MaterialFacts } from "../material/facts.ts";
import { kind } from "../material/kinds.ts";
import type { ScentNote } from "../material/senses.ts";
import { finderBy, type Meant } from "../meant.ts";
import { mg, type Mg } from "../measure/exact.ts";
import { dripsByBottle, type Bottle, type Dripped } from "../measure/drops.ts";
import { otherOunce, type Form } from "../measure/mass.ts";
import { parseAmount, parseNumber, type Amount } from "../measure/parse.ts";
import { between, readWeight } from "../measure/read.ts";
import { done, orElse, refuse, type Outcome, type Problem } from "../outcome.ts";
import { firstMistake, type FieldProblem } from "../refused.ts";
import { weighRecipe, type LineOut } from "./lines.ts";
import { batchDensity, otherFill, overfull, readFill, type Density, type Fill } from "./sizes.ts";

/** What a sheet needs to know of a material: to weigh it, to fill it, and to foresee what it does. */
export type MaterialChoice = MaterialFacts &
  ContainerFacts &
  SetsFacts & {
    id: number;
    cautions: readonly CautionId[];
    allergen: string;
    /** Months a new one keeps unopened. */
    keepsSealed: number | null;
    scentNote: ScentNote;
    /** Its bottles on hand, where the sheet has to do with them. */
    lots?: readonly Bottle[];
  };

/** Just that of a material, to be sent to a sheet. */
export const choiceOf = (m: MaterialChoice): MaterialChoice => {
  const { id, name, kind, densities, dropsPerMl, pieceMg, brimMl, usableMl, innerMm, fillMm } = m;
  const { libraryKey, meltFrom, meltTo, makeup, cautions, allergen, keepsSealed, scentNote } = m;
  return {
    ...{ id, name, kind, densities, dropsPerMl, pieceMg, brimMl, usableMl, innerMm, fillMm },
    ...{ libraryKey, meltFrom, meltTo, makeup, cautions, allergen, keepsSealed, scentNote },
  };
};

export interface LineText {
  material: string;
  entered: string;
  form: string;
}

export interface PackText {
  material: string;
  pieces: string;
}

export interface SizeText {
  /** Of a size that is there already; empty for a new one. */
  id: string;
  container: string;
  fill: string;
  minutes: string;
  /** "yes" for one that is put away. */
  away: string;
  packaging: readonly PackText[];
}

export interface RecipeText {
  lines: readonly LineText[];
  sizes: readonly SizeText[];
  makes: string;
  overrun: string;
}

export interface ReadLine {
  material: MaterialChoice | null;
  form: Form;
  amount: Amount | null;
  out: LineOut;
  /** What its drops come to out of another bottle than it is counted by. */
  dripped: Dripped | null;
  /** The other reading of "oz" for a liquid. */
  asFluid: Mg | null;
  /** Which field the problem belongs to. */
  field: "material" | "entered";
}

export interface ReadPack {
  material: MaterialChoice;
  pieces: number;
}

export interface ReadSize {
  container: MaterialChoice | null;
  fill: Outcome<Fill>;
  /** The other reading of "oz" for what fills a jar. */
  asFluid: Fill | null;
  /** That more goes in than the container holds. */
  over: string | null;
  /** The container itself, and what else one unit takes. */
  packaging: ReadPack[];
  problems: FieldProblem[];
}

export interface ReadRecipe {
  lines: ReadLine[];
  sizes: ReadSize[];
  makes: Outcome<Mg> | null;
  /** Air in what is whipped, in basis points of the volume before. */
  overrun: Outcome<number>;
  /** Of the whole batch. */
  density: Outcome<Density>;
  total: Mg;
  problem: Problem | null;
}

/** A line nobody has written anything in yet. */
export const isBlank = (l: LineText): boolean => l.material.trim() === "" && l.entered.trim() === "";

const bad = (problem: Problem): LineOut => ({ ok: false, problem });
type Find = (name: string) => MaterialChoice | null;

function readLine(l: LineText, find: Find): ReadLine {
  const material = find(l.material);
  const forms = material ? kind(material.kind).forms : [];
  const form = forms.find((f) => f === l.form) ?? (material ? usualForm(material.kind) : "block");
  const amount = parseAmount(l.entered, "g");
  const base = { material, form, amount: amount.ok ? amount.value : null, asFluid: null, dripped: null, field: "entered" as const };
  if (isBlank(l)) return { ...base, out: bad({ code: "blank", say: "" }) };
  if (!material) {
    const say =
      l.material.trim() === ""
        ? "Choose a material."
        : `“${l.material.trim()}” isn't on the shelf. Choose one from the list, or add it first.`;
    return { ...base, field: "material", out: bad({ code: "unknown", say }) };
  }
  if (kind(material.kind).measured === "count")
    return {
      ...base,
      field: "material",
      out: bad({ code: "counted", say: `${material.name} is packaging; it goes under packaging for one unit.` }),
    };
  if (!amount.ok) return { ...base, out: bad(amount.problem) };
  const facts = factsIn(material, form);
  return {
    ...base,
    asFluid: otherOunce(amount.value, facts),
    dripped: dripsByBottle(amount.value, facts, material.lots ?? []),
    out: bad({ code: "open", say: "" }),
  };
}

const wholePieces = (text: string): number | null => {
  const n = parseNumber(text || "1");
  return n.ok && n.value.d === 1n && n.value.compare(0) > 0 ? n.value.valueOf() : null;
};

function readSize(s: SizeText, at: string, density: Outcome<Density>, find: Find): ReadSize {
  const problems: FieldProblem[] = [];
  const container = find(s.container);
  if (s.container.trim() !== "" && (!container || kind(container.kind).measured !== "count"))
    problems.push({ field: `${at}.container`, say: `“${s.container.trim()}” isn't a container on the shelf.` });
  const fill = readFill(s.fill, density, container);
  if (!fill.ok) problems.push({ field: `${at}.fill`, say: fill.problem.say });
  const packaging: ReadPack[] = container ? [{ material: container, pieces: 1 }] : [];
  s.packaging.forEach((p, i) => {
    if (p.material.trim() === "") return;
    const material = find(p.material);
    const pieces = wholePieces(p.pieces);
    if (!material || kind(material.kind).measured !== "count")
      problems.push({ field: `${at}.packaging.${i}.material`, say: `“${p.material.trim()}” isn't packaging on the shelf.` });
    else if (pieces === null) problems.push({ field: `${at}.packaging.${i}.pieces`, say: "Enter a whole number of pieces." });
    else packaging.push({ material, pieces });
  });
  return {
    container,
    fill,
    asFluid: otherFill(s.fill, density),
    over: fill.ok ? overfull(fill.value.ml, container) : null,
    packaging,
    problems,
  };
}

/** A whipped butter at most about doubles (from memory): more than three times its volume is a slip of the hand. */
const readOverrun = between(0, 200, "per cent", 100);

/** Reads the sheet's texts. Blank lines are passed over by weighing but keep their place. @param meant what its names meant when they were typed */
export function readWritten(texts: RecipeText, materials: readonly MaterialChoice[], meant?: Meant): ReadRecipe {
  const find: Find = finderBy(materials, meant);
  const makes = texts.makes.trim() === "" ? null : readWeight(texts.makes);
  const lines = texts.lines.map((l) => readLine(l, find));
  const open = lines.filter((l) => !l.out.ok && l.out.problem.code === "open");
  const weighed = weighRecipe(
    open.map((l) => ({ amount: l.amount!, facts: factsIn(l.material!, l.form) })),
    makes?.ok ? makes.value : null,
  );
  open.forEach((l, i) => (l.out = weighed.lines[i]!));
  const overrun = texts.overrun.trim() === "" ? done(0) : readOverrun(texts.overrun);
  const density: Outcome<Density> = weighed.problem
    ? refuse(weighed.problem.code, weighed.problem.say)
    : batchDensity(
        open.flatMap(({ out, material }) =>
          out.ok ? [{ name: material!.name, kind: material!.kind, densities: material!.densities, weight: out.weight }] : [],
        ),
        orElse(overrun, 0),
      );
  const sizes = texts.sizes.map((s, i) => readSize(s, `sizes.${i}`, density, find));
  // One that was put away may be written again: it is then taken out again.
  texts.sizes.forEach((s, i) => {
    const twin = texts.sizes.findIndex(
      (o, n) =>
        n < i &&
        o.away !== "yes" &&
        s.away !== "yes" &&
        o.fill.trim() === s.fill.trim() &&
        o.container.trim().toLowerCase() === s.container.trim().toLowerCase(),
    );
    if (twin >= 0) sizes[i]!.problems.push({ field: `sizes.${i}.fill`, say: "That size is there already." });
  });
  return { lines, sizes, makes, overrun, density, total: mg(weighed.total), problem: weighed.problem };
}

/** Everything that prevents a sheet from being saved, each beside its field, in the order of the sheet. */
export function problemsOf(read: ReadRecipe, texts: RecipeText): FieldProblem[] {
  const problems: FieldProblem[] = read.lines.flatMap((l, i) =>
    isBlank(texts.lines[i]!) || l.out.ok ? [] : [{ field: `lines.${i}.${l.field}`, say: l.out.problem.say }],
  );
  // A line that can't be read is no missing one.
  const noLineTyped = problems.length === 0;
  problems.push(...read.sizes.flatMap((s) => s.problems));
  if (!read.overrun.ok) problems.push({ field: "overrun", say: read.overrun.problem.say });
  if (read.makes && !read.makes.ok) problems.push({ field: "makes", say: read.makes.problem.say });
  if (texts.sizes.every((s) => s.away === "yes"))
    problems.push({ field: texts.sizes.length > 0 ? "sizes.0.fill" : "", say: "A recipe is made in one size at least." });
  if (read.problem && (noLineTyped || read.problem.code !== "noLines"))
    problems.push({
      field: read.problem.code === "partsNeedWhole" ? "makes" : read.problem.code === "noLines" ? "lines.0.material" : "",
      say: read.problem.say,
    });
  return problems;
}

/** What prevents the figures of a recipe's sheet: what is typed and can't be read, or parts of nothing. */
export function unreadOf(read: ReadRecipe, texts: RecipeText): string | null {
  if (read.problem && read.problem.code !== "noLines") return read.problem.say;
  return firstMistake(problemsOf(read, texts), texts);
}
