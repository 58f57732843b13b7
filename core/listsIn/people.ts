/** A list of suppliers, customers or markets: each row as somebody to add, or the words for why not. */
import type { ListRead, ListRow, ListSpec, RowProblem } from "./list.ts";

export type PeopleField = "name" | "address" | "telephone" | "email" | "note";

export const PEOPLE: ListSpec<PeopleField> = {
  fields: { name: "Name", address: "Address", telephone: "Telephone", email: "E-mail", note: "Noted" },
  words: {
    email: ["e-mail", "email", "mail"],
    telephone: ["telephone", "phone", "mobile", "tel"],
    address: ["address", "where", "street", "how to reach", "reach", "contact details", "place", "town"],
    note: ["note", "remark", "comment", "about", "allerg"],
    name: ["name", "supplier", "customer", "market", "company", "shop", "who", "vendor", "client", "contact"],
  },
  first: "name",
  needed: ["name"],
  group: null,
  carried: [],
  figures: [],
  days: {},
};

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
 * @returns those who are new; those who are known already; and rows that can't be read, or name somebody twice
 * @example readPeople([{ at: 2, whole: "Mill", text: (f) => (f === "name" ? "Mill" : ""), above: [] }], new Set(["mill"])).there // [{ row: 2, name: "Mill" }]
 */
export function readPeople(rows: readonly ListRow<PeopleField>[], known: ReadonlySet<string>): ListRead<Person> {
  const fresh: Person[] = [];
  const there: { row: number; name: string }[] = [];
  const problems: RowProblem[] = [];
  const seen = new Map<string, number>();
  for (const { at, text } of rows) {
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
    else if (known.has(called)) there.push({ row: at, name: person.name });
    else if (seen.has(called)) problems.push({ row: at, say: `“${person.name}” is in row ${seen.get(called)} already.` });
    else {
      seen.set(called, at);
      fresh.push(person);
    }
  }
  return { fresh, there, problems, unknown: [], remarks: [] };
}
