/** What the names of a list mean: materials of the shelf, and those that are to be put on it first. */
import { finder } from "#core/find";
import type { Known } from "#core/intake/goods";
import { KIND_IDS, KINDS, type KindId } from "#core/material/kinds";
import { LIBRARY, libraryEntry } from "#core/material/library";
import type { MaterialChoice } from "#core/recipe/written";
import type { MaterialRow } from "#db/shelf/materials";
import type { NewMaterial } from "#db/shelf/receipts/receive";

const findInLibrary = finder(LIBRARY, (e) => ({ name: e.name, also: e.inci }));

/** The library's entries that names seem to mean, by name; nothing of those that mean none. */
export const libraryMeant = (names: readonly { name: string }[]): Record<string, { key: string; name: string }> =>
  Object.fromEntries(names.flatMap(({ name }) => findInLibrary(name, 1).map((e) => [name, { key: e.key, name: e.name }] as const)));

export interface Names {
  /** By lower-case name. */
  known: ReadonlyMap<string, Known>;
  /** Materials to add first; a line's number below zero means one of them. */
  add: NewMaterial[];
}

const NOBODY = { dropsPerMl: null, pieceMg: null };
const NEW = /^(kind|library):(.+)$/;

/** @param matches names the shelf doesn't know: a material's name to take one for, `library:jojoba`, or `kind:oil` to add it as one */
export function namesOf(materials: readonly MaterialRow[], matches: Partial<Record<string, string>>): Names {
  const known = new Map<string, Known>(materials.map((m) => [m.name.toLowerCase(), m]));
  const add: NewMaterial[] = [];
  const mean = (name: string, m: Omit<Known, "id" | "pieceMg">, added: NewMaterial): void => {
    add.push(added);
    // A placeholder until it is added: a number below zero no material has.
    const standIn = { ...NOBODY, ...m, id: -add.length };
    known.set(name.toLowerCase(), standIn);
    // Two spellings of one entry are one material.
    known.set(m.name.toLowerCase(), standIn);
  };
  for (const [name, said] of Object.entries(matches)) {
    // What was added meanwhile needs no meaning any more.
    if (!said || known.has(name.toLowerCase())) continue;
    const [, how, what] = NEW.exec(said) ?? [];
    const match = known.get(said.toLowerCase());
    const entry = how === "library" ? libraryEntry(what!) : null;
    if (match) known.set(name.toLowerCase(), match);
    else if (entry) {
      const there = known.get(entry.name.toLowerCase());
      if (there) known.set(name.toLowerCase(), there);
      else mean(name, entry, { libraryKey: entry.key });
    } else if (how === "kind" && (KIND_IDS as string[]).includes(what!)) {
      const kind = what as KindId;
      mean(name, { name, kind, densities: KINDS[kind].start, dropsPerMl: null }, { name, kind });
    }
  }
  return { known, add };
}

/** What nothing but the weighing of a recipe asks for isn't known of a material that is yet to be added. */
const UNTOLD: Omit<MaterialChoice, keyof Known> = {
  ...{ brimMl: null, usableMl: null, innerMm: null, fillMm: null },
  ...{ libraryKey: null, meltFrom: null, meltTo: null, makeup: [] },
  ...{ cautions: [], allergen: "", keepsSealed: null, scentNote: "" },
};

/** The same materials as a recipe's sheet takes them, by lower-case name. @param known as `namesOf` found them */
export function choicesNamed(materials: readonly MaterialRow[], known: ReadonlyMap<string, Known>): Map<string, MaterialChoice> {
  const rows = new Map(materials.map((m) => [m.id, m]));
  return new Map([...known].map(([name, m]) => [name, rows.get(m.id) ?? { ...UNTOLD, ...m }]));
}
