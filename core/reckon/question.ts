/**
 * The reckon bar's small language: a line of the kind people mutter at the bench, read into what it may be asking, likeliest first.
 *
 *   2 1/2 cups olive oil in g        what it weighs or measures
 *   1/4 cup beeswax pellets          the same, in the form it is measured in
 *   30 drops lavender in 400 g       how strong that is
 *   60 g beeswax + 1 cup olive oil   what they weigh together
 *   500 g balm into 16 pots          what goes into each
 *   cost 60 × 2 oz hand balm         what so many units cost
 *   hand balm for 20 tins            what to weigh for so many
 *   how many 2 oz tins from 500 g    how many it fills
 *   who bought HB261125-1            where a lot went
 *   receive …, set out 24 …, count … the act itself
 *   HB261125-1, or any other words   look it up
 */
import { FORM_IDS, type Form } from "../measure/mass.ts";
import { parseAmount, type Amount } from "../measure/parse.ts";
import { findUnit, type UnitId } from "../measure/units.ts";

export type Question =
  | { kind: "convert"; amount: Amount; material: string; form: Form | null; to: UnitId | null }
  | { kind: "strength"; amount: Amount; material: string; form: Form | null; whole: Amount }
  | { kind: "together"; parts: Part[]; into: number | null }
  | { kind: "cost"; units: number; product: string }
  | { kind: "makes"; product: string; units: number | null; weight: Amount | null }
  | { kind: "fills"; each: Amount; container: string; whole: Amount; of: string }
  | { kind: "who"; lot: string }
  | { kind: "act"; act: ActWord; of: string; units: number | null }
  | { kind: "find"; text: string };

/** Some of a material; without a name it is a weight of anything. */
export interface Part {
  amount: Amount;
  material: string;
  form: Form | null;
}

/** Acts that can be asked for, with the words that ask for them. */
export const ACT_WORDS = {
  receive: ["receive", "buy", "bought", "got"],
  setOut: ["set out", "make", "batch"],
  count: ["count", "weigh", "recount"],
  fillJar: ["fill a jar of", "fill a jar with", "fill a jar", "fill jar", "infuse", "steep"],
  strain: ["strain", "shake"],
  write: ["write a recipe", "write recipe", "new recipe"],
  add: ["add a material", "add"],
  price: ["price of", "price"],
  market: ["plan a market day", "plan a market", "market day", "new market"],
  order: ["write an order for", "order for", "write an order", "new order"],
} as const satisfies Record<string, readonly string[]>;
export type ActWord = keyof typeof ACT_WORDS;

/** Words a form goes by at the bench. */
const FORM_WORDS: Partial<Record<Form, readonly string[]>> = {
  pellets: ["pellets", "pellet", "beads", "pastilles"],
  grated: ["grated", "shaved", "shavings"],
  block: ["block", "solid", "lump"],
  chopped: ["chopped", "chunks"],
  melted: ["melted"],
  powder: ["powdered"],
};

/** A form named among the words, and the words without it. @example formIn("beeswax pellets") // { form: "pellets", rest: "beeswax" } */
export function formIn(text: string): { form: Form | null; rest: string } {
  const words = text.split(" ");
  for (const form of FORM_IDS) {
    const at = words.findIndex((w) => FORM_WORDS[form]?.includes(w.toLowerCase().replace(/,$/, "")));
    if (at >= 0 && words.length > 1)
      return {
        form,
        rest: words
          .filter((_, i) => i !== at)
          .join(" ")
          .replace(/,$/, ""),
      };
  }
  return { form: null, rest: text };
}

/** Splits "2 1/2 cups olive oil" into its amount and the rest: the longest start that reads as an amount with a unit. */
function leadingAmount(text: string): { amount: Amount; rest: string } | null {
  const words = text.split(" ");
  for (let n = Math.min(words.length, 6); n >= 1; n--) {
    const amount = parseAmount(words.slice(0, n).join(" "));
    if (amount.ok) return { amount: amount.value, rest: words.slice(n).join(" ").replace(/^of /, "") };
  }
  return null;
}

const POTS = /\s*(?:units?|tins?|jars?|pots?|tubes?|bars?|bottles?|pieces?|pcs?|of them)?$/i;

const INTO = /^(.+?) (?:into|among|between|shared out (?:in|into)) (\d{1,4})\b(.*)$/i;

