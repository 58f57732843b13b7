/** A list of suppliers, customers or markets: which column is which, and each row as somebody to add, or the words for why not. */
import type { Row } from "./columns.ts";

export const PEOPLE_FIELDS = {
  name: "Name",
  address: "Address",
  telephone: "Telephone",
  email: "E-mail",
  note: "Noted",
} as const;
export type PeopleField = keyof typeof PEOPLE_FIELDS;
export const PEOPLE_FIELD_IDS = Object.keys(PEOPLE_FIELDS) as PeopleField[];
/** Column number per field, or null where there is none. */
export type PeopleColumns = Record<PeopleField, number | null>;

/** Headings of each field, the surest first; each begins a word of the heading. */
const WORDS: Record<PeopleField, readonly string[]> = {
  email: ["e-mail", "email", "mail"],
  telephone: ["telephone", "phone", "mobile", "tel"],
  address: ["address", "where", "street", "how to reach", "reach", "contact details", "place", "town"],
  note: ["note", "remark", "comment", "about", "allerg"],
  name: ["name", "supplier", "customer", "market", "company", "shop", "who", "vendor", "client", "contact"],
};
const says = (heading: string, word: string): boolean => ` ${heading.toLowerCase()}`.includes(` ${word}`);

/** The row of headings is among the first. */
const SOUGHT_IN = 20;

export interface PeopleTable {
  /** "Column 2" where a column has no name. */
  header: string[];
  rows: Row[];
  columns: PeopleColumns;
}

/**
 * The headings of a list, and what its columns are by them. A list without headings has names in its first column.
 * @example peopleTable([{ at: 1, cells: ["Company", "Phone"] }, { at: 2, cells: ["Mill", "0555"] }]).columns.telephone // 1
 */
export function peopleTable(all: readonly Row[]): PeopleTable {
  const columnsOf = (cells: readonly string[]): PeopleColumns => {
    const taken = new Set<number>();
    return Object.fromEntries(
      (Object.keys(WORDS) as PeopleField[]).map((f) => {
        // The surest word first, wherever its column is.
        const at = WORDS[f].map((w) => cells.findIndex((c, i) => !taken.has(i) && says(c, w))).find((i) => i >= 0) ?? null;
        if (at !== null) taken.add(at);
        return [f, at];
      }),
    ) as PeopleColumns;
  };
  const score = (r: Row): number => Object.values(columnsOf(r.cells)).filter((c) => c !== null).length;
  const scores = all.slice(0, SOUGHT_IN).map(score);
  const best = Math.max(0, ...scores);
  // One word alone may be somebody's name: "Shop at the mill".
  const at = best >= 2 ? scores.indexOf(best) : /^names?$/i.test(all[0]?.cells.find((c) => c !== "") ?? "") ? 0 : -1;
  const width = all.reduce((most, r) => Math.max(most, r.cells.length), 0);
  const names = at < 0 ? [] : all[at]!.cells;
  return {
    header: Array.from({ length: width }, (_, i) => names[i] || `Column ${i + 1}`),
    rows: all.slice(at + 1),
    columns: at < 0 ? { ...columnsOf([]), name: 0 } : columnsOf(names),
  };
}

export interface Person {
  /** Row of the file, counted from 1. */
  row: number;
  name: string;
  /** Address, telephone and e-mail, line by line. */
  reach: string;
  note: string;
}

/** As long as what is typed may be. */
export const LONGEST_PERSON = { name: 120, reach: 200, note: 1000 } as const;
const LABELS: Record<keyof typeof LONGEST_PERSON, string> = { name: "name", reach: "way to reach them", note: "note" };

/**
 * Every row as somebody to add.
 * @param known how those are called who are in the books already, in small letters
 * @returns those who are new; those who are known already, or named twice; and rows that can't be read
 * @example readPeople([{ at: 2, cells: ["Mill"] }], { name: 0, address: null, telephone: null, email: null, note: null }, new Set(["mill"])).there // [{ row: 2, name: "Mill", reach: "", note: "" }]
 */
export function readPeople(rows: readonly Row[], columns: PeopleColumns, known: ReadonlySet<string>) {
  const fresh: Person[] = [];
  const there: Person[] = [];
  const problems: { row: number; say: string }[] = [];
  const seen = new Map<string, number>();
  for (const { at, cells } of rows) {
    const text = (f: PeopleField): string => (columns[f] === null ? "" : (cells[columns[f]] ?? "").replace(/\s+/g, " ").trim());
    const person: Person = {
      row: at,
      name: text("name"),
      reach: (["address", "telephone", "email"] as const).map(text).filter(Boolean).join("\n"),
      note: text("note"),
    };
    const called = person.name.toLowerCase();
    const long = (Object.keys(LONGEST_PERSON) as (keyof typeof LONGEST_PERSON)[]).find((f) => person[f].length > LONGEST_PERSON[f]);
    if (person.name === "") problems.push({ row: at, say: "Nobody is named." });
    else if (long)
      problems.push({ row: at, say: `The ${LABELS[long]} of “${person.name.slice(0, 20)}…” is over ${LONGEST_PERSON[long]} characters.` });
    else if (known.has(called)) there.push(person);
    else if (seen.has(called)) problems.push({ row: at, say: `“${person.name}” is in row ${seen.get(called)} already.` });
    else {
      seen.set(called, at);
      fresh.push(person);
    }
  }
  return { fresh, there, problems };
}
