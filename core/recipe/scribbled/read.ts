/**
 * A recipe as it was found or scribbled, read line by line: what is understood becomes a line of the sheet, a step goes to the method, and
 * what could mean two things is asked about. Nothing is guessed silently: every line shows what it was read as beside what was written.
 */
import { usualForm, factsIn } from "../../material/facts.ts";
import { kind } from "../../material/kinds.ts";
import { FORMS, massOf, type Form } from "../../measure/mass.ts";
import { parseAmount, showAmount } from "../../measure/parse.ts";
import { grams } from "../../measure/write.ts";
import { UNITS } from "../../measure/units.ts";
import type { LineText } from "../written.ts";
import { findAmount, type FoundAmount } from "./amounts.ts";
import { matcher, type Matched, type Meant } from "./match.ts";
import { ratioOf } from "./ratio.ts";
import { sizesIn, type FilledSize } from "./sizes.ts";
import { describe, headingOf, isStep } from "./words.ts";

export interface Choice {
  say: string;
  value: string;
}

export interface Ask {
  field: keyof LineText;
  say: string;
  /** What it may mean; none where only the maker knows. */
  choices: Choice[];
}

export type Scribbled =
  | { as: "line"; at: number; text: string; line: LineText; asks: Ask[]; /** What was read and is worth a look. */ remarks: string[] }
  | { as: "sizes"; at: number; text: string; sizes: FilledSize[] }
  | { as: "step" | "heading" | "title"; at: number; text: string };

/** More lines than this are no recipe. */
export const MOST_LINES = 500;
/** As long as this a line is a sentence. */
const LONG = 160;
/** A name of a recipe is no longer. */
const TITLE = 80;
/** And as long as this it isn't looked at for anything else: what finds amounts and names is made for lines. */
const LONGEST = 400;

const bare = (line: string): string =>
  line
    .replace(/^[\s>]*(?:[-*•◦‣·–—☐☑✓]\s+)?(?:\[[ x]?\]\s+)?/u, "")
    .replace(/\s+/g, " ")
    .trim();
const numbered = (line: string): string => line.replace(/^(?:step\s*)?\d{1,2}[.):]\s+(?=\p{L})/iu, "");

function askMaterial(matched: Matched, name: string): Ask[] {
  if ("sure" in matched) return [];
  const choices = matched.among.map((m) => ({ say: m.library ? `${m.name}, from the library` : m.name, value: m.name }));
  if (choices.length === 0) return [];
  return [{ field: "material", say: choices.length === 1 ? `Is “${name}” this?` : `Which is “${name}”?`, choices }];
}

/** Which state a solid measured by the cup was in, with what each would weigh. */
function askForm(material: Meant, entered: string, meltedAfter: boolean): Ask[] {
  const amount = parseAmount(entered);
  if (!amount.ok || UNITS[amount.value.unit].kind !== "volume") return [];
  const choices = kind(material.kind).forms.flatMap((form) => {
    const weight = massOf(amount.value, factsIn(material, form));
    return weight.ok ? [{ say: `${FORMS[form]}, ${grams(weight.value)}`, value: form }] : [];
  });
  if (choices.length < 2) return [];
  const say = meltedAfter
    ? "Melted before it was measured, or after?"
    : `${showAmount(amount.value)}, measured how? Air between the pieces weighs nothing.`;
  return [{ field: "form", say, choices }];
}

/** A bare ounce of what pours is often meant by volume. */
function askOunce(material: Meant | null, entered: string): Ask[] {
  if (material?.kind === undefined || usualForm(material.kind) !== "liquid" || !/\boz\b/.test(entered) || /fl oz/.test(entered)) return [];
  const fluid = entered.replace(/\boz\b/, "fl oz");
  const [byWeight, byVolume] = [entered, fluid].map((text) => {
    const amount = parseAmount(text);
    const weight = amount.ok ? massOf(amount.value, factsIn(material)) : null;
    return weight?.ok ? grams(weight.value) : "";
  });
  return [
    {
      field: "entered",
      say: "Ounces of a liquid: by weight or by volume?",
      choices: [
        { say: `by weight, ${byWeight}`, value: entered },
        { say: `fluid ounces, ${byVolume}`, value: fluid },
      ],
    },
  ];
}