/** Several amounts that go together, or one that is shared out. */
function together(text: string): Question[] {
  const shared = INTO.exec(text);
  const into = shared?.[3]!.replace(POTS, "").trim() === "" && Number(shared[2]) > 0 ? Number(shared[2]) : null;
  const said = (into === null ? text : shared![1]!).split(/\s*(?:\+|\bplus\b|;)\s*|,\s+(?:and\s+)?(?=[\d½¼¾⅓⅔⅛])|\s+and\s+(?=[\d½¼¾⅓⅔⅛])/i);
  const parts = said.flatMap((t): Part[] => {
    const lead = leadingAmount(t.trim());
    if (!lead) return [];
    const { form, rest: material } = formIn(lead.rest);
    return [{ amount: lead.amount, material, form }];
  });
  if (parts.length < said.length || (parts.length < 2 && into === null)) return [];
  // Weights alone are a plain sum.
  return parts.some((p) => p.material !== "") || into !== null ? [{ kind: "together", parts, into }] : [];
}

function costs(text: string): Question[] {
  const m = /^(?:cost(?: of)?|what (?:do|does|would)) (?:(\d+)\s*(?:[x×*]\s*)?)?(.+?)(?: cost)?\??$/i.exec(text);
  return m ? [{ kind: "cost", units: Number(m[1] ?? 1), product: m[2]!.trim() }] : [];
}

function makes(text: string): Question[] {
  const m = /^(.+?) for (.+)$/i.exec(text);
  if (!m) return [];
  const units = /^(\d{1,5})\b/.exec(m[2]!);
  const weight = parseAmount(m[2]!);
  if (weight.ok) return [{ kind: "makes", product: m[1]!, units: null, weight: weight.value }];
  return units && m[2]!.replace(units[0], "").replace(POTS, "") === ""
    ? [{ kind: "makes", product: m[1]!, units: Number(units[1]), weight: null }]
    : [];
}

function fills(text: string): Question[] {
  const m = /^how many (.+?) (?:from|out of|in|of|will|does|do|can) (?:fill from )?(.+?)(?: fill| make)?\??$/i.exec(text);
  const each = m && leadingAmount(m[1]!);
  const whole = m && leadingAmount(m[2]!);
  return each && whole ? [{ kind: "fills", each: each.amount, container: each.rest, whole: whole.amount, of: whole.rest }] : [];
}

function who(text: string): Question[] {
  const m = /^(?:who (?:bought|has|got|took|had)|where (?:did|is|went)) (\S+)(?: go| gone)?\??$/i.exec(text);
  return m ? [{ kind: "who", lot: m[1]! }] : [];
}

function acts(text: string): Question[] {
  const lower = text.toLowerCase();
  return (Object.keys(ACT_WORDS) as ActWord[]).flatMap((act): Question[] => {
    const word = [...ACT_WORDS[act]].sort((a, b) => b.length - a.length).find((w) => lower === w || lower.startsWith(`${w} `));
    if (word === undefined) return [];
    const rest = text.slice(word.length).trim();
    const units = /^(\d{1,5})\s*(?:[x×*]\s*)?(?=\D)/.exec(rest);
    return [{ kind: "act", act, of: units ? rest.slice(units[0].length).trim() : rest, units: units ? Number(units[1]) : null }];
  });
}

function measures(text: string): Question[] {
  const out: Question[] = [];
  const split = /^(.+) (?:in|to|as) (.+)$/i.exec(text);
  const lead = split && leadingAmount(split[1]!);
  if (split && lead && lead.rest !== "") {
    const { form, rest } = formIn(lead.rest);
    const to = findUnit(split[2]!);
    if (to) out.push({ kind: "convert", amount: lead.amount, material: rest, form, to });
    else {
      const whole = parseAmount(split[2]!);
      if (whole.ok) out.push({ kind: "strength", amount: lead.amount, material: rest, form, whole: whole.value });
    }
  }
  const whole = leadingAmount(text);
  if (out.length === 0 && whole && whole.rest !== "") {
    const { form, rest } = formIn(whole.rest);
    out.push({ kind: "convert", amount: whole.amount, material: rest, form, to: null });
  }
  return out;
}

/**
 * Everything a line may be asking of the books, likeliest first; looking its words up always comes last.
 * @example readQuestions("30 drops lavender in 400 g")[0].kind // "strength"
 * @example readQuestions("60 g beeswax + 1 cup olive oil")[0].parts.length // 2
 * @example readQuestions("500 g into 16 pots")[0].into // 16
 * @example readQuestions("set out 24 hand balm")[0] // { kind: "act", act: "setOut", of: "hand balm", units: 24 }
 */
export function readQuestions(input: string): Question[] {
  const text = input.trim().replace(/\s+/g, " ");
  if (text === "") return [];
  const joined = together(text);
  return [
    ...costs(text),
    ...fills(text),
    ...who(text),
    ...joined,
    ...(joined.length > 0 ? [] : measures(text)),
    ...makes(text),
    ...acts(text),
    { kind: "find", text },
  ];
}
