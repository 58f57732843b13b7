/**
 * The reckon bar's small language: a line of the kind people mutter at the bench, read into a question.
 *
 *   2 1/2 cups olive oil in g        what it weighs or measures
 *   30 drops lavender in 400 g       how strong that is
 *   cost 60 × 2 oz hand balm         what so many units cost
 *   HB261125-1, or any other words   look it up
 */
import { parseAmount, type Amount } from "../measure/parse.ts";
import { findUnit, type UnitId } from "../measure/units.ts";

export type Question =
  | { kind: "convert"; amount: Amount; material: string; to: UnitId }
  | { kind: "strength"; amount: Amount; material: string; whole: Amount }
  | { kind: "cost"; units: number; product: string }
  | { kind: "find"; text: string };

/** Splits "2 1/2 cups olive oil" into its amount and the rest: the longest start that reads as an amount with a unit. */
function leadingAmount(text: string): { amount: Amount; rest: string } | null {
  const words = text.split(" ");
  for (let n = Math.min(words.length, 6); n >= 1; n--) {
    const amount = parseAmount(words.slice(0, n).join(" "));
    if (amount.ok) return { amount: amount.value, rest: words.slice(n).join(" ").replace(/^of /, "") };
  }
  return null;
}

/** @example readQuestion("30 drops lavender in 400 g").kind // "strength" */
export function readQuestion(input: string): Question {
  const text = input.trim().replace(/\s+/g, " ");
  const cost = /^cost\s+(\d+)\s*(?:[x×*]\s*)?(.+)$/i.exec(text);
  if (cost) return { kind: "cost", units: Number(cost[1]), product: cost[2]!.trim() };
  const split = /^(.+) (?:in|to|as) (.+)$/i.exec(text);
  const lead = split && leadingAmount(split[1]!);
  if (split && lead && lead.rest !== "") {
    const to = findUnit(split[2]!);
    if (to) return { kind: "convert", amount: lead.amount, material: lead.rest, to };
    const whole = parseAmount(split[2]!);
    if (whole.ok) return { kind: "strength", amount: lead.amount, material: lead.rest, whole: whole.value };
  }
  return { kind: "find", text };
}

/**
 * The name that fits a few typed words best: all words must start a word of it; fewer extra words win.
 * @example bestName("olive", [{ name: "Clay" }, { name: "Olive oil" }]).name // "Olive oil"
 */
export function bestName<T extends { name: string }>(query: string, of: readonly T[]): T | null {
  const plain = (s: string): string[] =>
    s
      .toLowerCase()
      .replace(/[^\p{L}\p{N} ]/gu, " ")
      .split(" ")
      .filter(Boolean);
  const wanted = plain(query);
  if (wanted.length === 0) return null;
  const fits = of
    .map((item) => ({ item, words: plain(item.name) }))
    .filter(({ words }) => wanted.every((w) => words.some((x) => x.startsWith(w))));
  fits.sort((a, b) => a.words.length - b.words.length || a.item.name.localeCompare(b.item.name));
  return fits[0]?.item ?? null;
}
