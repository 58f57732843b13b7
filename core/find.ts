/**
 * Finding what is meant among names: any of its words, in any order, with a slip of a letter; and what *is* those words before what merely
 * contains them.
 *
 * Matching, slips included, is uFuzzy's; the order of what it finds is ours.
 */
import UFuzzy from "@leeoniya/ufuzzy";

/** A name to be found by, and other words for the same thing (an INCI name, a lot number). */
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
/** Lower case, without accents. @example plain("Crème brûlée") // "creme brulee" */
export const plain = (text: string): string => text.normalize("NFD").replace(/\p{M}/gu, "").toLowerCase();
const wordsOf = (text: string): string[] => text.match(/[\p{L}\d']+/gu) ?? [];

/** How far a name is from a word that was asked for: the word itself, one that begins so or holds it, another of its words, or a slip. */
const FAR = { whole: 0, begun: 1, inside: 2, also: 3, slip: 4 } as const;

function farFrom(word: string, words: readonly string[], { name, also }: { name: string; also: string }): number {
  if (words.includes(word)) return FAR.whole;
  if (words.some((w) => w.startsWith(word))) return FAR.begun;
  if (name.includes(word)) return FAR.inside;
  return also.includes(word) ? FAR.also : FAR.slip;
}

/** The lower, the better: a name that is those words, then one that starts with them, then by how far it is from each. */
function rankOf(asked: readonly string[], text: { name: string; also: string }): readonly number[] {
  const words = wordsOf(text.name);
  const starts = asked.every((a, i) => words[i] === a);
  return [
    starts && words.length === asked.length ? 0 : starts ? 1 : 2,
    asked.reduce((far, a) => far + farFrom(a, words, text), 0),
    words.length,
  ];
}

/**
 * Gets names ready to be searched many times.
 * @param textOf what an item is found by
 * @returns what fits a question, best first; everything, in its own order, for an empty one
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
    // Each word by itself, so that their order is no matter.
    const found = asked.reduce<number[] | null>(
      (left, word) => (left?.length === 0 ? [] : (fuzzy.filter(hay, word, left ?? undefined) ?? [])),
      null,
    );
    return (found ?? [])
      .map((i) => ({ ...texts[i]!, i, rank: rankOf(asked, texts[i]!) }))
      .sort(
        (a, b) =>
          a.rank[0]! - b.rank[0]! || a.rank[1]! - b.rank[1]! || Number(b.first) - Number(a.first) || a.rank[2]! - b.rank[2]! || a.i - b.i,
      )
      .slice(0, most)
      .map((t) => t.item);
  };
}
