/** Which material of the shelf a few words mean: one, one of several, or none. */
import { finder, plain } from "../../find.ts";
import type { MaterialFacts } from "../../material/facts.ts";

/** A material as a scribbled line may mean it. */
export interface Meant extends MaterialFacts {
  /** Other words for it: its INCI and botanical names. */
  also: string;
  /** Its key where it isn't on the shelf but in the library. */
  library?: string;
}

export type Matched = { sure: Meant } | { among: Meant[] };

/** What makers write of a material that is no part of its name on a shelf. */
const QUALITIES = new Set(
  "extra virgin unrefined refined raw pure natural cold pressed coldpressed filtered deodorised deodorized carrier infused herbal white yellow dried fresh powdered whipped a an the or and your any".split(
    " ",
  ),
);
const wordsOf = (text: string): string[] => plain(text).match(/[\p{L}\d']+/gu) ?? [];
const MOST = 6;

/**
 * @returns a function from words to what they may mean
 * @example matcher([meant("Olive oil", "oil")])("extra virgin olive oil").sure.name // "Olive oil"
 */
export function matcher(materials: readonly Meant[]): (words: string) => Matched {
  const byName = new Map(materials.map((m) => [plain(m.name), m]));
  const find = finder(materials, (m) => ({ name: m.name, also: m.also }));
  const texts = new Map(materials.map((m) => [m, plain(`${m.name} ${m.also}`)]));
  const holds = (m: Meant, words: readonly string[]): boolean => words.every((w) => texts.get(m)!.includes(w.replace(/s$/, "")));
  const starts = (m: Meant, words: readonly string[]): boolean => words.every((w, i) => wordsOf(m.name)[i] === w);

  const among = (words: readonly string[]): Matched | null => {
    if (words.length === 0) return null;
    const found = find(words.join(" "), MOST * 2);
    if (found.length === 0) return null;
    const sure = found.filter((m) => holds(m, words));
    if (sure.length === 1) return { sure: sure[0]! };
    // "hemp oil" is the oil, though hemp butter has oil among its other names.
    const named = sure.filter((m) => words.every((w) => wordsOf(m.name).includes(w)));
    if (words.length > 1 && named.length === 1) return { sure: named[0]! };
    const first = sure.filter((m) => starts(m, words));
    if (first.length === 1) return { sure: first[0]! };
    return { among: (sure.length > 0 ? sure : found).slice(0, MOST) };
  };

  return (text) => {
    const exact = byName.get(plain(text.trim()));
    if (exact) return { sure: exact };
    const words = wordsOf(text);
    const inText = new Set(words);
    return (
      among(words) ??
      among(words.filter((w) => !QUALITIES.has(w))) ??
      // "vitamin E oil" of what is no oil by name; never sure, as rosehip oil is no rosehip.
      asked(among(words.filter((w) => w !== "oil" && !QUALITIES.has(w)))) ??
      // "lavender buds for colour": a material all of whose own words stand in the line.
      within(materials.filter((m) => wordsOf(m.name.split(",")[0]!).every((w) => inText.has(w)))) ?? { among: [] }
    );
  };
}

const asked = (m: Matched | null): Matched | null => (m && "sure" in m ? { among: [m.sure] } : m);
const within = (found: Meant[]): Matched | null => (found.length === 0 ? null : { among: found.slice(0, MOST) });
