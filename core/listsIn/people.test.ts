/** Lists of people as makers have them: with headings or without, twice the same, known already. */
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { listRows, listTable } from "./list.ts";
import { LONGEST_PERSON, PEOPLE, readPeople } from "./people.ts";
import { readRows } from "../intake/table.ts";

const table = (text: string) => {
  const rows = readRows(text, { least: 1 });
  if (!rows.ok) throw new Error(rows.problem.say);
  return listTable(rows.value, PEOPLE);
};
const read = (text: string, known: string[] = []) => {
  const t = table(text);
  const { fresh, there, problems } = readPeople(listRows(t.rows, t.columns, PEOPLE).rows, new Set(known));
  return { fresh, there, problems };
};

describe("which column is which", () => {
  it.each<[string, string, object, number]>([
    ["plain headings", "Name;Address;Phone;E-mail;Notes\na;b;c;d;e", { name: 0, address: 1, telephone: 2, email: 3, note: 4 }, 1],
    [
      "other words, another order, a title",
      "My people;;\nE-mail address;Company;Mobile\na;b;c",
      { name: 1, address: null, telephone: 2, email: 0, note: null },
      1,
    ],
    [
      "our own list's",
      "name,where to order,noted,bought from,last,put away\na,b,c,1,,no",
      { name: 0, address: 1, telephone: null, email: null, note: 2 },
      1,
    ],
    ["no headings", "Wether Mill;0555\nPress house;0556", { name: 0, address: null, telephone: null, email: null, note: null }, 2],
    ["one column of names", "Name\nWether Mill\nShop at the mill", { name: 0, address: null, telephone: null, email: null, note: null }, 2],
    [
      "one column without a heading",
      "Shop at the mill\nWether Mill",
      { name: 0, address: null, telephone: null, email: null, note: null },
      2,
    ],
  ])("%s", (_, text, columns, rows) => {
    const t = table(text);
    expect([t.columns, t.rows.length]).toEqual([columns, rows]);
  });
});

describe("a row", () => {
  it("is somebody new, somebody known, or said why not; how to reach them is in lines", () =>
    expect(
      read(
        `name;address;phone;mail;note\nMill;Lane 3;0555;m@x.example;ask\nmill;;;;\n;Lane 4;;;\nChoir;;;;\n${"x".repeat(121)};;;;\nFair;${"y".repeat(201)};;;`,
        ["choir"],
      ),
    ).toEqual({
      fresh: [{ row: 2, name: "Mill", reach: "Lane 3\n0555\nm@x.example", note: "ask" }],
      there: [{ row: 5, name: "Choir" }],
      problems: [
        { row: 3, say: "“mill” is in row 2 already." },
        { row: 4, say: "Nobody is named." },
        { row: 6, say: `The name of “${"x".repeat(20)}…” is over 120 characters.` },
        { row: 7, say: "The way to reach them of “Fair…” is over 200 characters." },
      ],
    }));
  it("is never lost: each is new, known or said why not, and nobody is new twice", () => {
    const name = fc.constantFrom("Mill", "mill", "Choir", "Fair", "", "x".repeat(LONGEST_PERSON.name + 1));
    fc.assert(
      fc.property(fc.array(name, { minLength: 1, maxLength: 20 }), (names) => {
        const rows = names.map((n, i) => ({ at: i + 2, cells: [n] }));
        const columns = { name: 0, address: null, telephone: null, email: null, note: null };
        const { fresh, there, problems } = readPeople(listRows(rows, columns, PEOPLE).rows, new Set(["choir"]));
        expect([...fresh, ...there, ...problems].map((p) => p.row).sort((a, b) => a - b)).toEqual(rows.map((r) => r.at));
        expect(new Set(fresh.map((p) => p.name.toLowerCase())).size).toBe(fresh.length);
        expect(fresh.some((p) => p.name === "Choir")).toBe(false);
      }),
    );
  });
});
