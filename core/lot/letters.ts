/** Letters for a recipe's lot numbers, taken from its name. */

const MOST = 4;
/** Words that say nothing of what it is. */
const SMALL = /^(?:a|an|and|for|in|my|of|the|to|with)$/i;

/**
 * The initials of a name; where another recipe has them, with one more of its letters.
 * @param taken letters other recipes have
 * @returns one to four capital letters; empty where the name has none, or all are taken
 * @example lotLetters("Salve of the first frost", []) // "SFF"
 * @example lotLetters("Hand balm", ["HB"]) // "HBA"
 */
export function lotLetters(name: string, taken: readonly string[]): string {
  const words = (
    name
      .normalize("NFD")
      .replace(/\p{M}/gu, "")
      .match(/[A-Za-z]+/g) ?? []
  )
    .filter((w) => !SMALL.test(w))
    .map((w) => w.toUpperCase());
  if (words.length === 0) return "";
  const initials = words
    .slice(0, 3)
    .map((w) => w[0]!)
    .join("");
  const first = words.length === 1 ? words[0]!.slice(0, 2) : initials;
  // One letter more out of the last word, then of the alphabet.
  const more = Array.from(`${words.at(-1)!.slice(1)}ABCDEFGHIJKLMNOPQRSTUVWXYZ`);
  return [first, ...more.map((letter) => `${first}${letter}`)].find((l) => l.length <= MOST && !taken.includes(l)) ?? "";
}
