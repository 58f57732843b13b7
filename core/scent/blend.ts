/** Building a blend: from proportions of its notes, or of its oils, to how much of it each oil is. */
import { NOTE_IDS, type ScentNote } from "../material/senses.ts";
import { parseNumber } from "../measure/parse.ts";
import { done, refuse, type Outcome } from "../outcome.ts";

/** Proportions a blend is often begun with, top : middle : base (common practice, no source). */
export const USUAL_NOTES = "3 : 2 : 1";

export interface BlendOil {
  name: string;
  note: ScentNote;
  weight: number;
}

/**
 * Proportions as makers say them, so many of them and each more than nothing.
 * @example readParts("3 : 2 : 1", 3) // [3, 2, 1]
 * @example readParts("3/2,5/1", 3) // [3, 2.5, 1]
 */
export function readParts(text: string, many: number): Outcome<number[]> {
  const asked = refuse(
    "parts",
    `Enter ${many} number${many === 1 ? "" : "s"}, such as ${Array.from({ length: many }, (_, i) => many - i).join(" : ")}.`,
  );
  const said = text.trim().split(/\s*[:/;–-]\s*/);
  if (said.length !== many) return asked;
  const parts: number[] = [];
  for (const one of said) {
    const n = parseNumber(one);
    if (!n.ok) return asked;
    if (n.value.valueOf() <= 0)
      return refuse("parts", "Each is more than nothing; what isn't meant to be in it is taken out of the recipe.");
    parts.push(n.value.valueOf());
  }
  return done(parts);
}

/**
 * Oil by oil: parts as shares of the blend.
 * @example byOils([3, 1]) // [0.75, 0.25]
 */
export const byOils = (parts: readonly number[]): number[] => {
  const all = parts.reduce((a, p) => a + p, 0);
  return parts.map((p) => p / all);
};

/** The notes there are among some oils, top first. */
export const notesOf = (oils: readonly BlendOil[]): (typeof NOTE_IDS)[number][] => NOTE_IDS.filter((n) => oils.some((o) => o.note === n));

/**
 * By notes: each note its part, and the oils of one note to one another as they stand.
 * @param parts one for each note of `notesOf`, in its order; every oil has a note
 * @example byNotes([{ name: "Orange", note: "top", weight: 9 }, { name: "Cedar", note: "base", weight: 9 }], [3, 1]) // [0.75, 0.25]
 */
export function byNotes(oils: readonly BlendOil[], parts: readonly number[]): number[] {
  const notes = notesOf(oils);
  const of = byOils(parts);
  return oils.map(({ note, weight }) => {
    const alike = oils.reduce((a, o) => (o.note === note ? a + o.weight : a), 0);
    return (of[notes.findIndex((n) => n === note)]! * weight) / alike;
  });
}
