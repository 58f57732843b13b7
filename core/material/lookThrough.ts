/**
 * A material with all its cautions and allergens: its own, its library entry's, and of a base those of what is in it. On the server, so that no
 * page has to carry the library.
 */
import { staysSaid, type CautionId } from "./cautions.ts";
import { libraryEntry } from "./library.ts";
import type { MadeOf } from "./makeup.ts";

interface Looked {
  libraryKey: string | null;
  cautions: readonly CautionId[];
  allergen: string;
  makeup: readonly MadeOf[];
}

const unique = <T>(all: readonly T[]): T[] => [...new Set(all)];
const named = (text: string): string[] => text.split(", ").filter(Boolean);

/**
 * The same material, looked through. An allergen stays the maker's word: one that was taken out of a material isn't put back.
 * @example lookThrough({ libraryKey: "eo-clary-sage", cautions: [], allergen: "", makeup: [] }).cautions // ["pregnancy", "flammable"]
 */
export const lookThrough = <T extends Looked>(m: T): T => {
  const parts = m.makeup.flatMap((p) => libraryEntry(p.libraryKey) ?? []);
  return {
    ...m,
    cautions: unique([
      ...m.cautions,
      ...(libraryEntry(m.libraryKey)?.cautions ?? []),
      ...parts.flatMap((p) => p.cautions.filter(staysSaid)),
    ]),
    allergen: unique([...named(m.allergen), ...parts.flatMap((p) => named(p.allergen))]).join(", "),
  };
};