function amountOf(found: FoundAmount, material: Meant | null, form: Form | null): { entered: string; asks: Ask[]; remarks: string[] } {
  const remarks: string[] = [];
  const [low, high] = found.readings as [string, string?];
  if (found.unit === null) {
    if (material?.pieceMg) return { entered: `${low} pcs`, asks: [], remarks };
    return { entered: low, asks: [{ field: "entered", say: `${low} of what? Add g, oz, cups, drops or parts.`, choices: [] }], remarks };
  }
  if (high !== undefined) {
    const [a, b] = [parseAmount(low), parseAmount(high)];
    const between =
      a.ok && b.ok && a.value.unit === b.value.unit ? [showAmount({ unit: a.value.unit, n: a.value.n.add(b.value.n).div(2) })] : [];
    return {
      entered: "",
      asks: [
        {
          field: "entered",
          say: "From … to: how much is it to be?",
          choices: [a.ok ? showAmount(a.value) : low, ...between, b.ok ? showAmount(b.value) : high].map((value) => ({
            say: value,
            value,
          })),
        },
      ],
      remarks,
    };
  }
  const read = parseAmount(low);
  if (!read.ok) return { entered: low, asks: [{ field: "entered", say: read.problem.say, choices: [] }], remarks };
  if (found.about !== null) remarks.push(`“${found.about}” is read as ${showAmount(read.value)}.`);
  const entered = showAmount(read.value);
  if (found.also !== null) {
    const other = parseAmount(found.also);
    const value = other.ok ? showAmount(other.value) : found.also;
    const facts = material && factsIn(material, form ?? usualForm(material.kind));
    const [w1, w2] = [facts && massOf(read.value, facts), facts && other.ok ? massOf(other.value, facts) : null];
    const agree = w1?.ok && w2?.ok && Math.abs(w1.value - w2.value) <= 0.12 * w2.value;
    const weighed = [entered, value].find((t) => /\b(?:g|kg|mg)$/.test(t));
    if (agree) {
      remarks.push(`Said twice, as ${entered} and ${value}; both are about the same.`);
      return { entered: weighed ?? entered, asks: [], remarks };
    }
    const say = w1?.ok && w2?.ok ? `${entered} is ${grams(w1.value)} here, not ${value}: which is meant?` : "Said twice: which is meant?";
    return { entered: "", asks: [{ field: "entered", say, choices: [entered, value].map((v) => ({ say: v, value: v })) }], remarks };
  }
  return { entered, asks: [], remarks };
}

const FROM_LIBRARY = "Not on the shelf yet; the library has it.";

/** What a line means among the shelf, and where that hasn't got it for sure, among the library too. */
function matchBoth(shelf: readonly Meant[], library: readonly Meant[]): (words: string) => Matched {
  const [onShelf, inLibrary] = [matcher(shelf), matcher(library)];
  return (words) => {
    const here = onShelf(words);
    if ("sure" in here) return here;
    const there = inLibrary(words);
    if (!("sure" in there)) return here.among.length > 0 ? here : there;
    return here.among.length > 0 ? { among: [...here.among, there.sure] } : there;
  };
}

/** What is made ends so, and no material of a shelf: "Tallow salve", "Winter lip balm". */
const MADE = /\b(?:salve|balm|butter|ointment|lotion|bars?|cream|rub|pomade|stick|jelly|polish|wax)s?(?:\s*\(.*\))?$/i;
const isTitle = (line: string, named: Matched): boolean =>
  MADE.test(line) &&
  !/[\d½¼¾⅓⅔⅛:]/.test(line.replace(/\(.*\)$/, "")) &&
  !("sure" in named && !/\b(?:salve|balm|ointment|rub|pomade|stick|lotion|bars?)s?$/i.test(line));

