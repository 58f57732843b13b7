/**
 * Finding what is meant among names: any of its words, in any order, with a slip of a letter; and what *is* those words before what merely
 * contains them.
 *
 * Matching, slips included, is uFuzzy's; the order of what it finds is ours.
 */
import UFuzzy from "@leeoniya/ufuzzy";

/** A name to be found by, and other words that stand for the same thing (an INCI name, a lot number). */
export interface Findable {
  name: string;
  also?: string;
  /** Preferred among names that fit alike: what is on hand, what was used last. */
  first?: boolean;
}

// The package names this value only in a type, which isn't there at run time.
// eslint-disable-next-line @typescript-eslint/no-unsafe-enum-assignment
const SINGLE_ERROR = 1 as UFuzzy.IntraMode.SingleError;
const fuzzy = new UFuzzy({
  unicode: true,
  interSplit: "[^\\p{L}\\d']+",
  intraSplit: "\\p{Ll}\\p{Lu}",
  intraBound: "\\p{L}\\d|\\d\\p{L}|\\p{Ll}\\p{Lu}",
  intraChars: "[\\p{L}\\d']",
  intraContr: "'\\p{L}{1,2}\\b",
  // One slip in each word: a letter more, less, wrong or swapped.
  intraMode: SINGLE_ERROR,
  intraIns: 1,
  intraSub: 1,
  intraTrn: 1,
  intraDel: 1,
});
/** More words than this are looked for in the order they were typed. */
const WORDS_IN_ANY_ORDER = 5;

/** Lower case, without accents. @example plain("Crème brûlée") // "creme brulee" */
export const plain = (text: string): string => text.normalize("NFD").replace(/\p{M}/gu, "").toLowerCase();
const wordsOf = (text: string): string[] => text.match(/[\p{L}\d']+/gu) ?? [];

/** How well a name is what was asked: the lower, the better. */
const FIT = { same: 0, starts: 1, whole: 2, begun: 3, inside: 4, also: 5, slip: 6 } as const;

function fitOf(asked: readonly string[], name: string, also: string): number {
  const words = wordsOf(name);
  const all = (fits: (a: string) => boolean): boolean => asked.every(fits);
  if (asked.length === words.length && asked.every((a, i) => words[i] === a)) return FIT.same;
  if (asked.every((a, i) => words[i] === a)) return FIT.starts;
  if (all((a) => words.includes(a))) return FIT.whole;
  if (all((a) => words.some((w) => w.startsWith(a)))) return FIT.begun;
  if (all((a) => name.includes(a))) return FIT.inside;
  return all((a) => name.includes(a) || also.includes(a)) ? FIT.also : FIT.slip;
}

/**
 * Gets names ready to be searched many times.
 * @param textOf what an item is found by
 * @returns what fits a question, best first; everything, as it stands, for an empty one
 * @example finder([{ name: "Olive leaf, dried" }, { name: "Olive oil" }], (m) => m)("olive")[0].name // "Olive oil"
 * @example finder([{ name: "Shea butter" }, { name: "Cocoa butter" }], (m) => m)("buter shea").map((m) => m.name) // ["Shea butter"]
 */
export function finder<T>(items: readonly T[], textOf: (item: T) => Findable): (question: string, most?: number) => T[] {
  const texts = items.map((item) => {
    const { name, also = "", first = false } = textOf(item);
    return { item, name: plain(name), also: plain(also), first };
  });
  const hay = texts.map((t) => `${t.name} ${t.also}`);
  return (question, most = Infinity) => {
    const asked = wordsOf(plain(question));
    if (asked.length === 0) return items.slice(0, most);
    const [found] = fuzzy.search(hay, asked.join(" "), WORDS_IN_ANY_ORDER);
    return (found ?? [])
      .map((i) => ({ ...texts[i]!, fit: fitOf(asked, texts[i]!.name, texts[i]!.also), i }))
      .sort((a, b) => a.fit - b.fit || Number(b.first) - Number(a.first) || wordsOf(a.name).length - wordsOf(b.name).length || a.i - b.i)
      .slice(0, most)
      .map((t) => t.item);
  };
}
