/** Names are found by any word, in any order, with a slip; and what is those words comes before what contains them. */
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { finder, type Findable } from "./find.ts";
import { LIBRARY } from "./material/library.ts";

const inLibrary = finder(LIBRARY, (e) => ({ name: e.name, also: `${e.inci} ${e.botanical}` }));
const found = (question: string): string[] => inLibrary(question).map((e) => e.name);
const among = (names: readonly (string | Findable)[], question: string): string[] =>
  finder(
    names.map((n) => (typeof n === "string" ? { name: n } : n)),
    (n) => n,
  )(question).map((n) => n.name);

describe("in the library", () => {
  it.each([
    ["olive", "Olive oil"],
    ["oil olive", "Olive oil"],
    ["beswax", "Beeswax, yellow"],
    ["bees wax", "Beeswax, yellow"],
    ["sunflwoer", "Sunflower wax"],
    ["lavander oil", "Lavender essential oil"],
    ["shea refined", "Shea butter, refined"],
    ["cocoa but", "Cocoa butter, raw"],
    ["60 ml tin", "Screw tin, 60 mL (2 oz)"],
    ["2 oz tin", "Screw tin, 60 mL (2 oz)"],
    ["label rond", "Round label, 38 mm"],
    ["CALENDULA", "Calendula petals, dried"],
    ["vit e", "Vitamin E, natural"],
    ["butyrospermum", "Shea butter, unrefined"],
    ["salvia rosmarinus", "Rosemary leaf, dried"],
  ])("%s is %s", (question, want) => expect(found(question)[0]).toBe(want));
  it("every entry is first or beside another of its words, by its whole name, backwards, and with a letter swapped", () => {
    const swapped = (word: string): string =>
      word.length < 6 || word.includes("'") ? word : word.slice(0, 3) + word[4]! + word[3]! + word.slice(5);
    for (const { name } of LIBRARY) {
      expect(found(name)[0], name).toBe(name);
      const words = name.match(/[\p{L}\d']+/gu)!;
      expect(found([...words].reverse().join(" ")), name).toContain(name);
      expect(found(words.map(swapped).join(" ")), name).toContain(name);
    }
  });
});

describe("the order", () => {
  it.each([
    [
      "what is those words before what begins with them, and that before what contains them",
      "olive oil",
      ["Olive oil, light", "Calendula in olive oil", "Olive oil"],
      ["Olive oil", "Olive oil, light", "Calendula in olive oil"],
    ],
    ["whole words before begun ones", "rose", ["Rosemary", "Damask rose", "Rose"], ["Rose", "Damask rose", "Rosemary"]],
    ["the name before its other words", "cera", [{ name: "Beeswax", also: "Cera Alba" }, "Cera mix"], ["Cera mix", "Beeswax"]],
    [
      "what is there first, among names that fit alike",
      "lavender",
      ["Lavender buds", { name: "Lavender oil", first: true }],
      ["Lavender oil", "Lavender buds"],
    ],
    ["a slip comes last", "mint", ["Mnit tea", "Mint"], ["Mint", "Mnit tea"]],
    ["accents and case are no difference", "creme BRULEE", ["Crème brûlée"], ["Crème brûlée"]],
    ["nothing asked: all, as they stand", "  ", ["B", "A"], ["B", "A"]],
    ["nothing like it", "xyzzy", ["Olive oil"], []],
  ] as const)("%s", (_, question, names, want) => expect(among(names, question)).toEqual(want));
  it("whatever is asked, nothing is found twice, and no more than wanted", () => {
    fc.assert(
      fc.property(
        fc.array(fc.string({ maxLength: 12 }), { maxLength: 30 }),
        fc.string({ maxLength: 12 }),
        fc.nat(5),
        (names, question, most) => {
          const items = names.map((name, i) => ({ name, i }));
          const got = finder(items, (n) => n)(question, most);
          expect(new Set(got).size).toBe(got.length);
          expect(got.length).toBeLessThanOrEqual(most);
        },
      ),
    );
  });
});