/** One ingredient, its amount and its name parted already. */
function readOne(
  at: number,
  text: string,
  amount: FoundAmount | { vague: string },
  rest: string,
  match: (words: string) => Matched,
): Scribbled {
  const described = describe(rest);
  const name = described.name;
  const matched = match(name);
  const material = "sure" in matched ? matched.sure : null;
  const asks = askMaterial(matched, name);
  const remarks: string[] = material?.library ? [FROM_LIBRARY] : [];
  if (!material && asks.length === 0)
    remarks.push(name === "" ? "No material is named here." : `“${name}” isn't on the shelf: choose or add it on the sheet.`);
  const forms = material ? kind(material.kind).forms : [];
  const form = forms.find((f) => f === described.form) ?? null;
  let entered = "";
  if ("vague" in amount) asks.push({ field: "entered", say: `“${amount.vague}”: how much is that?`, choices: [] });
  else {
    const read = amountOf(amount, material, form);
    entered = read.entered;
    asks.push(...read.asks);
    remarks.push(...read.remarks);
    if (read.asks.length === 0) asks.push(...askOunce(material, entered));
  }
  if (material && (form === null || described.meltedAfter)) asks.push(...askForm(material, entered, described.meltedAfter));
  if (described.packed && form !== null) remarks.push(`Packed ${FORMS[form]} weighs more than loose; weigh it once to be sure.`);
  const line = { material: material?.name ?? name, entered, form: form ?? (material ? usualForm(material.kind) : "") };
  return { as: "line", at, text, line, asks, remarks };
}

/**
 * Reads a whole text.
 * @param materials what the shelf may mean by a name
 * @param library what isn't on the shelf yet, but could be
 * @example readScribbled("1 cup olive oil\nMelt gently.", [meant("Olive oil", "oil")]).map((l) => l.as) // ["line", "step"]
 */
export function readScribbled(text: string, materials: readonly Meant[], library: readonly Meant[] = []): Scribbled[] {
  const match = matchBoth(materials, library);
  let first = true;
  let under: "steps" | "lines" = "lines";
  const lines = text
    .trimEnd()
    .split(/\r?\n|\r/)
    .slice(0, MOST_LINES);
  return lines.flatMap((raw, at): Scribbled[] => {
    if (raw.length > LONGEST) return [{ as: "step", at, text: raw.trim() }];
    const line = bare(raw);
    if (line === "") return [];
    const begins = first;
    first = false;
    const title = line.replace(/^#+\s*/, "");
    const alone = at === lines.length - 1;
    if (begins && !alone && line.length <= TITLE && !isStep(title) && !ratioOf(title) && isTitle(title, match(title)))
      return [{ as: "title", at, text: title }];
    const sizes = sizesIn(numbered(line));
    if (sizes) return [{ as: "sizes", at, text: numbered(line), sizes }];
    const heading = headingOf(line);
    if (heading !== null) {
      if (heading !== "other") under = heading;
      return [{ as: "heading", at, text: line }];
    }
    const words = numbered(line);
    if (under === "steps" || isStep(words)) return [{ as: "step", at, text: words }];
    const ratio = ratioOf(line);
    if (ratio) return ratio.map((r) => readOne(at, line, r.amount, r.name, match));
    const found = findAmount(line) ?? findAmount(words);
    if (found && line.length <= LONG) return [readOne(at, line, found, found.rest, match)];
    if (words.length > LONG) return [{ as: "step", at, text: words }];
    const named = match(describe(words).name);
    if ("sure" in named || named.among.length > 0) return [readOne(at, line, { vague: "no amount" }, words, match)];
    return [{ as: words.split(" ").length > 6 ? "step" : "heading", at, text: words }];
  });
}
